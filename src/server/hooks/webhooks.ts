import { randomBytes } from 'node:crypto';
import { ownsAll } from '$core';
import { refuse } from '../errors';
import { refuseAddress } from '../fetching/guard';
import { actor } from '../people/acting';
import { nameOf, note } from '../people/note';
import { HOOK_EVENTS, type HookEvent } from '../store/hooks/hooks';
import type { Store } from '../store/store';
import { tell } from './announce';

/** So many addresses a site tells at the most. */
const MOST = 20;

/** What an address is added as. */
export interface NewHook {
	readonly address: string;
	readonly events: readonly HookEvent[];
	/** It may lie in a network that is not public: only an owner of all says that. */
	readonly inside?: boolean | undefined;
}

/** Adds an address that is told what happens; the secret that its messages are signed with is told this once. */
export function addHook(
	store: Store,
	site: string,
	{ address, events, inside = false }: NewHook
): { id: number; secret: string } {
	const { id } = store.working.sites.named(site);
	const who = actor();
	if (inside && !ownsAll(who)) throw refuse('hook-inside');
	const why = refuseAddress(address, inside ? new Set([hostOf(address)]) : undefined);
	if (why) throw refuse('hook-address', { address, why });
	if (events.length === 0) throw refuse('hook-events', { events: HOOK_EVENTS });
	const secret = `whsec_${randomBytes(32).toString('base64')}`;
	return store.transaction(() => {
		if (store.hooks.at(id).length >= MOST) throw refuse('hook-many', { most: MOST });
		// What grew while nobody wanted to know is no news.
		if (store.hooks.wanting(id, 'findings.grown').length === 0) store.hooks.forgetFindings(id);
		const made = {
			address,
			events: [...new Set(events)],
			maker: nameOf(who, 'this machine'),
			made: Date.now(),
			inside
		};
		const number = store.hooks.add(id, { ...made, secret });
		note(store, 'hook-made', { id: number, address, events: made.events, inside }, site);
		return { id: number, secret };
	});
}

const hostOf = (address: string) => /^https?:\/\/([^/?#]+)/i.exec(address)?.[1]?.toLowerCase() ?? '';

export function dropHook(store: Store, site: string, hook: number) {
	const { id } = store.working.sites.named(site);
	store.transaction(() => {
		if (!store.hooks.drop(hook, id)) throw refuse('hook-missing');
		note(store, 'hook-dropped', { id: hook }, site);
	});
}

/** Sends nothing more to an address, or again. */
export function turnHook(store: Store, site: string, hook: number, on: boolean) {
	const { id } = store.working.sites.named(site);
	store.transaction(() => {
		if (!store.hooks.stop(hook, on ? undefined : 'It was switched off by hand.', id)) throw refuse('hook-missing');
		note(store, on ? 'hook-on' : 'hook-off', { id: hook }, site);
	});
}

/** Sends a message again, or a first one to see whether it comes through. */
export function sendAgain(
	store: Store,
	site: string,
	wanted: { readonly message?: string; readonly webhook?: number }
) {
	const { id } = store.working.sites.named(site);
	store.transaction(() => {
		if (wanted.message !== undefined) {
			if (!store.hooks.again(id, wanted.message, Date.now())) throw refuse('hook-message-missing');
		} else {
			const hook = store.hooks.at(id).find((one) => one.id === wanted.webhook);
			if (!hook) throw refuse('hook-missing');
			tell(store, hook.id, site, 'webhook.tried', {});
		}
	});
}
