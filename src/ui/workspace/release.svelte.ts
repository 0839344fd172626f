import { wording } from '$ui/words/en/workspace';
import { works, type Work } from '$ui/works/works.svelte';
import { describeFinding, type Finding } from '$core';
import type { Pending } from '$server/web/pending';
import { call, isRefused, release } from '$ui/client';

/** What waits for the next release, and the making of it. */
export class BenchRelease {
	pending = $state.raw<Pending | undefined>();
	/** Why it is not known what differs, where it could not be asked. */
	unknown = $state<string | undefined>();
	/** How far a release that is under way is. */
	making = $state.raw<Work | undefined>();
	private asking = 0;

	constructor(
		private readonly siteName: string,
		/** How many edits wait to be kept. */
		private readonly waiting: () => number
	) {}

	/** Asks what differs from the release, again and again while pages are yet to be looked at. */
	async refresh() {
		const mine = ++this.asking;
		for (;;) {
			const pending = await call('GET /sites/{site}/pending', { site: this.siteName });
			if (mine !== this.asking) return;
			// What was known before is not known any more.
			this.pending = isRefused(pending) ? undefined : pending;
			this.unknown = isRefused(pending) ? pending.refused : undefined;
			if (isRefused(pending)) return;
			if (pending.unseen === 0) return;
		}
	}

	/** Why none can be made now, in a sentence; undefined when one can. */
	get whyNot(): string | undefined {
		if (this.making) return wording.aReleaseIsUnderWay;
		const waiting = this.waiting();
		if (waiting > 0)
			return wording.toBeKeptKeepItOrTake(waiting === 1 ? wording.oneEditWaits : wording.editsWait(waiting));
		const { pending } = this;
		if (!pending) return this.unknown ?? wording.theWorkingCopyIsStillBeing;
		const isSame = pending.changed + pending.added + pending.removed === 0 && pending.unseen === 0;
		return isSame && pending.release ? wording.nothingDiffersFromRelease(pending.release.number) : undefined;
	}

	/** Makes the working copy what visitors see; gives what is to be said of it. */
	async make(): Promise<{ readonly isMade: boolean; readonly says: string }> {
		const work = (this.making = works.begin(this.siteName, wording.releasing));
		work.progress(0, this.pending?.all ?? 0);
		const result = await release(this.siteName, {}, work.signal, work.progress);
		this.making = undefined;
		const made = saysOf(result);
		works.end(work, made.says, !made.isMade);
		return made;
	}
}

/** What is to be said of a release that was asked for. */
function saysOf(result: Awaited<ReturnType<typeof release>>): { readonly isMade: boolean; readonly says: string } {
	if (isRefused(result)) {
		const where = result.removes === undefined ? '' : wording.theRoomOfReleasesAsksForIt;
		return { isMade: false, says: result.refused + where };
	}
	const { number, pages, faulty } = result;
	const out = wording.releaseIsOut(number, pages, pages === 1 ? wording.page : wording.pages);
	return { isMade: true, says: out + faultyInWords(faulty) };
}

/** Rules that do not work, in a sentence that follows another. */
function faultyInWords(faulty: readonly Finding[]): string {
	const [first] = faulty;
	if (!first) return '';
	return ` ${faulty.length === 1 ? wording.oneRuleDoesNotWork : wording.rulesDoNotWork(faulty.length)}: ${describeFinding(first)}`;
}
