import { strToU8, zipSync } from 'fflate';
import { expect, test } from 'vitest';
import { writeWorkbook } from '../../exports/workbook';
import { openTable } from './workbook';
import type { Rows } from './rows';

const workbook = (rows: readonly (readonly string[])[], sheet = 'Pages') =>
	Buffer.concat([...writeWorkbook(rows, sheet)]);
const read = async (bytes: Buffer, sheet?: string) => (await openTable(bytes, sheet)) as Rows;

/** A workbook as other programs write it: sheets by name, each the markup of its rows. */
const MAIN = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
const RELATION = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
function foreign(sheets: Readonly<Record<string, string>>, more: Record<string, Uint8Array> = {}): Buffer {
	const names = Object.keys(sheets);
	const files: Record<string, string> = {
		'[Content_Types].xml': '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>',
		'xl/workbook.xml': `<workbook ${MAIN} xmlns:r="${RELATION}"><sheets>${names.map((name, at) => `<sheet name="${name}" sheetId="${at + 1}" r:id="r${at + 1}"/>`).join('')}</sheets></workbook>`,
		'xl/_rels/workbook.xml.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${names.map((_, at) => `<Relationship Id="r${at + 1}" Type="${RELATION}/worksheet" Target="worksheets/sheet${at + 1}.xml"/>`).join('')}<Relationship Id="s" Type="${RELATION}/styles" Target="styles.xml"/></Relationships>`,
		'xl/styles.xml': `<styleSheet ${MAIN}><cellXfs><xf numFmtId="0"/><xf numFmtId="14"/><xf numFmtId="22"/></cellXfs></styleSheet>`,
		...Object.fromEntries(
			Object.values(sheets).map((rows, at) => [
				`xl/worksheets/sheet${at + 1}.xml`,
				`<worksheet ${MAIN}><sheetData>${rows}</sheetData></worksheet>`
			])
		)
	};
	return Buffer.from(
		zipSync({ ...Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])), ...more })
	);
}
const text = (at: string, value: string) => `<c r="${at}" t="inlineStr"><is><t>${value}</t></is></c>`;

test('what is written is read as it was, every cell a text', async () => {
	const cells = [
		'007',
		'3.10',
		'1/2',
		'true',
		'=1+1',
		' a  b ',
		'Two\nlines',
		'日本 🦆 ’é',
		'<&">',
		'_x0041_',
		'',
		'#N/A'
	];
	const { columns, rows, odd, sheet, format } = await read(workbook([cells.map((_, at) => `c${at}`), cells], 'S/1'));
	expect([format, sheet, odd]).toEqual(['xlsx', 'S 1', []]);
	expect(columns).toHaveLength(cells.length);
	expect(Object.values(rows[0]!.cells)).toEqual(cells);
	expect(rows[0]!.line).toBe(2);
});

test('a column beyond Z, and 3,000 rows, in pieces', async () => {
	const head = Array.from({ length: 60 }, (_, at) => `h${at}`);
	const lines = Array.from({ length: 3000 }, (_, row) => head.map((_h, at) => `${row}/${at}`));
	const pieces = [...writeWorkbook([head, ...lines], 'P')];
	expect(pieces.length).toBeGreaterThan(5);
	const { rows } = await read(Buffer.concat(pieces));
	expect(rows).toHaveLength(3000);
	expect(rows[2999]!.cells.h59).toBe('2999/59');
});

test('of other programs: days, numbers, values of formulas, truth, the sheet that is asked for', async () => {
	const bytes = foreign({
		Cover: '',
		Walks: `<row r="2">${text('A2', 'Path')}${text('B2', 'Day')}${text('C2', 'Kilometres')}${text('D2', 'Free')}${text('E2', 'When')}</row><row r="4">${text('A4', '/a')}<c r="B4" s="1"><v>46145</v></c><c r="C4"><f>1+2.5</f><v>3.5</v></c><c r="D4" t="b"><v>1</v></c><c r="E4" s="2"><v>46145.75</v></c></row>`,
		More: `<row r="1">${text('A1', 'Path')}</row><row r="2">${text('A2', '/m')}${text('B2', 'beyond')}</row>`
	});
	const walks = await read(bytes);
	expect([walks.sheet, walks.sheets]).toEqual(['Walks', ['Cover', 'Walks', 'More']]);
	expect(walks.rows).toEqual([
		{
			line: 4,
			cells: { Path: '/a', Day: '2026-05-03', Kilometres: '3.5', Free: true, When: '2026-05-03T18:00:00' }
		}
	]);
	const more = await read(bytes, 'More');
	expect(more.odd).toEqual([{ line: 2, what: 'has cells beyond the headings, which are left out: “beyond”' }]);
	await expect(read(bytes, 'None')).rejects.toThrow('no sheet “None”. There are: Cover, Walks, More.');
	await expect(read(bytes, 'Cover')).rejects.toThrow('holds no rows');
});

test('what is no workbook, is locked, broken or a bomb is told', async () => {
	expect(await openTable(Buffer.from('path,title\n'))).toEqual(Buffer.from('path,title\n'));
	const old = Buffer.concat([Buffer.from('d0cf11e0a1b11ae1', 'hex'), Buffer.alloc(100)]);
	await expect(openTable(old)).rejects.toThrow('old workbook, or one under a password');
	const archive = Buffer.from(zipSync({ 'a.txt': strToU8('a') }));
	await expect(openTable(archive)).rejects.toThrow('no .xlsx workbook');
	const whole = workbook([['path'], ['/a']]);
	for (const length of [40, Math.floor(whole.length / 2), whole.length - 200])
		await expect(openTable(whole.subarray(0, length)), String(length)).rejects.toThrow(/workbook|archive/);
	const broken = foreign({ S: '<row r="1"><c r="A1"' });
	await expect(openTable(broken)).rejects.toThrow(/workbook cannot be read|holds no rows/);
	const zeros = new Uint8Array(61_000_000);
	const sheets = Array.from({ length: 10 }, (_, at) => [`xl/worksheets/sheet${at + 2}.xml`, zeros]);
	const bomb = foreign({ S: '' }, Object.fromEntries(sheets) as Record<string, Uint8Array>);
	await expect(openTable(bomb)).rejects.toThrow('unpacks to more than 600 MB');
});
