import type { Progress } from '../../progress';
import { hash as digest } from 'node:crypto';
import { keyOfKind, type ContentType, type HeadJson, type Recipe, type Site } from '$core';
import { refuse } from '../../errors';
import { mediaNamesIn, prepared, row, type Prepared, type Db } from '../opening/database';

const SQL = {
	latest: row<Release>(
		`SELECT id, number, created, pages, revision, note, author, changed, added, removed FROM release WHERE site_id = ? ORDER BY number DESC LIMIT 1`
	),
	history: row<Release>(`SELECT id, number, created, pages, revision, note, author, changed, added, removed FROM release
		WHERE site_id = @site AND number < @before ORDER BY number DESC LIMIT @limit`),
	byPath: `SELECT r.path, r.address, h.hash, h.html, h.json FROM released r JOIN head h ON h.hash = r.head
		WHERE r.site_id = ? AND r.path = ? AND r.until IS NULL`,
	byAddress: `SELECT r.path, r.address, h.hash, h.html, h.json FROM released r JOIN head h ON h.hash = r.head
		WHERE r.site_id = ? AND r.address = ? AND r.until IS NULL`,
	at: row<ReleasedHead>(`SELECT r.path, r.address, h.hash, h.html, h.json FROM released r JOIN head h ON h.hash = r.head
		WHERE r.site_id = @site AND r.path = @path AND r.since <= @number AND coalesce(r.until > @number, 1)`),
	all: row<{ path: string; head: string }>(
		`SELECT path, head FROM released WHERE site_id = @site AND since <= @number AND coalesce(until > @number, 1) ORDER BY path`
	),
	between: `SELECT path, (SELECT head FROM released a WHERE a.site_id = r.site_id AND a.path = r.path
				AND a.since <= @from AND coalesce(a.until > @from, 1)) AS before,
			(SELECT head FROM released b WHERE b.site_id = r.site_id AND b.path = r.path
				AND b.since <= @to AND coalesce(b.until > @to, 1)) AS after
		FROM (SELECT site_id, path FROM released WHERE site_id = @site AND since > @from AND since <= @to
			UNION SELECT site_id, path FROM released WHERE site_id = @site AND until > @from AND until <= @to) r ORDER BY path`,
	headOf: row<{ html: string; json: string }>(`SELECT html, json FROM head WHERE hash = ?`),
	lastTwo: row<{ json: string }>(`SELECT DISTINCT h.json FROM released r JOIN head h ON h.hash = r.head
		WHERE coalesce(r.until >= (SELECT max(number) FROM release l WHERE l.site_id = r.site_id), 1)`),
	ofPage:
		row<PageRelease>(`SELECT r.since, r.until, l.created, l.note, h.html FROM released r JOIN release l ON l.site_id = r.site_id AND l.number = r.since
		JOIN head h ON h.hash = r.head WHERE r.site_id = ? AND r.path = ? ORDER BY r.since DESC`),
	headsOfPage: row<{
		since: number;
		json: string;
	}>(`SELECT r.since, h.json FROM released r JOIN head h ON h.hash = r.head
		WHERE r.site_id = ? AND r.path = ? ORDER BY r.since DESC`),
	naming: row<{ path: string }>(`SELECT r.path FROM released r JOIN head h ON h.hash = r.head
		WHERE r.site_id = ? AND r.until IS NULL AND instr(h.json, ?) ORDER BY r.path LIMIT 1`),
	stage: `CREATE TEMP TABLE IF NOT EXISTS staged (path TEXT PRIMARY KEY, address TEXT, hash TEXT, html TEXT, json TEXT,
		page_id INTEGER, seen INTEGER) STRICT`,
	stageRecipes: `CREATE TEMP TABLE IF NOT EXISTS staged_recipe (name TEXT PRIMARY KEY, recipe TEXT NOT NULL) STRICT`,
	clear: `DELETE FROM temp.staged; DELETE FROM temp.staged_recipe`,
	add: `INSERT INTO temp.staged (path, address, hash, html, json, page_id, seen) VALUES (@path, @address, @hash, @html, @json, @page, @seen)`,
	addRecipe: `INSERT OR IGNORE INTO temp.staged_recipe (name, recipe) VALUES (?, ?)`,
	addName: `INSERT OR IGNORE INTO media_name (name) VALUES (?)`,
	addOwner: `INSERT OR IGNORE INTO media_of (hash, site_id) SELECT substr(@name, 1, 24), @site WHERE @name NOT LIKE 'share-%'`,
	knowsName: `SELECT 1 FROM media_name WHERE name = ?`,
	recipes: `INSERT INTO recipe (name, site_id, recipe, used) SELECT name, @site, recipe, @created FROM temp.staged_recipe WHERE true
		ON CONFLICT (name, site_id) DO UPDATE SET used = excluded.used`,
	heads: `INSERT OR IGNORE INTO head (hash, html, json) SELECT hash, html, json FROM temp.staged WHERE hash IS NOT NULL`,
	close: `UPDATE released SET until = @number FROM temp.staged s WHERE released.site_id = @site AND released.path = s.path
		AND released.until IS NULL AND (s.hash IS NULL OR s.hash <> released.head OR s.address <> released.address)`,
	countGone: row<{
		n: number;
	}>(`SELECT count(*) AS n FROM temp.staged s JOIN released r ON r.site_id = @site AND r.path = s.path AND r.until = @number
		WHERE s.hash IS NULL`),
	open: `INSERT INTO released (site_id, path, since, address, head) SELECT @site, s.path, @number, s.address, s.hash FROM temp.staged s
		WHERE s.hash IS NOT NULL AND NOT EXISTS
			(SELECT 1 FROM released r WHERE r.site_id = @site AND r.path = s.path AND r.until IS NULL)`,
	begin:
		row<Release>(`INSERT INTO release (site_id, number, created, pages, revision, note, author, changed, added, removed)
		VALUES (@site, @number, @created, @pages, @revision, @note, @author, @changed, @added, @removed)
		RETURNING id, number, created, pages, revision, note, author, changed, added, removed`),
	noteFindings: `INSERT INTO release_finding (release_id, code, tag, pages, weight)
		SELECT @id, code, tag, count(*), max(weight) FROM page_finding WHERE site_id = @site GROUP BY code, tag`,
	keepRules: `INSERT OR IGNORE INTO rule_set (hash, model) VALUES (@hash, @model)`,
	ruledBy: `UPDATE release SET rules = @hash WHERE id = @id`,
	ruledAs: `UPDATE release SET rules = (SELECT rules FROM release r WHERE r.site_id = @site AND r.number = @number) WHERE id = @id`,
	rulesInForce: row<RulesInForce>(
		`SELECT number, created, rules AS hash FROM release WHERE site_id = ? ORDER BY number DESC LIMIT 1`
	),
	ruleSet: row<{ model: string }>(`SELECT model FROM rule_set WHERE hash = ?`),
	dropRules: `DELETE FROM rule_set WHERE NOT EXISTS (SELECT 1 FROM release r WHERE r.rules = rule_set.hash)`,
	standsSince: row<{
		created: string;
	}>(`SELECT l.created FROM released r JOIN release l ON l.site_id = r.site_id AND l.number = r.since
		WHERE r.site_id = ? AND r.path = ? AND r.until IS NULL`),
	noteLooked: `UPDATE release SET looked = 1 WHERE id = @id`,
	// Of what the latest release that was looked at had: the first release of those in a row that have it.
	findingsSince: row<{
		code: string;
		tag: string;
		since: number;
	}>(`SELECT f.code, f.tag, (SELECT min(l.number) FROM release l WHERE l.site_id = @site AND l.looked
			AND l.number > coalesce((SELECT max(b.number) FROM release b WHERE b.site_id = @site AND b.looked AND NOT EXISTS
				(SELECT 1 FROM release_finding x WHERE x.release_id = b.id AND x.code = f.code AND x.tag = f.tag)), 0)) AS since
		FROM release_finding f WHERE f.release_id = (SELECT id FROM release WHERE site_id = @site AND looked ORDER BY number DESC LIMIT 1)`),
	countLooked: row<{ n: number }>(`SELECT count(*) AS n FROM release WHERE site_id = ? AND looked`),
	findingsOver:
		row<FindingsOfRelease>(`SELECT l.number, coalesce(sum(f.pages) FILTER (WHERE f.weight >= 6), 0) AS grave,
			coalesce(sum(f.pages) FILTER (WHERE f.weight BETWEEN 3 AND 5), 0) AS mending,
			coalesce(sum(f.pages) FILTER (WHERE f.weight < 3), 0) AS slight
		FROM release l LEFT JOIN release_finding f ON f.release_id = l.id WHERE l.site_id = @site AND l.looked
		GROUP BY l.id ORDER BY l.number DESC LIMIT @limit`),
	// What names the moment of the release says another one from now on: it is looked at again.
	settle: `UPDATE page_state SET head = s.hash, differs = 0, seen = iif(timed, -1, page_state.seen) FROM temp.staged s WHERE page_state.page_id = s.page_id AND page_state.seen = s.seen`,
	compare: `UPDATE page_state SET differs = CASE WHEN head IS NULL THEN 3 * (s.hash IS NOT NULL)
			WHEN s.hash IS NULL THEN 2 ELSE head <> s.hash END
		FROM temp.staged s WHERE page_state.page_id = s.page_id AND page_state.seen <> s.seen`,
	left: `DELETE FROM leaving WHERE site_id = @site AND path IN (SELECT path FROM temp.staged WHERE hash IS NULL)`,
	// What is released and belongs to no page, as after going back, leaves with the next release.
	unowned: `INSERT OR IGNORE INTO leaving SELECT @site, s.path FROM temp.staged s WHERE s.hash IS NOT NULL
		AND NOT EXISTS (SELECT 1 FROM page p WHERE p.site_id = @site AND p.path = s.path)`,
	pageId: row<{ id: number }>(`SELECT id FROM page WHERE site_id = ? AND path = ?`),
	prunable: row<{ number: number }>(
		`SELECT number FROM release WHERE site_id = @site AND number <= (SELECT max(number) FROM release WHERE site_id = @site) - @keep`
	),
	dropIntervals: `DELETE FROM released WHERE site_id = @site AND until <= @oldest`,
	dropReleases: `DELETE FROM release WHERE site_id = @site AND number < @oldest`,
	dropHeads: `DELETE FROM head WHERE NOT EXISTS (SELECT 1 FROM released r WHERE r.head = head.hash)`
} as const;

export interface Release {
	readonly id: number;
	readonly number: number;
	/** ISO 8601. */
	readonly created: string;
	/** How many pages stand in it. */
	readonly pages: number;
	readonly revision: number;
	readonly note: string;
	/** Who made it; '' for those of before it was noted. */
	readonly author: string;
	/** Against the release before it. */
	readonly changed: number;
	readonly added: number;
	readonly removed: number;
}

/** The rules that the latest release was made by; those of releases of before they were kept are not known. */
interface RulesInForce {
	readonly number: number;
	readonly created: string;
	readonly hash: string | null;
}

/** A site and its types, as they stood when a release was made. */
export interface RuleSet {
	readonly site: Site;
	readonly types: readonly ContentType[];
}

/** A head that a page had, from one release on, until another. */
export interface PageRelease {
	readonly since: number;
	/** Null for the one that stands. */
	readonly until: number | null;
	/** ISO 8601. */
	readonly created: string;
	readonly note: string;
	readonly html: string;
}

export interface ReleasedHead {
	readonly path: string;
	readonly address: string;
	/** Of the markup and the JSON together; the strong ETag. */
	readonly hash: string;
	readonly html: string;
	readonly json: string;
	/** The share picture that it names, and what that is drawn from. */
	readonly share?: { readonly name: string; readonly recipe: Recipe };
}

/** A page as a release finds it: with its new head, or without one when it leaves. */
export type Staged = (ReleasedHead | { readonly path: string; readonly hash: null }) & {
	/** The page, and the revision at which its state was looked at; none for one that is gone. */
	readonly page?: number;
	readonly seen?: number;
};

export interface NewRelease {
	readonly site: number;
	readonly revision: number;
	/** ISO 8601. */
	readonly created: string;
	readonly note?: string;
	readonly author?: string;
	/** Of single pages: what is wrong in the others is not known. */
	readonly isPart?: boolean;
	/** Told of the release in the transaction that makes it: what is noted of it stands or falls with it. */
	readonly kept?: (release: Release) => void;
}

/** How many findings the pages of a release had, by how much they spoil. */
export interface FindingsOfRelease {
	readonly number: number;
	readonly grave: number;
	readonly mending: number;
	readonly slight: number;
}

/** No revision at which a page was ever looked at. */
const COMPARE = -2;

/** How far a long work is, is told this often (pages). */
const TOLD_EVERY = 500;

/** Releases: numbered, never changed once made. A head stands from one release on until another replaces it. */
export class ReleaseStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(private readonly db: Db) {
		this.run = prepared(db, SQL);
	}

	/** Keeps the rules that a release was made by. */
	keepRules(id: number, { site, types }: RuleSet) {
		const model = JSON.stringify({ site, types });
		const hash = digest('sha256', model, 'base64url');
		this.run('keepRules').run({ hash, model });
		this.run('ruledBy').run({ id, hash });
	}
	/** A release was made by the rules of an earlier one: it goes back to it, or is of single pages. */
	ruledAs(id: number, site: number, number: number) {
		this.run('ruledAs').run({ id, site, number });
	}
	/** The latest release whose rules are known, with what they are found by. */
	rulesInForce(site: number): { readonly number: number; readonly created: string; readonly hash: string } | undefined {
		const latest = this.run('rulesInForce').get(site);
		return latest && latest.hash !== null ? { ...latest, hash: latest.hash } : undefined;
	}
	/** When the head of a page that stands now came to stand (ISO 8601). */
	standsSince(site: number, path: string): string | undefined {
		return this.run('standsSince').get(site, path)?.created;
	}
	ruleSet(hash: string): RuleSet {
		return JSON.parse(this.run('ruleSet').get(hash)!.model) as RuleSet;
	}

	latest(site: number): Release | undefined {
		return this.run('latest').get(site);
	}

	/** Since which release the pages have each kind of finding; undefined before any release was looked at. */
	findingsSince(site: number): ReadonlyMap<string, number> | undefined {
		if (this.run('countLooked').get(site)!.n === 0) return undefined;
		const rows = this.run('findingsSince').all({ site });
		return new Map(rows.map(({ code, tag, since }) => [keyOfKind({ code, tag }), since]));
	}
	/** How many findings the last releases had, the oldest first. */
	findingsOver(site: number, limit: number): FindingsOfRelease[] {
		return this.run('findingsOver').all({ site, limit }).reverse();
	}

	/** The newest first; `before` is the number of the last one seen. */
	history(site: number, limit: number, before = Number.MAX_SAFE_INTEGER): Release[] {
		return this.run('history').all({ site, limit, before });
	}

	/** The head that stands now. */
	head(site: number, by: { path: string } | { address: string }): ReleasedHead | undefined {
		const row = 'path' in by ? this.run('byPath').get(site, by.path) : this.run('byAddress').get(site, by.address);
		return row as ReleasedHead | undefined;
	}

	/** The head of a page in a release. */
	headIn(site: number, number: number, path: string): ReleasedHead | undefined {
		return this.run('at').get({ site, number, path });
	}

	/** The heads that a page has had, the newest first: from which release, and until which it stood (null: still). */
	ofPage(site: number, path: string): PageRelease[] {
		return this.run('ofPage').all(site, path);
	}

	/** The heads of a page through the releases, the newest first, each with the release from which on it stood. */
	headsOfPage(site: number, path: string): { since: number; head: HeadJson }[] {
		return this.run('headsOfPage')
			.all(site, path)
			.map(({ since, json }) => ({ since, head: JSON.parse(json) as HeadJson }));
	}

	/** The hash of every head of a release, by path. */
	hashes(site: number, number: number): Map<string, string> {
		const rows = this.run('all').all({ site, number });
		return new Map(rows.map((row) => [row.path, row.head]));
	}

	/** What differs between two releases, by path: the hashes of the heads, null where there is none. */
	between(site: number, from: number, to: number): { path: string; before: string | null; after: string | null }[] {
		const rows = this.run('between').all({ site, from, to }) as ReturnType<ReleaseStore['between']>;
		return rows.filter(({ before, after }) => before !== after);
	}

	/** A released head by its hash. */
	byHash(hash: string): { html: string; json: string } | undefined {
		return this.run('headOf').get(hash);
	}

	/** Whether a released head ever named a picture of the library. */
	knowsMedia(name: string): boolean {
		return this.run('knowsName').get(name) !== undefined;
	}

	/** Texts that a pattern finds in the heads of each site's last two releases: readers may still ask for what they name. */
	findInLast(pattern: RegExp): Set<string> {
		const found = new Set<string>();
		for (const { json } of this.run('lastTwo').iterate()) for (const [text] of json.matchAll(pattern)) found.add(text);
		return found;
	}

	/** The first page of what is released whose head holds a text. */
	pageNaming(site: number, text: string): string | undefined {
		return this.run('naming').get(site, text)?.path;
	}

	/**
	 * Makes a release of the pages given, which are all that may differ from the one before. They are gathered in a
	 * temporary table first, which takes no lock that an editor would wait for; then one short transaction puts the whole
	 * release in, or nothing.
	 */
	make(
		{ site, revision, created, note = '', author = '', isPart = false, kept }: NewRelease,
		pages: Iterable<Staged>
	): Release {
		this.db.exec(SQL.stage);
		this.db.exec(SQL.stageRecipes);
		this.db.exec(SQL.clear);
		const [add, addRecipe] = [this.run('add'), this.run('addRecipe')];
		const named = new Set<string>();
		this.db
			.transaction(() => {
				for (const page of pages) {
					add.run({ address: null, html: null, json: null, page: null, seen: null, ...page });
					if (page.hash === null) continue;
					for (const name of mediaNamesIn(page.json)) named.add(name);
					if (page.share) addRecipe.run(page.share.name, JSON.stringify(page.share.recipe));
				}
			})
			.deferred();
		const release = this.db
			.transaction(() => {
				const made = this.putIn({ site, revision, created, note, author });
				kept?.(made);
				for (const name of named) {
					this.run('addName').run(name);
					this.run('addOwner').run({ name, site });
				}
				if (isPart) return made;
				this.run('noteFindings').run({ id: made.id, site });
				this.run('noteLooked').run({ id: made.id });
				return made;
			})
			.immediate();
		this.db.exec(SQL.clear);
		return release;
	}

	private putIn({ site, ...more }: Required<Omit<NewRelease, 'isPart' | 'kept'>>): Release {
		const before = this.latest(site);
		const number = (before?.number ?? 0) + 1;
		this.run('heads').run();
		const closed = this.run('close').run({ site, number }).changes;
		const removed = this.run('countGone').get({ site, number })!.n;
		const changed = closed - removed;
		const added = this.run('open').run({ site, number }).changes - changed;
		const pages = (before?.pages ?? 0) + added - removed;
		const release = this.run('begin').get({ site, number, pages, changed, added, removed, ...more })!;
		this.run('recipes').run({ site, created: more.created });
		this.run('compare').run();
		this.run('settle').run();
		this.run('left').run({ site });
		this.run('unowned').run({ site });
		return release;
	}

	/**
	 * Makes a new release of an old one's heads. Throws when there is no such release, or it is the newest.
	 */
	goBack(release: NewRelease, to: number, progress: Progress = () => undefined): Release {
		const { site } = release;
		const latest = this.latest(site);
		if (!latest || to >= latest.number || !this.history(site, 1, to + 1).some(({ number }) => number === to))
			throw refuse('release-not-there', { release: to, latest: latest?.number });
		return this.make(release, this.stageOf(site, to, latest.number, progress));
	}

	/** What stood in a release where something else, or nothing, stands now. */
	private *stageOf(site: number, to: number, now: number, progress: Progress): Generator<Staged> {
		const all = this.between(site, to, now);
		progress(0, all.length);
		for (const [at, { path, before }] of all.entries()) {
			if (at % TOLD_EVERY === TOLD_EVERY - 1) progress(at + 1, all.length);
			const page = this.run('pageId').get(site, path)?.id;
			// The state of the page is of the working copy: whatever it is, it is compared with what is released now.
			const known = page === undefined ? {} : { page, seen: COMPARE };
			if (before === null) yield { path, hash: null, ...known };
			else yield { ...(this.headIn(site, to, path) as ReleasedHead), ...known };
		}
	}

	/**
	 * Takes away all releases of a site but the newest `keep`, with the heads that only they had. What stood at the oldest
	 * one kept stays whole. Says how many went.
	 */
	prune(site: number, keep: number): number {
		return this.db
			.transaction(() => {
				const numbers = this.run('prunable')
					.all({ site, keep })
					.map(({ number }) => number);
				if (numbers.length === 0) return 0;
				const oldest = Math.max(...numbers) + 1;
				this.run('dropIntervals').run({ site, oldest });
				this.run('dropReleases').run({ site, oldest });
				this.run('dropHeads').run();
				this.run('dropRules').run();
				return numbers.length;
			})
			.immediate();
	}
}
