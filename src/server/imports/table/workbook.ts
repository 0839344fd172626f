import { Unzip, UnzipInflate } from 'fflate';
import type { FieldValue } from '$core';
import { refuse } from '../../errors';
import { named, refuseCount, type Row, type Rows } from './rows';

/** Workbooks of spreadsheets (ISO/IEC 29500, `.xlsx`): a ZIP archive of XML. */
const ZIP = Buffer.from('PK\x03\x04', 'latin1');
/** The container of workbooks of old (`.xls`), and of those under a password. */
const OLE = Buffer.from('d0cf11e0a1b11ae1', 'hex');
/** So much may be in the archive (bytes): 200,000 rows of a dozen texts take half of it. */
const MOST_UNPACKED = 600_000_000;
/** Bytes of the archive that are unpacked at a time. */
const PIECE = 1 << 16;

/** A table as its file holds it, or the rows of a sheet of a workbook: the one named, else the first. Throws a `UserError`. */
export async function openTable(file: Buffer, sheet?: string): Promise<Buffer | Rows> {
	if (file.subarray(0, OLE.length).equals(OLE)) throw refuse('workbook-old');
	return file.subarray(0, ZIP.length).equals(ZIP) ? await readWorkbook(file, sheet) : file;
}

async function readWorkbook(file: Buffer, wanted: string | undefined): Promise<Rows> {
	refuseBombs(file);
	// Its code is loaded where a workbook comes: most tables are none.
	const { default: readSheets } = await import('read-excel-file/node');
	let sheets: Awaited<ReturnType<typeof readSheets>>;
	try {
		sheets = await readSheets(file, { trim: false });
	} catch (error) {
		throw refuse('workbook-broken', { why: (error as Error).message });
	}
	const names = sheets.map(({ sheet }) => sheet);
	// Nobody asked for an empty sheet.
	const chosen = wanted === undefined ? (sheets.find(({ data }) => data.length > 0) ?? sheets[0]) : undefined;
	const { sheet, data } = chosen ?? sheets.find((one) => one.sheet === wanted) ?? missing(wanted ?? '', names);
	return { ...tableOf(data as Cell[][]), format: 'xlsx', encoding: 'UTF-8', sheet, sheets: names };
}

function missing(sheet: string, sheets: readonly string[]): never {
	throw refuse('sheet-missing', { sheet, sheets });
}

/** An archive may unpack to a thousand times its size: it is unpacked once, piece by piece, only to be measured. */
function refuseBombs(file: Buffer) {
	let [size, isWorkbook] = [0, false];
	const archive = new Unzip((entry) => {
		isWorkbook ||= entry.name === 'xl/workbook.xml';
		if (!/\.(xml|rels)$/.test(entry.name)) return;
		entry.ondata = (error, piece) => {
			if (error) throw refuse('workbook-broken', { why: error.message });
			size += piece.length;
			if (size > MOST_UNPACKED) throw refuse('workbook-large', { most: MOST_UNPACKED / 1_000_000 });
		};
		entry.start();
	});
	archive.register(UnzipInflate);
	for (let at = 0; at < file.length; at += PIECE)
		try {
			archive.push(file.subarray(at, at + PIECE), at + PIECE >= file.length);
		} catch (error) {
			if (error instanceof Error && 'code' in error && typeof error.code === 'string') throw error;
			throw refuse('workbook-broken', { why: (error as Error).message });
		}
	if (!isWorkbook) throw refuse('workbook-none');
}

type Cell = string | number | boolean | Date | null;

/** The rows under the first that holds anything, which has the headings. A row's line is its place in the sheet, from 1. */
function tableOf(data: readonly (readonly Cell[])[]): Pick<Rows, 'columns' | 'rows' | 'odd'> {
	const head = data.findIndex((cells) => cells.some((cell) => cell !== null && cell !== ''));
	const titles = (data[head] ?? []).map((cell) => textOf(cell));
	while (titles.length > 0 && titles.at(-1)!.trim() === '') titles.pop();
	const columns = named(titles);
	const rows = data.slice(head + 1).flatMap((cells, at): Row[] => {
		if (cells.every((cell) => cell === null || cell === '')) return [];
		const line = head + at + 2;
		const beyond = cells.slice(columns.length).map(textOf).filter(Boolean);
		const odd =
			beyond.length > 0 && `has cells beyond the headings, which are left out: “${beyond.join(', ').slice(0, 60)}”`;
		const record = Object.fromEntries(columns.map((column, index) => [column, valueOf(cells[index] ?? null)]));
		return [{ line, cells: record, ...(odd && { odd }) }];
	});
	refuseCount(rows.length);
	return { columns, rows, odd: rows.flatMap(({ line, odd }) => (odd === undefined ? [] : [{ line, what: odd }])) };
}

/** What a cell holds, as a text or what it is by itself; an empty one is an empty text, as in any other table. */
const valueOf = (cell: Cell): FieldValue => (typeof cell === 'boolean' ? cell : textOf(cell));

/** A number as it is written with a point; a day as ISO 8601, with its time where it has one. */
function textOf(cell: Cell): string {
	if (cell === null) return '';
	if (!(cell instanceof Date)) return String(cell);
	const text = cell.toISOString();
	return text.endsWith('T00:00:00.000Z') ? text.slice(0, 10) : text.slice(0, 19);
}
