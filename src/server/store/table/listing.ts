import type { Page } from '$core';
import { prepared, row, type Prepared, type Db } from '../opening/database';
import { hasUnseen } from './grid';
import { wordsOf } from './wordsInText';

const SQL = {
	first: row<{ path: string }>(`SELECT path FROM page WHERE site_id = ? ORDER BY path LIMIT 1`),
	firstOf: row<{ path: string }>(
		`SELECT path FROM page WHERE site_id = @site AND type = @type ORDER BY coalesce(language, @usual) <> @usual, path LIMIT 1`
	),
	pathBefore: `SELECT path FROM page WHERE site_id = ? AND path < ? ORDER BY path DESC LIMIT 1`,
	pathAfter: `SELECT path FROM page WHERE site_id = ? AND path > ? ORDER BY path LIMIT 1`,
	after: row<ListedPage>(
		`SELECT path, type, language, state, title FROM page WHERE site_id = ? AND path > ? ORDER BY path LIMIT ?`
	),
	/** How many pages have the words, as far as that matters. */
	hits: row<{ n: number }>(`SELECT count(*) AS n FROM (SELECT 1 FROM page_search WHERE page_search MATCH ? LIMIT ?)`),
	best: row<ListedPage>(`SELECT p.path, p.type, p.language, p.state, p.title FROM page_search f JOIN page p ON p.id = f.rowid
		WHERE page_search MATCH ? AND p.site_id = ? ORDER BY bm25(page_search, 4, 10, 1) LIMIT ?`),
	some: row<ListedPage>(`SELECT p.path, p.type, p.language, p.state, p.title FROM page_search f CROSS JOIN page p ON p.id = f.rowid
		WHERE page_search MATCH ? AND p.site_id = ? LIMIT ?`),
	unseen:
		row<ListedPage>(`SELECT p.path, p.type, p.language, p.state, p.title FROM path_search f CROSS JOIN page p ON p.id = f.rowid
		JOIN page_state s ON s.page_id = p.id AND s.seen < 0 WHERE path_search MATCH ? AND p.site_id = ? LIMIT ?`)
} as const;

/** Weighing more pages than this takes longer than somebody who types waits. */
const MANY = 2000;

/** Enough of a page to choose it. */
export interface ListedPage {
	readonly path: string;
	readonly type: string;
	readonly language: string | null;
	readonly state: Page['state'];
	readonly title: string | null;
}

/** Pages to be chosen among, by path or by words. */
export class ListingStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(private readonly db: Db) {
		this.run = prepared(db, SQL);
	}

	/** The path to begin at, and those beside one, in order. */
	first(site: number): string | undefined {
		return this.run('first').get(site)?.path;
	}
	/** The first page of a type; one in the usual language, where there is one. */
	firstOf(site: number, type: string, usual: string): string | undefined {
		return this.run('firstOf').get({ site, type, usual })?.path;
	}
	beside(site: number, path: string): { readonly before: string | undefined; readonly next: string | undefined } {
		const one = (name: 'pathBefore' | 'pathAfter') =>
			(this.run(name).get(site, path) as { path: string } | undefined)?.path;
		return { before: one('pathBefore'), next: one('pathAfter') };
	}

	/** Pages by path, after the last one seen. */
	after(site: number, after: string, limit: number): ListedPage[] {
		return this.run('after').all(site, after, limit);
	}

	/**
	 * Pages by words, or beginnings of words, of their path, title or description; the best first. Where very many have
	 * them, none is much better than another: those that have them in their titles come first.
	 */
	find(site: number, text: string, limit: number): ListedPage[] {
		const words = wordsOf(text);
		if (words.length === 0) return this.after(site, '', limit);
		const all = words.map((word) => `"${word}"*`).join(' ');
		const { n } = this.run('hits').get(all, MANY + 1)!;
		if (n <= MANY) return this.withUnseen(this.run('best').all(all, site, limit), all, site, limit);
		const some = (match: string) => this.run('some').all(match, site, limit);
		const titled = some(`title : (${all})`);
		const known = new Set(titled.map(({ path }) => path));
		const others = titled.length < limit ? some(all).filter(({ path }) => !known.has(path)) : [];
		return [...titled, ...others].slice(0, limit);
	}

	/** What was found, and pages by their paths that were not looked at yet. */
	private withUnseen(found: ListedPage[], match: string, site: number, limit: number): ListedPage[] {
		if (found.length >= limit || !hasUnseen(this.db, site)) return found;
		const known = new Set(found.map(({ path }) => path));
		const unseen = this.run('unseen').all(match, site, limit);
		return [...found, ...unseen.filter(({ path }) => !known.has(path))].slice(0, limit);
	}
}
