import { joinGivenWay, joinReaches, ownOf, type AnyEdit, type Edit, type GivenWay, type Reach } from '$core';
import type { Store } from '../store/store';
import { runParts, type Watched } from './parts';

/** How many pages stand under the layer of an edit, or read one that it changes. */
export function countUnder(store: Store, name: string, { place }: AnyEdit): number {
	const { id } = store.working.sites.named(name);
	const { all, byType } = store.working.pages.count(id);
	if (place.layer === 'page') return 1 + store.state.readersOf(id, place.path).length;
	if (place.layer === 'type')
		return (ownOf(byType, place.name) ?? 0) + store.state.readersOfType(id, place.name).length;
	return all;
}

/** Which pages an edit would change, counted in threads. */
export async function reachOf(store: Store, name: string, edit: AnyEdit, watched?: Watched): Promise<Reach> {
	return joinReaches(
		await runParts('reach', { db: store.file, site: name, edit }, countUnder(store, name, edit), watched)
	);
}

/** On how many pages the stretches of a template give way, counted in threads. */
export async function givenWayOf(store: Store, name: string, edit: Edit, watched?: Watched): Promise<GivenWay> {
	return joinGivenWay(
		await runParts('givenWay', { db: store.file, site: name, edit }, countUnder(store, name, edit), watched)
	);
}
