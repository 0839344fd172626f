import { wording } from '$ui/words/en/workspace';
import type { Refused } from '$ui/client';
import { TakingBack } from '$ui/parts/takingBack.svelte';

/** What was taken back, or done again. */
export interface Undone {
	readonly kind: string;
	readonly what: unknown;
	readonly isAgain: boolean;
}

/** Takes edits of the working copy back, or does them again; each is an edit that every tab sees. */
export class History {
	readonly taking = new TakingBack();

	constructor(
		private readonly siteName: string,
		/** The working copy was changed. */
		private readonly changed: () => Promise<void>,
		/** Takes the sentence of a refusal. */
		private readonly say: (why: string) => void,
		/** Hears what was taken back or done again by a key. */
		private readonly tell: (undone: Undone) => void = () => undefined
	) {}

	undo = () => this.sayIfRefused('last');
	redo = () => this.sayIfRefused('again');
	private async sayIfRefused(which: 'last' | 'again') {
		const refusal = await this.takeBack(which);
		// A key that is held down is not to say how much goes: that is asked for where all edits stand.
		if (refusal)
			this.say(refusal.removes === undefined ? refusal.refused : wording.whatWasChangedAsksForIt(refusal.refused));
		else if (this.taking.undone) this.tell({ ...this.taking.undone, isAgain: which === 'again' });
	}

	/**
	 * Takes an edit back, by its number or by its place in the record; gives the refusal. `removes` says how many pages go by
	 * it, where that is much.
	 */
	takeBack = async (which: 'last' | 'again' | number, removes?: number): Promise<Refused | undefined> => {
		const refusal = await this.taking.run(this.siteName, which, removes);
		if (!refusal) await this.changed();
		return refusal;
	};
}
