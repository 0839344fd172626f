import { prepared, row, type Prepared, type Db } from '../opening/database';

const SQL = {
	all: row<{ path: string; target: string }>(`SELECT path, target FROM redirect WHERE site_id = ? ORDER BY path`),
	of: row<{ target: string }>(`SELECT target FROM redirect WHERE site_id = ? AND path = ?`),
	save: `INSERT INTO redirect (site_id, path, target) VALUES (@site, @from, @to)
		ON CONFLICT (site_id, path) DO UPDATE SET target = excluded.target`,
	leadNowhere: `DELETE FROM redirect WHERE site_id = ? AND target = ?`,
	leading: row<{ path: string }>(`SELECT path FROM redirect WHERE site_id = ? AND target = ? ORDER BY path`),
	leadOn: `UPDATE redirect SET target = @to WHERE site_id = @site AND target = @from`,
	drop: `DELETE FROM redirect WHERE site_id = ? AND path = ?`
} as const;

/** Where pages used to be, and where they are. */
export class RedirectStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	/** Targets by former path. */
	all(site: number): Record<string, string> {
		const rows = this.run('all').all(site);
		return Object.fromEntries(rows.map(({ path, target }) => [path, target]));
	}

	/** Where a page that used to be at a path is now. */
	of(site: number, path: string): string | undefined {
		return this.run('of').get(site, path)?.target;
	}

	/** Former paths that lead to a page. */
	leadingTo(site: number, path: string): string[] {
		return this.run('leading')
			.all(site, path)
			.map((row) => row.path);
	}

	/** Brings them to what is given. */
	replace(site: number, redirects: Readonly<Record<string, string>>) {
		for (const from of Object.keys(this.all(site))) if (!Object.hasOwn(redirects, from)) this.drop(site, from);
		for (const [from, to] of Object.entries(redirects)) this.run('save').run({ site, from, to });
	}

	/** What led to a path, and the path itself, lead to another, or nowhere. */
	leadOn(site: number, from: string, to: string | undefined) {
		if (to === undefined) return void this.run('leadNowhere').run(site, from);
		this.run('leadOn').run({ site, from, to });
		this.run('save').run({ site, from, to });
	}

	drop(site: number, path: string) {
		this.run('drop').run(site, path);
	}
}
