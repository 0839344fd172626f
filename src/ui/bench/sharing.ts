import type { Bench } from './bench.svelte';
import type { Draft } from './drafts';

/** Tabs of one browser at the same site tell each other when one has kept something. */
export class Neighbours {
	private readonly channel: BroadcastChannel | undefined;

	constructor(site: string) {
		this.channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(`kephalon ${site}`);
	}

	tell() {
		this.channel?.postMessage('kept');
	}

	/** Gives the function that stops listening. */
	listen(heard: () => void): () => void {
		this.channel?.addEventListener('message', heard);
		return () => this.channel?.close();
	}
}

const keyOf = (site: string) => `kephalon drafts ${site}`;

/** Puts down what waits to be kept, so that loading the page again loses nothing. What is kept already is not put down. */
export function keepDrafts(site: string, drafts: Readonly<Record<string, Draft>>) {
	try {
		if (Object.keys(drafts).length === 0) sessionStorage.removeItem(keyOf(site));
		else sessionStorage.setItem(keyOf(site), JSON.stringify(drafts));
	} catch {
		// A browser that stores nothing: the drafts live as long as the tab.
	}
}

/** Takes up what was put down. Drafts whose ground has changed since come up as conflicts. */
export function restoreDrafts(site: string, bench: Bench) {
	try {
		const drafts = JSON.parse(sessionStorage.getItem(keyOf(site)) ?? '{}') as Record<string, Draft>;
		bench.takeUp(drafts);
	} catch {
		sessionStorage.removeItem(keyOf(site));
	}
}
