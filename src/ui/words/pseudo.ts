import { firstOf, type Tables } from './speaking';

/**
 * The words of the interface as they may have to be borne, for tests: half as long again, or from right to left. They are
 * made of the first language's, so that a word that stands in no table is seen: it has no brackets.
 */
const PSEUDO = { 'en-XA': 'half as long again', 'ar-XB': 'from right to left' } as const;
export type Pseudo = keyof typeof PSEUDO;
export const isPseudo = (language: string): language is Pseudo => Object.hasOwn(PSEUDO, language);

/** The white space before a text, the text, and what stands behind it. */
function partsOf(text: string): readonly [before: string, words: string, behind: string] {
	const words = text.trim();
	const at = text.indexOf(words);
	return [text.slice(0, at), words, text.slice(at + words.length)];
}

/** Half as long again, in brackets, with the letters still to be read. */
export function lengthened(text: string): string {
	const [before, words, behind] = partsOf(text);
	if (!/\p{L}/u.test(words)) return text;
	// Longer as words are longer, not as one word that nothing can break.
	const more = ' lorna merov tidal'.repeat(Math.ceil(words.length / 30)).slice(0, Math.ceil(words.length / 2));
	return `${before}⟦${words}${more.trimEnd()}⟧${behind}`;
}

/** In brackets, in letters that run from right to left. */
export function mirrored(text: string): string {
	const [before, words, behind] = partsOf(text);
	if (!/\p{L}/u.test(words)) return text;
	return `${before}⟦\u202e${words}\u202c⟧${behind}`;
}

/** All messages of some sections in other words. */
export function inPseudo(sections: Tables, language: Pseudo): Tables {
	const change = language === 'en-XA' ? lengthened : mirrored;
	return Object.fromEntries(
		Object.entries(sections).map(([name, messages]) => [
			name,
			Object.fromEntries(
				Object.entries(firstOf(messages)).map(([key, message]) => [
					key,
					typeof message === 'string'
						? change(message)
						: (...said: unknown[]) => change((message as (...all: unknown[]) => string)(...said))
				])
			)
		])
	);
}
