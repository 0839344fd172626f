import { wording } from '$ui/words/en/fields';
import { callOffered, FILTERS, kindOfField, parseTemplate, type FieldKind, type ValueKind } from '$core';

/** What a template field offers behind the caret. */

export interface Variable {
	readonly name: string;
	readonly kind?: FieldKind | undefined;
	/** Its name in words. */
	readonly label: string | undefined;
	/** What it is on the page in view; '' for nothing. */
	readonly value: string;
	/** What it can be, each with the words that its field has for it. */
	readonly options?: readonly { readonly value: string | number; readonly words: string }[] | undefined;
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

/** What the filters behind a variable are offered for: the kind of what stands before them. */
export function kindOf(expression: string, variables: readonly Variable[]): ValueKind {
	const { nodes } = parseTemplate(`{${expression}}`);
	const node = nodes.find((one) => one.kind === 'placeholder');
	const last = node?.filters.at(-1);
	if (last) return FILTERS[last.name]?.gives ?? 'any';
	const [term] = node?.terms ?? [];
	const kind = term?.kind === 'variable' ? variables.find(({ name }) => name === term.name)?.kind : undefined;
	return kind ? kindOfField(kind) : 'any';
}

/** Where the caret stands in a template: in a name, behind a whole variable, or behind the sign of a filter. */
export type Spot =
	| { readonly kind: 'name'; readonly from: number }
	| { readonly kind: 'filter'; readonly from: number; readonly expression: string }
	| { readonly kind: 'after'; readonly from: number; readonly expression: string };

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
	if (filter)
		return {
			...{ kind: 'filter', from: caret - (filter[1] as string).length },
			expression: inner.slice(0, inner.lastIndexOf('|')).trim()
		};
	if (inner.includes('|')) return undefined;
	const name = runAtEnd(inner, OF_A_NAME);
	const space = inner.length - inner.trimEnd().length;
	const whole = name !== '' ? name : space > 0 ? runAtEnd(inner.trimEnd(), OF_A_NAME) || undefined : undefined;
	if (whole !== undefined && isName(whole)) return { kind: 'after', from: caret - space, expression: whole };
	if (name === '' && inner.trim() !== '' && !/\?\?\s*$/.test(inner)) return undefined;
	return { kind: 'name', from: caret - name.length };
}

const ROOTS = ['page.', 'listing.', 'site.', 'words.', 'piece.', 'type.', 'now', 'head.'];

/** The variables that fit, the page's own first, by how many pages have them; `isClosed`: the brace stands there already. */
export function variableOffers(variables: readonly Variable[], isClosed: boolean): Offer[] {
	const end = isClosed ? '' : '}';
	return [
		...variables.map(({ name, label, value, share }): Offer => {
			const root = ROOTS.findIndex((one) => name.startsWith(one));
			return {
				...{ name, words: label ?? '', value: value || wording.emptyHere3 },
				// Inside the braces: a filter, or what stands in for it, comes next.
				...{ text: name + end, caret: name.length },
				rank: (ROOTS.length - (root < 0 ? ROOTS.length : root)) * 10 + (value ? 4 : 0) + Math.round((share ?? 0) * 5)
			};
		}),
		...WORDS.map(({ name, words, rank, caret }) => ({
			...{ name, words, value: '', text: name + end, rank },
			caret: caret ?? name.length + 1
		}))
	];
}

/** The words of the language that stand alone in braces. */
const WORDS: readonly {
	readonly name: string;
	readonly words: string;
	readonly rank: number;
	readonly caret?: number;
}[] = [
	{
		name: 'separator',
		get words() {
			return wording.standsBetweenTwoPartsThat;
		},
		rank: 59
	},
	{
		name: 'or',
		get words() {
			return wording.betweenTwoStretchesTheFirst;
		},
		rank: 2
	},
	{
		name: 'fit 60',
		get words() {
			return wording.howManyCharactersTheWholeMay;
		},
		rank: 1,
		caret: 6
	},
	{
		name: 'goes 1',
		get words() {
			return wording.inAStretchItIsTheFirst;
		},
		rank: 0,
		caret: 6
	}
];

/**
 * The filters that take what stands before them, those made for its kind first, each with what it makes of it on the page in
 * view.
 */
export function filterOffers(
	expression: string,
	kind: ValueKind,
	isClosed: boolean,
	show: (template: string) => string
): Offer[] {
	const isFor = (takes: readonly ValueKind[]) => kind !== 'any' && kind !== 'text' && takes.includes(kind);
	return Object.entries(FILTERS)
		.filter(([, { takes }]) => kind === 'any' || takes.includes('any') || takes.includes(kind))
		.map(([name, { purpose, takes }], at) => {
			const call = callOffered(name);
			return {
				...{ name, words: purpose, value: expression ? show(`{${expression} | ${call}}`) : '' },
				...{ text: call + (isClosed ? '' : '}'), caret: call.length, rank: (isFor(takes) ? 40 : 0) - at }
			};
		})
		.sort((a, b) => b.rank - a.rank);
}

/**
 * What can follow a variable: what stands in for it where it is empty, a question, whether it is one of the options of its
 * field, and the filters.
 */
export function offersAfter(
	expression: string,
	kind: ValueKind,
	show: (template: string) => string,
	options: Variable['options'] = []
): Offer[] {
	const instead: Offer = {
		...{ name: '??', words: wording.whatStandsInWhereItIsEmpty, value: '' },
		...{ text: ' ?? ', caret: 4, rank: 90 }
	};
	const asks: Offer = {
		...{ name: '?', words: wording.printsNothingItsStretch, value: '' },
		...{ text: '?', caret: 2, rank: kind === 'flag' ? 91 : 89 }
	};
	const isOne = options.map(({ value, words }, at): Offer => {
		const text = wording.isOne(typeof value === 'number' ? value : JSON.stringify(value));
		return { ...{ name: text.trim(), words, value: '', text, caret: text.length + 1 }, rank: 88 - at / 100 };
	});
	return [
		...(kind === 'flag' ? [asks, instead] : [instead, asks]),
		...isOne,
		...filterOffers(expression, kind, true, show).map((offer) => ({
			...offer,
			...{ name: `| ${offer.name}`, text: ` | ${offer.text}`, caret: offer.caret + 3 }
		}))
	];
}
