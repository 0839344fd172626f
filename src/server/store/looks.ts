import { prepared, type Db } from './database';

const SQL = {
	add: `INSERT OR REPLACE INTO look (site_id, address, made, result) VALUES (?, ?, ?, ?)`,
	prune: `DELETE FROM look WHERE site_id = @site AND address = @address AND made NOT IN
		(SELECT made FROM look WHERE site_id = @site AND address = @address ORDER BY made DESC LIMIT @keep)`,
	of: `SELECT made, result FROM look WHERE site_id = ? AND address = ? ORDER BY made DESC`
} as const;

/** Looks at one address that are kept. */
const KEPT = 20;

/** What readers saw of addresses, each time somebody looked. */
export class LookStore {
	private readonly run: ReturnType<typeof prepared<keyof typeof SQL>>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	add(site: number, address: string, made: string, result: unknown) {
		this.run('add').run(site, address, made, JSON.stringify(result));
		this.run('prune').run({ site, address, keep: KEPT });
	}

	/** The looks at an address, the newest first. */
	of<T>(site: number, address: string): { readonly made: string; readonly result: T }[] {
		const rows = this.run('of').all(site, address) as { made: string; result: string }[];
		return rows.map(({ made, result }) => ({ made, result: JSON.parse(result) as T }));
	}
}
