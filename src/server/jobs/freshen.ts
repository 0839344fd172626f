import type { Store } from '../store/store';
import { refreshAll } from './parts';
import { runJob } from './run';

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
	if (store.state.countStale(store.site(name).id) === 0) return Promise.resolve();
	const ended = refreshAll(store.file, name)
		// Rules that make pictures out of others need copies of them.
		.then(() => runJob('gather', { db: store.file, site: name }))
		.finally(() => running.delete(key))
		// An edit may have come after the last look.
		.then(() => freshen(store, name));
	running.set(key, { ended });
	return ended;
}
