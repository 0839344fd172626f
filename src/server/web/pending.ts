import { freshenAwhile } from '../jobs/freshen';
import type { Differing } from '../store/state/state';
import type { Release } from '../store/releases/releases';
import type { Store } from '../store/store';

/** What of the working copy visitors do not see yet. */
export interface Pending extends Differing {
	/** The newest release, or null before the first. */
	readonly release: Pick<Release, 'number' | 'created' | 'pages'> | null;
	/** How many pages are yet to be looked at since they were touched, of how many: until it is none, more may differ. */
	readonly unseen: number;
	readonly all: number;
}

const LISTED = 200;

/** What differs from the newest release, from the kept state. */
export async function readPending(store: Store, name: string): Promise<Pending> {
	await freshenAwhile(store, name);
	const { id } = store.working.sites.named(name);
	const release = store.releases.latest(id);
	return {
		release: release ? { number: release.number, created: release.created, pages: release.pages } : null,
		...store.state.differing(id, LISTED),
		unseen: store.state.countStale(id),
		all: store.working.pages.count(id).all
	};
}
