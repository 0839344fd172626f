/**
 * Texts that a program made by a formula: some words are the same in all of them, and between those stands what differs.
 * A formula is written as its words with `*` for one word or more: `module * package * class *`.
 */

/** So many texts, and this share of those that begin or end alike, make a formula. */
const LEAST = 8;
const SHARE = 0.7;
/** A word is the formula's where this share of the texts have it; so much of their words must be. */
const WORD_SHARE = 0.6;
const FIXED_SHARE = 0.4;
const LEAST_FIXED = 3;
/** A text is looked at this far (words): no formula is longer. */
const MOST_WORDS = 60;

/** A formula, and how many of the texts are made by it. */
export interface Formula {
	readonly formula: string;
	readonly texts: number;
}

const wordsOf = (text: string) => text.split(/\s+/, MOST_WORDS + 1).filter((word) => word !== '');

/**
 * The formulas that settled texts are made by, those of most texts first. Each text counts once: what many pages say alike
 * is told otherwise. `least` is how many at the fewest, where more than usual are asked for.
 */
export function findFormulas(texts: Iterable<string>, least = LEAST): Formula[] {
	const all = [...new Set(texts)].map(wordsOf).filter((words) => words.length >= LEAST_FIXED);
	const found = new Map<string, number>();
	for (const end of [0, -1] as const)
		for (const group of groupsBy(all, (words) => words.at(end)!)) {
			const one = group.length >= least ? formulaOf(group) : undefined;
			if (one && one.texts >= least) found.set(one.formula, Math.max(one.texts, found.get(one.formula) ?? 0));
		}
	const formulas = [...found].map(([formula, count]) => ({ formula, texts: count }));
	return formulas.sort((a, b) => b.texts - a.texts || (a.formula < b.formula ? -1 : 1));
}

/** What all of a group have in common, where that is most of what they say; undefined where it is not. */
function formulaOf(group: readonly (readonly string[])[]): Formula | undefined {
	const counts = new Map<string, number>();
	for (const words of group) for (const word of new Set(words)) counts.set(word, (counts.get(word) ?? 0) + 1);
	const isFixed = (word: string) => (counts.get(word) ?? 0) >= group.length * WORD_SHARE;
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
	const [formula, { texts: alike, fixed, words }] = best;
	const isMade = formula.includes('*') && fixed >= words * FIXED_SHARE && fixed >= alike * LEAST_FIXED;
	if (!isMade || !isTelling(formula)) return undefined;
	// A word of the formula may stand among what differs, too.
	const texts = group.filter((one) => isMadeOf(one, formula)).length;
	return texts >= group.length * SHARE ? { formula, texts } : undefined;
}

function formOf(words: readonly string[], isFixed: (word: string) => boolean): string {
	const form: string[] = [];
	for (const word of words.slice(0, MOST_WORDS))
		if (isFixed(word)) form.push(word);
		else if (form.at(-1) !== '*') form.push('*');
	return form.join(' ');
}

/** Words that hold any sentence together tell of no program; so many others, or names before a colon, do. */
const isTelling = (formula: string) =>
	formula.split(' ').filter((word) => /^\p{L}{4,}/u.test(word) || /\p{L}:$/u.test(word)).length >= 2;

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
