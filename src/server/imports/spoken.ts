import type { ReadPage } from './staging';

/** Less text than this (letters) tells no language for sure; more than the other is not looked at. */
const LEAST_LETTERS = 80;
const MOST_LETTERS = 1500;
/** So much nearer must the first language be than the second: neighbours such as Norwegian and Danish are left unsaid. */
const LEAD = 1.12;
/** How near a text must be to a language: names and code are near to none. */
const LEAST_SCORE = 0.55;

/** The language (BCP 47) of a text where it is told for sure, else undefined. */
export async function languageOfText(text: string): Promise<string | undefined> {
	// Its tables take a moment and some memory: loaded when a text has to be looked at.
	const { eld } = await import('eld/extrasmall');
	const letters = text.slice(0, MOST_LETTERS).replace(/[^\p{L}\p{M}\s]+/gu, ' ');
	if (letters.replace(/\s+/g, '').length < leastOf(letters)) return undefined;
	const found = eld.detect(letters);
	const [first, second = 0] = Object.values(found.getScores()).sort((a, b) => b - a);
	if (!first || first < LEAST_SCORE || first < second * LEAD || !found.isReliable()) return undefined;
	// One tag stands for both written forms of Norwegian.
	return found.language === 'no' ? 'nb' : found.language || undefined;
}

/** Scripts that write a word with one sign say as much in fewer. */
const leastOf = (text: string) =>
	/[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Hangul}]/u.test(text) ? LEAST_LETTERS / 3 : LEAST_LETTERS;

/** What a page says in words, for telling its language. */
export const textOfPage = ({ paragraphs, fields, words = '' }: ReadPage) =>
	`${paragraphs.map(({ text }) => text).join(' ')} ${typeof fields.body === 'string' ? fields.body.slice(0, 1500) : words}`;
