import type { Page } from '$core';
import { prepared, type Db } from './database';

const SQL = {
	first: `SELECT path FROM page WHERE site_id = ? ORDER BY path LIMIT 1`,
	pathBefore: `SELECT path FROM page WHERE site_id = ? AND path < ? ORDER BY path DESC LIMIT 1`,
	pathAfter: `SELECT path FROM page WHERE site_id = ? AND path > ? ORDER BY path LIMIT 1`,
	after: `SELECT path, type, language, state, title FROM page WHERE site_id = ? AND path > ? ORDER BY path LIMIT ?`,
	find: `SELECT p.path, p.type, p.language, p.state, p.title FROM page_search f JOIN page p ON p.id = f.rowid
		WHERE page_search MATCH ? AND p.site_id = ? ORDER BY bm25(page_search, 4, 10, 1) LIMIT ?`
} as const;

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
	private readonly run: ReturnType<typeof prepared<keyof typeof SQL>>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	/** The path to begin at, and those beside one, in order. */
	first(site: number): string | undefined {
		return (this.run('first').get(site) as { path: string } | undefined)?.path;
	}
	beside(site: number, path: string): { readonly before: string | undefined; readonly next: string | undefined } {
		const one = (name: 'pathBefore' | 'pathAfter') =>
			(this.run(name).get(site, path) as { path: string } | undefined)?.path;
		return { before: one('pathBefore'), next: one('pathAfter') };
	}

	/** Pages by path, after the last one seen. */
	after(site: number, after: string, limit: number): ListedPage[] {
		return this.run('after').all(site, after, limit) as ListedPage[];
	}

	/** Pages by words, or beginnings of words, of their path, title or description; the best first. */
	find(site: number, text: string, limit: number): ListedPage[] {
		const words = text.match(/[\p{L}\p{N}]+/gu) ?? [];
		if (words.length === 0) return this.after(site, '', limit);
		return this.run('find').all(words.map((word) => `"${word}"*`).join(' '), site, limit) as ListedPage[];
	}
}
