import { prepared, row, type Db, type Prepared } from '../opening/database';

const SQL = {
	away: row<SourceAway>(`SELECT type, since, why FROM source_away WHERE site_id = ? ORDER BY type`),
	note: `INSERT INTO source_away (site_id, type, since, why) VALUES (@site, @type, @now, @why)
		ON CONFLICT (site_id, type) DO UPDATE SET why = @why`,
	drop: `DELETE FROM source_away WHERE site_id = @site AND type = @type`
} as const;

/** A source of live data that does not answer; moments in milliseconds. */
export interface SourceAway {
	/** The content type whose source it is. */
	readonly type: string;
	readonly since: number;
	readonly why: string;
}

/** Which sources of live data are away. */
export class SourceStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	away(site: number): SourceAway[] {
		return this.run('away').all(site);
	}
	/** `why` it is away; undefined where it answers. */
	note(site: number, type: string, why: string | undefined, now: number) {
		if (why === undefined) this.run('drop').run({ site, type });
		else this.run('note').run({ site, type, now, why: why.slice(0, 500) });
	}
}
