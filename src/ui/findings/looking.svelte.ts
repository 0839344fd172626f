import { wording } from '$ui/words/en/findings';
import { counted } from '$ui/words/speaking';
import { call, isRefused } from '../client';
import { pagesInWords } from '$ui/parts/words';
import type { FindingGroup } from '$server/findings/groups';
import type { FindingsTold } from '$server/web/findings';

/** What is wrong or weak on a site, as far as that is known: what was counted last first, then what is counted anew. */
export class Findings {
	told = $state.raw<FindingsTold | undefined>();
	/** Why it is not known. */
	refused = $state<string | undefined>();
	private asking = 0;

	constructor(private readonly site: string) {}

	/** Asks until it is counted of how the site stands now, or cannot be; a later call, or `leave`, ends it. */
	async look(): Promise<void> {
		const mine = ++this.asking;
		for (let wait = false; ; wait = true) {
			const answer = await call('GET /sites/{site}/findings', { site: this.site, query: wait ? { wait: '1' } : {} });
			if (mine !== this.asking) return;
			if (isRefused(answer)) return void (this.refused = answer.refused);
			[this.told, this.refused] = [answer, answer.failed];
			if (answer.isNow || answer.failed !== undefined) return;
		}
	}

	/** The room was left: nothing is asked any more. */
	leave = () => void this.asking++;

	get groups(): readonly FindingGroup[] | undefined {
		return this.told?.counted?.groups;
	}
	/** Whether what is told is of how the site stands now, every page looked at. */
	get isNow(): boolean {
		return this.told?.isNow === true && this.refused === undefined;
	}

	/** What it means that the count found nothing; undefined where it is not whole, or found something. */
	get nothing(): string | undefined {
		if (!this.isNow || this.groups?.length !== 0 || !this.told) return undefined;
		if (this.told.all === 0) return wording.thereIsNoPageToLookAt;
		const pictures = this.told.counted?.unknownPictures ?? 0;
		if (pictures === 0) return wording.nothingIsWrongOrWeak;
		return wording.nothingIsWrongOrWeakInWhat(
			pictures === 1 ? wording.onePictureWas : wording.picturesWere(counted(pictures))
		);
	}
	/** What is to be known of the count itself, in a sentence; undefined when it is whole. */
	get state(): string | undefined {
		if (this.refused !== undefined) return wording.itCouldNotBeCounted(this.refused);
		if (!this.told) return wording.counting2;
		if (this.told.isNow) return undefined;
		const { unseen, all, counted: known } = this.told;
		const far = unseen > 0 ? wording.ofAreYetToBeLookedAt(pagesInWords(unseen), counted(all)) : wording.counting;
		return known ? wording.asCountedBeforeTheLastEdits(far) : wording.lookingAtAllPages(far);
	}
}
