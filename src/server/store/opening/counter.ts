import type { Db } from './database';

/**
 * The database's own counter of what other connections wrote, asked once for all that comes in together: for who keeps answers
 * for as long as nothing was written.
 */
export function writeCounter(db: Db): () => number {
	const asked = db.prepare<unknown[], number>('PRAGMA data_version').pluck();
	let known: number | undefined;
	return () => {
		if (known !== undefined) return known;
		known = asked.get()!;
		setImmediate(() => (known = undefined));
		return known;
	};
}
