import type { Db } from '../opening/database';
import { wordsInText, wordsOf } from './wordsInText';

/** By what the table of pages is sorted, with the column that says it. */
export const SORTS = {
	path: 'path',
	title: 'title',
	description: 'description',
	type: 'type',
	language: 'language',
	state: 'state',
	modified: 'modified',
	findings: 'weight',
	titleWidth: 'title_width',
	descriptionWidth: 'description_width',
	picture: 'picture',
	differs: 'differs',
	card: 'card',
	target: 'target',
	key: 'is_key'
} as const;
export type Sort = keyof typeof SORTS;

/** Which pages are meant: all of what is said must be so. */
export interface PageFilter {
	/** Words, or beginnings of words, of path, title or description. */
	readonly q?: string;
	readonly type?: string;
	/** A language tag; '-' for none. */
	readonly language?: string;
	readonly state?: string;
	/** The code of a finding, or of several with commas between. */
	readonly finding?: string;
	/** With `finding`: the tag that it is of. */
	readonly of?: string;
	/** `title:page`, `description:found`: where a value comes from. */
	readonly from?: string;
	/** `changed`, `new`, `leaves`, or `yes` for any. */
	readonly differs?: string;
	/** A tag that their heads do not have. */
	readonly without?: string;
	readonly key?: string;
	/** A title, description or picture that several pages share. */
	readonly title?: string;
	readonly description?: string;
	readonly picture?: string;
}

export const FILTER_NAMES = [
	...(['q', 'type', 'language', 'state', 'finding', 'of', 'from', 'differs', 'without', 'key'] as const),
	...(['title', 'description', 'picture'] as const)
] satisfies readonly (keyof PageFilter)[];

/** One row of the table. */
export interface GridRow {
	readonly id: number;
	readonly path: string;
	readonly type: string;
	readonly language: string | null;
	readonly state: string;
	readonly modified: string | null;
	readonly title: string;
	readonly titleWidth: number;
	readonly titleFrom: string;
	readonly description: string;
	readonly descriptionWidth: number;
	readonly descriptionFrom: string;
	readonly picture: string;
	readonly pictureFrom: string;
	readonly card: string;
	readonly weight: number;
	/** 0 the same as released, 1 changed, 2 new, 3 leaves. */
	readonly differs: number;
	readonly isKey: number;
	readonly target: string;
	/** Codes of findings, with spaces between; null for none. */
	readonly findings: string | null;
	/** 0 while it waits to be looked at again. */
	readonly isKnown: number;
}

const ROW = `s.page_id AS id, s.path, s.type, s.language, s.state, s.modified, s.title, s.title_width AS titleWidth, s.title_from AS titleFrom,
	s.description, s.description_width AS descriptionWidth, s.description_from AS descriptionFrom, s.picture, s.picture_from AS pictureFrom,
	s.card, s.weight, s.differs, s.is_key AS isKey, s.target, s.seen >= s.touched AS isKnown,
	(SELECT group_concat(code, ' ') FROM page_finding f WHERE f.page_id = s.page_id) AS findings`;

const DIFFERS: Readonly<Record<string, string>> = { changed: '= 1', new: '= 2', leaves: '= 3', yes: '> 0' };
const FROM_COLUMNS: Readonly<Record<string, string>> = {
	title: 'title_from',
	description: 'description_from',
	picture: 'picture_from'
};

/** One thing that a filter asks, as SQL over `page_state s`, with what goes into it. */
interface Condition {
	readonly sql: string;
	readonly values: readonly unknown[];
	/** The ids of the pages that have it, as an index gives them. */
	readonly set: string;
	readonly setValues: readonly unknown[];
	/** The column that it says the one value of. */
	readonly pins?: string;
	/** Of a search, whose pages are all known before the first is asked: where those and their rows come from. */
	readonly join?: string;
	readonly words?: readonly string[];
}

const SEARCH = 'SELECT rowid FROM page_search WHERE page_search MATCH ?';
const SEARCHED = 'page_search f CROSS JOIN page_state s ON s.page_id = f.rowid AND f.page_search MATCH ?';

/** Whether some pages are yet to be looked at: of those that never were, only their paths can be searched. */
export const hasUnseen = (db: Db, site: number): boolean =>
	db
		.prepare(
			`SELECT 1 FROM content_type c JOIN page_state s ON s.site_id = c.site_id AND s.type = c.name AND s.seen < 0
			WHERE c.site_id = ? LIMIT 1`
		)
		.get(site) !== undefined;

/** A condition on columns of the row, which an index gives the rows of. */
const onRow = (site: number, sql: string, ...values: unknown[]): Condition => ({
	...{ sql, values },
	set: `SELECT s.page_id FROM page_state s WHERE s.site_id = ? AND ${sql}`,
	setValues: [site, ...values]
});

function conditionsOf(db: Db, site: number, filter: PageFilter): Condition[] {
	const all: Condition[] = [];
	const words = wordsOf(filter.q ?? '');
	if (words.length > 0) {
		const match = words.map((word) => `"${word}"*`).join(' ');
		const isWhole = !hasUnseen(db, site);
		const set = isWhole ? SEARCH : `${SEARCH} UNION SELECT rowid FROM path_search WHERE path_search MATCH ?`;
		const values = isWhole ? [match] : [match, match];
		const join = isWhole ? SEARCHED : `(${set}) f CROSS JOIN page_state s ON s.page_id = f.rowid`;
		all.push({ sql: `s.page_id IN (${set})`, set, values, setValues: values, join, words });
	}
	for (const column of ['type', 'state', 'title', 'description', 'picture'] as const)
		if (filter[column] !== undefined && filter[column] !== '')
			all.push({ ...onRow(site, `s.${column} = ?`, filter[column]), pins: column });
	if (filter.language === '-') all.push(onRow(site, `(s.language IS NULL OR s.language = 'und')`));
	else if (filter.language) all.push({ ...onRow(site, 's.language = ?', filter.language), pins: 'language' });
	if (filter.finding) {
		const has = `code IN (SELECT value FROM json_each(?))${filter.of ? ' AND tag = ?' : ''}`;
		const values = [JSON.stringify(filter.finding.split(',')), ...(filter.of ? [filter.of] : [])];
		all.push({
			sql: `EXISTS (SELECT 1 FROM page_finding f WHERE f.page_id = s.page_id AND ${has})`,
			values,
			set: `SELECT page_id FROM page_finding WHERE site_id = ? AND ${has}`,
			setValues: [site, ...values]
		});
	}
	const [name, layer] = filter.from?.split(':') ?? [];
	const column = name && Object.hasOwn(FROM_COLUMNS, name) ? FROM_COLUMNS[name] : undefined;
	// The second half names the index.
	if (column && layer) all.push(onRow(site, `s.${column} = ? AND s.${column} <> ''`, layer));
	if (filter.differs && Object.hasOwn(DIFFERS, filter.differs))
		all.push(onRow(site, `s.differs ${DIFFERS[filter.differs]}`));
	if (filter.without)
		all.push(
			onRow(
				site,
				`+s.state = 'live' AND s.head IS NOT NULL AND s.tag_set IN (SELECT id FROM tag_set WHERE NOT instr(tags, ?))`,
				` ${filter.without} `
			)
		);
	if (filter.key === 'yes') all.push(onRow(site, 's.is_key = 1'));
	return all;
}

/** Columns of a few values, whose indexes go on by path. */
const KINDS: ReadonlySet<string> = new Set(['type', 'language', 'state', 'card', 'is_key']);

/** Few pages: as many are gathered and sorted as fast as the first rows are found in their order. */
const FEW = 1000;
/** Where all are to be gone through, knowing the smallest set is worth counting as far as this. */
const COUNTED = 50_000;
/** So many rows are walked over in their order, in search of those that a filter means. */
const WALKED = 3000;
/**
 * So many are read for the words of a search, before its index is asked: that takes longer, the more pages have them. More
 * of them where the first have so many of the words that the rest of what is wanted is to be expected.
 */
const READ = 300;
const READ_ON = 1500;
/** So few pages that a search finds are gathered as fast as others are walked over. */
const THIN = 5000;

/** How the pages that a filter means are found; `order` is how they are sorted. */
type Search = (order: string) => { readonly sql: string; readonly values: readonly unknown[] };

/**
 * Of the sets that the conditions give, the smallest, where it is of few pages; the others are asked of each. Where none
 * is, the first of them, or all pages. `most` is how far their pages are counted.
 */
function gatheringOf(
	db: Db,
	site: number,
	conditions: readonly Condition[],
	most = FEW
): { search: Search; isFew: boolean } {
	const sizes = conditions.map(({ set, setValues }) =>
		db
			.prepare<unknown[], number>(`SELECT count(*) FROM (${set} LIMIT ${most})`)
			.pluck()
			.get(...setValues)!
	);
	const least = Math.min(...sizes);
	const first = conditions[sizes.indexOf(least)];
	return { isFew: first !== undefined && least < most, search: gatheringFrom(site, conditions, first) };
}

/** The pages that a condition's set gives, of which the others are asked; of no condition, all pages. */
function gatheringFrom(site: number, conditions: readonly Condition[], first: Condition | undefined): Search {
	const others = conditions.filter((one) => one !== first);
	const given = first && !first.join ? [`s.page_id IN (${first.set})`] : [];
	// The plus keeps other indexes out of it.
	const where = [...given, '+s.site_id = ?', ...others.map(({ sql }) => sql)];
	const values = [...(first?.setValues ?? []), site, ...others.flatMap((one) => one.values)];
	return (order) => ({
		sql: `FROM ${first?.join ?? 'page_state s'} WHERE ${where.join(' AND ')}${order && ` ORDER BY +${order}`}`,
		values
	});
}

/** How the table is sorted. */
export interface Order {
	readonly sort: Sort;
	readonly down: boolean;
}
/** Which rows of it are wanted. */
export interface Wanted extends Order {
	readonly offset: number;
	readonly limit: number;
}

/** Rows of the table of pages from `offset` on, in an order: fast for the first of them. */
export const gridRows = (db: Db, site: number, filter: PageFilter, wanted: Wanted, listOf?: ListOf): GridRow[] =>
	rowsOf(db, idsInOrder(db, site, filter, wanted, listOf));

/** The rows of pages by their ids, in their order; those that are gone are left out. */
export function rowsOf(db: Db, ids: Iterable<number>): GridRow[] {
	return db
		.prepare<unknown[], GridRow>(
			`SELECT ${ROW} FROM json_each(?) AS one JOIN page_state s ON s.page_id = one.value ORDER BY one.key`
		)
		.all(JSON.stringify([...ids]));
}

/** The columns that pages are told apart by in an order: pages of one kind follow by path. */
const keysOf = (sort: Sort): readonly string[] => [
	...new Set([SORTS[sort], KINDS.has(SORTS[sort]) ? 'path' : 'page_id'])
];

/** What a page has in the columns of an order. */
export const placeInOrder = (db: Db, id: number, sort: Sort): readonly (string | number | null)[] | undefined =>
	db
		.prepare<unknown[], (string | number | null)[]>(
			`SELECT ${keysOf(sort).join(', ')} FROM page_state WHERE page_id = ?`
		)
		.raw()
		.get(id);

/** How many of a list, which is in an order, stand at a place of it or before: it is halved until that is found. */
export function countUpTo(db: Db, list: Uint32Array, { sort, down }: Order, place: readonly unknown[]): number {
	const keys = keysOf(sort);
	// Nothing stands before all else.
	const parts = (of: readonly string[]) => of.map((one) => `${one} IS NOT NULL, coalesce(${one}, 0)`).join(', ');
	const isPast = db
		.prepare<[object], number>(
			`SELECT (${parts(keys)}) ${down ? '<' : '>'} (${parts(keys.map((key) => `@${key}`))})
			FROM page_state WHERE page_id = @one`
		)
		.pluck();
	const values = Object.fromEntries(keys.map((key, at) => [key, place[at]]));
	let [from, to] = [0, list.length];
	while (from < to) {
		const middle = (from + to) >> 1;
		if (isPast.get({ ...values, one: list[middle] }) === 1) to = middle;
		else from = middle + 1;
	}
	return from;
}

/** What is asked for in an order, taken apart. */
function planOf(db: Db, site: number, filter: PageFilter, { sort, down }: Order) {
	const conditions = conditionsOf(db, site, filter);
	const way = down ? 'DESC' : 'ASC';
	const column = SORTS[sort];
	// What a filter pins is the same on all rows.
	const isPinned = conditions.some(({ pins }) => pins === column);
	const keys = keysOf(sort).filter((key) => !isPinned || key !== column);
	// A condition whose index has the rows as they are wanted: those of a type are there in every order.
	const leading =
		conditions.find(({ pins }) => pins === 'type') ??
		conditions.find(({ pins }) => pins && (KINDS.has(pins) ? keys[0] === 'path' : keys[0] === 'page_id'));
	return {
		conditions,
		order: keys.map((key) => `s.${key} ${way}`).join(', '),
		/** The rows that an index has in that order, and what goes into it. */
		inOrder: `FROM page_state s WHERE s.site_id = ?${leading ? ` AND ${leading.sql}` : ''}`,
		inOrderValues: [site, ...(leading?.values ?? [])],
		leading,
		others: conditions.filter((one) => one !== leading)
	};
}

/**
 * The ids of all pages that a filter means, in an order. `withoutWords` gives those that it means without its words, where
 * that list is kept.
 */
export function gridIds(
	db: Db,
	site: number,
	filter: PageFilter,
	sorted: Order,
	withoutWords?: () => Uint32Array
): Uint32Array {
	const { conditions, order, inOrder, inOrderValues, others } = planOf(db, site, filter, sorted);
	const ids = (sql: string, values: readonly unknown[]) =>
		Uint32Array.from(
			JSON.parse(
				db
					.prepare<unknown[], string>(`WITH one (id) AS (${sql}) SELECT json_group_array(id) FROM one`)
					.pluck()
					.get(...values)!
			) as number[]
		);
	const { search, isFew } = gatheringOf(db, site, conditions);
	const searched = conditions.find(({ join }) => join);
	if (isFew || (searched && gatheringOf(db, site, [searched], THIN).isFew)) {
		const { sql, values } = isFew ? search(order) : gatheringFrom(site, conditions, searched)(order);
		return ids(`SELECT s.page_id ${sql}`, values);
	}
	// All in their order and the sets of the conditions are each read from an index; sorting what a set gives takes longer.
	const isIn = ({ set, setValues }: Condition) => bitsOf(ids(set, setValues));
	if (searched && withoutWords) {
		const bits = isIn(searched);
		return withoutWords().filter((id) => bits[id] === 1);
	}
	const all = ids(`SELECT s.page_id ${inOrder} ORDER BY ${order}`, inOrderValues);
	return others.map(isIn).reduce((left, bits) => left.filter((id) => bits[id] === 1), all);
}

/** By id: whether it is among them. */
function bitsOf(ids: Uint32Array): Uint8Array {
	const bits = new Uint8Array(ids.reduce((most, id) => Math.max(most, id), 0) + 1);
	for (const id of ids) bits[id] = 1;
	return bits;
}

/**
 * All ids that the filter means, in its order: where the list is to be kept anyway, or (`isWorthIt`) where nothing else is
 * faster.
 */
export type ListOf = (isWorthIt: boolean) => Uint32Array | undefined;

function idsInOrder(
	db: Db,
	site: number,
	filter: PageFilter,
	{ limit, offset, ...sorted }: Wanted,
	listOf?: ListOf
): number[] {
	const { conditions, order, inOrder, inOrderValues, leading, others } = planOf(db, site, filter, sorted);
	const ids = (from: string, values: readonly unknown[]) =>
		db
			.prepare<unknown[], number>(`SELECT s.page_id ${from} LIMIT ? OFFSET ?`)
			.pluck()
			.all(...values, limit, offset);
	if (conditions.length === 0) return ids(`${inOrder} ORDER BY ${order}`, inOrderValues);
	const searched = conditions.find(({ join }) => join);
	const values = [...inOrderValues, ...others.flatMap((one) => one.values)];
	const gathered = (search: Search) => {
		const { sql, values } = search(order);
		return ids(sql, values);
	};
	/** Those of the first rows in their order that the others mean; undefined where that is not enough. */
	const walked = () => {
		if (offset + limit >= WALKED) return undefined;
		// A search alone is asked of an index without its rows.
		const columns = others.length === 1 && searched ? 's.page_id' : '*';
		const where = others.map(({ sql }) => sql).join(' AND ');
		const found = ids(
			`FROM (SELECT ${columns} ${inOrder} ORDER BY ${order} LIMIT ${WALKED}) AS s WHERE ${where}`,
			values
		);
		return found.length === limit ? found : undefined;
	};
	/** Those of the very first rows whose texts have the words; undefined where only the index can tell. */
	const read = (words: readonly string[], most = READ): number[] | undefined => {
		const hasWords = wordsInText(words);
		if (!hasWords || offset + limit >= READ) return undefined;
		const asked = others.filter((one) => one !== searched);
		const where = asked.map(({ sql }) => `${sql} AND`).join(' ');
		const rows = db
			.prepare<unknown[], [number, string, string, string]>(
				`SELECT s.page_id, s.path, s.title, s.description FROM (SELECT * ${inOrder} ORDER BY ${order} LIMIT ${most}) AS s WHERE ${where} s.seen >= 0`
			)
			.raw()
			.all(...inOrderValues, ...asked.flatMap((one) => one.values));
		const found: number[] = [];
		for (const [id, ...texts] of rows) {
			const has = hasWords(texts);
			if (has === undefined) return undefined;
			if (has) found.push(id);
		}
		const isNear = found.length < offset + limit && found.length * (READ_ON / READ) > 1.5 * (offset + limit);
		return most === READ && isNear ? (read(words, READ_ON) ?? found) : found;
	};
	if (searched) {
		const of = (list: Uint32Array) => [...list.subarray(offset, offset + limit)];
		const kept = listOf?.(false);
		if (kept) return of(kept);
		const found = read(searched.words ?? []);
		if (found && found.length >= offset + limit) return found.slice(offset, offset + limit);
		// Where few pages have the words, and few of the first ones, there is no use in going on so.
		const isThin = gatheringOf(db, site, [searched], THIN).isFew;
		const isHopeless = isThin && found && found.length * (WALKED / READ) < offset + limit;
		const some = isHopeless ? undefined : walked();
		if (some) return some;
		const made = isThin ? undefined : listOf?.(true);
		return made ? of(made) : gathered(gatheringFrom(site, conditions, searched));
	}
	const { search, isFew } = gatheringOf(db, site, conditions);
	if (isFew) return gathered(search);
	if (leading) return ids(`${inOrder}${others.map(({ sql }) => ` AND +(${sql})`).join('')} ORDER BY ${order}`, values);
	return walked() ?? gathered(search);
}

export function countGrid(db: Db, site: number, filter: PageFilter): number {
	const conditions = conditionsOf(db, site, filter);
	const [first] = conditions;
	// The set of one condition is counted as it is; that of a search has the pages of all sites.
	const isWhole = conditions.length === 1 && (!first?.join || isOnlySite(db));
	const { sql, values } =
		first && isWhole
			? { sql: `FROM (${first.set})`, values: first.setValues }
			: gatheringOf(db, site, conditions, COUNTED).search('');
	return db
		.prepare<unknown[], number>(`SELECT count(*) ${sql}`)
		.pluck()
		.get(...values)!;
}

const isOnlySite = (db: Db) => db.prepare('SELECT count(*) FROM site').pluck().get() === 1;

/** The paths of the pages that a filter means, in the order of their ids. */
export function pathsOfFilter(db: Db, site: number, filter: PageFilter, limit = -1): string[] {
	const { sql, values } = gatheringOf(db, site, conditionsOf(db, site, filter)).search('s.page_id');
	return db
		.prepare<unknown[], string>(`SELECT s.path ${sql} LIMIT ?`)
		.pluck()
		.all(...values, limit);
}
