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
		name: 'Sharing says the same as search',
		hint: 'og:title and og:description take what title and description come to.',
		pairs: [
			['og:title', 'title'],
			['og:description', 'description']
		]
	},
	{
		name: 'The Twitter card says the same as sharing',
		hint: 'Its title, text and picture are those of Open Graph.',
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
