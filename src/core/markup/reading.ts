import { offsetOfWidth } from '../text/measure';
import { clipText, countGraphemes, cutBefore, segmenter, settleText, trimSpace } from '../text/text';
import { htmlToText } from './plainText';

/** What is read out of a page's body: its opening, and how long it takes to read. */

/** No more of a body than this (UTF-16 code units) is read for its opening. */
const OPENING_READ = 20_000;

/** How long a text may be: in graphemes, and in ems of the measuring font. */
export interface Limits {
	readonly graphemes: number;
	readonly ems: number;
}

/** The first sentences of a body, plain; '' for none. */
export function openingOf(body: string, limits: Limits, language: string): string {
	return firstSentences(htmlToText(body.slice(0, OPENING_READ)), limits, language);
}

/**
 * The opening of a text in whole sentences: as many as fit. A first one that does not is cut at a word's end and closed
 * by an ellipsis. Sentences are Unicode's (UAX 29), of the first so many times the limit.
 */
export function firstSentences(text: string, limits: Limits, language: string): string {
	const opening = settleText(text.slice(0, limits.graphemes * READ_AHEAD));
	let end = 0;
	for (const sentence of segmenter(language, 'sentence').segment(opening)) {
		const next = sentence.index + sentence.segment.length;
		if (end > 0 && !isWithin(trimSpace(opening.slice(0, next)), limits)) break;
		end = next;
	}
	const clipped = clipText(trimSpace(opening.slice(0, end)), limits.graphemes);
	const offset = offsetOfWidth(clipped, limits.ems, 1);
	return offset < 0 ? clipped : cutBefore(clipped, offset);
}

const READ_AHEAD = 8;

const isWithin = (text: string, { graphemes, ems }: Limits) =>
	countGraphemes(text) <= graphemes && offsetOfWidth(text, ems, 1) < 0;

/** Words a minute that people read on a screen; in a script without spaces, characters a minute. */
const WORDS_A_MINUTE = 230;
const CHARACTERS_A_MINUTE = 500;
/** From this many characters a word on, a script writes without spaces. */
const DENSE = 20;

/** Whole minutes to read a text, at least one for any text at all. Undefined for none. */
export function readingMinutes(body: string): number | undefined {
	const text = settleText(htmlToText(body));
	if (text === '') return undefined;
	const words = text.split(' ').length;
	const characters = countGraphemes(text);
	const minutes = characters / words > DENSE ? characters / CHARACTERS_A_MINUTE : words / WORDS_A_MINUTE;
	return Math.max(1, Math.round(minutes));
}
