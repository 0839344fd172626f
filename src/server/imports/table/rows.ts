import { isUtf8 } from 'node:buffer';
import { detect } from 'chardet';
import { parse as parsePatiently } from 'csv-parse/sync';
import iconv from 'iconv-lite';
import Papa from 'papaparse';
import type { FieldValue } from '$core';
import { refuse } from '../../errors';

/** One row of a table, by the names of its columns. `line` is where it stands in the file, from 1. */
export interface Row {
	readonly line: number;
	readonly cells: Readonly<Record<string, FieldValue>>;
	/** What is odd about it and was borne. */
	readonly odd?: string;
}

/** Something odd about a row that was borne. */
export interface Oddity {
	readonly line: number;
	readonly what: string;
}

export interface Rows {
	readonly encoding: string;
	/** What the file is: CSV with its delimiter, JSON, or a sheet of a workbook. */
	readonly format: 'csv' | 'json' | 'ndjson' | 'xlsx' | 'markdown';
	readonly delimiter?: string;
	/** Of a workbook: the sheet that was read, and all there are. */
	readonly sheet?: string;
	readonly sheets?: readonly string[];
	/** Of a folder: the file that each row was read from. */
	readonly names?: readonly string[];
	readonly columns: readonly string[];
	readonly rows: readonly Row[];
	readonly odd: readonly Oddity[];
}

const MAX_ROWS = 200_000;
/** So much of a file (bytes) tells its encoding. */
const TELLING = 200_000;

/** A table's text, and the encoding that it was found to be in. */
export function decodeTable(bytes: Buffer): { readonly text: string; readonly encoding: string } {
	const encoding = encodingOf(bytes);
	const text = encoding === 'UTF-8' ? bytes.toString('utf8') : iconv.decode(bytes, encoding);
	return { text: text.replace(/^\uFEFF/, ''), encoding };
}

function encodingOf(bytes: Buffer): string {
	const start = bytes.subarray(0, TELLING);
	return bytes[0] === 0xff && bytes[1] === 0xfe
		? 'UTF-16LE'
		: bytes[0] === 0xfe && bytes[1] === 0xff
			? 'UTF-16BE'
			: isUtf8(bytes) && !start.includes(0)
				? 'UTF-8'
				: hasZeros(start, 1)
					? 'UTF-16LE'
					: hasZeros(start, 0)
						? 'UTF-16BE'
						: asWritten(detect(start) ?? 'windows-1252');
}

/** So much of a file (bytes) is decoded at a time, so that its text is never held beside its cells. */
const PIECE = 1 << 20;

/** The text of a file, piece by piece. */
function* piecesOf(bytes: Buffer, encoding: string): Generator<string> {
	const decoder = iconv.getDecoder(encoding);
	for (let at = 0; at < bytes.length; at += PIECE) {
		const piece = decoder.write(bytes.subarray(at, at + PIECE));
		yield at === 0 ? piece.replace(/^\uFEFF/, '') : piece;
	}
	yield decoder.end() ?? '';
}

/** What calls itself Latin-1 is written by programs as the code page that holds it. */
const asWritten = (encoding: string) =>
	/^iso-8859-1$/i.test(encoding) || !iconv.encodingExists(encoding) ? 'windows-1252' : encoding;

const hasZeros = (bytes: Buffer, at: 0 | 1) =>
	bytes.length > 3 && bytes.filter((byte, index) => index % 2 === at && byte === 0).length > bytes.length / 4;

/** Reads CSV or TSV with a line of headings, a JSON list of records, or a record a line. Throws a `UserError` with the place. */
export function readRows(file: string | Buffer): Rows {
	const encoding = typeof file === 'string' ? 'UTF-8' : encodingOf(file);
	const whole = () => (typeof file === 'string' ? file.replace(/^\uFEFF/, '') : decodeTable(file).text);
	const pieces = () => (typeof file === 'string' ? [whole()] : piecesOf(file, encoding));
	const [start = ''] = pieces();
	const read = /^\s*\[/.test(start)
		? readJson(whole())
		: /^\s*\{/.test(start)
			? isLines(whole())
				? readLines(whole())
				: readJson(whole())
			: readCsv(start, pieces(), whole);
	refuseCount(read.rows.length);
	return { ...read, encoding };
}

/** A table whose rows are read as they are asked for, each time anew, so that they are never held together. */
export interface RowStream {
	readonly columns: readonly string[];
	readonly rows: Iterable<Row>;
}

/** The same as `readRows`, for who needs each row once. A table that is no well-formed CSV is read at once. */
export function streamRows(file: string | Buffer | Rows): RowStream {
	if (typeof file !== 'string' && !Buffer.isBuffer(file)) return file;
	const encoding = typeof file === 'string' ? 'UTF-8' : encodingOf(file);
	const pieces = () => (typeof file === 'string' ? [file.replace(/^\uFEFF/, '')] : piecesOf(file, encoding));
	const [start = ''] = pieces();
	if (/^\s*[[{]/.test(start)) return readRows(file);
	const delimiter = delimiterOf(start);
	const columns: string[] = [];
	let [count, isWellFormed] = [0, false];
	const lines = function* () {
		isWellFormed = yield* wellFormed(start, pieces(), delimiter);
	};
	for (const _row of rowsUnder(lines(), columns, delimiter)) count++;
	if (!isWellFormed) return readRows(file);
	refuseCount(count);
	return { columns, rows: { [Symbol.iterator]: () => rowsUnder(lines(), [], delimiter) } };
}

export function refuseCount(rows: number) {
	if (rows === 0) throw refuse('table-empty');
	if (rows > MAX_ROWS) throw refuse('table-too-long', { rows, most: MAX_ROWS });
}

/** A table that is read already, or is read now. */
export const asRows = (file: string | Buffer | Rows): Rows =>
	typeof file === 'string' || Buffer.isBuffer(file) ? readRows(file) : file;

/** The first line alone is a whole record. */
function isLines(text: string): boolean {
	const [first = '', second = ''] = text.trim().split(/[\r\n]+/, 2);
	try {
		JSON.parse(first);
		return second.trim().startsWith('{');
	} catch {
		return false;
	}
}

const DELIMITERS = [',', ';', '\t', '|'];
/** So many lines tell the delimiter. */
const LOOKED_AT = 20;

/** The sign that splits the first lines into the same number of cells, more than one; quoted cells are left out. */
function delimiterOf(text: string): string {
	const lines = text
		.slice(0, 20_000)
		.split(/\r?\n/)
		.slice(0, LOOKED_AT)
		.map((line) => line.replace(/"(?:[^"]|"")*"/g, ''));
	const scores = DELIMITERS.map((delimiter) => {
		const counts = lines.filter((line) => line !== '').map((line) => line.split(delimiter).length);
		const [first = 1] = counts;
		const same = counts.filter((count) => count === first).length;
		return { delimiter, score: first > 1 ? (first - 1) * (same / counts.length) ** 2 : 0 };
	});
	return scores.sort((a, b) => b.score - a.score)[0]!.delimiter;
}

function readCsv(start: string, pieces: Iterable<string>, whole: () => string): Omit<Rows, 'encoding'> {
	const delimiter = delimiterOf(start);
	const columns: string[] = [];
	const rows = [...rowsUnder(linesOf(start, pieces, whole, delimiter), columns, delimiter)];
	const odd = rows.flatMap(({ line, odd }) => (odd === undefined ? [] : [{ line, what: odd }]));
	return { format: 'csv', delimiter, columns, rows, odd };
}

/** The rows under the line of headings, which stand in `columns` from the first row on. */
function* rowsUnder(lines: Iterable<readonly string[]>, columns: string[], delimiter: string): Generator<Row> {
	let line = 1;
	for (const cells of lines) {
		const from = line;
		line++;
		for (const cell of cells) if (cell.includes('\n')) line += cell.split('\n').length - 1;
		if (cells.length === 1 && cells[0] === '') continue;
		if (columns.length === 0) columns.push(...named(cells));
		else yield rowOf(cells, columns, from, delimiter);
	}
}

/** Whether a quotation mark opens a cell behind spaces. Each mark looks back over the white space before it, no further. */
export function hasLateQuote(text: string): boolean {
	for (let at = text.indexOf('"'); at >= 0; at = text.indexOf('"', at + 1)) {
		if (text[at + 1] === '"') continue;
		let from = at;
		while (from > 0 && (text[from - 1] === ' ' || text[from - 1] === '\t')) from--;
		if (from === at) continue;
		const isAfterTab = text.lastIndexOf('\t', at - 2) >= from;
		if (isAfterTab || from === 0 || /[,;|\r\n\u2028\u2029]/.test(text[from - 1] as string)) return true;
	}
	return false;
}

/**
 * The cells of every line, without white space around the delimiters. Nearly all files have their quotation marks where
 * they should be, and are read ten times as fast as by the parser that bears any.
 */
function linesOf(start: string, pieces: Iterable<string>, whole: () => string, delimiter: string): string[][] {
	const lines: string[][] = [];
	const reading = wellFormed(start, pieces, delimiter);
	for (let step = reading.next(); ; step = reading.next()) {
		if (step.done) return step.value ? lines : patiently(whole(), delimiter);
		lines.push(step.value);
	}
}

function patiently(text: string, delimiter: string): string[][] {
	try {
		return parsePatiently(text, { delimiter, trim: true, relax_quotes: true, relax_column_count: true });
	} catch (error) {
		throw refuse('csv-broken', { why: (error as Error).message });
	}
}

/** The cells of each line of a text; comes to false where a quotation mark is out of place. */
function* wellFormed(start: string, pieces: Iterable<string>, delimiter: string): Generator<string[], boolean> {
	const newline = Papa.parse(start, { delimiter, preview: 1 }).meta.linebreak as '\n';
	const parser = new Papa.Parser({ delimiter, newline });
	let rest = '';
	/** The lines of what has come; undefined where a quotation mark is out of place. */
	const take = (isAll: boolean) => {
		if (hasLateQuote(rest)) return undefined;
		const { data, errors, meta } = parser.parse(rest, 0, !isAll) as Papa.ParseResult<string[]>;
		if (errors.length > 0) return undefined;
		for (const cells of data)
			for (let at = 0; at < cells.length; at++) cells[at] = withoutLooseSpace(cells[at] as string, delimiter);
		// A copy: a part of a text keeps all of it, and one letter beyond Latin-1 would make all pieces twice as large.
		rest = Buffer.from(rest.slice(meta.cursor)).toString();
		return data;
	};
	// A cell may go on over many pieces: it is read again only when it has doubled.
	let left = 0;
	for (const piece of pieces) {
		rest += piece;
		if (rest.length < 2 * left) continue;
		const lines = take(false);
		if (!lines) return false;
		yield* lines;
		left = rest.length;
	}
	const last = take(true);
	if (last) yield* last;
	return last !== undefined;
}

/** A cell that holds a delimiter, a quotation mark or a line end was quoted, and its white space with it. */
function withoutLooseSpace(cell: string, delimiter: string): string {
	const trimmed = cell.trim();
	return trimmed === cell || cell.includes(delimiter) || /["\r\n]/.test(cell) ? cell : trimmed;
}

function rowOf(cells: readonly string[], columns: readonly string[], line: number, delimiter: string): Row {
	// A column may be called anything: so every name is the record's own.
	const record = Object.fromEntries(columns.map((column, index) => [column, cells[index] ?? '']));
	if (cells.length === columns.length) return { line, cells: record };
	const has = `has ${cells.length} ${cells.length === 1 ? 'cell' : 'cells'} where there are ${columns.length} headings`;
	const beyond = cells.slice(columns.length).join(delimiter).slice(0, 60);
	const what = cells.length < columns.length ? 'the others are empty' : `what is beyond them is left out: “${beyond}”`;
	return { line, cells: record, odd: `${has}; ${what}` };
}

/** The headings, each with a name of its own. */
export function named(header: readonly string[]): string[] {
	const seen = new Map<string, number>();
	return header.map((cell, at) => {
		const name = cell.trim() || `column ${at + 1}`;
		const times = (seen.get(name) ?? 0) + 1;
		seen.set(name, times);
		return times === 1 ? name : `${name} ${times}`;
	});
}

function readJson(text: string): Omit<Rows, 'encoding'> {
	let data: unknown;
	try {
		data = JSON.parse(text);
	} catch (error) {
		throw refuse('json-broken', { why: (error as Error).message });
	}
	const list = Array.isArray(data) ? data : Object.values(data as object).find(Array.isArray);
	if (!Array.isArray(list)) throw refuse('json-without-list');
	refuseCount(list.length);
	const wrong = list.findIndex((item) => !isRecord(item));
	if (wrong >= 0) throw refuse('json-entry-broken', { entry: wrong + 1 });
	return {
		format: 'json',
		...ofRecords(list.map((record, at) => ({ line: at + 1, record: record as object }))),
		odd: []
	};
}

function readLines(text: string): Omit<Rows, 'encoding'> {
	const records: { line: number; record: object }[] = [];
	const odd: Oddity[] = [];
	text.split(/\r?\n/).forEach((line, at) => {
		if (line.trim() === '') return;
		let record: unknown;
		try {
			record = JSON.parse(line);
		} catch {
			record = undefined;
		}
		if (isRecord(record)) records.push({ line: at + 1, record });
		else odd.push({ line: at + 1, what: `is no record and is left out: “${line.slice(0, 60)}”` });
	});
	return { format: 'ndjson', ...ofRecords(records), odd };
}

const isRecord = (item: unknown): item is object => typeof item === 'object' && item !== null && !Array.isArray(item);

export function ofRecords(records: readonly { line: number; record: object }[]) {
	const columns = new Set<string>();
	const rows = records.map(({ line, record }): Row => {
		const all = Object.entries(record);
		for (const [key] of all) columns.add(key);
		return { line, cells: Object.fromEntries(all.map(([key, value]) => [key, toValue(value)])) };
	});
	return { columns: [...columns], rows };
}

/** A JSON value as a field can hold it; deeper structures are kept as their text. */
function toValue(value: unknown): FieldValue {
	if (value === null || ['string', 'number', 'boolean'].includes(typeof value)) return value as FieldValue;
	if (Array.isArray(value)) return value.map((item) => (typeof item === 'number' ? item : String(item)));
	const record = value as Record<string, unknown>;
	if (typeof record.src === 'string' || typeof record.name === 'string') return record as unknown as FieldValue;
	return JSON.stringify(value);
}
