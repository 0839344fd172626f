import type { Db } from './database';

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
	differs: 'differs'
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

/** What a filter asks, as SQL over `page_state s`, with what goes into it. */
interface Conditions {
	readonly where: string;
	readonly values: readonly unknown[];
}

/**
 * The conditions of a filter. `isWalk`: they are asked of one row after another, so that what a row has is looked up
 * for it, and not gathered of all.
 */
function conditionsOf(site: number, filter: PageFilter, isWalk: boolean): Conditions {
	const parts: string[] = [];
	const values: unknown[] = [];
	const add = (sql: string, ...more: unknown[]) => {
		parts.push(sql);
		values.push(...more);
	};
	const words = filter.q?.match(/[\p{L}\p{N}]+/gu);
	if (words)
		add(
			's.page_id IN (SELECT rowid FROM page_search WHERE page_search MATCH ?)',
			words.map((word) => `"${word}"*`).join(' ')
		);
	for (const column of ['type', 'state', 'title', 'picture'] as const)
		if (filter[column] !== undefined && filter[column] !== '') add(`s.${column} = ?`, filter[column]);
	if (filter.description)
		add(
			'substr(s.description, 1, 40) = substr(?, 1, 40) AND s.description = ?',
			filter.description,
			filter.description
		);
	if (filter.language) {
		if (filter.language === '-') add(`(s.language IS NULL OR s.language = 'und')`);
		else add('s.language = ?', filter.language);
	}
	if (filter.finding) {
		const codes = JSON.stringify(filter.finding.split(','));
		const of = `code IN (SELECT value FROM json_each(?))${filter.of ? ' AND tag = ?' : ''}`;
		const more = filter.of ? [codes, filter.of] : [codes];
		if (isWalk) add(`EXISTS (SELECT 1 FROM page_finding f WHERE f.page_id = s.page_id AND ${of})`, ...more);
		else add(`s.page_id IN (SELECT page_id FROM page_finding WHERE site_id = ? AND ${of})`, site, ...more);
	}
	const [name, layer] = filter.from?.split(':') ?? [];
	const column = name && Object.hasOwn(FROM_COLUMNS, name) ? FROM_COLUMNS[name] : undefined;
	// The second half names the index.
	if (column && layer) add(`s.${column} = ? AND s.${column} <> ''`, layer);
	if (filter.differs && Object.hasOwn(DIFFERS, filter.differs)) add(`s.differs ${DIFFERS[filter.differs]}`);
	if (filter.without) add(`s.state = 'live' AND s.head IS NOT NULL AND NOT instr(s.tags, ?)`, ` ${filter.without} `);
	if (filter.key === 'yes') add('s.is_key = 1');
	return { where: parts.join(' AND '), values };
}

/** So many rows are walked over in their order; where a filter means fewer than are wanted of them, it means few of all. */
const WALKED = 3000;

/** Rows of the table of pages from `offset` on, in an order. */
export function gridRows(
	db: Db,
	site: number,
	filter: PageFilter,
	{
		sort,
		down,
		offset,
		limit
	}: { readonly sort: Sort; readonly down: boolean; readonly offset: number; readonly limit: number }
): GridRow[] {
	const way = down ? 'DESC' : 'ASC';
	// The index of descriptions holds their beginnings.
	const keys = sort === 'description' ? ['substr(s.description, 1, 40)', 's.description'] : [`s.${SORTS[sort]}`];
	const order = [...keys, 's.page_id'].map((key) => `${key} ${way}`).join(', ');
	// The ids alone are walked over: what they stand for is read for the rows that are shown.
	const rows = (ids: string, ...values: unknown[]) =>
		db
			.prepare(`SELECT ${ROW} FROM (${ids}) AS one JOIN page_state s USING (page_id) ORDER BY ${order}`)
			.all(...values) as GridRow[];
	const walk = conditionsOf(site, filter, true);
	if (walk.where === '')
		return rows(
			`SELECT s.page_id FROM page_state s WHERE s.site_id = ? ORDER BY ${order} LIMIT ? OFFSET ?`,
			...[site, limit, offset]
		);
	if (offset + limit < WALKED) {
		const found = rows(
			`SELECT s.page_id FROM (SELECT * FROM page_state s WHERE s.site_id = ? ORDER BY ${order} LIMIT ${WALKED}) AS s
			WHERE ${walk.where} LIMIT ? OFFSET ?`,
			...[site, ...walk.values, limit, offset]
		);
		if (found.length === limit) return found;
	}
	// The plus keeps the order's index out of it: pages are gathered by what the filter says, and sorted.
	const { where, values } = conditionsOf(site, filter, false);
	return rows(
		`SELECT s.page_id FROM page_state s WHERE s.site_id = ? AND ${where} ORDER BY +${order} LIMIT ? OFFSET ?`,
		...[site, ...values, limit, offset]
	);
}

export function countGrid(db: Db, site: number, filter: PageFilter): number {
	const { where, values } = conditionsOf(site, filter, false);
	return db
		.prepare(`SELECT count(*) FROM page_state s WHERE s.site_id = ?${where && ` AND ${where}`}`)
		.pluck()
		.get(site, ...values) as number;
}

/** The paths of the pages that a filter means, in the order of their ids. */
export function pathsOfFilter(db: Db, site: number, filter: PageFilter, limit = -1): string[] {
	const { where, values } = conditionsOf(site, filter, false);
	return db
		.prepare(
			`SELECT s.path FROM page_state s WHERE s.site_id = ?${where && ` AND ${where}`} ORDER BY s.page_id LIMIT ?`
		)
		.pluck()
		.all(site, ...values, limit) as string[];
}

/** Values that several live pages share, those of most pages first. */
export function sharedValues(db: Db, site: number, column: 'title' | 'description' | 'picture', limit: number) {
	return db
		.prepare(
			`SELECT ${column} AS value, count(*) AS pages FROM page_state WHERE site_id = ? AND head IS NOT NULL AND ${column} <> ''
			GROUP BY ${column} HAVING pages > 1 ORDER BY pages DESC LIMIT ?`
		)
		.all(site, limit) as { value: string; pages: number }[];
}

/** Of each type: how many pages are public, and how many of them have each of the tags. */
export function tagMatrix(db: Db, site: number, tags: readonly string[]) {
	const columns = tags.map((_, at) => `sum(instr(tags, ?) > 0) AS t${at}`).join(', ');
	const rows = db
		.prepare(
			`SELECT type, count(*) AS pages, ${columns} FROM page_state WHERE site_id = ? AND head IS NOT NULL GROUP BY type ORDER BY type`
		)
		.all(...tags.map((tag) => ` ${tag} `), site) as ({ type: string; pages: number } & Record<string, number>)[];
	return rows.map(({ type, pages, ...counts }) => ({
		type,
		pages,
		counts: tags.map((_, at) => counts[`t${at}`] as number)
	}));
}

/** How wide titles or descriptions are: counts by steps of an em. */
export function widths(db: Db, site: number, column: 'title_width' | 'description_width', step: number) {
	return db
		.prepare(
			`SELECT CAST(${column} / ? AS INTEGER) AS step, count(*) AS pages FROM page_state WHERE site_id = ? AND head IS NOT NULL GROUP BY 1 ORDER BY 1`
		)
		.all(step, site) as { step: number; pages: number }[];
}
