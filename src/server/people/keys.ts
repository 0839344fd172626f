import { SCOPES, type Scope } from '$core';
import { refuse } from '../errors';
import type { Store } from '../store/store';
import { actor } from './acting';
import { nameOf, note } from './note';
import { hashed, KEY_BEGINS, newSecret } from './who';

/** So long (milliseconds) a key goes on beside the one that takes its place. */
const BESIDE = 7 * 24 * 3_600_000;

/** What a key is made as; `instead` is the number of one that it takes the place of. */
export interface NewKey {
	readonly name: string;
	readonly scopes: readonly Scope[];
	readonly ends?: string | undefined;
	readonly instead?: number | undefined;
}

/** Makes a key for a machine; its secret is told once. */
export function addKey(store: Store, site: string, { name, scopes, ends, instead }: NewKey): string {
	const { id } = store.working.sites.named(site);
	const said = name.trim();
	if (said === '' || said.length > 80) throw refuse('key-name-broken');
	if (scopes.length === 0 || scopes.some((scope) => !SCOPES.includes(scope)))
		throw refuse('key-scopes', { scopes: SCOPES });
	const until = ends === undefined ? undefined : Date.parse(ends);
	if (until !== undefined && !(until > Date.now())) throw refuse('key-end-broken');
	const secret = KEY_BEGINS + newSecret();
	store.transaction(() => {
		if (instead !== undefined && !store.people.endKey(instead, id, Date.now() + BESIDE)) throw refuse('key-missing');
		const key = { name: said, scopes, ends: until, maker: nameOf(actor(), 'this machine') };
		store.people.addKey(key, id, hashed(secret), Date.now());
		note(
			store,
			'key-made',
			{ name: said, scopes, ends: ends ?? null, ...(instead !== undefined && { instead }) },
			site
		);
	});
	return secret;
}

export function dropKey(store: Store, site: string, key: number) {
	const { id } = store.working.sites.named(site);
	store.transaction(() => {
		if (!store.people.dropKey(key, id)) throw refuse('key-missing');
		note(store, 'key-dropped', { key }, site);
	});
}
