import { wording } from '$ui/words/en/panel';
import type { PageState } from '$core';
import type { HeadLine } from '$ui/parts/lines';
import { everyInWords } from '$ui/parts/words';

/** How a page stands, and what of it visitors see, in a sentence. */
export function stateInWords({
	state,
	isThere,
	isReleased,
	differing,
	isTyped
}: {
	readonly state: PageState;
	readonly isThere: boolean;
	readonly isReleased: boolean;
	/** So many tags come out otherwise than they are released. */
	readonly differing: number;
	readonly isTyped: boolean;
}): string {
	if (!isThere) return wording.kephalonHasNoSuchPageYetThis;
	if (state !== 'live') return wording.itIsNotReleased(state === 'draft' ? wording.aDraft : wording.private);
	if (!isReleased) return wording.visitorsDoNotSeeItYetIt;
	const what = isTyped ? wording.asTyped : wording.asItIsKept;
	if (differing === 0) return wording.itIsWhatVisitorsSee(what);
	return wording.fromWhatVisitorsSee(what, differing === 1 ? wording.oneTagDiffers : wording.tagsDiffer(differing));
}

/** Where a value came from, in words. */
export function cameInWords({ sign, value }: Pick<HeadLine, 'sign' | 'value'>, type: string): string {
	if (value === '') return '';
	switch (sign) {
		case 'page':
			return wording.thisPagesOwn;
		case 'type':
			return everyInWords(type);
		case 'site':
			return wording.theWholeSite;
		case 'found':
			return wording.foundInItsFile;
		default:
			return wording.builtIn;
	}
}
