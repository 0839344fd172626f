import { MATRIX_TAGS, WIDTH_STEP } from '$core';
import { readCounted, stampOf, type Counted } from '../findings/counted';
import { groupInWords, type FindingGroup } from '../findings/groups';
import { freshen } from '../jobs/freshen';
import { runJob } from '../jobs/run';
import { refuse, UserError } from '../errors';
import { log } from '../log';
import type { Suppression } from '../store/state/suppressions';
import type { Store } from '../store/store';
import { saidOf } from '../speaking';
import { awhile } from '../waiting';

/** What is wrong or weak on a site, as it was counted last, and whether that is how it stands. */
export interface FindingsTold {
	/** Null before anything was counted. */
	readonly counted: (Pick<Counted, 'spread' | 'unknownPictures'> & { readonly groups: readonly FindingGroup[] }) | null;
	/** It is counted of the working copy as it is now, of which every page was looked at. */
	readonly isNow: boolean;
	/** Pages yet to be looked at since they were touched, of how many. */
	readonly unseen: number;
	readonly all: number;
	/** Why it cannot be counted. */
	readonly failed?: string;
	readonly aside: readonly Suppression[];
}

/** Counts that are under way, by database and site, and how the last one failed. */
const counting = new Map<string, Promise<void>>();
const failures = new Map<string, UserError>();
const keyOf = (store: Store, name: string) => `${store.file}\0${name}`;

/** An answer waits so long (milliseconds) for a count, where its asker says that it may. */
const PATIENCE = 1500;

/**
 * What was counted last, at once; counting goes on beside it where that is not how it stands. With `wait`, the answer
 * waits a moment for it.
 */
export async function readFindingsRoom(store: Store, name: string, wait: boolean): Promise<FindingsTold> {
	const before = told(store, name);
	if (before.isNow) return before;
	const count = countAgain(store, name);
	if (wait || before.counted === null) await awhile(count, PATIENCE);
	return told(store, name);
}

function told(store: Store, name: string): FindingsTold {
	const { id, revision } = store.working.sites.named(name);
	const counted = readCounted(store, id);
	const unseen = store.state.countStale(id);
	const failed = failures.get(keyOf(store, name));
	return {
		counted: counted
			? { groups: counted.groups.map(groupInWords), spread: counted.spread, unknownPictures: counted.unknownPictures }
			: null,
		isNow: unseen === 0 && counted?.stamp === stampOf(store, id, revision),
		...{ unseen, all: store.working.pages.count(id).all },
		...(failed && { failed: saidOf(failed) }),
		aside: store.state.suppressions.all(id)
	};
}

/** Counts in a thread, after all pages were looked at; joins the count that is under way. Never throws. */
function countAgain(store: Store, name: string): Promise<void> {
	const key = keyOf(store, name);
	const known = counting.get(key);
	if (known) return known;
	const mine = freshen(store, name)
		.then(() => runJob('count', { db: store.file, site: name, tags: MATRIX_TAGS, step: WIDTH_STEP }))
		.then(
			() => void failures.delete(key),
			(error: unknown) => {
				log.error(error, `What is wrong with ${name} could not be counted`);
				failures.set(key, error instanceof UserError ? error : refuse('failed'));
			}
		)
		.finally(() => counting.delete(key));
	counting.set(key, mine);
	return mine;
}
