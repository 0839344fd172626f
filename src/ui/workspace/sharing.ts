import type { Draft, Drafts, DraftSeed } from './drafts.svelte';

/** Tabs of one browser at the same site tell each other when one has kept something. */
export class Neighbours {
	/** Open while somebody listens. */
	private channel: BroadcastChannel | undefined;

	constructor(private readonly site: string) {}

	/** Also after the room was left: what was on its way is kept all the same, and the others are told. */
	tell() {
		const channel = this.channel ?? channelOf(this.site);
		channel?.postMessage('kept');
		if (channel !== this.channel) channel?.close();
	}

	/** Gives the function that stops listening. */
	listen(heard: () => void): () => void {
		const channel = (this.channel = channelOf(this.site));
		channel?.addEventListener('message', heard);
		return () => {
			channel?.close();
			if (this.channel === channel) this.channel = undefined;
		};
	}
}

const channelOf = (site: string) =>
	typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(`kephalon ${site}`);

const keyOf = (site: string) => `kephalon drafts ${site}`;

/**
 * Puts down what waits to be kept, so that loading the page again loses nothing. What is kept already is not put down.
 * `storage` is the tab's own, or, as the tab may be closed, that of the browser: the next bench of the site takes it up.
 */
export function keepDrafts(site: string, drafts: Readonly<Record<string, Draft>>, storage: 'tab' | 'browser' = 'tab') {
	try {
		const where = storage === 'tab' ? sessionStorage : localStorage;
		if (Object.keys(drafts).length === 0) where.removeItem(keyOf(site));
		else where.setItem(keyOf(site), JSON.stringify(drafts));
	} catch {
		// A browser that stores nothing: the drafts live as long as the tab.
	}
}

/** Takes up what was put down. Drafts whose ground has changed since come up as conflicts. */
export function restoreDrafts(site: string, drafts: Drafts) {
	try {
		const read = (where: Storage) => JSON.parse(where.getItem(keyOf(site)) ?? '{}') as Record<string, DraftSeed>;
		drafts.takeUp({ ...read(localStorage), ...read(sessionStorage) });
	} catch {
		sessionStorage.removeItem(keyOf(site));
	}
	try {
		localStorage.removeItem(keyOf(site));
	} catch {
		// As above: there was nothing to take up.
	}
}
