import { joinReaches, type AnyEdit, type Reach } from '$core';
import { availableParallelism } from 'node:os';
import type { Store } from '../store/store';
import { runJob } from './run';
import type { Progress } from './progress';

/** From so many pages on, several threads share the counting: each costs some time to begin. */
const SHARED_FROM = 4000;
const MOST_THREADS = 4;

/** How many pages stand under the layer of an edit. */
export function countUnder(store: Store, name: string, { place }: AnyEdit): number {
	const { all, byType } = store.countPages(store.site(name).id);
	if (place.layer === 'page') return 1;
	return place.layer === 'type' ? (byType[place.name] ?? 0) : all;
}

/** Which pages an edit would change, counted in threads. `progress` is told how many were seen; the signal stops all. */
export async function reachOf(
	store: Store,
	name: string,
	edit: AnyEdit,
	{ progress, signal }: { progress?: Progress; signal?: AbortSignal } = {}
): Promise<Reach> {
	const isShared = countUnder(store, name, edit) >= SHARED_FROM;
	const parts = isShared ? Math.min(MOST_THREADS, Math.max(1, availableParallelism())) : 1;
	const seen = new Array<number>(parts).fill(0);
	const reaches = await Promise.all(
		seen.map((_, part) =>
			runJob(
				'reach',
				{ db: store.file, site: name, edit, part, parts },
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
	return joinReaches(reaches);
}
