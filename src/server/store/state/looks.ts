import { prepared, row, type Prepared, type Db } from '../opening/database';

const SQL = {
	add: `INSERT OR REPLACE INTO look (site_id, address, made, result) VALUES (?, ?, ?, ?)`,
	prune: `DELETE FROM look WHERE site_id = @site AND address = @address AND made NOT IN
		(SELECT made FROM look WHERE site_id = @site AND address = @address ORDER BY made DESC LIMIT @keep)`,
	pruneAll: `DELETE FROM look WHERE site_id = @site AND made < coalesce(
		(SELECT made FROM look WHERE site_id = @site ORDER BY made DESC LIMIT 1 OFFSET @keep - 1), '')`,
	cards: row<
		Omit<SeenCard, 'shown' | 'isShutOut'> & {
			shown: string | null;
			isShutOut: 0 | 1;
		}
	>(
		`SELECT path, reader, shown, shut_out AS isShutOut, seen, until, told FROM reader_card WHERE site_id = ? ORDER BY path, reader`
	),
	saveCard: `INSERT INTO reader_card (site_id, path, reader, shown, shut_out, seen, until, told)
		VALUES (@site, @path, @reader, @shown, @isShutOut, @seen, @until, @told)
		ON CONFLICT DO UPDATE SET shown = excluded.shown, shut_out = excluded.shut_out, seen = excluded.seen, until = excluded.until,
			told = coalesce(excluded.told, CASE WHEN seen = excluded.seen THEN told END)`,
	// Those that nobody was asked about yet, so that asking again goes on with the next; of them, and of all when all have
	// been, key pages first, the home page among them, then what a release changed last.
	pagesToAsk: row<{
		path: string;
	}>(`SELECT r.path FROM released r JOIN page_state s ON s.site_id = r.site_id AND s.path = r.path
		WHERE r.site_id = ? AND r.until IS NULL
		ORDER BY EXISTS (SELECT 1 FROM reader_card c WHERE c.site_id = r.site_id AND c.path = r.path), s.is_key = 1 OR r.path = '/' DESC, r.since DESC, r.path LIMIT ?`),
	verified: row<Omit<Verified<unknown>, 'drift'> & { drift: string }>(
		`SELECT head, drift, etag, modified FROM verified WHERE site_id = ? AND path = ? AND reader = ?`
	),
	saveVerified: `INSERT OR REPLACE INTO verified (site_id, path, reader, head, drift, etag, modified)
		VALUES (@site, @path, @reader, @head, @drift, @etag, @modified)`,
	forgetVerified: `DELETE FROM verified WHERE site_id = ? AND path = ? AND reader = ?`,
	of: row<{ made: string; result: string }>(
		`SELECT made, result FROM look WHERE site_id = ? AND address = ? ORDER BY made DESC`
	)
} as const;

/** Looks at one address that are kept. */
const KEPT = 20;
/** Looks of a site that are kept, the oldest first forgotten. */
export const KEPT_OF_SITE = 5000;

/** A card as a reader of links shows it. */
export interface ShownCard {
	readonly title: string;
	readonly description: string;
	readonly picture: string;
	readonly host: string;
	readonly siteName: string;
}

/** What one reader showed of a page when it was last asked. */
export interface SeenCard {
	readonly path: string;
	readonly reader: string;
	readonly shown: ShownCard | null;
	readonly isShutOut: boolean;
	readonly seen: string;
	readonly until: string | null;
	readonly told: string | null;
}

/** What came of verifying a page. */
export interface Verified<T> {
	/** The hash of the released head that it was compared with. */
	readonly head: string;
	readonly drift: T;
	/** What its server said of it (RFC 9110, 8.8). */
	readonly etag: string | null;
	readonly modified: string | null;
}

/** What readers saw of addresses, each time somebody looked. */
export class LookStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	add(site: number, address: string, made: string, result: unknown) {
		this.run('add').run(site, address, made, JSON.stringify(result));
		this.run('prune').run({ site, address, keep: KEPT });
		this.run('pruneAll').run({ site, keep: KEPT_OF_SITE });
	}

	/** What came of a page the last time it was verified by a reader, with what to ask its server with. */
	verified<T>(site: number, path: string, reader: string): Verified<T> | undefined {
		const row = this.run('verified').get(site, path, reader);
		return row && { ...row, drift: JSON.parse(row.drift) as T };
	}
	/** Without a way to ask again, nothing is kept. */
	saveVerified(site: number, path: string, reader: string, { drift, ...kept }: Verified<unknown>) {
		if (kept.etag === null && kept.modified === null) this.run('forgetVerified').run(site, path, reader);
		else this.run('saveVerified').run({ site, path, reader, ...kept, drift: JSON.stringify(drift) });
	}

	/** What readers last showed. */
	cards(site: number): SeenCard[] {
		const rows = this.run('cards').all(site);
		return rows.map(({ shown, isShutOut, ...row }) => ({
			...row,
			isShutOut: isShutOut === 1,
			shown: shown === null ? null : (JSON.parse(shown) as ShownCard)
		}));
	}
	saveCard(site: number, { shown, isShutOut, ...card }: SeenCard) {
		this.run('saveCard').run({
			...{ site, ...card, isShutOut: isShutOut ? 1 : 0 },
			shown: shown === null ? null : JSON.stringify(shown)
		});
	}
	/** The released pages whose cards matter most, by path. */
	pagesToAsk(site: number, most: number): string[] {
		return this.run('pagesToAsk')
			.all(site, most)
			.map(({ path }) => path);
	}

	/** The looks at an address, the newest first. */
	of<T>(site: number, address: string): { readonly made: string; readonly result: T }[] {
		const rows = this.run('of').all(site, address);
		return rows.map(({ made, result }) => ({ made, result: JSON.parse(result) as T }));
	}
}
