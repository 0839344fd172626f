import { prepared, type Db } from '../opening/database';

const SQL = {
	all: `SELECT code, tag, path, reason, author, made FROM aside WHERE site_id = ? ORDER BY made DESC`,
	add: `INSERT INTO aside (site_id, code, tag, path, reason, author, made) VALUES (@site, @code, @tag, @path, @reason, @author, @made)
		ON CONFLICT DO NOTHING`,
	drop: `DELETE FROM aside WHERE site_id = @site AND code = @code AND tag = @tag AND path = @path`
} as const;

/** A finding that somebody set aside: on one page, or with an empty path on all. */
export interface Aside {
	readonly code: string;
	readonly tag: string;
	readonly path: string;
	readonly reason: string;
	readonly author: string;
	/** ISO 8601. */
	readonly made: string;
}

/** Findings that were set aside. */
export class AsideStore {
	private readonly run: ReturnType<typeof prepared<keyof typeof SQL>>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	/** The newest first. */
	all(site: number): Aside[] {
		return this.run('all').all(site) as Aside[];
	}
	add(site: number, aside: Aside) {
		this.run('add').run({ site, ...aside });
	}
	takeUp(site: number, { code, tag, path }: Pick<Aside, 'code' | 'tag' | 'path'>) {
		this.run('drop').run({ site, code, tag, path });
	}
}
