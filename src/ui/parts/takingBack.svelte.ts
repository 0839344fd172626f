import { wording } from '$ui/words/en/parts';
import { counted } from '$ui/words/speaking';
import type { PartOf } from '$server/http/contract';
import { isRefused, takeBack, type Refused } from '../client';

/** Taking an edit back: how far a long one is, and the way to stop it. */
export class TakingBack {
	/** How many rows of how many; undefined while nothing is taken back. */
	far = $state.raw<{ readonly done: number; readonly all: number } | undefined>();
	/** What was taken back last. */
	undone: PartOf<'POST /sites/{site}/edits', 'answer'>['of'] | undefined;
	private stopping: AbortController | undefined;
	private last: Promise<unknown> = Promise.resolve();

	/** It is one of many changes, that takes its time: a short one is done before it could be read. */
	get isLong(): boolean {
		return (this.far?.all ?? 0) > 0;
	}
	/** What it says of itself while it works. */
	get says(): string {
		const { done = 0, all = 0 } = this.far ?? {};
		return all > 0 ? wording.takingBackOfChanges(counted(done), counted(all)) : wording.takingBack;
	}

	/** Ends it: what was put back so far goes with it. */
	stop = () => this.stopping?.abort();

	/** Takes an edit back; gives the refusal. `removes` says how many pages go by it, where that is much. */
	async run(site: string, which: 'last' | 'again' | number, removes?: number): Promise<Refused | undefined> {
		if (this.isLong) return { refused: wording.anEditIsBeingTakenBack };
		// A fast hand takes back several, one after the other.
		const before = this.last;
		const mine = before.then(() => this.runNow(site, which, removes));
		this.last = mine;
		return mine;
	}

	private async runNow(site: string, which: 'last' | 'again' | number, removes: number | undefined) {
		const stop = (this.stopping = new AbortController());
		this.far = { done: 0, all: 0 };
		const progress = (done: number, all: number) => (this.far = { done, all });
		const answer = await takeBack(site, which, { removes, signal: stop.signal, progress });
		this.far = undefined;
		this.undone = isRefused(answer) ? undefined : answer.of;
		return isRefused(answer) ? answer : undefined;
	}
}
