import { call, isRefused } from '../client';
import { pagesInWords } from '$ui/parts/words';
import type { FindingGroup } from '$server/findings/whole';
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
		if (this.told.all === 0) return 'There is no page to look at.';
		const pictures = this.told.counted?.unknownPictures ?? 0;
		if (pictures === 0) return 'Nothing is wrong or weak.';
		return `Nothing is wrong or weak in what pages say; ${pictures === 1 ? 'one picture was' : `${pictures.toLocaleString('en')} pictures were`} never looked at.`;
	}
	/** What is to be known of the count itself, in a sentence; undefined when it is whole. */
	get state(): string | undefined {
		if (this.refused !== undefined) return `It could not be counted: ${this.refused}`;
		if (!this.told) return 'Counting …';
		if (this.told.isNow) return undefined;
		const { unseen, all, counted } = this.told;
		const far =
			unseen > 0 ? `${pagesInWords(unseen)} of ${all.toLocaleString('en')} are yet to be looked at` : 'counting';
		return counted ? `As counted before the last edits: ${far} …` : `Looking at all pages: ${far} …`;
	}
}
