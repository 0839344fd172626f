import { wording } from '$ui/words/en/fields';
import type { ClosedPath } from '$core';

/** What robots can be told, as choices with what each does in words. */
export interface Directive {
	readonly name: string;
	readonly does: string;
	/** What it takes behind its colon: choices, or a number or a date with what the field asks for. */
	readonly choices?: readonly string[];
	readonly asks?: string;
}

export const DIRECTIVES: readonly Directive[] = [
	{
		name: 'noindex',
		get does() {
			return wording.doNotListThisPageInSearch;
		}
	},
	{
		name: 'nofollow',
		get does() {
			return wording.doNotFollowTheLinksOnIt;
		}
	},
	{
		name: 'noarchive',
		get does() {
			return wording.showNoKeptCopyOfIt;
		}
	},
	{
		name: 'nosnippet',
		get does() {
			return wording.showNoTextOfItUnderIts;
		}
	},
	{
		name: 'noimageindex',
		get does() {
			return wording.doNotListThePicturesOnIt;
		}
	},
	{
		name: 'notranslate',
		get does() {
			return wording.offerNoTranslationOfIt;
		}
	},
	{
		name: 'indexifembedded',
		get does() {
			return wording.listItWhereAnotherPageHolds;
		}
	},
	{
		name: 'max-snippet',
		get does() {
			return wording.showAtMostSoMuchTextOf;
		},
		get asks() {
			return wording.characters1ForAny0ForNone;
		}
	},
	{
		name: 'max-image-preview',
		get does() {
			return wording.showItsPictureAtMostSoLarge;
		},
		choices: ['none', 'standard', 'large']
	},
	{
		name: 'max-video-preview',
		get does() {
			return wording.playAtMostSoMuchOfIts;
		},
		get asks() {
			return wording.seconds1ForAny;
		}
	},
	{
		name: 'unavailable_after',
		get does() {
			return wording.stopListingItAfterADay;
		},
		get asks() {
			return wording.aDateSuchAs20261231;
		}
	}
];

/** The directives of a text, by name, each with what stands behind its colon; '' for nothing. */
export function readDirectives(text: string): Map<string, string> {
	const parts = text.split(',').map((part) => part.trim());
	return new Map(
		parts.filter(Boolean).map((part) => {
			const [name = '', ...rest] = part.split(':');
			return [name.trim().toLowerCase(), rest.join(':').trim()];
		})
	);
}

/** The text with a directive set to a value, '' for one that takes none, or without it; the others stay in their order. */
export function withDirective(text: string, name: string, value: string | undefined): string {
	const all = readDirectives(text);
	if (value === undefined) all.delete(name);
	else all.set(name, value);
	// The two say the opposite of what is asked for.
	if (value !== undefined && name === 'noindex') all.delete('index');
	if (value !== undefined && name === 'nofollow') all.delete('follow');
	return [...all]
		.map(([key, said]) => (said === '' ? key : `${key}:${key === 'unavailable_after' ? ' ' : ''}${said}`))
		.join(', ');
}

/** Paths that robots leave alone, one on a line: with the name of a robot before it where it is for one. */
export const closedInLines = (closed: readonly ClosedPath[]): string =>
	closed.map(({ robot, path }) => (robot ? `${robot} ${path}` : path)).join('\n');

/** Read again; the first line that is none is told. */
export function readClosed(text: string): { readonly closed: readonly ClosedPath[] } | { readonly wrong: string } {
	const closed: ClosedPath[] = [];
	for (const line of text.split('\n').map((one) => one.trim())) {
		if (line === '') continue;
		const found = /^(?:([\w.*-]{1,60})\s+)?(\/\S*)$/.exec(line);
		if (!found) return { wrong: line };
		const [, robot, path = ''] = found;
		closed.push({ ...(robot && robot !== '*' && { robot }), path });
	}
	return { closed };
}
