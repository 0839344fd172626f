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
	if (!isThere)
		return 'Kephalon has no such page yet. This is what the rules of its type make of what is typed; words of its own can be written once it has come in.';
	if (state !== 'live') return `${state === 'draft' ? 'A draft' : 'Private'}: it is not released.`;
	if (!isReleased) return 'Visitors do not see it yet: it goes out with the next release.';
	const what = isTyped ? 'As typed' : 'As it is kept';
	if (differing === 0) return `${what}, it is what visitors see.`;
	return `${what}, ${differing === 1 ? 'one tag differs' : `${differing} tags differ`} from what visitors see.`;
}

/** Where a value came from, in words. */
export function cameInWords({ sign, value }: Pick<HeadLine, 'sign' | 'value'>, type: string): string {
	if (value === '') return '';
	switch (sign) {
		case 'page':
			return 'this page’s own';
		case 'type':
			return everyInWords(type);
		case 'site':
			return 'the whole site';
		case 'found':
			return 'found in its file';
		default:
			return 'built in';
	}
}
