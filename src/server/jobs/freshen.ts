import { ALONE } from '$core';
import { log } from '../log';
import { actingAs } from '../people/acting';
import type { Store } from '../store/store';
import { refreshAll } from './parts';
import { runJob } from './run';
import { awhile } from '../waiting';

/** How far the bringing up to date of a site is. */
interface Run {
	readonly ended: Promise<void>;
}

/** By database and site; one at a time for each. */
const running = new Map<string, Run>();

/**
 * Sees to it that the kept state of a site is brought up to date, in a thread; joins the run that is on its way. The
 * promise ends when nothing is stale any more, and throws what the job throws.
 */
export function freshen(store: Store, name: string): Promise<void> {
	const key = `${store.file}\0${name}`;
	const known = running.get(key);
	if (known) return known.ended;
	// Closed while a run was on its way: whoever opens it next goes on.
	if (!store.db.open) return Promise.resolve();
	if (store.state.countStale(store.working.sites.named(name).id) === 0) return Promise.resolve();
	// It goes on by itself: whoever happened to ask first has no part in it.
	const ended = actingAs(ALONE, () =>
		refreshAll(store.file, name)
			// Rules that make pictures out of others need copies of them.
			.then(() => runJob('gather', { db: store.file, site: name }))
			.then(() => runJob('grown', { db: store.file, site: name }))
	)
		.finally(() => running.delete(key))
		// An edit may have come after the last look.
		.then(() => freshen(store, name));
	running.set(key, { ended });
	return ended;
}

/** The same for who does not wait for it. */
export const freshenSoon = (store: Store, name: string) =>
	void freshen(store, name).catch((error: unknown) => log.error(error));

/** An answer waits so long (milliseconds) for what is being looked at, before it says how far that is. */
const PATIENCE = 400;

/** The same for an answer that says how many are left: ends with the work, or when patience does. */
export async function freshenAwhile(store: Store, name: string) {
	const work = freshen(store, name);
	// An error of the work is thrown only while someone waits.
	work.catch((error: unknown) => log.error(error));
	await awhile(work, PATIENCE);
}
