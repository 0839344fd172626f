import { UserError } from '../../errors';
import { clock } from '../../waiting';

/** While another writes much, an edit is tried again this often, for so long (milliseconds). */
const EVERY = 20;
const AT_MOST = 30_000;

/**
 * Does the work, which writes, as soon as no other writer is at it. Waiting holds nobody else up: a connection that waits
 * by itself would hold its whole thread.
 */
export async function patiently<T>(work: () => T | Promise<T>): Promise<T> {
	const until = clock.now() + AT_MOST;
	for (;;) {
		try {
			return await work();
		} catch (error) {
			if (!(error instanceof UserError && error.status === 503) || clock.now() > until) throw error;
			await clock.sleep(EVERY);
		}
	}
}
