import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';

/**
 * Writes a table as a workbook (ISO/IEC 29500, `.xlsx`), a piece at a time: programs that are made for it hold all cells
 * at once. Every cell is a text, and is kept as one when it is written anew: `007` stays `007`.
 */
export function* writeWorkbook(rows: Iterable<readonly string[]>, sheet: string): Generator<Uint8Array> {
	const pieces: Uint8Array[] = [];
	const archive = new Zip((error, piece) => {
		if (error) throw error;
		pieces.push(piece);
	});
	const add = (name: string, text: string) => {
		const file = new ZipPassThrough(name);
		archive.add(file);
		file.push(strToU8(HEAD + text), true);
	};
	for (const [name, text] of Object.entries(PARTS)) add(name, text);
	add('xl/workbook.xml', workbookOf(sheet));
	const file = new ZipDeflate('xl/worksheets/sheet1.xml', { level: 6 });
	archive.add(file);
	let [waiting, line] = [HEAD + SHEET_START, 0];
	for (const cells of rows) {
		waiting += rowOf(cells, ++line);
		if (waiting.length < PIECE) continue;
		file.push(strToU8(waiting));
		waiting = '';
		yield* pieces.splice(0);
	}
	file.push(strToU8(waiting + SHEET_END), true);
	archive.end();
	yield* pieces.splice(0);
}

/** Text (UTF-16 code units) that is packed at a time. */
const PIECE = 1 << 18;

const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const RELATIONS = 'http://schemas.openxmlformats.org/package/2006/relationships';
const DOCUMENT = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const TYPES = 'application/vnd.openxmlformats-officedocument.spreadsheetml';

/** What does not depend on the table. Format 49 is that of texts (18.8.30); the first row stays in view. */
const PARTS: Readonly<Record<string, string>> = {
	'[Content_Types].xml': `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="${TYPES}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="${TYPES}.worksheet+xml"/><Override PartName="/xl/styles.xml" ContentType="${TYPES}.styles+xml"/></Types>`,
	'_rels/.rels': `<Relationships xmlns="${RELATIONS}"><Relationship Id="r1" Type="${DOCUMENT}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
	'xl/_rels/workbook.xml.rels': `<Relationships xmlns="${RELATIONS}"><Relationship Id="r1" Type="${DOCUMENT}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="r2" Type="${DOCUMENT}/styles" Target="styles.xml"/></Relationships>`,
	'xl/styles.xml': `<styleSheet xmlns="${MAIN}"><fonts count="2"><font><sz val="11"/></font><font><b/><sz val="11"/></font></fonts><fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf numFmtId="0" fontId="0" fillId="0" borderId="0"/></cellStyleXfs><cellXfs count="3"><xf numFmtId="0" fontId="0" fillId="0" borderId="0" xfId="0"/><xf numFmtId="49" fontId="0" fillId="0" borderId="0" xfId="0" applyNumberFormat="1"/><xf numFmtId="49" fontId="1" fillId="0" borderId="0" xfId="0" applyNumberFormat="1" applyFont="1"/></cellXfs></styleSheet>`
};
const [TEXT, HEADING] = [1, 2];
const SHEET_START = `<worksheet xmlns="${MAIN}"><sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews><cols><col min="1" max="16384" width="34" style="${TEXT}" customWidth="1"/></cols><sheetData>`;
const SHEET_END = '</sheetData></worksheet>';

const workbookOf = (sheet: string) =>
	`<workbook xmlns="${MAIN}" xmlns:r="${DOCUMENT}"><sheets><sheet name="${escape(sheet.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31))}" sheetId="1" r:id="r1"/></sheets></workbook>`;

function rowOf(cells: readonly string[], line: number): string {
	const style = line === 1 ? HEADING : TEXT;
	let row = `<row r="${line}">`;
	cells.forEach((cell, at) => {
		if (cell !== '')
			row += `<c r="${nameOfColumn(at)}${line}" s="${style}" t="inlineStr"><is><t xml:space="preserve">${escape(cell)}</t></is></c>`;
	});
	return `${row}</row>`;
}

/** `A` to `Z`, then `AA`. */
function nameOfColumn(at: number): string {
	const letter = String.fromCharCode(65 + (at % 26));
	return at < 26 ? letter : nameOfColumn(Math.floor(at / 26) - 1) + letter;
}

const ESCAPES: ReadonlyMap<string, string> = new Map([
	['&', '&amp;'],
	['<', '&lt;'],
	['>', '&gt;'],
	['"', '&quot;']
]);
/** Signs that no XML holds are left out; what reads like an escape of workbooks (22.9.2.19) is escaped. */
const escape = (text: string) =>
	text
		.toWellFormed()
		.replace(/[\x00-\x08\x0B\x0C\x0E-\x1F\uFFFE\uFFFF]/g, '')
		.replace(/_(?=x[0-9A-Fa-f]{4}_)/g, '_x005F_')
		.replace(/[&<>"]/g, (sign) => ESCAPES.get(sign)!);
