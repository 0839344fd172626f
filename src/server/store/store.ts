import { normaliseBase, sameJson, type ContentType, type Page, type Rule, type RuleBody, type Site } from '$core';
import { statSync } from 'node:fs';
import { notFound, UserError } from '../errors';
import { AsideStore } from './state/asides';
import { BodyStore } from './working/bodies';
import { explain, openDatabase, prepared, type Db, type OpenOptions } from './opening/database';
import { FilterStore } from './table/filters';
import { GridLists } from './table/gridLists';
import { ListingStore } from './table/listing';
import { LookStore } from './state/looks';
import { PageRows, splitBody, WHOLE, type PageRow } from './working/pageRows';
import { inPart, type Part } from './opening/part';
import { PictureStore } from './pictures/pictures';
import { ReadInStore } from './working/readIn';
import { RecordStore } from './record/record';
import { RedirectStore } from './working/redirects';
import { ReleaseStore } from './releases/releases';
import { SourceStore } from './working/sources';
import { StateStore } from './state/state';
import { isUnfinished, mendUnfinished } from './unfinished';

const SQL = {
	siteById: `SELECT id, name, base, settings, revision FROM site WHERE id = ?`,
	siteByName: `SELECT id, name, base, settings, revision FROM site WHERE name = ?`,
	madeAt: `SELECT made FROM site_made WHERE site_id = ?`,
	sites: `SELECT id, name, base, revision FROM site ORDER BY name`,
	addSite: `INSERT INTO site (name, base, settings) VALUES (@name, @base, @settings)`,
	saveSite: `UPDATE site SET base = @base, settings = @settings WHERE id = @id`,
	types: `SELECT id, name, settings FROM content_type WHERE site_id = ? ORDER BY name`,
	saveType: `INSERT INTO content_type (site_id, name, settings) VALUES (@site, @name, @settings)
		ON CONFLICT (site_id, name) DO UPDATE SET settings = excluded.settings RETURNING id`,
	addType: `INSERT INTO content_type (site_id, name, settings) VALUES (@site, @name, @settings) ON CONFLICT DO NOTHING`,
	renameType: `UPDATE content_type SET name = @to WHERE site_id = @site AND name = @from`,
	changeType: `UPDATE page SET type = @to WHERE site_id = @site AND type = @from`,
	renameField: `UPDATE page SET fields = json_remove(json_set(fields, '$.' || json_quote(@to), json(fields -> ('$.' || json_quote(@from)))),
			'$.' || json_quote(@from)), settings = CASE WHEN json_extract(settings, '$.held') IS NULL THEN settings ELSE
				json_set(settings, '$.held', (SELECT json_group_array(iif(value = @from, @to, value)) FROM json_each(settings, '$.held'))) END
		WHERE site_id = @site AND type = @type AND fields -> ('$.' || json_quote(@from)) IS NOT NULL`,
	hasFieldOfType: `SELECT 1 FROM page WHERE site_id = @site AND type = @type AND fields -> ('$.' || json_quote(@field)) IS NOT NULL LIMIT 1`,
	dropType: `DELETE FROM content_type WHERE site_id = @site AND name = @name`,
	siteRules: `SELECT tag, language, body FROM rule WHERE site_id = ? AND type_id IS NULL AND page_id IS NULL ORDER BY tag, language`,
	typeRules: `SELECT tag, language, body FROM rule WHERE type_id = ? ORDER BY tag, language`,
	pageRules: `SELECT tag, language, body FROM rule WHERE page_id = ? ORDER BY tag, language`,
	overridden: `${WHOLE} WHERE page.id IN (SELECT page_id FROM rule WHERE site_id = @site AND page_id IS NOT NULL
		UNION SELECT id FROM page WHERE site_id = @site AND instr(settings, '"extra"')) ORDER BY path`,
	hasPageRules: `SELECT DISTINCT page_id AS id FROM rule WHERE site_id = ? AND page_id IS NOT NULL`,
	saveRule: `INSERT INTO rule (site_id, type_id, page_id, tag, language, body) VALUES (@site, @type, @page, @tag, @language, @body)
		ON CONFLICT (site_id, coalesce(type_id, 0), coalesce(page_id, 0), tag, language) DO UPDATE SET body = excluded.body WHERE body <> excluded.body`,
	dropSameRule: `DELETE FROM rule WHERE site_id = @site AND coalesce(type_id, 0) = coalesce(@type, 0)
		AND coalesce(page_id, 0) = coalesce(@page, 0) AND tag = @tag AND lower(language) = lower(@language) AND language IS NOT @kept`,
	dropRule: `DELETE FROM rule WHERE site_id = @site AND coalesce(type_id, 0) = coalesce(@type, 0)
		AND coalesce(page_id, 0) = coalesce(@page, 0) AND tag = @tag AND language = @language`,
	pageByPath: `${WHOLE} WHERE site_id = ? AND path = ?`,
	pageById: `${WHOLE} WHERE id = ?`,
	pagesById: `${WHOLE} WHERE id IN (SELECT value FROM json_each(?))`,
	pages: `${WHOLE} WHERE site_id = ? ORDER BY path`,
	pagesOfType: `${WHOLE} WHERE site_id = @site AND type = @type AND ${inPart('page.id')}`,
	partOfPages: `${WHOLE} WHERE site_id = @site AND ${inPart('page.id')}`,
	livePages: `${WHOLE} WHERE site_id = ? AND state = 'live' AND type NOT IN
		(SELECT name FROM content_type WHERE site_id = page.site_id AND json_extract(settings, '$.off')) ORDER BY path`,
	counts: `SELECT type, state, n FROM page_count WHERE site_id = ? AND n > 0`,
	savePage: `INSERT INTO page (site_id, path, type, language, state, modified, hidden, fields, settings)
		VALUES (@site, @path, @type, @language, @state, @modified, @hidden, @fields, @settings)
		ON CONFLICT (site_id, path) DO UPDATE SET type = excluded.type, language = excluded.language, state = excluded.state,
			modified = excluded.modified, hidden = excluded.hidden, fields = excluded.fields, settings = excluded.settings
		RETURNING id`,
	dropPage: `DELETE FROM page WHERE id = ?`,
	renameSite: `UPDATE site SET name = @name WHERE id = @id`,
	movePage: `UPDATE page SET path = @to WHERE site_id = @site AND path = @from`,
	pagesNaming: `${WHOLE} WHERE id IN (SELECT page_id FROM page_version WHERE site_id = ? AND path = ?) ORDER BY path`,
	pagePaths: `SELECT id, path FROM page WHERE site_id = ?`,
	// Most pages that are read are new, and a new one has nothing to be kept.
	fieldShares: `WITH some AS (SELECT fields FROM page WHERE site_id = @site AND type = @type LIMIT 30)
		SELECT key AS name, 1.0 * count(*) / (SELECT count(*) FROM some) AS share FROM some, json_each(some.fields) GROUP BY key`,
	hasPage: `SELECT id FROM page WHERE site_id = ? AND path = ?`,
	paths: `SELECT path FROM page WHERE site_id = ? ORDER BY path`,
	pathsOfType: `SELECT path FROM page WHERE site_id = ? AND type = ? ORDER BY path`,
	rulesOf: `SELECT page_id AS id, tag, language, body FROM rule WHERE page_id IN (SELECT value FROM json_each(?))`
} as const;

interface RuleRow {
	tag: string;
	language: string;
	body: string;
}
interface SiteRow {
	id: number;
	name: string;
	base: string;
	settings: string;
	revision: number;
}
interface TypeRow {
	id: number;
	name: string;
	settings: string;
}

/** The place where a rule stands: the site itself, or one of its types or pages by name or path. */
export type RulePlace =
	| { readonly layer: 'site' }
	| { readonly layer: 'type'; readonly name: string }
	| { readonly layer: 'page'; readonly path: string };

/** A site with all that the resolver needs, but its pages. */
export interface StoredSite {
	readonly id: number;
	readonly revision: number;
	readonly site: Site;
	readonly types: readonly ContentType[];
}

/** The working copy: sites, types, rules, pages and pictures. The only place, with its neighbours here, that knows the SQL. */
export class Store {
	readonly db: Db;
	readonly bodies: BodyStore;
	readonly readIn: ReadInStore;
	readonly releases: ReleaseStore;
	readonly record: RecordStore;
	readonly sources: SourceStore;
	readonly looks: LookStore;
	readonly pictures: PictureStore;
	readonly state: StateStore;
	readonly redirects: RedirectStore;
	readonly asides: AsideStore;
	readonly filters: FilterStore;
	readonly listing: ListingStore;
	readonly gridLists: GridLists;
	/** What the file was when it was opened: its device and number. */
	private readonly mark: string;
	private readonly run: ReturnType<typeof prepared<keyof typeof SQL>>;
	private readonly rows = new PageRows((page) => this.bodies.of(page));

	constructor(
		readonly file: string,
		options: OpenOptions = {}
	) {
		this.db = openDatabase(file, options);
		this.run = prepared(this.db, SQL);
		this.bodies = new BodyStore(this.db);
		this.readIn = new ReadInStore(this.db, this.bodies);
		this.releases = new ReleaseStore(this.db);
		this.record = new RecordStore(this.db);
		this.sources = new SourceStore(this.db);
		this.looks = new LookStore(this.db);
		this.pictures = new PictureStore(this.db);
		this.state = new StateStore(this.db);
		this.redirects = new RedirectStore(this.db);
		this.asides = new AsideStore(this.db);
		this.filters = new FilterStore(this.db);
		this.listing = new ListingStore(this.db);
		this.gridLists = new GridLists(this.db);
		this.mark = markOf(file);
		if (!options.readonly) mendUnfinished(this.db, this.record);
		else if (isUnfinished(this.db, this.record)) mendWhereAllowed(file);
	}

	close() {
		this.db.close();
	}

	/** Whether another file, or none, stands where the database was opened. */
	isLost(): boolean {
		return markOf(this.file) !== this.mark;
	}

	/** Runs writes together, wholly or not at all; the driver's errors come out as sentences. */
	transaction<T>(work: () => T): T {
		if (this.db.inTransaction) return work();
		try {
			return this.db.transaction(work).immediate();
		} catch (error) {
			throw explain(error, this.file);
		}
	}

	siteNames(): { id: number; name: string; base: string }[] {
		return this.run('sites').all() as SiteRow[];
	}

	/** Throws a `UserError` that names the sites there are, when there is none of this name. */
	site(name: string): StoredSite {
		const found = this.findSite(name);
		if (found) return found;
		const names = this.siteNames().map((site) => `"${site.name}"`);
		throw notFound(
			`There is no site "${name}". ${names.length ? `Sites there: ${names.join(', ')}.` : 'It holds no site yet: begin with kephalon import.'}`
		);
	}

	findSite(name: string): StoredSite | undefined {
		return this.toSite(this.run('siteByName').get(name) as SiteRow | undefined);
	}

	siteById(id: number): StoredSite | undefined {
		return this.toSite(this.run('siteById').get(id) as SiteRow | undefined);
	}

	private toSite(row: SiteRow | undefined): StoredSite | undefined {
		if (!row) return undefined;
		const settings = JSON.parse(row.settings) as Omit<Site, 'name' | 'base' | 'rules'>;
		const rules = (this.run('siteRules').all(row.id) as RuleRow[]).map(toRule);
		return {
			id: row.id,
			revision: row.revision,
			site: { name: row.name, base: row.base, ...settings, rules },
			types: this.types(row.id)
		};
	}

	/** When a site was made (ISO 8601 in UTC). */
	madeAt(site: number): string {
		return (this.run('madeAt').get(site) as { made: string }).made;
	}

	private types(site: number): ContentType[] {
		return (this.run('types').all(site) as TypeRow[]).map(({ id, name, settings }) => ({
			name,
			...(JSON.parse(settings) as Omit<ContentType, 'name' | 'rules'>),
			rules: (this.run('typeRules').all(id) as RuleRow[]).map(toRule)
		}));
	}

	/** The rules of pages' own, by the ids of the pages. */
	rulesOfPages(ids: readonly number[]): Map<number, Rule[]> {
		const rules = new Map<number, Rule[]>();
		for (const { id, ...row } of this.run('rulesOf').all(JSON.stringify(ids)) as (RuleRow & { id: number })[])
			rules.set(id, [...(rules.get(id) ?? []), toRule(row)]);
		return rules;
	}
	rulesOfPage(id: number): Rule[] {
		return (this.run('pageRules').all(id) as RuleRow[]).map(toRule);
	}

	pageById(id: number): Page | undefined {
		const row = this.run('pageById').get(id) as PageRow | undefined;
		return row && this.rows.toPage(row, this.rulesOfPage(row.id));
	}

	/** Those that are there, each with its id, in no order. */
	pagesById(ids: readonly number[]): (readonly [number, Page])[] {
		const rules = this.rulesOfPages(ids);
		const rows = this.run('pagesById').all(JSON.stringify(ids)) as PageRow[];
		return rows.map((row) => [row.id, this.rows.toPage(row, rules.get(row.id) ?? NO_RULES)]);
	}

	page(site: number, path: string): Page | undefined {
		const row = this.run('pageByPath').get(site, path) as PageRow | undefined;
		return row && this.rows.toPage(row, this.rulesOfPage(row.id));
	}

	/** All pages of a site, or only the live ones, by path; one at a time, so that memory stays level. */
	*pages(site: number, which: 'all' | 'live' = 'all'): Generator<Page> {
		const overridden = new Set((this.run('hasPageRules').all(site) as { id: number }[]).map((row) => row.id));
		for (const row of this.run(which === 'all' ? 'pages' : 'livePages').iterate(site) as IterableIterator<PageRow>)
			yield this.rows.toPage(row, overridden.has(row.id) ? this.rulesOfPage(row.id) : NO_RULES);
	}

	/** One of so many parts of the pages, of a type or of all, in no order: for several threads that share the work. */
	*partOfPages(site: number, type: string | undefined, { part, parts }: Part): Generator<Page> {
		const overridden = new Set((this.run('hasPageRules').all(site) as { id: number }[]).map((row) => row.id));
		const statement = this.run(type === undefined ? 'partOfPages' : 'pagesOfType');
		for (const row of statement.iterate({ site, type, part, parts }) as IterableIterator<PageRow>)
			yield this.rows.toPage(row, overridden.has(row.id) ? this.rulesOfPage(row.id) : NO_RULES);
	}

	/** The pages with rules or extra markup of their own, by path. */
	*overriddenPages(site: number): Generator<Page> {
		for (const row of this.run('overridden').iterate({ site }) as IterableIterator<PageRow>)
			yield this.rows.toPage(row, this.rulesOfPage(row.id));
	}

	/** The paths of all pages, or of those of a type. */
	pathsOf(site: number, type?: string): string[] {
		const rows = type === undefined ? this.run('paths').all(site) : this.run('pathsOfType').all(site, type);
		return (rows as { path: string }[]).map(({ path }) => path);
	}

	countPages(site: number): { all: number; live: number; byType: Record<string, number> } {
		const rows = this.run('counts').all(site) as { type: string; state: Page['state']; n: number }[];
		const byType = new Map<string, number>();
		let [all, live] = [0, 0];
		for (const { type, state, n } of rows) {
			byType.set(type, (byType.get(type) ?? 0) + n);
			all += n;
			if (state === 'live') live += n;
		}
		return { all, live, byType: Object.fromEntries(byType) };
	}

	/** Sets a rule, or takes it away when the body is null. */
	setRule(site: number, place: RulePlace, tag: string, language: string | undefined, body: RuleBody | null) {
		this.transaction(() => {
			const where = { site, ...this.ownerOf(site, place), tag, language: language ?? '' };
			// Also one whose language tag differs by case alone: it is the same rule.
			this.run('dropSameRule').run({ ...where, kept: body ? where.language : null });
			if (body) this.run('saveRule').run({ ...where, body: JSON.stringify(body) });
		});
	}

	private ownerOf(site: number, place: RulePlace): { type: number | null; page: number | null } {
		if (place.layer === 'site') return { type: null, page: null };
		if (place.layer === 'type') {
			const type = (this.run('types').all(site) as TypeRow[]).find((row) => row.name === place.name);
			if (!type) throw notFound(`There is no content type "${place.name}" in this site.`);
			return { type: type.id, page: null };
		}
		const page = this.run('pageByPath').get(site, place.path) as PageRow | undefined;
		if (!page) throw notFound(`There is no page "${place.path}" in this site.`);
		return { type: null, page: page.id };
	}

	/** Makes a site, or brings its settings and rules to what is given; types and pages are left alone. */
	saveSite(site: Site): number {
		const { name, base, rules, ...settings } = site;
		const known = this.run('siteByName').get(name) as SiteRow | undefined;
		if (known?.base !== base && normaliseBase(base) === undefined)
			throw new UserError(
				`“${base}” is no public base address: an absolute http or https address is needed, such as https://site.example/.`
			);
		const row = { name, base, settings: JSON.stringify(settings) };
		const id = known ? known.id : Number(this.run('addSite').run(row).lastInsertRowid);
		if (known) this.run('saveSite').run({ id, base, settings: row.settings });
		this.replaceRules({ site: id, type: null, page: null }, rules);
		return id;
	}

	saveType(site: number, type: ContentType) {
		const { name, rules, ...settings } = type;
		const row = this.run('saveType').get({ site, name, settings: JSON.stringify(settings) }) as { id: number };
		this.replaceRules({ site, type: row.id, page: null }, rules);
	}

	/** Makes a type without fields or rules, unless there is one of the name. */
	ensureType(site: number, name: string) {
		this.run('addType').run({ site, name, settings: JSON.stringify({ fields: [] }) });
	}

	savePage(site: number, page: Page) {
		const id = this.savePageRow(site, page);
		this.bodies.save(id, splitBody(page.fields).body);
		this.replaceRules({ site, type: null, page: id }, page.rules);
	}

	/** Writes what of a page came out different, its path apart; says whether anything did. */
	changePage(site: number, before: Page, after: Page): boolean {
		const changed = new Set(
			[...Object.keys(before), ...Object.keys(after)].filter(
				(key) => !sameJson(before[key as keyof Page], after[key as keyof Page])
			)
		);
		if (changed.size === 0) return false;
		const haveOnlyRules = changed.size === 1 && changed.has('rules');
		const id = haveOnlyRules
			? (this.run('hasPage').get(site, after.path) as { id: number }).id
			: this.savePageRow(site, after);
		if (changed.has('fields')) this.bodies.save(id, splitBody(after.fields).body);
		if (changed.has('rules')) this.replaceRules({ site, type: null, page: id }, after.rules);
		return true;
	}

	private savePageRow(site: number, page: Page): number {
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
		}) as { id: number };
		return row.id;
	}

	/** The share of the pages of a type that have each field, 0 to 1, of some of them. */
	fieldShares(site: number, type: string): Record<string, number> {
		const rows = this.run('fieldShares').all({ site, type }) as { name: string; share: number }[];
		return Object.fromEntries(rows.map(({ name, share }) => [name, Math.round(share * 100) / 100]));
	}

	hasPage(site: number, path: string): boolean {
		return this.run('hasPage').get(site, path) !== undefined;
	}

	/** Gives a page another path. The old one leads to it from now on, and so do those that led to the old one. */
	movePage(site: number, from: string, to: string) {
		if (from === to) return;
		if (this.page(site, to)) throw new UserError(`There is a page at ${to} already. Choose another path.`);
		this.run('movePage').run({ site, from, to });
		this.redirects.drop(site, to);
		this.redirects.leadOn(site, from, to);
		for (const page of this.pagesNaming(site, from)) {
			const alternates = Object.entries(page.alternates ?? {}).map(([tag, path]) => [tag, path === from ? to : path]);
			this.savePage(site, { ...page, alternates: Object.fromEntries(alternates) as Page['alternates'] & object });
		}
	}

	/** The pages that name another as a version of theirs. */
	pagesNaming(site: number, path: string): Page[] {
		const rows = this.run('pagesNaming').all(site, path) as PageRow[];
		return rows.map((row) => this.rows.toPage(row, this.rulesOfPage(row.id)));
	}
	renameType(site: number, from: string, to: string) {
		// Its pages follow by their foreign key.
		this.run('renameType').run({ site, from, to });
	}
	/** Gives all pages of a type another one. */
	changeType(site: number, from: string, to: string) {
		this.run('changeType').run({ site, from, to });
	}
	removeType(site: number, name: string) {
		this.run('dropType').run({ site, name });
	}
	/** Whether any page of a type has a value under a name, declared or not. */
	hasFieldOfType(site: number, type: string, field: string): boolean {
		return this.run('hasFieldOfType').get({ site, type, field }) !== undefined;
	}
	/** Gives a field of the pages of a type another name; the values stay. */
	renameFieldOfPages(site: number, type: string, from: string, to: string) {
		this.run('renameField').run({ site, type, from, to });
	}

	renameSite(id: number, name: string) {
		if (this.findSite(name)) throw new UserError(`There is a site "${name}" already. Choose another name.`);
		this.run('renameSite').run({ id, name });
	}

	/** Takes a page away with its rules. A path that led to it leads nowhere then. */
	removePage(site: number, path: string) {
		const row = this.run('pageByPath').get(site, path) as PageRow | undefined;
		if (!row) throw notFound(`There is no page "${path}" in this site.`);
		this.run('dropPage').run(row.id);
	}

	/** Takes away what a site file no longer names. */
	*keepOnly(site: number, types: ReadonlySet<string>, paths: ReadonlySet<string>): Generator<void, void> {
		for (const { id, path } of this.run('pagePaths').all(site) as PageRow[]) {
			if (paths.has(path)) continue;
			this.run('dropPage').run(id);
			yield;
		}
		for (const { name } of this.run('types').all(site) as TypeRow[])
			if (!types.has(name)) this.run('dropType').run({ site, name });
	}

	/** Brings the rules of an owner to what is given. What stays as it is, is not written: nothing becomes stale by it. */
	private replaceRules(owner: { site: number; type: number | null; page: number | null }, rules: readonly Rule[]) {
		const { site, type, page } = owner;
		const rows =
			page !== null
				? this.run('pageRules').all(page)
				: type !== null
					? this.run('typeRules').all(type)
					: this.run('siteRules').all(site);
		const before = new Map((rows as RuleRow[]).map((row) => [`${row.tag} ${row.language}`, row.body]));
		for (const { tag, language = '', ...rest } of rules) {
			const body = JSON.stringify(rest);
			if (before.get(`${tag} ${language}`) !== body) this.run('saveRule').run({ ...owner, tag, language, body });
			before.delete(`${tag} ${language}`);
		}
		for (const row of rows as RuleRow[])
			if (before.has(`${row.tag} ${row.language}`))
				this.run('dropRule').run({ ...owner, tag: row.tag, language: row.language });
	}
}

/** What was broken off is taken back before anyone reads it, where this user may write. */
function mendWhereAllowed(file: string) {
	try {
		new Store(file, { create: false }).close();
	} catch (error) {
		if (!(error instanceof UserError)) throw error;
	}
}

const markOf = (file: string) => {
	const found = statSync(file, { throwIfNoEntry: false });
	return found ? `${found.dev} ${found.ino}` : '';
};

const NO_RULES: readonly Rule[] = [];

function toRule({ tag, language, body }: RuleRow): Rule {
	return { tag, ...(language && { language }), ...(JSON.parse(body) as RuleBody) };
}
