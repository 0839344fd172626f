import type { BodyReading } from '$core';
import { prepared, row, type Prepared, type Db } from '../opening/database';

const SQL = {
	body: row<{ body: string }>(`SELECT body FROM page_body WHERE page_id = ?`),
	naming: row<{ path: string; body: string }>(
		`SELECT p.path, b.body FROM page_body b JOIN page p ON p.id = b.page_id WHERE p.site_id = ? AND instr(b.body, ?)`
	),
	saveBody: `INSERT INTO page_body (page_id, body) VALUES (?, ?)
		ON CONFLICT (page_id) DO UPDATE SET body = excluded.body WHERE body <> excluded.body`,
	saveLinks: `INSERT INTO page_link (page_id, links) VALUES (?, ?) ON CONFLICT (page_id) DO UPDATE SET links = excluded.links`,
	linkingTo: `SELECT p.path FROM page_link l JOIN page p ON p.id = l.page_id
		WHERE p.site_id = ? AND EXISTS (SELECT 1 FROM json_each(?) WHERE instr(l.links, char(10) || value || char(10))) ORDER BY p.id`,
	dropBody: `DELETE FROM page_body WHERE page_id = ?`,
	saveReading: `UPDATE page_body SET opening = @opening, language = @language WHERE page_id = @page`
} as const;

/** Texts of pages, which stand apart from their rows, what was read out of them, and where their own files link to. */
export class BodyStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	/** The body of a page; undefined for none. */
	of(page: number): string | undefined {
		return this.run('body').get(page)?.body;
	}
	save(page: number, body: string | undefined) {
		if (body === undefined) this.run('dropBody').run(page);
		else this.run('saveBody').run(page, body);
	}

	saveLinks(page: number, links: readonly string[] | undefined) {
		if (links) this.run('saveLinks').run(page, `\n${links.join('\n')}\n`);
	}
	/** The paths of the pages whose own files link to one of these paths, decoded. */
	linkingTo(site: number, paths: readonly string[]): string[] {
		return this.run('linkingTo').pluck().all(site, JSON.stringify(paths)) as string[];
	}

	/** Keeps what was read out of a page's body, so that it need not be read again. */
	saveReading(page: number, { opening, language }: BodyReading) {
		this.run('saveReading').run({ page, opening, language });
	}

	/** The pages whose texts hold a word, with their texts; of '', all that have one. */
	naming(site: number, word: string): IterableIterator<{ path: string; body: string }> {
		return this.run('naming').iterate(site, word);
	}
}
