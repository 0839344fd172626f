import type { Db } from '../opening/database';

// What is counted of all pages of a site at once.

/** Values that several live pages share, those of most pages first. */
export function sharedValues(db: Db, site: number, column: 'title' | 'description' | 'picture', limit: number) {
	return db
		.prepare<unknown[], { value: string; pages: number }>(
			`SELECT ${column} AS value, count(*) AS pages FROM page_state WHERE site_id = ? AND head IS NOT NULL AND ${column} <> ''
			GROUP BY ${column} HAVING pages > 1 ORDER BY pages DESC LIMIT ?`
		)
		.all(site, limit);
}

/** Of a type: how many pages are public, and how many of them have each of the tags asked for. */
export interface TagsOfType {
	readonly type: string;
	readonly pages: number;
	readonly counts: readonly number[];
}

/** Of each type: how many pages are public, and how many of them have each of the tags. */
export function tagMatrix(db: Db, site: number, tags: readonly string[]): TagsOfType[] {
	const columns = tags.map((_, at) => `sum(n * (instr(tags, ?) > 0)) AS t${at}`).join(', ');
	const rows = db
		.prepare<unknown[], { type: string; pages: number } & Record<string, number>>(
			`SELECT type, sum(n) AS pages, ${columns} FROM (SELECT type, tag_set, count(*) AS n FROM page_state
				WHERE site_id = ? AND head IS NOT NULL GROUP BY type, tag_set) AS same JOIN tag_set t ON t.id = same.tag_set GROUP BY type ORDER BY type`
		)
		.all(...tags.map((tag) => ` ${tag} `), site);
	return rows.map(({ type, pages, ...counts }) => ({
		type,
		pages,
		counts: tags.map((_, at) => counts[`t${at}`] as number)
	}));
}

/** So many pages are as wide as this step. */
export interface WidthStep {
	readonly step: number;
	readonly pages: number;
}

/** How wide titles or descriptions are: counts by steps of an em. */
export function widths(db: Db, site: number, column: 'title_width' | 'description_width', step: number): WidthStep[] {
	return db
		.prepare<unknown[], WidthStep>(
			`SELECT CAST(${column} / ? AS INTEGER) AS step, count(*) AS pages FROM page_state WHERE site_id = ? AND head IS NOT NULL GROUP BY 1 ORDER BY 1`
		)
		.all(step, site);
}

/** The tags that pages say by themselves, whatever their language. */
export const overriddenTags = (db: Db, site: number): string[] =>
	db
		.prepare<unknown[], string>(
			`SELECT DISTINCT tag FROM rule WHERE site_id = ? AND page_id IS NOT NULL AND language = '' ORDER BY tag`
		)
		.pluck()
		.all(site);

/** How many of some pages say something of a tag by themselves. */
export const countOverriding = (db: Db, site: number, tag: string, paths: readonly string[]): number =>
	db
		.prepare<unknown[], number>(
			`SELECT count(*) FROM rule JOIN page ON page.id = rule.page_id WHERE rule.site_id = ? AND tag = ?
			AND rule.language = '' AND page.path IN (SELECT value FROM json_each(?))`
		)
		.pluck()
		.get(site, tag, JSON.stringify(paths))!;
