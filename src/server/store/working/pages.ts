import { sameJson, type Page, type Rule } from '$core';
import { refuse } from '../../errors';
import { prepared, row, type Db, type Prepared } from '../opening/database';
import { inPart, type Part } from '../opening/part';
import type { BodyStore } from './bodies';
import { PageRows, splitBody, WHOLE, type PageRow } from './pageRows';
import type { RedirectStore } from './redirects';
import type { RuleStore } from './rules';

/** The names of the types of a row's site that are switched off: `hiddenIn` of the core, for statements. */
export const offTypes = (of: string) =>
	`(SELECT name FROM content_type WHERE site_id = ${of}.site_id AND json_extract(settings, '$.off'))`;

const SQL = {
	pageByPath: row<PageRow>(`${WHOLE} WHERE site_id = ? AND path = ?`),
	pageById: row<PageRow>(`${WHOLE} WHERE id = ?`),
	pagesById: row<PageRow>(`${WHOLE} WHERE id IN (SELECT value FROM json_each(?))`),
	pages: `${WHOLE} WHERE site_id = ? ORDER BY path`,
	pagesOfType: `${WHOLE} WHERE site_id = @site AND type = @type AND ${inPart('page.id')}`,
	partOfPages: `${WHOLE} WHERE site_id = @site AND ${inPart('page.id')}`,
	// From the first path in the folder up to what stands behind all of them; `0` follows the slash.
	below: `SELECT path FROM page WHERE site_id = @site AND path > @folder AND path < substr(@folder, 1, length(@folder) - 1) || '0'
		AND instr(rtrim(substr(path, length(@folder) + 1), '/'), '/') = 0 ORDER BY path LIMIT @limit`,
	livePages: `${WHOLE} WHERE site_id = ? AND state = 'live' AND type NOT IN ${offTypes('page')} ORDER BY path`,
	overridden:
		row<PageRow>(`${WHOLE} WHERE page.id IN (SELECT page_id FROM rule WHERE site_id = @site AND page_id IS NOT NULL
		UNION SELECT id FROM page WHERE site_id = @site AND instr(settings, '"extra"')) ORDER BY path`),
	hasPageRules: row<{ id: number }>(
		`SELECT DISTINCT page_id AS id FROM rule WHERE site_id = ? AND page_id IS NOT NULL`
	),
	pagesNaming: row<PageRow>(
		`${WHOLE} WHERE id IN (SELECT page_id FROM page_version WHERE site_id = ? AND path = ?) ORDER BY path`
	),
	counts: row<{ type: string; state: Page['state']; n: number }>(
		`SELECT type, state, n FROM page_count WHERE site_id = ? AND n > 0`
	),
	paths: `SELECT path FROM page WHERE site_id = ? ORDER BY path`,
	places: row<{ path: string; type: string; language: string | null }>(
		`SELECT path, type, language FROM page WHERE site_id = ? AND path IN (SELECT value FROM json_each(?))`
	),
	pathsOfType: `SELECT path FROM page WHERE site_id = ? AND type = ? ORDER BY path`,
	pagePaths: row<PageRow>(`SELECT id, path FROM page WHERE site_id = ?`),
	// Most pages that are read are new, and a new one has nothing to be kept.,
	hasPage: row<{ id: number }>(`SELECT id FROM page WHERE site_id = ? AND path = ?`),
	fieldShares: row<{
		name: string;
		share: number;
	}>(`WITH some AS (SELECT fields FROM page WHERE site_id = @site AND type = @type LIMIT 30)
		SELECT key AS name, 1.0 * count(*) / (SELECT count(*) FROM some) AS share FROM some, json_each(some.fields) GROUP BY key`),
	hasFieldOfType: `SELECT 1 FROM page WHERE site_id = @site AND type = @type AND fields -> ('$.' || json_quote(@field)) IS NOT NULL LIMIT 1`,
	renameField: `UPDATE page SET fields = json_remove(json_set(fields, '$.' || json_quote(@to), json(fields -> ('$.' || json_quote(@from)))),
			'$.' || json_quote(@from)), settings = CASE WHEN json_extract(settings, '$.held') IS NULL THEN settings ELSE
				json_set(settings, '$.held', (SELECT json_group_array(iif(value = @from, @to, value)) FROM json_each(settings, '$.held'))) END
		WHERE site_id = @site AND type = @type AND fields -> ('$.' || json_quote(@from)) IS NOT NULL`,
	savePage: row<{
		id: number;
	}>(`INSERT INTO page (site_id, path, type, language, state, modified, hidden, fields, settings)
		VALUES (@site, @path, @type, @language, @state, @modified, @hidden, @fields, @settings)
		ON CONFLICT (site_id, path) DO UPDATE SET type = excluded.type, language = excluded.language, state = excluded.state,
			modified = excluded.modified, hidden = excluded.hidden, fields = excluded.fields, settings = excluded.settings
		RETURNING id`),
	movePage: `UPDATE page SET path = @to WHERE site_id = @site AND path = @from`,
	dropPage: `DELETE FROM page WHERE id = ?`
} as const;

const NO_RULES: readonly Rule[] = [];

/** The pages of sites. */
export class PageStore {
	private readonly rows = new PageRows((page) => this.bodies.of(page));
	private readonly run: Prepared<typeof SQL>;

	constructor(
		db: Db,
		private readonly rules: RuleStore,
		private readonly bodies: BodyStore,
		private readonly redirects: RedirectStore
	) {
		this.run = prepared(db, SQL);
	}

	byId(id: number): Page | undefined {
		const row = this.run('pageById').get(id);
		return row && this.rows.toPage(row, this.rules.ofPage(row.id));
	}

	/** Those that are there, each with its id, in no order. */
	byIds(ids: readonly number[]): (readonly [number, Page])[] {
		const rules = this.rules.ofPages(ids);
		const rows = this.run('pagesById').all(JSON.stringify(ids));
		return rows.map((row) => [row.id, this.rows.toPage(row, rules.get(row.id) ?? NO_RULES)]);
	}

	at(site: number, path: string): Page | undefined {
		const row = this.run('pageByPath').get(site, path);
		return row && this.rows.toPage(row, this.rules.ofPage(row.id));
	}

	/** Where pages stand: their paths, types and languages. */
	placesOf(site: number, paths: readonly string[]): Pick<Page, 'path' | 'type' | 'language'>[] {
		return this.run('places')
			.all(site, JSON.stringify(paths))
			.map(({ language, ...place }) => ({ ...place, ...(language !== null && { language }) }));
	}

	/** All pages of a site, or only the live ones, by path; one at a time, so that memory stays level. */
	*all(site: number, which: 'all' | 'live' = 'all'): Generator<Page> {
		const overridden = new Set(
			this.run('hasPageRules')
				.all(site)
				.map((row) => row.id)
		);
		for (const row of this.run(which === 'all' ? 'pages' : 'livePages').iterate(site) as IterableIterator<PageRow>)
			yield this.rows.toPage(row, overridden.has(row.id) ? this.rules.ofPage(row.id) : NO_RULES);
	}

	/** One of so many parts of the pages, of a type or of all, in no order: for several threads that share the work. */
	*part(site: number, type: string | undefined, { part, parts }: Part): Generator<Page> {
		const overridden = new Set(
			this.run('hasPageRules')
				.all(site)
				.map((row) => row.id)
		);
		const statement = this.run(type === undefined ? 'partOfPages' : 'pagesOfType');
		for (const row of statement.iterate({ site, type, part, parts }) as IterableIterator<PageRow>)
			yield this.rows.toPage(row, overridden.has(row.id) ? this.rules.ofPage(row.id) : NO_RULES);
	}

	/** The pages with rules or extra markup of their own, by path. */
	*overridden(site: number): Generator<Page> {
		for (const row of this.run('overridden').iterate({ site })) yield this.rows.toPage(row, this.rules.ofPage(row.id));
	}

	/** The paths of all pages, or of those of a type. */
	paths(site: number, type?: string): string[] {
		const rows = type === undefined ? this.run('paths').all(site) : this.run('pathsOfType').all(site, type);
		return (rows as { path: string }[]).map(({ path }) => path);
	}

	/** The first paths directly below a folder, by path. */
	below(site: number, folder: string, limit: number): string[] {
		const rows = this.run('below').all({ site, folder, limit }) as { path: string }[];
		return rows.map(({ path }) => path);
	}

	count(site: number): { all: number; live: number; byType: Record<string, number> } {
		const rows = this.run('counts').all(site);
		const byType = new Map<string, number>();
		let [all, live] = [0, 0];
		for (const { type, state, n } of rows) {
			byType.set(type, (byType.get(type) ?? 0) + n);
			all += n;
			if (state === 'live') live += n;
		}
		return { all, live, byType: Object.fromEntries(byType) };
	}

	save(site: number, page: Page) {
		const id = this.saveRow(site, page);
		this.bodies.save(id, splitBody(page.fields).body);
		this.rules.replace({ site, type: null, page: id }, page.rules);
	}

	/** Writes what of a page came out different, its path apart; says whether anything did. */
	change(site: number, before: Page, after: Page): boolean {
		const changed = new Set(
			[...Object.keys(before), ...Object.keys(after)].filter(
				(key) => !sameJson(before[key as keyof Page], after[key as keyof Page])
			)
		);
		if (changed.size === 0) return false;
		const haveOnlyRules = changed.size === 1 && changed.has('rules');
		const id = haveOnlyRules ? this.run('hasPage').get(site, after.path)!.id : this.saveRow(site, after);
		if (changed.has('fields')) this.bodies.save(id, splitBody(after.fields).body);
		if (changed.has('rules')) this.rules.replace({ site, type: null, page: id }, after.rules);
		return true;
	}

	private saveRow(site: number, page: Page): number {
		const {
			path,
			type,
			language,
			state,
			modified,
			hidden,
			fields,
			rules: _rules,
			reading: _reading,
			...settings
		} = page;
		const { rest } = splitBody(fields);
		const row = this.run('savePage').get({
			...{ site, path, type, state },
			language: language ?? null,
			modified: modified ?? null,
			hidden: hidden ? 1 : 0,
			fields: JSON.stringify(rest),
			settings: JSON.stringify(settings)
		})!;
		return row.id;
	}

	/** The share of the pages of a type that have each field, 0 to 1, of some of them. */
	fieldShares(site: number, type: string): Record<string, number> {
		const rows = this.run('fieldShares').all({ site, type });
		return Object.fromEntries(rows.map(({ name, share }) => [name, Math.round(share * 100) / 100]));
	}

	has(site: number, path: string): boolean {
		return this.run('hasPage').get(site, path) !== undefined;
	}

	/** Gives a page another path. The old one leads to it from now on, and so do those that led to the old one. */
	move(site: number, from: string, to: string) {
		if (from === to) return;
		if (this.at(site, to)) throw refuse('path-taken', { path: to });
		this.run('movePage').run({ site, from, to });
		this.redirects.drop(site, to);
		this.redirects.leadOn(site, from, to);
		for (const page of this.naming(site, from)) {
			const alternates = Object.entries(page.alternates ?? {}).map(([tag, path]) => [tag, path === from ? to : path]);
			this.save(site, { ...page, alternates: Object.fromEntries(alternates) as Page['alternates'] & object });
		}
	}

	/** The pages that name another as a version of theirs. */
	naming(site: number, path: string): Page[] {
		const rows = this.run('pagesNaming').all(site, path);
		return rows.map((row) => this.rows.toPage(row, this.rules.ofPage(row.id)));
	}

	/** Whether any page of a type has a value under a name, declared or not. */
	haveField(site: number, type: string, field: string): boolean {
		return this.run('hasFieldOfType').get({ site, type, field }) !== undefined;
	}

	/** Gives a field of the pages of a type another name; the values stay. */
	renameField(site: number, type: string, from: string, to: string) {
		this.run('renameField').run({ site, type, from, to });
	}

	/** Takes a page away with its rules. A path that led to it leads nowhere then. */
	remove(site: number, path: string) {
		const row = this.run('pageByPath').get(site, path);
		if (!row) throw refuse('page-missing', { path });
		this.run('dropPage').run(row.id);
	}

	/** Takes away all but these; one at a time, so that long work can be parted. */
	*keepOnly(site: number, paths: ReadonlySet<string>): Generator<void, void> {
		for (const { id, path } of this.run('pagePaths').all(site)) {
			if (paths.has(path)) continue;
			this.run('dropPage').run(id);
			yield;
		}
	}
}
