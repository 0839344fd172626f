import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import { offsetOfWidth } from '../text/measure';
import { clipText, countGraphemes, cutBefore, lettersOf, segmenter, settleText, trimSpace } from '../text/text';
import { parsePiece } from './parseBounded';
import { htmlToText, textOf } from './plainText';

/** What is read out of a page's body: its opening, and how long it takes to read. */

/** No more of a body than this (UTF-16 code units) is read for its opening. */
const OPENING_READ = 20_000;

/** How long a text may be: in graphemes, and in ems of the measuring font. */
export interface Limits {
	readonly graphemes: number;
	readonly ems: number;
}

/** What is not said in sentences: headings, ways to go, tables, listings, captions and labels. */
const NO_SENTENCES = new Set([
	...['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'nav', 'menu', 'aside', 'header', 'footer', 'form', 'label', 'legend'],
	...['table', 'pre', 'listing', 'xmp', 'figcaption', 'dt', 'time', 'address']
]);

/** The first sentences of a body, plain; '' where it has none. */
export function openingOf(body: string, limits: Limits, language: string): string {
	const start = body.slice(0, OPENING_READ);
	const text = start.includes('<') ? settleText(textOf(parsePiece(start), isPassedOver)) : htmlToText(start);
	return firstSentences(text, limits, language);
}

const isPassedOver = (element: Tree.Element) => NO_SENTENCES.has(element.tagName) || isOnlyLinks(element);

/** A paragraph or an item of a list that says nothing but where links lead, whatever signs stand between them. */
function isOnlyLinks(element: Tree.Element): boolean {
	if (element.tagName !== 'p' && element.tagName !== 'li') return false;
	const [whole, beside] = [textOf(element), textOf(element, ({ tagName }) => tagName === 'a')];
	return lettersOf(whole) !== '' && lettersOf(beside) === '';
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
