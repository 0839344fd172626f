import { createContext } from 'svelte';
import { hasTyped } from '$ui/parts/shown/typed';
import { SvelteMap, SvelteSet } from 'svelte/reactivity';

/** What is kept of the groups that somebody closed, in this browser. */
const CLOSED = 'kephalon.settings-closed';

function closedBefore(): string[] {
	try {
		const kept: unknown = JSON.parse(localStorage.getItem(CLOSED) ?? '[]');
		return Array.isArray(kept) ? kept.filter((one) => typeof one === 'string') : [];
	} catch {
		return [];
	}
}

/** What is looked for among the settings of a layer, and which of their groups are closed. */
export class SettingsFinder {
	text = $state('');
	/** Something is looked for. */
	readonly isLooking = $derived(this.text.trim() !== '');
	private readonly closed = new SvelteSet(closedBefore());

	/** Whether texts have every word that is looked for. */
	fits(...texts: readonly (string | undefined)[]): boolean {
		return hasTyped(this.text, ...texts);
	}

	isOpen(group: string): boolean {
		return this.isLooking || !this.closed.has(group);
	}

	turn(group: string, open: boolean) {
		// All are open while one is looking for something.
		if (this.isLooking) return;
		if (open) this.closed.delete(group);
		else this.closed.add(group);
		try {
			localStorage.setItem(CLOSED, JSON.stringify([...this.closed]));
		} catch {
			// Kept in vain: it holds as long as the page does.
		}
	}
}

/** What the settings of a group say of themselves to it. */
export class SettingsGroup {
	readonly settings = new SvelteMap<object, { readonly isSet: boolean; readonly isFound: boolean }>();
	constructor(
		readonly name: string,
		private readonly about: string,
		private readonly finder: SettingsFinder
	) {}

	/** Whether it is looked for by its own words. */
	get isMeant(): boolean {
		return this.finder.fits(this.name, this.about);
	}

	/** How many are other than built in. */
	get set(): number {
		return [...this.settings.values()].filter(({ isSet }) => isSet).length;
	}
	/** Whether any is what is looked for. */
	get hasFound(): boolean {
		return [...this.settings.values()].some(({ isFound }) => isFound);
	}
}

export const [finderHere, provideFinder] = createContext<SettingsFinder>();
export const [groupHere, provideGroup] = createContext<SettingsGroup>();
/** The same where there may be none: the set-up shows settings by themselves. */
export function orNone<T>(here: () => T): T | undefined {
	try {
		return here();
	} catch {
		return undefined;
	}
}
