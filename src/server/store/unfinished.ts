import type { Db } from './opening/database';
import { hasPausedOrders, resumeOrders } from './opening/orders';
import type { RecordStore } from './record/record';
import { WriterLock } from './opening/writerLock';

/** Takes back one long edit that is half made, or all. Whoever calls it has the lock of long edits. */
export function takeBackUnfinished(db: Db, record: RecordStore, only?: number) {
	db.transaction(() => {
		for (const { id, site, isNew } of record.unfinished()) {
			if (only !== undefined && id !== only) continue;
			if (isNew) db.prepare('DELETE FROM site WHERE id = ?').run(site);
			else {
				record.nextRevision(site);
				record.putBack(id, true);
				record.drop(id);
			}
		}
	}).immediate();
}

/** Whether long edits are half made, or what they took away for their time is. */
export const isUnfinished = (db: Db, record: RecordStore) => record.unfinished().length > 0 || hasPausedOrders(db);

/** Takes back the long edits whose makers were ended on the way; those that are still being made are left alone. */
export function mendUnfinished(db: Db, record: RecordStore) {
	if (!isUnfinished(db, record)) return;
	const lock = WriterLock.take(db.name);
	if (!lock) return;
	try {
		takeBackUnfinished(db, record);
		resumeOrders(db);
	} finally {
		lock.release();
	}
}
