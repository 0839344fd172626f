import { prepared, row, type Prepared, type Db } from '../opening/database';

const SQL = {
	all: row<NamedFilter>(`SELECT name, query FROM saved_filter WHERE site_id = ? ORDER BY name`),
	save: `INSERT INTO saved_filter (site_id, name, query) VALUES (@site, @name, @query)
		ON CONFLICT (site_id, name) DO UPDATE SET query = excluded.query`,
	drop: `DELETE FROM saved_filter WHERE site_id = ? AND name = ?`
} as const;

/** A filter of the table of pages that has a name; its query is that of the room's address. */
export interface NamedFilter {
	readonly name: string;
	readonly query: string;
}

/** Filters of the table of pages that have a name. */
export class FilterStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	all(site: number): NamedFilter[] {
		return this.run('all').all(site);
	}
	save(site: number, name: string, query: string) {
		this.run('save').run({ site, name, query });
	}
	drop(site: number, name: string) {
		this.run('drop').run(site, name);
	}
}
