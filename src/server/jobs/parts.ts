import { availableParallelism } from 'node:os';
import type { Part } from '../store/opening/part';
import { Store } from '../store/store';
import type { Jobs } from './kinds';
import type { Progress } from '../progress';
import { runJob } from './run';

/** From so many pages on, several threads share the work: each costs some time to begin. */
const SHARED_FROM = 4000;
const MOST_THREADS = 4;

export interface Watched {
	/** Told how many pages were seen by all threads together. */
	readonly progress?: Progress;
	/** Stops all. */
	readonly signal?: AbortSignal;
}

/** Runs a job on so many pages in one thread, or in several that share them; gives what each came to. */
export function runParts<N extends 'reach' | 'refresh' | 'givenWay'>(
	name: N,
	input: Omit<Jobs[N]['input'], keyof Part>,
	pages: number,
	{ progress, signal }: Watched = {}
): Promise<Jobs[N]['output'][]> {
	const parts = pages >= SHARED_FROM ? Math.min(MOST_THREADS, Math.max(1, availableParallelism())) : 1;
	const seen = new Array<number>(parts).fill(0);
	return Promise.all(
		seen.map((_, part) =>
			runJob(
				name,
				{ ...input, part, parts },
				{
					...(signal && { signal }),
					progress(done) {
						seen[part] = done;
						progress?.(seen.reduce((sum, one) => sum + one, 0));
					}
				}
			)
		)
	);
}

/** Brings the kept state of a site up to date; a database that holds nothing stale need not be written. */
export async function refreshAll(db: string, site: string, watched: Watched = {}) {
	const reader = new Store(db, { readonly: true });
	let stale: number;
	try {
		stale = reader.state.countStale(reader.working.sites.named(site).id);
	} finally {
		reader.close();
	}
	if (stale > 0) await runParts('refresh', { db, site }, stale, watched);
}
