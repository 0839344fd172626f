import { wording } from '$ui/words/en/settings';
import type { RuleBody } from '$core';

/** One switch: its name, what it does, and its tags, each with the one it takes. */
export interface Same {
	readonly name: string;
	readonly hint: string;
	readonly pairs: readonly (readonly [tag: string, from: string])[];
}

/** Tags that one switch lets say the same as others: each with the one it takes. */
export const SAME: readonly Same[] = [
	{
		get name() {
			return wording.sharingSaysTheSameAsSearch;
		},
		get hint() {
			return wording.ogTitleAndOgDescriptionTake;
		},
		pairs: [
			['og:title', 'title'],
			['og:description', 'description']
		]
	},
	{
		get name() {
			return wording.theTwitterCardSaysTheSameAs;
		},
		get hint() {
			return wording.itsTitleTextAndPictureAre;
		},
		pairs: [
			['twitter:title', 'og:title'],
			['twitter:description', 'og:description'],
			['twitter:image', 'og:image']
		]
	}
];

/** Whether a layer says so of all tags of a switch. */
export const saysSame = (pairs: Same['pairs'], bodyOf: (tag: string) => RuleBody | null): boolean =>
	pairs.every(([tag, from]) => {
		const body = bodyOf(tag);
		return body?.kind === 'borrow' && body.from === from;
	});
