import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { prepared, row, type Prepared, type Db } from '../opening/database';

const SQL = {
	settings: row<{ settings: string }>(`SELECT settings FROM import_source WHERE site_id = ? AND kind = ?`),
	save: `INSERT INTO import_source (site_id, kind, settings) VALUES (?, ?, ?)
		ON CONFLICT (site_id, kind) DO UPDATE SET settings = excluded.settings`,
	drop: `DELETE FROM import_source WHERE site_id = ? AND kind = ?`,
	file: row<Omit<FileReading, 'reading'> & { reading: Buffer }>(
		`SELECT size, modified, reading, result FROM import_file WHERE site_id = ? AND file = ?`
	),
	files: `SELECT file FROM import_file WHERE site_id = ?`,
	saveFile: `INSERT INTO import_file (site_id, file, size, modified, reading, result) VALUES (@site, @file, @size, @modified, @reading, @result)
		ON CONFLICT (site_id, file) DO UPDATE SET size = excluded.size, modified = excluded.modified, reading = excluded.reading, result = excluded.result`,
	saveResult: `UPDATE import_file SET result = @result WHERE site_id = @site AND file = @file`,
	dropFile: `DELETE FROM import_file WHERE site_id = ? AND file = ?`,
	addAddress: `INSERT OR IGNORE INTO crawl (site_id, address, number, depth) VALUES (@site, @address,
		(SELECT count(*) FROM crawl WHERE site_id = @site), @depth)`,
	nextAddress: row<{ address: string; depth: number }>(
		`SELECT address, depth FROM crawl WHERE site_id = ? AND result IS NULL ORDER BY number LIMIT 1`
	),
	doneAddress: `UPDATE crawl SET result = @result WHERE site_id = @site AND address = @address`,
	addresses: row<{ address: string; result: string }>(
		`SELECT address, result FROM crawl WHERE site_id = ? AND result IS NOT NULL ORDER BY number`
	),
	countAddresses: row<{ read: number; waiting: number }>(
		`SELECT count(*) FILTER (WHERE result = '') AS read, count(*) FILTER (WHERE result IS NULL) AS waiting FROM crawl WHERE site_id = ?`
	),
	dropAddresses: `DELETE FROM crawl WHERE site_id = ?`
} as const;

/** What was read out of a file when it was read last. */
export interface FileReading {
	/** Bytes, and when it was changed, in milliseconds. */
	readonly size: number;
	readonly modified: number;
	readonly reading: unknown;
	/** The hash of what was put in for it; null before. */
	readonly result: string | null;
}

/** Where the content of sites came from, and what was read out of each file. */
export class SourceStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	/** What was said about reading a kind of source: a folder, a table, a live site. */
	settings<T>(site: number, kind: string): T | undefined {
		const row = this.run('settings').get(site, kind);
		return row && (JSON.parse(row.settings) as T);
	}
	saveSettings(site: number, kind: string, settings: unknown) {
		this.run('save').run(site, kind, JSON.stringify(settings));
	}
	forget(site: number, kind: string) {
		this.run('drop').run(site, kind);
	}

	file(site: number, file: string): FileReading | undefined {
		const row = this.run('file').get(site, file);
		return row && { ...row, reading: JSON.parse(inflateRawSync(row.reading).toString()) as unknown };
	}
	/** The names of the files known. While they are gone over, nothing else is asked of the database. */
	files(site: number): IterableIterator<string> {
		return this.run('files').pluck().iterate(site) as IterableIterator<string>;
	}
	saveFile(site: number, file: string, { size, modified, reading, result }: FileReading) {
		const packed = deflateRawSync(JSON.stringify(reading), { level: 1 });
		this.run('saveFile').run({ site, file, size, modified, reading: packed, result });
	}
	saveResult(site: number, file: string, result: string) {
		this.run('saveResult').run({ site, file, result });
	}
	dropFile(site: number, file: string) {
		this.run('dropFile').run(site, file);
	}

	/** An address to be read later, unless it is known. */
	addAddress(site: number, address: string, depth: number) {
		this.run('addAddress').run({ site, address, depth });
	}
	nextAddress(site: number): { address: string; depth: number } | undefined {
		return this.run('nextAddress').get(site);
	}
	/** `result` is '' for a page that was read, else why it is none. */
	doneAddress(site: number, address: string, result: string) {
		this.run('doneAddress').run({ site, address, result });
	}
	/** The addresses that were looked at, in their order. */
	addresses(site: number): { address: string; result: string }[] {
		return this.run('addresses').all(site);
	}
	countAddresses(site: number): { read: number; waiting: number } {
		return this.run('countAddresses').get(site)!;
	}
	dropAddresses(site: number) {
		this.run('dropAddresses').run(site);
	}
}
