import { parse } from 'csv-parse/sync';
import { parseUrl, type FieldValue, type Page } from '$core';
import { UserError } from '../errors';

/** A table of content: its columns, and its rows as texts, numbers, lists and the like. */
export interface Table {
	readonly columns: readonly string[];
	readonly rows: readonly Readonly<Record<string, FieldValue>>[];
}

/** Which column gives which field; `path` is the page's path or address, '' leaves a column out. */
export type Mapping = Readonly<Record<string, string>>;

const MAX_ROWS = 200_000;

/** Reads a CSV with a header line, or a JSON array of records. Throws a `UserError` that names the place. */
export function readTable(text: string): Table {
	const plain = text.replace(/^\uFEFF/, '');
	const rows = /^\s*[[{]/.test(plain) ? readJson(plain) : readCsv(plain);
	if (rows.length === 0) throw new UserError('The file holds no rows: only a header line, or nothing.');
	if (rows.length > MAX_ROWS)
		throw new UserError(`The file holds ${rows.length} rows, more than the ${MAX_ROWS} that one import may have.`);
	return { columns: [...new Set(rows.slice(0, 1000).flatMap((row) => Object.keys(row)))], rows };
}

function readCsv(text: string): Record<string, FieldValue>[] {
	const [first = ''] = text.split(/\r?\n/, 1);
	const delimiter = [',', ';', '\t'].sort((a, b) => first.split(b).length - first.split(a).length)[0] as string;
	try {
		return parse(text, { columns: true, skip_empty_lines: true, trim: true, delimiter, relax_quotes: true });
	} catch (error) {
		throw new UserError(`The file cannot be read as CSV: ${(error as Error).message}.`);
	}
}

function readJson(text: string): Record<string, FieldValue>[] {
	let data: unknown;
	try {
		data = JSON.parse(text);
	} catch (error) {
		throw new UserError(`The file cannot be read as JSON: ${(error as Error).message}.`);
	}
	const list = Array.isArray(data) ? data : Object.values(data as object).find(Array.isArray);
	if (!Array.isArray(list)) throw new UserError('The JSON holds no list of records, such as [{"path": "/a"}].');
	const wrong = list.findIndex((item) => typeof item !== 'object' || item === null || Array.isArray(item));
	if (wrong >= 0) throw new UserError(`Entry ${wrong + 1} of the JSON list is no record.`);
	return list.map((record: object) =>
		Object.fromEntries(Object.entries(record).map(([key, value]) => [key, toValue(value)]))
	);
}

/** A JSON value as a field can hold it; deeper structures are kept as their text. */
function toValue(value: unknown): FieldValue {
	if (value === null || ['string', 'number', 'boolean'].includes(typeof value)) return value as FieldValue;
	if (Array.isArray(value)) return value.map((item) => (typeof item === 'number' ? item : String(item)));
	const record = value as Record<string, unknown>;
	if (typeof record.src === 'string' || typeof record.name === 'string') return record as unknown as FieldValue;
	return JSON.stringify(value);
}

/** Names that columns often have, by the field they mean. */
const USUAL: Readonly<Record<string, readonly string[]>> = {
	path: ['path', 'url', 'address', 'link', 'permalink', 'slug', 'loc', 'adresse', 'lien'],
	title: ['title', 'name', 'headline', 'titre', 'nom'],
	summary: ['summary', 'description', 'excerpt', 'abstract', 'teaser', 'résumé', 'intro'],
	body: ['body', 'content', 'text', 'html', 'contenu'],
	picture: ['picture', 'image', 'photo', 'img', 'thumbnail', 'cover', 'photo_url', 'image_url'],
	author: ['author', 'writer', 'by', 'auteur'],
	published: ['published', 'date', 'created', 'published_at', 'publication date'],
	section: ['section', 'category', 'catégorie'],
	tags: ['tags', 'keywords']
};

/** Which column probably gives which field; one not recognised becomes a field of its own name. */
export function guessMapping(columns: readonly string[]): Mapping {
	const taken = new Set<string>();
	return Object.fromEntries(
		columns.map((column) => {
			const key = column.trim().toLowerCase();
			const known = Object.keys(USUAL).find((field) => USUAL[field]!.includes(key) && !taken.has(field));
			const field = known ?? fieldName(column);
			taken.add(field);
			return [column, field];
		})
	);
}

/** A column's name as a field's. */
const fieldName = (column: string) =>
	column
		.trim()
		.toLowerCase()
		.replace(/[^\p{L}\p{N}]+/gu, '_')
		.replace(/^_+|_+$/g, '');

export interface TablePages {
	readonly pages: readonly Page[];
	readonly skipped: readonly { readonly row: number; readonly why: string }[];
}

/** The rows as pages of a type, by the mapping. Rows without a path, or with one that stands twice, are skipped. */
export function pagesOfTable({ rows }: Table, mapping: Mapping, type: string, base: string): TablePages {
	const pages: Page[] = [];
	const skipped: { row: number; why: string }[] = [];
	const taken = new Map<string, number>();
	const columns = Object.entries(mapping).filter(([, field]) => field !== '');
	const pathColumn = columns.find(([, field]) => field === 'path')?.[0];
	if (pathColumn === undefined)
		throw new UserError('No column gives the path. Match one to “path”: it says where a page stands.');
	rows.forEach((row, index) => {
		// The header is line 1.
		const number = index + 2;
		const path = pathOf(String(row[pathColumn] ?? ''), base);
		const before = path === undefined ? undefined : taken.get(path);
		if (path === undefined) skipped.push({ row: number, why: `“${row[pathColumn] ?? ''}” is no path of this site` });
		else if (before !== undefined) skipped.push({ row: number, why: `${path} stands in row ${before} already` });
		else {
			taken.set(path, number);
			const fields = columns
				.filter(([column, field]) => field !== 'path' && row[column] !== undefined && row[column] !== '')
				.map(([column, field]) => [field, toField(field, row[column] as FieldValue)]);
			pages.push({ path, type, state: 'live', fields: Object.fromEntries(fields), rules: [] });
		}
	});
	return { pages, skipped };
}

function toField(field: string, value: FieldValue): FieldValue {
	if (typeof value !== 'string') return value;
	if (field === 'picture') return { src: value };
	if (field === 'author') return { name: value };
	if (field === 'tags') return value.split(/\s*[,;|]\s*/).filter(Boolean);
	return value;
}

/** A path or an address under the base as a path of the site. */
function pathOf(text: string, base: string): string | undefined {
	const value = text.trim();
	if (value === '') return undefined;
	if (value.startsWith('/') && !value.startsWith('//')) return value;
	if (/^https?:\/\//i.test(value)) {
		const [url, home] = [parseUrl(value), parseUrl(base)];
		if (!url || !home) return undefined;
		const isUnder = url.host === home.host && url.pathname.startsWith(home.pathname);
		return isUnder ? `/${url.pathname.slice(home.pathname.length)}${url.search}` : undefined;
	}
	return /^[\w.~%-][\w.~%/-]*$/.test(value) ? `/${value}` : undefined;
}
