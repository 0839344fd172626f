import type Database from 'better-sqlite3';

type Db = Database.Database;

/** Fewer pages come in faster with all indexes in place. */
export const MANY = 5000;
/** What others ask for while pages come in: what is to be looked at, and a page by its path. */
const KEPT = ['page_state_seen', 'page_state_touched', 'page_state_timed', 'page_state_path'];

/**
 * Takes away the indexes that only the table of pages is sorted and filtered by, where so many pages come that making
 * them again afterwards is faster by far than keeping them. Meanwhile the table is slower, and still right. Says whether
 * it did. Whoever calls it has the lock of long edits, and calls `resumeOrders` at the end.
 */
export function pauseOrders(db: Db, coming: number): boolean {
	const { n } = db.prepare('SELECT count(*) AS n FROM page_state').get() as { n: number };
	if (coming < MANY || coming < n) return false;
	db.transaction(() => {
		const indexes = db
			.prepare(
				`SELECT name, sql FROM sqlite_schema WHERE type = 'index' AND tbl_name = 'page_state' AND sql IS NOT NULL
				AND name NOT IN (SELECT value FROM json_each(?))`
			)
			.all(JSON.stringify(KEPT)) as { name: string; sql: string }[];
		const note = db.prepare('INSERT OR REPLACE INTO paused_index (name, sql) VALUES (@name, @sql)');
		for (const index of indexes) {
			note.run(index);
			db.exec(`DROP INDEX ${index.name}`);
		}
	}).immediate();
	return true;
}

export const hasPausedOrders = (db: Db): boolean =>
	db.prepare('SELECT 1 FROM paused_index LIMIT 1').get() !== undefined;

/** Makes them again, each in a moment of its own. */
export function resumeOrders(db: Db) {
	const drop = db.prepare('DELETE FROM paused_index WHERE name = ?');
	for (const { name, sql } of db.prepare('SELECT name, sql FROM paused_index').all() as { name: string; sql: string }[])
		db.transaction(() => {
			if (drop.run(name).changes > 0) db.exec(sql);
		}).immediate();
}
