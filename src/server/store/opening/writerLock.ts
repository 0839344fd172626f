import Database from 'better-sqlite3';

/**
 * The right to make a long edit of a database: one at a time has it, over all processes, and whoever ends loses it. It is
 * an exclusive lock on a file beside the database, which stays empty.
 */
export class WriterLock {
	private constructor(private readonly db: Database.Database) {}

	/** Undefined when another has it, or the file cannot be made. */
	static take(file: string): WriterLock | undefined {
		let db: Database.Database | undefined;
		try {
			db = new Database(`${file}-long`, { timeout: 0 });
			db.exec('BEGIN EXCLUSIVE');
			return new WriterLock(db);
		} catch {
			db?.close();
			return undefined;
		}
	}

	release() {
		this.db.close();
	}
}
