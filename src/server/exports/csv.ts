import type { RuleBody } from '$core';
import { changeRules, type RuleChange } from '../edits/sheet';
import type { Made } from '../edits/edit';
import { UserError } from '../errors';
import { readRows } from '../imports/table/rows';
import { gridRows, type GridRow, type PageFilter, type Sort } from '../store/grid';
import type { Store } from '../store/store';

/** The columns that the table can put out, by their ids; what a page says itself stands in columns of its own. */
const COLUMNS: Readonly<Record<string, (row: GridRow) => string>> = {
	path: ({ path }) => path,
	title: ({ title }) => title,
	description: ({ description }) => description,
	findings: ({ findings }) => findings ?? '',
	differs: ({ differs }) => ['', 'changed', 'new', 'leaves'][differs] ?? '',
	type: ({ type }) => type,
	language: ({ language }) => language ?? '',
	state: ({ state }) => state,
	picture: ({ picture }) => picture,
	card: ({ card }) => card,
	titleWidth: ({ titleWidth }) => (titleWidth / 1000).toFixed(2),
	descriptionWidth: ({ descriptionWidth }) => (descriptionWidth / 1000).toFixed(2),
	target: ({ target }) => target,
	key: ({ isKey }) => (isKey ? 'yes' : ''),
	modified: ({ modified }) => modified ?? ''
};

/** Tags whose overrides are put out and read back, each in a column called `page says: TAG`. */
const OWN_TAGS = ['title', 'description', 'og:title', 'og:description', 'og:image'];
const OWN = 'page says: ';
/** The column that says at which revision of the working copy a row was put out. */
const REVISION = 'revision';

/** Rows that are read together. */
const CHUNK = 500;

/**
 * The table of pages as CSV (RFC 4180), UTF-8, a chunk at a time. `mark` begins with a byte order mark, for spreadsheets
 * that ask for one.
 */
export function* writeCsv(
	store: Store,
	name: string,
	filter: PageFilter,
	{
		columns,
		sort,
		down,
		mark
	}: { readonly columns: readonly string[]; readonly sort: Sort; readonly down: boolean; readonly mark: boolean }
): Generator<string> {
	const { id, revision } = store.site(name);
	const shown = ['path', ...columns.filter((column) => column !== 'path' && Object.hasOwn(COLUMNS, column))];
	yield `${mark ? '\uFEFF' : ''}${lineOf([...shown, ...OWN_TAGS.map((tag) => OWN + tag), REVISION])}`;
	for (let offset = 0; ; offset += CHUNK) {
		const rows = gridRows(store.db, id, filter, { sort, down, offset, limit: CHUNK });
		if (rows.length === 0) return;
		const own = store.rulesOfPages(rows.map((row) => row.id));
		yield rows
			.map((row) => {
				const rules = own.get(row.id) ?? [];
				const says = OWN_TAGS.map((tag) => textOfRule(rules.find((rule) => rule.tag === tag && !rule.language)));
				return lineOf([...shown.map((column) => COLUMNS[column]!(row)), ...says, String(revision)]);
			})
			.join('');
	}
}

/** An override as a cell holds it: a template as it is written, a file of a picture by its place. */
function textOfRule(body: RuleBody | undefined): string {
	if (!body) return '';
	if (body.kind === 'template') return body.template;
	if (body.kind === 'leaveOut') return '(left out)';
	if (body.kind === 'borrow') return `(the same as ${body.from})`;
	const [first] = body.sources;
	return first?.from === 'file' && body.sources.length === 1 ? first.src : '(picture sources)';
}

/** A cell that a spreadsheet would take for a formula is made harmless by a quote before it, which reading takes off. */
const harmless = (text: string) => (/^'*[=+\-@\t\r]/.test(text) ? `'${text}` : text);
const asWritten = (text: string) => (/^'+[=+\-@\t\r]/.test(text) ? text.slice(1) : text);

const lineOf = (cells: readonly string[]) =>
	`${cells
		.map(harmless)
		.map((cell) => (/[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell))
		.join(',')}\r\n`;

/** What a table that was put out and changed would do when it is read back. */
export interface CsvChanges {
	readonly rows: number;
	readonly changes: readonly (RuleChange & {
		readonly line: number;
		readonly before: string;
		readonly after: string;
	})[];
	/** Rows of pages that there are none of. */
	readonly unknown: readonly { readonly line: number; readonly path: string }[];
	/** Cells that were changed here since the table was put out, too. */
	readonly conflicts: readonly {
		readonly line: number;
		readonly path: string;
		readonly tag: string;
		readonly here: string;
		readonly there: string;
	}[];
	/** Cells that cannot be written. */
	readonly wrong: readonly { readonly line: number; readonly why: string }[];
	readonly unchanged: number;
}

/** Compares a table with the working copy; nothing is kept. Throws a `UserError` when it is none of ours. */
export function compareCsv(store: Store, name: string, file: string | Buffer): CsvChanges {
	const { id } = store.site(name);
	const table = readRows(file);
	const tags = table.columns.filter((column) => column.startsWith(OWN)).map((column) => column.slice(OWN.length));
	if (!table.columns.includes('path') || tags.length === 0)
		throw new UserError(
			`The table has no column “path”, or none that begins with “${OWN}”: put it out from the room of pages first.`
		);
	const changes: CsvChanges['changes'][number][] = [];
	const [unknown, conflicts, wrong] = [[], [], []] as [
		CsvChanges['unknown'][number][],
		CsvChanges['conflicts'][number][],
		CsvChanges['wrong'][number][]
	];
	let unchanged = 0;
	for (const { line, cells } of table.rows) {
		const path = String(cells.path ?? '');
		const page = store.page(id, path);
		if (!page) {
			unknown.push({ line, path });
			continue;
		}
		let isSame = true;
		const since = Number(cells[REVISION] ?? Number.NaN);
		for (const tag of tags) {
			const after = asWritten(String(cells[OWN + tag] ?? ''));
			const before = textOfRule(page.rules.find((rule) => rule.tag === tag && !rule.language));
			if (after.trim() === before.trim()) continue;
			isSame = false;
			if (/^\(.*\)$/.test(after))
				wrong.push({ line, why: `${path}: “${after}” tells what stands there, it is nothing to write` });
			else if (Number.isInteger(since) && store.wasTouchedSince(id, path, since))
				conflicts.push({ line, path, tag, here: before, there: after });
			else changes.push({ line, path, tag, before, after, body: bodyOf(tag, after) });
		}
		if (isSame) unchanged++;
	}
	return { rows: table.rows.length, changes, unknown, conflicts, wrong, unchanged };
}

function bodyOf(tag: string, text: string): RuleBody | null {
	if (text.trim() === '') return null;
	if (tag === 'og:image') return { kind: 'pictures', sources: [{ from: 'file', src: text.trim() }] };
	return { kind: 'template', template: text };
}

/** Keeps the changes of a table as one edit; what is in conflict is left as it is here. */
export function readCsvBack(
	store: Store,
	name: string,
	file: string | Buffer,
	origin: 'pages' | 'command'
): Made<number> & { readonly told: CsvChanges } {
	const told = compareCsv(store, name, file);
	return { ...changeRules(store, name, told.changes, origin), told };
}
