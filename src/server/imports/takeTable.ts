import { PAGE_FIELDS } from '$core';
import type { Origin } from '../edits/edit';
import { saveContent, type Incoming } from './saveContent';
import { refuse } from '../errors';
import type { Store, StoredSite } from '../store/store';
import { asRows, type Rows } from './table/rows';
import {
	fieldsOfTable,
	guessMapping,
	pagesOfTable,
	type OddCell,
	type TableOddities,
	type TableSource
} from './table/table';

/** The column that says of which type a page of Markdown is; it is no field. */
export const TYPE_COLUMN = '(type)';
export const MARKDOWN_SAID = { typeColumn: TYPE_COLUMN, mapping: { [TYPE_COLUMN]: '' } } as const;

export interface TakenTable {
	readonly pages: number;
	readonly added: number;
	readonly encoding: string;
	readonly mapping: TableSource['mapping'];
	readonly skipped: readonly { readonly row: number; readonly why: string }[];
	readonly oddCells: readonly OddCell[];
	readonly oddRows: readonly { readonly line: number; readonly what: string }[];
	/** Of a folder: the file that each row was read from. */
	readonly names?: readonly string[];
}

/**
 * Reads a table into a site: each row a page, brought up to date or added; rules and overrides stay. What is said about
 * reading it is kept for the next time, and what is not said now is as it was then. Throws a `UserError`.
 */
export function takeTable(
	store: Store,
	{ name, base, origin }: { readonly name: string; readonly base: string; readonly origin: Origin },
	file: string | Buffer | Rows,
	said: Partial<TableSource>,
	dryRun = false
): TakenTable {
	const known = store.working.sites.find(name);
	const before = known && store.working.sources.settings<TableSource>(known.id, 'table');
	const table = asRows(file);
	const kept = Object.fromEntries(
		Object.entries(before?.mapping ?? {}).filter(([column]) => table.columns.includes(column))
	);
	const source: TableSource = {
		...before,
		...said,
		mapping: { ...guessMapping(table), ...kept, ...said.mapping },
		readings: { ...before?.readings, ...said.readings },
		type: said.type?.trim() || before?.type || 'page'
	};
	const isTypeSaid = (said.type?.trim() || before?.type) !== undefined;
	// The pages are made twice, now to be counted and when they are put in: all at once they would fill the memory.
	const { pages, coming, languages, types: named, skipped, oddCells } = count(store, known?.id, table, source, base);
	const told = {
		...{ encoding: table.encoding, mapping: source.mapping, skipped, oddCells, oddRows: table.odd },
		...(table.names && { names: table.names })
	};
	if (pages === 0) throw refuse('table-unreadable', { why: skipped[0]?.why ?? '' });
	if (dryRun) return { ...told, pages, added: coming };
	const { added } = saveContent(store, {
		...{ name, origin, what: { from: 'table', pages }, as: null, coming },
		fresh: { name, base, languages, separator: '·', fields: {}, rules: [] },
		*prepare({ id, site, types }) {
			if (site.base !== base) store.working.sites.save({ ...site, base });
			for (const type of named) declare(store, id, types, type, table, source);
			yield;
		},
		pages: comingIn(table, source, base, isTypeSaid),
		finish: (id) => store.working.sources.saveSettings(id, 'table', source)
	});
	return { ...told, pages, added };
}

/** Each row as a page; its type is told only where somebody said it, or the row does. */
function* comingIn(table: Rows, source: TableSource, base: string, isTypeSaid: boolean): Generator<Incoming> {
	const columns = columnsOf(source);
	for (const { page } of pagesOfTable(table, source, base, { skipped: [], oddCells: [] }))
		yield { page: isTypeSaid || source.typeColumn !== undefined ? page : { ...page, type: undefined }, columns };
}

/** The fields that the table has columns for: only those are the table's to replace. */
const columnsOf = ({ mapping }: TableSource) =>
	Object.values(mapping).filter((field) => !['path', 'state', 'language'].includes(field));

/** The type gets the fields that the columns give and it does not declare yet. */
function declare(
	store: Store,
	site: number,
	types: StoredSite['types'],
	name: string,
	table: Parameters<typeof fieldsOfTable>[0],
	source: TableSource
) {
	const type = types.find((one) => one.name === name) ?? { name, fields: [], rules: [] };
	const known = new Set([...PAGE_FIELDS, ...type.fields].map((field) => field.name));
	const fields = fieldsOfTable(table, source, known);
	if (fields.length > 0 || !types.includes(type))
		store.working.types.save(site, { ...type, fields: [...type.fields, ...fields] });
}

/** How many pages a table has, how many of them are new to the site, in which languages, and what is odd about it. */
function count(store: Store, site: number | undefined, table: Rows, source: TableSource, base: string) {
	const told: TableOddities = { skipped: [], oddCells: [] };
	const languages = new Set<string>();
	const types = new Set<string>();
	let [pages, coming] = [0, 0];
	for (const { page } of pagesOfTable(table, source, base, told)) {
		pages++;
		if (site === undefined || !store.working.pages.has(site, page.path)) coming++;
		if (page.language) languages.add(page.language);
		types.add(page.type);
	}
	return { ...told, pages, coming, types, languages: languages.size > 0 ? [...languages] : ['und'] };
}
