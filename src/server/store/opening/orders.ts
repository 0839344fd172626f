import type Database from 'better-sqlite3';

type Db = Database.Database;

/** Fewer pages come in faster with all indexes in place. */
export const MANY = 5000;
/** What others ask for while pages come in: what is to be looked at. */
const KEPT = ['page_state_seen', 'page_state_timed', 'page_state_due'];
/** What looking at a page writes, and nobody asks for again and again while many are looked at. */
const BY_LOOKING = /^page_state_((type_)?(title|description|picture|tags|card)|type_(heavy|differs))/;

/**
 * Takes away the indexes that only the table of pages is sorted and filtered by, where so many pages come that making
 * them again afterwards is faster by far than keeping them. Meanwhile the table is slower, and still right. Says whether
 * it did. Whoever calls it has the lock of long edits, and calls `resumeOrders` at the end.
 */
export function pauseOrders(db: Db, coming: number): boolean {
	const { n } = db.prepare<unknown[], { n: number }>('SELECT count(*) AS n FROM page_state').get()!;
	if (coming < MANY || coming < n) return false;
	db.transaction(() => {
		const indexes = db
			.prepare<unknown[], { name: string; sql: string }>(
				`SELECT name, sql FROM sqlite_schema WHERE type = 'index' AND tbl_name = 'page_state' AND sql IS NOT NULL
				AND name NOT IN (SELECT value FROM json_each(?))`
			)
			.all(JSON.stringify(KEPT));
		const note = db.prepare('INSERT OR REPLACE INTO paused_index (name, sql) VALUES (@name, @sql)');
		for (const index of indexes) {
			note.run(index);
			db.exec(`DROP INDEX ${index.name}`);
		}
	}).immediate();
	return true;
}

const paused = (db: Db) =>
	db.prepare<unknown[], { name: string; sql: string }>('SELECT name, sql FROM paused_index').all();

/** Those whose time it is: looking at many pages would write the others again, so that they wait until that is done. */
function toResume(db: Db): ReturnType<typeof paused> {
	const all = paused(db);
	if (all.length === 0) return all;
	const { unseen } = db
		.prepare<unknown[], { unseen: number }>(
			`SELECT count(*) AS unseen FROM (SELECT 1 FROM content_type c JOIN page_state s
			ON s.site_id = c.site_id AND s.type = c.name AND s.seen < 0 LIMIT ?)`
		)
		.get(MANY)!;
	return unseen < MANY ? all : all.filter(({ name }) => !BY_LOOKING.test(name));
}

/** Whether some were taken away that could stand again by now. */
export const hasPausedOrders = (db: Db): boolean => toResume(db).length > 0;

/** Makes them again, each in a moment of its own; those that looking at pages writes, when few are still to be looked at. */
export function resumeOrders(db: Db, which: 'whose time it is' | 'all' = 'whose time it is') {
	const drop = db.prepare('DELETE FROM paused_index WHERE name = ?');
	for (const { name, sql } of which === 'all' ? paused(db) : toResume(db))
		db.transaction(() => {
			if (drop.run(name).changes > 0) db.exec(sql);
		}).immediate();
}
