import type { Actor } from '$core';
import { refuse } from '../errors';

/** So many requests of one person, key or address are worked on at the same time; more are refused. */
export const MOST_AT_ONCE = 32;
const running = new Map<string, number>();

const keyOf = (who: Actor, address: () => string): string => {
	if (who.kind === 'person') return `person ${who.id}`;
	return who.kind === 'key' ? `key ${who.site} ${who.name}` : `address ${address()}`;
};

/** How many more requests of someone would be worked on now. */
export const leftFor = (who: Actor, address: () => string): number =>
	MOST_AT_ONCE - (running.get(keyOf(who, address)) ?? 0);

/** Does what someone asks for, unless much of theirs is being done already: nobody takes the desk from the others. */
export async function amongFew<T>(who: Actor, address: () => string, work: () => T | Promise<T>): Promise<T> {
	if (who.kind === 'alone') return work();
	const key = keyOf(who, address);
	const count = running.get(key) ?? 0;
	if (count >= MOST_AT_ONCE) throw refuse('too-much-at-once', { most: MOST_AT_ONCE });
	running.set(key, count + 1);
	try {
		return await work();
	} finally {
		const left = running.get(key)! - 1;
		if (left === 0) running.delete(key);
		else running.set(key, left);
	}
}
