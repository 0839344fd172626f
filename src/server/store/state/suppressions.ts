import { keyOfKind, type FindingKind } from '$core';
import { prepared, row, type Prepared, type Db } from '../opening/database';

const SQL = {
	all: row<Suppression>(`SELECT code, tag, path, reason, author, made FROM aside WHERE site_id = ? ORDER BY made DESC`),
	add: `INSERT INTO aside (site_id, code, tag, path, reason, author, made) VALUES (@site, @code, @tag, @path, @reason, @author, @made)
		ON CONFLICT DO NOTHING`,
	drop: `DELETE FROM aside WHERE site_id = @site AND code = @code AND tag = @tag AND path = @path`
} as const;

/** A finding that somebody set aside: on one page, or with an empty path on all. */
export interface Suppression {
	readonly code: string;
	readonly tag: string;
	readonly path: string;
	readonly reason: string;
	readonly author: string;
	/** ISO 8601. */
	readonly made: string;
}

/** Asks whether a finding is set aside. */
export class Suppressed {
	private readonly keys: ReadonlySet<string>;

	constructor(all: readonly Pick<Suppression, 'code' | 'tag' | 'path'>[]) {
		this.keys = new Set(all.map(({ path, ...kind }) => keyOf(kind, path)));
	}

	get isEmpty(): boolean {
		return this.keys.size === 0;
	}
	/** On all pages, or, where one is named, on that page. */
	has(kind: FindingKind, path = ''): boolean {
		return this.keys.has(keyOf(kind, '')) || (path !== '' && this.keys.has(keyOf(kind, path)));
	}
}
const keyOf = (kind: FindingKind, path: string) => `${keyOfKind(kind)} ${path}`;

/** Findings that were set aside. */
export class SuppressionStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	/** Which findings they are. */
	of(site: number): Suppressed {
		return new Suppressed(this.all(site));
	}
	/** The newest first. */
	all(site: number): Suppression[] {
		return this.run('all').all(site);
	}
	add(site: number, aside: Suppression) {
		this.run('add').run({ site, ...aside });
	}
	takeUp(site: number, { code, tag, path }: Pick<Suppression, 'code' | 'tag' | 'path'>) {
		this.run('drop').run({ site, code, tag, path });
	}
}
