import { findTag, toText, type Page, type RuleBody, ownOf } from '$core';
import type { Made, Origin } from '../edits/edit';
import { countBeyond } from '../people/beyond';
import { makeLongEdit } from '../edits/longEdit';
import { refuseRule } from '../edits/rules';
import { refuse } from '../errors';
import { streamRows, type Row, type Rows, type RowStream } from '../imports/table/rows';
import { pathOf } from '../imports/table/table';
import { overriddenTags } from '../store/table/counts';
import { gridIds, rowsOf, type GridRow, type PageFilter, type Sort } from '../store/table/grid';
import type { Progress } from '../progress';
import type { Store, StoredSite } from '../store/store';
import { csvLine } from './csvLine';
import { REWRITINGS, rewritingOf } from './rewritten';
import { writeWorkbook } from './workbook';

/** The columns that the table can put out, by their ids; what a page says itself stands in columns of its own. */
export const COLUMNS: Readonly<Record<string, (row: GridRow) => string>> = {
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

/** Overrides are put out and read back, those of a tag in a column called `page says: TAG`: of these, and of all that pages have. */
const OWN_TAGS = ['title', 'description', 'og:title', 'og:description', 'og:image'];
const OWN = 'page says: ';
/** The column that says at which revision of the working copy a row was put out. */
const REVISION = 'revision';

/** How overrides are written that are no text. */
const LEFT_OUT = '(left out)';
const SOURCES = '(picture sources)';

/** Rows that are read together. */
const CHUNK = 500;
/** Of so many revisions it is looked up what has changed since. */
const MOST_REVISIONS = 20;

/** What of the table is put out. */
interface TableOut {
	readonly columns: readonly string[];
	readonly sort: Sort;
	readonly down: boolean;
}

/** The table of pages, a chunk of rows at a time, the headings first: of the pages that the filter means at the beginning, each as it is when its turn comes. */
function* chunksOut(
	store: Store,
	name: string,
	filter: PageFilter,
	{ columns, sort, down }: TableOut
): Generator<string[][]> {
	const { id, revision } = store.working.sites.named(name);
	const shown = ['path', ...columns.filter((column) => column !== 'path' && Object.hasOwn(COLUMNS, column))];
	const tags = [...new Set([...OWN_TAGS, ...overriddenTags(store.db, id)])];
	yield [[...shown, ...tags.map((tag) => OWN + tag), REVISION]];
	const ids = gridIds(store.db, id, filter, { sort, down });
	for (let at = 0; at < ids.length; at += CHUNK) {
		const rows = rowsOf(store.db, ids.subarray(at, at + CHUNK));
		const own = store.working.rules.ofPages(rows.map((row) => row.id));
		yield rows.map((row) => {
			const rules = own.get(row.id) ?? [];
			const says = tags.map((tag) => textOfRule(rules.find((rule) => rule.tag === tag && !rule.language)));
			return [...shown.map((column) => ownOf(COLUMNS, column)!(row)), ...says, String(revision)];
		});
	}
}

/** The table as CSV (RFC 4180), UTF-8, a chunk at a time. `mark` begins with a byte order mark, for spreadsheets that ask for one. */
export function* writeCsv(
	store: Store,
	name: string,
	filter: PageFilter,
	{ mark, ...out }: TableOut & { readonly mark: boolean }
): Generator<string> {
	if (mark) yield '\uFEFF';
	for (const rows of chunksOut(store, name, filter, out)) yield rows.map(lineOf).join('');
}

/** The table as a workbook, a piece at a time: cells are texts, and spreadsheets leave them as they are. */
export function* writeTableWorkbook(
	store: Store,
	name: string,
	filter: PageFilter,
	out: TableOut
): Generator<Uint8Array> {
	const rows = function* () {
		// A quote before a formula is taken off when the table is read back, whatever it comes in.
		for (const chunk of chunksOut(store, name, filter, out))
			for (const cells of chunk) yield cells.map((cell) => (asWritten(cell) === cell ? cell : `'${cell}`));
	};
	yield* writeWorkbook(rows(), name);
}

/** An override as a cell holds it: a template as it is written, a file of a picture by its place. */
function textOfRule(body: RuleBody | undefined): string {
	if (!body) return '';
	if (body.kind === 'template') return body.template;
	if (body.kind === 'leaveOut') return LEFT_OUT;
	if (body.kind === 'borrow') return `(the same as ${body.from})`;
	const [first] = body.sources;
	return first?.from === 'file' && body.sources.length === 1 ? first.src : SOURCES;
}

/** The override that a cell stands for; undefined for one that can only be made on the bench. */
function bodyOf(tag: string, cell: string): RuleBody | null | undefined {
	const text = cell.trim();
	if (text === '') return null;
	if (text === SOURCES) return undefined;
	if (text === LEFT_OUT) return { kind: 'leaveOut' };
	const [, from] = /^\(the same as (\S+)\)$/.exec(text) ?? [];
	if (from !== undefined) return { kind: 'borrow', from };
	if (findTag(tag)?.kind === 'picture') return { kind: 'pictures', sources: [{ from: 'file', src: text }] };
	return { kind: 'template', template: cell };
}

/** A cell that a spreadsheet would take for a formula is made harmless by a quote before it, which reading takes off. */
const harmless = (text: string) => (isFormula(text.replace(/^'+/, '')) ? `'${text}` : text);
const asWritten = (text: string) => (text.startsWith("'") && isFormula(text.replace(/^'+/, '')) ? text.slice(1) : text);
/** Signs that begin a formula, also in full width, behind any white space; and white space that parts cells. */
const isFormula = (text: string) => /^\s*[=+\-@\uff1d\uff0b\uff0d\uff20]|^[\t\r\n]/.test(text);

const lineOf = (cells: readonly string[]) => csvLine(cells.map(harmless));

/** The first of some things, and how many there are. */
interface Listed<T> {
	readonly count: number;
	readonly first: readonly T[];
}
/** So many of each are told one by one. */
const TOLD = 50;

interface Cell {
	/** The line of the file, from 1. */
	readonly line: number;
	readonly path: string;
}
interface Change extends Cell {
	readonly tag: string;
	readonly before: string;
	readonly after: string;
}

/**
 * Why something of a table is left: there is no such page; it was changed here since the table was put out; it cannot be
 * written; it stands in a column that only shows; a spreadsheet has made it of what stood there.
 */
type Reason = 'unknown' | 'conflict' | 'wrong' | 'shown' | 'rewritten';

/** What is taken of a table that comes back, though it may not be meant. */
export interface CsvTakes {
	/** Cells that look rewritten by a spreadsheet. */
	readonly rewritten?: boolean;
}

interface Left extends Cell {
	readonly reason: Reason;
	/** In words, without a full stop. */
	readonly why: string;
}

/** What a table that was put out and changed does when it is read back. */
export interface CsvTold {
	readonly rows: number;
	/** How many of the pages that it would change whoever asks may not: then it is refused whole. */
	readonly beyond: number;
	/** Rows that say what stands here. */
	readonly unchanged: number;
	readonly changes: Listed<Change>;
	/** Of the changes: overrides where there was none, and overrides that are taken away. */
	readonly anew: number;
	readonly setBack: number;
	/** What stays as it is here. */
	readonly left: Readonly<Record<Reason, Listed<Left>>>;
}

/** One row of a table that comes back, held against its page. */
interface Compared {
	readonly changes: readonly (Change & { readonly body: RuleBody | null })[];
	readonly left: readonly Left[];
}

/** Columns that are looked at for words that were written there and would be lost. */
const SHOWN = ['title', 'description'] as const;

/** What the column of the path may be called by who moved it; addresses are read as paths of the site. */
const PATH_NAMES = ['path', 'url', 'address', 'page', 'link'];

/** A table of ours. Throws a `UserError` when it is none. */
function readBack(file: string | Buffer | Rows): RowStream & { readonly pathColumn: string } {
	const table = streamRows(file);
	const keys = table.columns.map((column) => column.trim().toLowerCase());
	const name = PATH_NAMES.find((one) => keys.includes(one));
	if (name === undefined || !table.columns.some((column) => column.startsWith(OWN)))
		throw refuse('table-not-ours', { own: OWN });
	return { ...table, pathColumn: table.columns[keys.indexOf(name)]! };
}

/** What comparing rows needs beside them. */
interface Comparing {
	readonly store: Store;
	readonly stored: StoredSite;
	readonly tags: readonly string[];
	readonly shows: readonly (typeof SHOWN)[number][];
	readonly hasChanged: ReturnType<typeof changedSince>;
	readonly takes: CsvTakes;
}

/** Holds the rows of a table against the pages, one at a time. */
function* comparedRows(
	store: Store,
	stored: StoredSite,
	{ columns, rows, pathColumn }: ReturnType<typeof readBack>,
	takes: CsvTakes
): Generator<Compared> {
	const tags = columns.filter((column) => column.startsWith(OWN)).map((column) => column.slice(OWN.length));
	const shows = SHOWN.filter((column) => columns.includes(column));
	const comparing = { store, stored, tags, shows, takes, hasChanged: changedSince(store, stored.id) };
	const lines = new Map<string, number>();
	for (const row of rows) {
		const written = toText(ownOf(row.cells, pathColumn));
		const path = written.startsWith('/') ? written : (pathOf(written, stored.site.base) ?? written);
		const before = lines.get(path);
		const why = before === undefined ? row.odd : `stands in line ${before}, too, and that one is read`;
		if (why === undefined) lines.set(path, row.line);
		// Of a row that is too short or too long, nobody knows which cell is which.
		yield why === undefined
			? compareRow(comparing, row, path)
			: { changes: [], left: [{ line: row.line, path, reason: 'wrong', why }] };
	}
}

/** Whether a page is changed since a revision: what was done and taken back again is none. */
function changedSince(store: Store, site: number) {
	const known = new Map<number, ReadonlySet<number> | undefined>();
	return (page: number, since: number): boolean => {
		// A table is put out at one revision; of one that names many, all that was touched counts as changed.
		if (!known.has(since) && known.size >= MOST_REVISIONS) return true;
		if (!known.has(since)) known.set(since, store.record.pagesChangedSince(site, since));
		return known.get(since)?.has(page) ?? true;
	};
}

function compareRow(
	{ store, stored, tags, shows, hasChanged, takes }: Comparing,
	{ line, cells }: Row,
	path: string
): Compared {
	const changes: Compared['changes'][number][] = [];
	const left: Left[] = [];
	const leave = (reason: Reason, why: string) => left.push({ line, path, reason, why });
	const standing = store.state.standing(stored.id, path);
	if (!standing) {
		leave('unknown', 'there is no such page');
		return { changes, left };
	}
	const rules = store.working.rules.ofPage(standing.id);
	// A table without it is taken as it is.
	const since = Number(cells[REVISION] || Number.NaN);
	let page: Page | undefined;
	for (const tag of tags) {
		const after = asWritten(toText(ownOf(cells, OWN + tag)));
		const before = textOfRule(rules.find((rule) => rule.tag === tag && !rule.language));
		if (after.trim() === before.trim()) continue;
		const body = bodyOf(tag, after);
		const rewriting = takes.rewritten ? undefined : rewritingOf(before, after);
		if (body === undefined) leave('wrong', `${tag}: “${after}” tells what stands there, it is nothing to write`);
		else if (standing.touched > since && hasChanged(standing.id, since))
			leave('conflict', `${tag} was changed here since: “${before}” stays, “${after}” is left`);
		else if (rewriting) leave('rewritten', `${tag}: “${before}” stays; “${after}” ${REWRITINGS[rewriting]}`);
		else {
			page ??= store.working.pages.at(stored.id, path);
			const [issue] = refuseRule(stored, { place: { layer: 'page', path }, tag, body }, page);
			if (issue) leave('wrong', `${tag}: ${issue.message}`);
			else changes.push({ line, path, tag, before, after, body });
		}
	}
	// Only while nothing has changed here: then what reads otherwise was written there.
	const isAsPutOut = since === stored.revision && standing.seen >= 0;
	for (const column of shows) {
		const [is, was] = [asWritten(toText(cells[column])).trim(), standing[column].trim()];
		if (isAsPutOut && is !== was && rewritingOf(was, is) === undefined)
			leave('shown', `the column “${column}” only shows; what stands in “${OWN}${column}” is read`);
	}
	return { changes, left };
}

/** Gathers what rows come to. */
class Telling {
	constructor(private readonly progress: Progress) {}
	readonly told = {
		...{ rows: 0, beyond: 0, unchanged: 0, anew: 0, setBack: 0 },
		changes: listed<Change>(),
		left: {
			unknown: listed<Left>(),
			conflict: listed<Left>(),
			wrong: listed<Left>(),
			shown: listed<Left>(),
			rewritten: listed<Left>()
		}
	} satisfies CsvTold;

	add({ changes, left }: Compared): void {
		const { told } = this;
		if (++told.rows % 500 === 0) this.progress(told.rows);
		if (changes.length === 0 && left.length === 0) told.unchanged++;
		for (const { body, ...change } of changes) {
			take(told.changes, change);
			if (body === null) told.setBack++;
			else if (change.before === '') told.anew++;
		}
		for (const one of left) take(told.left[one.reason], one);
	}
}
const listed = <T>() => ({ count: 0, first: [] as T[] });
function take<T>(list: { count: number; first: T[] }, one: T) {
	if (++list.count <= TOLD) list.first.push(one);
}

/** Compares a table with the working copy; nothing is kept. Throws a `UserError` when it is none of ours. */
export function compareCsv(
	store: Store,
	name: string,
	file: string | Buffer | Rows,
	takes: CsvTakes = {},
	progress: Progress = () => undefined
): CsvTold {
	const telling = new Telling(progress);
	const stored = store.working.sites.named(name);
	const paths = new Set<string>();
	for (const compared of comparedRows(store, stored, readBack(file), takes)) {
		telling.add(compared);
		for (const { path } of compared.changes) paths.add(path);
	}
	return { ...telling.told, beyond: countBeyond(store, stored, [...paths]) };
}

/** Keeps the changes of a table as one edit, and tells of them; what cannot be, or is in conflict, is left as it is here. */
export function readCsvBack(
	store: Store,
	name: string,
	file: string | Buffer | Rows,
	origin: Origin,
	takes: CsvTakes = {},
	progress: Progress = () => undefined
): Made<CsvTold> {
	const table = readBack(file);
	const what = { action: { do: 'rule', tag: 'several' }, pages: 0 };
	// The edit itself leads to the next.
	const { revision } = store.working.sites.named(name);
	return makeLongEdit(store, name, { origin, kind: 'batch', what }, function* (site) {
		const telling = new Telling(progress);
		for (const compared of comparedRows(store, { ...site, revision }, table, takes)) {
			yield;
			telling.add(compared);
			if (compared.changes.length > 0) what.pages++;
			for (const { path, tag, body } of compared.changes)
				store.working.rules.set(site.id, { layer: 'page', path }, tag, undefined, body);
		}
		return telling.told;
	});
}
