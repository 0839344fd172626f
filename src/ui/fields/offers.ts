import { FILTERS } from '$core';

/** What a template field offers behind the caret. */

export interface Variable {
	readonly name: string;
	/** Its name in words. */
	readonly label: string | undefined;
	/** What it is on the page in view; '' for nothing. */
	readonly value: string;
	/** The share of the pages of the type that have it, 0 to 1, where that is known. */
	readonly share?: number | undefined;
}

export interface Offer {
	/** As it is shown, and found by what is typed. */
	readonly name: string;
	readonly words: string;
	/** What it gives on the page in view. */
	readonly value: string;
	/** What is written. */
	readonly text: string;
	/** Where the caret stands then, in the text. */
	readonly caret: number;
	/** The greater, the further up. */
	readonly rank: number;
}

/** Arguments that a filter is offered with; all can be changed. */
const USUAL: Readonly<Record<string, string>> = {
	clip: '155',
	words: '12',
	case: '"sentence"',
	date: '"d MMMM y"',
	number: '',
	money: '"EUR"',
	plural: '"thing" "things"',
	join: '", "',
	first: '',
	last: '',
	plain: '',
	hashtags: '',
	replace: '"this" "that"'
};
/** A filter as it is offered, with arguments that work. */
export const filterCall = (name: string): string => [name, USUAL[name] ?? ''].filter(Boolean).join(' ');

/** Where the caret stands in a template: in a name, behind a whole variable, or behind the sign of a filter. */
export type Spot =
	| { readonly kind: 'name'; readonly from: number }
	| { readonly kind: 'filter'; readonly from: number; readonly term: string }
	| { readonly kind: 'after'; readonly from: number; readonly term: string };

const OF_A_NAME = /[\p{L}\p{N}_.:-]/u;
/** The signs of a kind that a text ends with. */
function runAtEnd(text: string, sign: RegExp): string {
	let at = text.length;
	while (at > 0 && sign.test(text[at - 1] as string)) at--;
	return text.slice(at);
}

/** What can be written at a place of a template; undefined outside of braces and in texts. `isName` knows whole variables. */
export function spotAt(text: string, caret: number, isName: (name: string) => boolean): Spot | undefined {
	const before = text.slice(0, caret);
	const open = before.lastIndexOf('{');
	if (open < 0 || before.indexOf('}', open) >= 0 || before[open - 1] === '\\') return undefined;
	const inner = before.slice(open + 1);
	// In quotation marks one writes a text.
	if ((inner.replaceAll(/\\./g, '').match(/"/g)?.length ?? 0) % 2 === 1) return undefined;
	const filter = /\|\s*(\w*)$/.exec(inner);
	const term = /(?<![\p{L}\p{N}_.:-])([\p{L}\p{N}_.:-]+)\s*(?:\||$|\?)/u.exec(inner)?.[1] ?? '';
	if (filter) return { kind: 'filter', from: caret - (filter[1] as string).length, term };
	if (inner.includes('|')) return undefined;
	const name = runAtEnd(inner, OF_A_NAME);
	const space = inner.length - inner.trimEnd().length;
	const whole = name !== '' ? name : space > 0 ? runAtEnd(inner.trimEnd(), OF_A_NAME) || undefined : undefined;
	if (whole !== undefined && isName(whole)) return { kind: 'after', from: caret - space, term: whole };
	if (name === '' && inner.trim() !== '' && !/\?\?\s*$/.test(inner)) return undefined;
	return { kind: 'name', from: caret - name.length };
}

const ROOTS = ['page.', 'listing.', 'site.', 'type.', 'now', 'head.'];

/** The variables that fit, the page's own first, by how many pages have them; `isClosed`: the brace stands there already. */
export function variableOffers(variables: readonly Variable[], isClosed: boolean): Offer[] {
	const end = isClosed ? '' : '}';
	return [
		...variables.map(({ name, label, value, share }): Offer => {
			const root = ROOTS.findIndex((one) => name.startsWith(one));
			return {
				...{ name, words: label ?? '', value: value || 'empty here' },
				// Inside the braces: a filter, or what stands in for it, comes next.
				...{ text: name + end, caret: name.length },
				rank: (ROOTS.length - (root < 0 ? ROOTS.length : root)) * 10 + (value ? 4 : 0) + Math.round((share ?? 0) * 5)
			};
		}),
		{
			...{ name: 'separator', words: 'stands between two parts that both say something', value: '' },
			...{ text: `separator${end}`, caret: 'separator'.length + 1, rank: 39 }
		}
	];
}

/** The filters, each with what it makes of the term on the page in view. */
export const filterOffers = (term: string, isClosed: boolean, show: (template: string) => string): Offer[] =>
	Object.entries(FILTERS).map(([name, { purpose }], at) => {
		const call = filterCall(name);
		return {
			...{ name, words: purpose, value: term ? show(`{${term} | ${call}}`) : '' },
			...{ text: call + (isClosed ? '' : '}'), caret: call.length, rank: -at }
		};
	});

/** What can follow a variable: what stands in for it where it is empty, and the filters. */
export function offersAfter(term: string, show: (template: string) => string): Offer[] {
	const instead: Offer = {
		...{ name: '??', words: 'what stands in where it is empty', value: '' },
		...{ text: ' ?? ', caret: 4, rank: 1 }
	};
	return [
		instead,
		...filterOffers(term, true, show).map((offer) => ({
			...offer,
			...{ name: `| ${offer.name}`, text: ` | ${offer.text}`, caret: offer.caret + 3 }
		}))
	];
}
