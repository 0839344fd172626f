import { describeFinding, type Finding } from '$core';
import * as api from '$ui/api';

/** What waits for the next release, and the making of it. */
export class BenchRelease {
	pending = $state.raw<api.Pending | undefined>();
	isMaking = $state(false);
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
			const pending = await api.pending(this.siteName);
			if (mine !== this.asking || api.isRefused(pending)) return;
			this.pending = pending;
			if (pending.unseen === 0) return;
		}
	}

	/** Why none can be made now, in a sentence; undefined when one can. */
	get whyNot(): string | undefined {
		if (this.isMaking) return 'A release is under way.';
		const waiting = this.waiting();
		if (waiting > 0)
			return `${waiting === 1 ? 'One edit waits' : `${waiting} edits wait`} to be kept. Keep it or take it back first.`;
		const { pending } = this;
		if (!pending) return 'The working copy is still being compared with the release.';
		const isSame = pending.changed + pending.added + pending.removed === 0 && pending.unseen === 0;
		return isSame && pending.release ? `Nothing differs from release ${pending.release.number}.` : undefined;
	}

	/** Makes the working copy what visitors see; gives what is to be said of it. */
	async make(): Promise<{ readonly isMade: boolean; readonly says: string }> {
		this.isMaking = true;
		const result = await api.release(this.siteName);
		this.isMaking = false;
		if (api.isRefused(result)) return { isMade: false, says: result.refused };
		const { number, pages, faulty } = result;
		const out = `Release ${number} is out: ${pages} ${pages === 1 ? 'page' : 'pages'}.`;
		return { isMade: true, says: out + faultyInWords(faulty) };
	}
}

/** Rules that do not work, in a sentence that follows another. */
function faultyInWords(faulty: readonly Finding[]): string {
	const [first] = faulty;
	if (!first) return '';
	return ` ${faulty.length === 1 ? 'One rule does not work' : `${faulty.length} rules do not work`}: ${describeFinding(first)}`;
}
