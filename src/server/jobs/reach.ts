import { joinReaches, type AnyEdit, type Reach, ownOf } from '$core';
import type { Store } from '../store/store';
import { runParts, type Watched } from './parts';

/** How many pages stand under the layer of an edit. */
export function countUnder(store: Store, name: string, { place }: AnyEdit): number {
	const { all, byType } = store.working.pages.count(store.working.sites.named(name).id);
	if (place.layer === 'page') return 1;
	return place.layer === 'type' ? (ownOf(byType, place.name) ?? 0) : all;
}

/** Which pages an edit would change, counted in threads. */
export async function reachOf(store: Store, name: string, edit: AnyEdit, watched?: Watched): Promise<Reach> {
	return joinReaches(
		await runParts('reach', { db: store.file, site: name, edit }, countUnder(store, name, edit), watched)
	);
}
