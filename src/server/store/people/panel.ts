import { prepared, row, type Db, type Prepared } from '../opening/database';

const SQL = {
	originsAt: row<{ origin: string }>(`SELECT origin FROM panel_origin WHERE site_id = ? ORDER BY origin`),
	dropOrigins: `DELETE FROM panel_origin WHERE site_id = ?`,
	addOrigin: `INSERT OR IGNORE INTO panel_origin (site_id, origin) VALUES (@site, @origin)`,
	add: `INSERT INTO panel_token (hash, site_id, person_id, key_id, path, begun, ends)
		VALUES (@hash, @site, @person, @key, @path, @begun, @ends)`,
	token: row<TokenRow>(`SELECT t.person_id AS person, t.key_id AS key, s.name AS site, t.path, t.begun, t.ends
		FROM panel_token t JOIN site s ON s.id = t.site_id LEFT JOIN access_key k ON k.id = t.key_id
		WHERE t.hash = @hash AND t.ends > @now AND (k.ends IS NULL OR k.ends > @now)`),
	endAll: `DELETE FROM panel_token WHERE person_id = ?`,
	endOld: `DELETE FROM panel_token WHERE ends <= ?`
} as const;

interface TokenRow {
	readonly person: number;
	readonly key: number | null;
	readonly site: string;
	readonly path: string;
	readonly begun: number;
	readonly ends: number;
}

/** What lets the panel in, for one page, as a person; moments in milliseconds. */
export interface PanelToken extends Omit<TokenRow, 'key' | 'path'> {
	/** The page it is for; '' for all that the person may edit. */
	readonly path: string;
	/** The number of the key that asked for it. */
	readonly key?: number;
}

/** Where the panel may be shown, and what lets it in. */
export class PanelStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	/** The origins whose pages may show the panel of a site. */
	originsAt(site: number): string[] {
		return this.run('originsAt')
			.all(site)
			.map(({ origin }) => origin);
	}
	setOrigins(site: number, origins: readonly string[]) {
		this.run('dropOrigins').run(site);
		for (const origin of origins) this.run('addOrigin').run({ site, origin });
	}
	add(hash: Buffer, { key, ...token }: Omit<PanelToken, 'site'> & { readonly site: number }) {
		this.run('endOld').run(token.begun);
		this.run('add').run({ ...token, hash, key: key ?? null });
	}
	/** One that is not over, and whose key is not. */
	token(hash: Buffer, now: number): PanelToken | undefined {
		const found = this.run('token').get({ hash, now });
		if (!found) return undefined;
		const { key, ...token } = found;
		return { ...token, ...(key !== null && { key }) };
	}
	endAll(person: number) {
		this.run('endAll').run(person);
	}
}
