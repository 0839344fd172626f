/** Letters of which it is known (and held by a test) how the index folds them: Latin ones, and the usual punctuation. */
const KNOWN = /^[\u0001-\u00b4\u00b6-\u017e\u2000-\u2064]*$/;
const PLAIN = /^[\u0001-\u007f]*$/;

/** Small, and without accents, as the index of words has it. */
function fold(text: string): string {
	const small = text.toLowerCase();
	return PLAIN.test(small) ? small : small.normalize('NFD').replace(/\p{Mn}/gu, '');
}

/** Whether a word of the text begins so. */
function hasBeginning(text: string, word: string): boolean {
	for (let at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1))
		if (at === 0 || !/[\p{L}\p{N}]/u.test(text.charAt(at - 1))) return true;
	return false;
}

/** So much of what is searched for is read (UTF-16 code units), and so many of its words: who pastes a page searches for its beginning. */
const LONGEST_SEARCH = 300;
const MOST_WORDS = 12;

/** The words of what is searched for. */
export const wordsOf = (text: string): string[] =>
	(text.slice(0, LONGEST_SEARCH).match(/[\p{L}\p{N}]+/gu) ?? []).slice(0, MOST_WORDS);

/**
 * How the index of words would find pages, told by their texts: whether all words, or words beginning so, stand in them.
 * What it gives answers undefined for texts with letters that only the index knows how to fold; it is undefined itself
 * for such words.
 */
export function wordsInText(words: readonly string[]): ((texts: readonly string[]) => boolean | undefined) | undefined {
	if (!words.every((word) => KNOWN.test(word))) return undefined;
	const beginnings = words.map(fold);
	return (texts) => {
		const text = texts.join('\n');
		if (!KNOWN.test(text)) return undefined;
		const folded = fold(text);
		return beginnings.every((word) => hasBeginning(folded, word));
	};
}
