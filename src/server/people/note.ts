import type { Actor } from '$core';
import type { Store } from '../store/store';
import { actor } from './acting';

/** What someone is called in the record and the trail. */
export const nameOf = (who: Actor, alone: string): string => {
	if (who.kind === 'person') return who.name;
	return who.kind === 'key' ? `key ${who.name}` : alone;
};

/** Who looks, to be kept with what was seen; nothing of who is alone, and of what looks by itself. */
export function looker(): { readonly by?: string } {
	const by = nameOf(actor(), '');
	return by === '' ? {} : { by };
}

/** Adds a line to the trail. */
export function note(
	store: Store,
	what: string,
	data: Readonly<Record<string, unknown>> = {},
	site?: string,
	who: string = nameOf(actor(), 'this machine')
) {
	store.transaction(() => store.trail.add({ at: new Date().toISOString(), who, what, site, data }));
}
