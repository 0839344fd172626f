import type { Recipe } from '$core';
import type { Db } from './database';

const SQL = {
	latest: `SELECT id, number, created, pages, revision FROM release WHERE site_id = ? ORDER BY number DESC LIMIT 1`,
	byPath: `SELECT p.path, p.address, h.hash, h.html, h.json FROM released_page p JOIN head h ON h.hash = p.head WHERE p.release_id = ? AND p.path = ?`,
	byAddress: `SELECT p.path, p.address, h.hash, h.html, h.json FROM released_page p JOIN head h ON h.hash = p.head WHERE p.release_id = ? AND p.address = ?`,
	hashes: `SELECT path, head FROM released_page WHERE release_id = ?`,
	lastTwo: `SELECT DISTINCT h.json FROM released_page p JOIN head h ON h.hash = p.head WHERE p.release_id IN
		(SELECT id FROM release r WHERE r.number > (SELECT max(number) - 2 FROM release WHERE site_id = r.site_id))`,
	naming: `SELECT p.path FROM released_page p JOIN head h ON h.hash = p.head
		WHERE p.release_id = ? AND instr(h.json, ?) ORDER BY p.path LIMIT 1`,
	stage: `CREATE TEMP TABLE IF NOT EXISTS staged (path TEXT PRIMARY KEY, address TEXT NOT NULL, hash TEXT NOT NULL, html TEXT NOT NULL, json TEXT NOT NULL) STRICT`,
	stageRecipes: `CREATE TEMP TABLE IF NOT EXISTS staged_recipe (name TEXT PRIMARY KEY, recipe TEXT NOT NULL) STRICT`,
	clear: `DELETE FROM temp.staged; DELETE FROM temp.staged_recipe`,
	add: `INSERT INTO temp.staged (path, address, hash, html, json) VALUES (@path, @address, @hash, @html, @json)`,
	addRecipe: `INSERT OR IGNORE INTO temp.staged_recipe (name, recipe) VALUES (?, ?)`,
	recipes: `INSERT INTO recipe (name, site_id, recipe, used) SELECT name, @site, recipe, @created FROM temp.staged_recipe WHERE true
		ON CONFLICT (name, site_id) DO UPDATE SET used = excluded.used`,
	open: `INSERT INTO release (site_id, number, created, pages, revision)
		SELECT @site, coalesce((SELECT max(number) FROM release WHERE site_id = @site), 0) + 1, @created, (SELECT count(*) FROM temp.staged), @revision
		RETURNING id, number, created, pages, revision`,
	heads: `INSERT OR IGNORE INTO head (hash, html, json) SELECT hash, html, json FROM temp.staged`,
	pages: `INSERT INTO released_page (release_id, path, address, head) SELECT ?, path, address, hash FROM temp.staged`
} as const;

export interface Release {
	readonly id: number;
	readonly number: number;
	/** ISO 8601. */
	readonly created: string;
	readonly pages: number;
	readonly revision: number;
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

/** Releases: numbered, never changed once made. */
export class ReleaseStore {
	constructor(private readonly db: Db) {}

	latest(site: number): Release | undefined {
		return this.db.prepare(SQL.latest).get(site) as Release | undefined;
	}

	head(release: number, by: { path: string } | { address: string }): ReleasedHead | undefined {
		const row =
			'path' in by
				? this.db.prepare(SQL.byPath).get(release, by.path)
				: this.db.prepare(SQL.byAddress).get(release, by.address);
		return row as ReleasedHead | undefined;
	}

	/** The hash of every released head, by path. */
	hashes(release: number): Map<string, string> {
		return new Map(
			(this.db.prepare(SQL.hashes).all(release) as { path: string; head: string }[]).map((row) => [row.path, row.head])
		);
	}

	/** Texts that a pattern finds in the heads of each site's last two releases: readers may still ask for what they name. */
	findInLast(pattern: RegExp): Set<string> {
		const found = new Set<string>();
		for (const { json } of this.db.prepare(SQL.lastTwo).iterate() as IterableIterator<{ json: string }>)
			for (const [text] of json.matchAll(pattern)) found.add(text);
		return found;
	}

	/** The first page of a release whose head holds a text. */
	pageNaming(release: number, text: string): string | undefined {
		return (this.db.prepare(SQL.naming).get(release, text) as { path: string } | undefined)?.path;
	}

	/**
	 * Makes a release of the heads given. They are gathered in a temporary table first, which takes no lock that an
	 * editor would wait for; then one short transaction puts the whole release in, or nothing.
	 */
	make(site: number, revision: number, created: string, heads: Iterable<ReleasedHead>): Release {
		this.db.exec(SQL.stage);
		this.db.exec(SQL.stageRecipes);
		this.db.exec(SQL.clear);
		const [add, addRecipe] = [this.db.prepare(SQL.add), this.db.prepare(SQL.addRecipe)];
		this.db
			.transaction(() => {
				for (const { share, ...head } of heads) {
					add.run(head);
					if (share) addRecipe.run(share.name, JSON.stringify(share.recipe));
				}
			})
			.deferred();
		const release = this.db
			.transaction(() => {
				const opened = this.db.prepare(SQL.open).get({ site, created, revision }) as Release;
				this.db.exec(SQL.heads);
				this.db.prepare(SQL.pages).run(opened.id);
				this.db.prepare(SQL.recipes).run({ site, created });
				return opened;
			})
			.immediate();
		this.db.exec(SQL.clear);
		return release;
	}
}
