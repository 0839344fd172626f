/**
 * Texts that a program made by a formula: some words are the same in all of them, and between those stands what differs.
 * A formula is written as its words with `*` for one word or more: `module * package * class *`.
 */

/** So many texts, and this share of those that begin or end alike, make a formula. */
const LEAST = 8;
const SHARE = 0.7;
/** A word is the formula's where such a share of the texts have it; what makes the most texts counts. */
const WORD_SHARES = [0.6, 0.8, 0.95] as const;
/** So much of the words must be the formula's, and so many of them, unless they name what stands behind them. */
const FIXED_SHARE = 0.4;
const LEAST_FIXED = 3;
/** So many words that end in a colon are a form that was filled in: any number of texts shows it. */
const LEAST_NAMED = 3;
/** What begins most of all texts is made even where it says little: so many of them, and this share. */
const MANY = 30;
const MOST_SHARE = 0.5;
/** Of texts that begin alike, so many formulas. */
const MOST_FORMULAS = 4;
/** A text is looked at this far (words): no formula is longer. */
const MOST_WORDS = 60;

/** A formula, and how many of the texts are made by it. */
export interface Formula {
	readonly formula: string;
	readonly texts: number;
}

type Words = readonly string[];
const wordsOf = (text: string) => text.split(/\s+/, MOST_WORDS + 1).filter((word) => word !== '');

/**
 * The formulas that settled texts are made by, those of most texts first. Each text counts once: what many pages say alike
 * is told otherwise. `least` is how many at the fewest, where more than usual are asked for.
 */
export function findFormulas(texts: Iterable<string>, least = LEAST): Formula[] {
	let rest: Words[] = [...new Set(texts)].map(wordsOf).filter((words) => words.length >= LEAST_FIXED);
	const all = rest.length;
	const found: Formula[] = [];
	for (const end of [0, -1] as const)
		for (const group of groupsBy(rest, (words) => words.at(end)!)) {
			let left = group;
			for (let made = 0; made < MOST_FORMULAS && left.length >= least; made++) {
				const one = formulaOf(left, group.length, all, least);
				if (!one) break;
				found.push(one);
				left = left.filter((words) => !isMadeOf(words, one.formula));
				rest = rest.filter((words) => !isMadeOf(words, one.formula));
			}
		}
	return found.sort((a, b) => b.texts - a.texts || (a.formula < b.formula ? -1 : 1));
}

/** What most of a group have in common, where that is most of what they say; undefined where it is not. */
function formulaOf(group: readonly Words[], whole: number, all: number, least: number): Formula | undefined {
	const counts = new Map<string, number>();
	for (const words of group) for (const word of new Set(words)) counts.set(word, (counts.get(word) ?? 0) + 1);
	const forms = WORD_SHARES.flatMap((share) => {
		const isFixed = (word: string) => (counts.get(word) ?? 0) >= group.length * share;
		const formula = commonForm(group, isFixed, all);
		return formula === undefined ? [] : [formula];
	});
	const made = [...new Set(forms)]
		.map((formula): Formula => ({ formula, texts: group.filter((one) => isMadeOf(one, formula)).length }))
		.filter(({ formula, texts }) => texts >= least && (texts >= whole * SHARE || namedIn(formula) >= LEAST_NAMED));
	return made.sort((a, b) => b.texts - a.texts)[0];
}

/** The form that most of a group have, when a program must have made it. */
function commonForm(group: readonly Words[], isFixed: (word: string) => boolean, all: number): string | undefined {
	const forms = new Map<string, { texts: number; fixed: number; words: number }>();
	for (const words of group) {
		const form = formOf(words, isFixed);
		const known = forms.get(form) ?? { texts: 0, fixed: 0, words: 0 };
		known.texts++;
		known.fixed += words.filter(isFixed).length;
		known.words += words.length;
		forms.set(form, known);
	}
	const [best] = [...forms].sort(([, a], [, b]) => b.texts - a.texts);
	if (!best) return undefined;
	const [formula, { texts, fixed, words }] = best;
	if (!formula.includes('*')) return undefined;
	if (namedIn(formula) >= LEAST_NAMED) return formula;
	const isOfMost = texts >= MANY && texts >= all * MOST_SHARE;
	const isMade = fixed >= words * FIXED_SHARE && fixed >= texts * (isOfMost ? LEAST_FIXED - 1 : LEAST_FIXED);
	return isMade && tellingIn(formula) >= (isOfMost ? 1 : 2) ? formula : undefined;
}

/** How many words name what stands behind them. */
const namedIn = (formula: string) => formula.split(' ').filter((word) => /\p{L}:$/u.test(word)).length;

/** Words that hold any sentence together tell of no program; so many others, or names before a colon, do. */
const tellingIn = (formula: string) =>
	formula.split(' ').filter((word) => /^\p{L}{4,}/u.test(word) || /\p{L}:$/u.test(word)).length;

function formOf(words: readonly string[], isFixed: (word: string) => boolean): string {
	const form: string[] = [];
	for (const word of words.slice(0, MOST_WORDS))
		if (isFixed(word)) form.push(word);
		else if (form.at(-1) !== '*') form.push('*');
	return form.join(' ');
}

function groupsBy<T>(all: readonly T[], keyOf: (one: T) => string): T[][] {
	const groups = new Map<string, T[]>();
	for (const one of all) {
		const key = keyOf(one);
		const group = groups.get(key);
		if (group) group.push(one);
		else groups.set(key, [one]);
	}
	return [...groups.values()];
}

/** Whether a settled text is made by a formula. Takes time in proportion to the text and the formula. */
export const isMadeBy = (text: string, formula: string): boolean => isMadeOf(wordsOf(text), formula);

function isMadeOf(words: readonly string[], formula: string): boolean {
	const parts = formula.split('*').map(wordsOf);
	const [first = [], last = []] = [parts[0], parts.at(-1)];
	if (parts.length < 2) return words.join(' ') === formula;
	if (words.length < first.length + last.length + 1 || !stands(words, first, 0)) return false;
	if (!stands(words, last, words.length - last.length)) return false;
	let at = first.length;
	for (const part of parts.slice(1, -1)) {
		// At least one word stands for each `*`.
		at = placeOf(words, part, at + 1);
		if (at < 0) return false;
		at += part.length;
	}
	return at < words.length - last.length;
}

const stands = (words: readonly string[], part: readonly string[], at: number) =>
	part.every((word, step) => words[at + step] === word);

function placeOf(words: readonly string[], part: readonly string[], from: number): number {
	for (let at = from; at + part.length <= words.length; at++) if (stands(words, part, at)) return at;
	return -1;
}
