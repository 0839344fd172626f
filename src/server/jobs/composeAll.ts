import { ownOf } from '$core';
import { refuse } from '../errors';
import type { Store } from '../store/store';
import type { Composed } from './compose';
import { runJob } from './run';

/** Threads that draw at the same time. */
const THREADS = 2;

export interface ComposeOptions {
	readonly site: string;
	readonly type?: string | undefined;
	readonly path?: string | undefined;
	readonly progress?: (done: number, all: number) => void;
	readonly signal?: AbortSignal;
}

/** Draws share pictures in threads; what is there and unchanged is left as it is. Throws a `UserError`, also when stopped. */
export async function composeAll(store: Store, options: ComposeOptions): Promise<Composed> {
	const { site, type, path, progress, signal } = options;
	const all = countPictures(store, options);
	const done = Array.from({ length: THREADS }, () => 0);
	const parts = done.map((_, at) =>
		runJob(
			'compose',
			{ db: store.file, site, type, path, part: { at, of: THREADS } },
			{
				...(signal && { signal }),
				progress(count) {
					done[at] = count;
					progress?.(
						done.reduce((sum, one) => sum + one, 0),
						all
					);
				}
			}
		)
	);
	const counts = await Promise.all(parts);
	return {
		drawn: counts.reduce((sum, one) => sum + one.drawn, 0),
		kept: counts.reduce((sum, one) => sum + one.kept, 0)
	};
}

/** How many pictures there will be. Throws a `UserError` when the type, or every type, has no layout. */
function countPictures(store: Store, { site: name, type, path }: ComposeOptions): number {
	const { id, types } = store.working.sites.named(name);
	const known = types.find((one) => one.name === type);
	if (type !== undefined && !known) throw refuse('type-missing', { contentType: type });
	const page = path === undefined ? undefined : store.working.pages.at(id, path);
	if (path !== undefined && !page) throw refuse('page-missing', { path });
	const meant = page ? types.filter((one) => one.name === page.type) : known ? [known] : types;
	const drawn = meant.filter((one) => one.layout);
	if (drawn.length === 0) throw refuse('no-layout', { contentType: meant.length === 1 ? meant[0]!.name : undefined });
	if (page) return 1;
	const { byType } = store.working.pages.count(id);
	return drawn.reduce((sum, one) => sum + (ownOf(byType, one.name) ?? 0), 0);
}
