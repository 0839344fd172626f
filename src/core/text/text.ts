/** Plain text as a head can carry it: cleaned, measured and cut by what a reader sees as one character. */

/** Noncharacters and the controls that neither HTML nor XML can carry. Tab and line ends become spaces before this. */

const UNWANTED =
	/[\u0000-\u0008\u000b\u000e-\u001f\u007f-\u009f\ufdd0-\ufdef\ufffe\uffff]|[\ud83f\ud87f\ud8bf\ud8ff\ud93f\ud97f\ud9bf\ud9ff\uda3f\uda7f\udabf\udaff\udb3f\udb7f\udbbf\udbff][\udffe\udfff]/;
const UNWANTED_ALL = new RegExp(UNWANTED.source, 'g');
/** Anything that `cleanText` would change. One test lets nearly every value through untouched. */
const UNTIDY = new RegExp(`^\\s|\\s$|\\s\\s|[\\t\\n\\f\\r\\u2028\\u2029]|${UNWANTED.source}`);
const SPACES = /\s+/g;
/** A character that leaves a mark on the page: not a space, a control or an invisible format character. */
const VISIBLE = /[^\p{Z}\p{Cc}\p{Cf}]/u;

/**
 * The text that is meant when a value is put into a head: one line, single spaces, nothing that markup cannot carry.
 * Lone surrogates become U+FFFD, controls and noncharacters go. A text with nothing to see in it becomes ''.
 */
export function cleanText(text: string): string {
	if (isTidy(text)) return text;
	let clean = text.isWellFormed() ? text : text.toWellFormed();
	if (UNTIDY.test(clean)) clean = clean.replace(UNWANTED_ALL, '').replace(SPACES, ' ').trim();
	return VISIBLE.test(clean) ? clean : '';
}

/**
 * Anything but ordinary letters and signs with single spaces: the common case is told by one expression, which the
 * engine runs several times faster than a loop over the units. Ordinary is what holds no control, surrogate, separator
 * or noncharacter: U+00A1 to U+167F, U+2010 to U+2027, and ASCII.
 */
const ORDINARY = /^[ -~\u00a1-\u167f\u2010-\u2027]*$/;
const TWO_SPACES = / {2}/;
const ASCII_SIGN = /[!-~]/;
const isAsciiSign = (unit: number) => unit > 32 && unit < 127;

/** Whether a text is ordinary, with something to see in it, and nothing to tidy. */
function isTidy(text: string): boolean {
	const first = text.charCodeAt(0);
	if (first === 32 || text.charCodeAt(text.length - 1) === 32) return false;
	return (isAsciiSign(first) || ASCII_SIGN.test(text)) && ORDINARY.test(text) && !TWO_SPACES.test(text);
}

/** Code units that may join with their neighbours to one character, or be none by themselves. */
const NOT_SIMPLE = /[^\u0020-\u00ac\u00ae-\u02ff\u0400-\u0481\u2010-\u2027]/;

/** Whether every code unit of the first `length` is a character by itself, so that counting units counts graphemes. */
function isSimple(text: string, length: number): boolean {
	return !NOT_SIMPLE.test(text.length > length ? text.slice(0, length) : text);
}

const segmenters = new Map<string, Intl.Segmenter>();

/** A segmenter kept for each language and granularity: making one costs more than using it. */
export function segmenter(language: string, granularity: 'grapheme' | 'word' | 'sentence'): Intl.Segmenter {
	const key = granularity + language;
	let made = segmenters.get(key);
	if (!made) {
		made = new Intl.Segmenter(isLanguageTag(language) ? language : 'en', { granularity });
		segmenters.set(key, made);
	}
	return made;
}

/** Whether the text is a well-formed language tag (BCP 47). */
export function isLanguageTag(tag: string): boolean {
	try {
		return Intl.getCanonicalLocales(tag).length === 1;
	} catch {
		return false;
	}
}

/** The offset at which `count` graphemes end, or -1 when the text has no more than `count`. */
export function offsetOfGrapheme(text: string, count: number): number {
	if (isSimple(text, count + 1)) return text.length > count ? count : -1;
	let seen = 0;
	for (const { index } of segmenter('en', 'grapheme').segment(text)) {
		if (seen === count) return index;
		seen++;
	}
	return -1;
}

/** How many graphemes (UAX 29) the text has. */
export function countGraphemes(text: string): number {
	if (isSimple(text, text.length)) return text.length;
	let count = 0;
	for (const _ of segmenter('en', 'grapheme').segment(text)) count++;
	return count;
}

const SPACE = /\s/;
/** Signs that must not end a text that was cut: what they lead to is gone. */
const LEADS_ON = /[\s\p{Pd}\p{Ps}\p{Pi},;:.·|/]/u;

/** The text without signs at its end that lead on to something. Looks from the end: the text may be long. */
function withoutLoose(text: string): string {
	let end = text.length;
	while (end > 0 && LEADS_ON.test(text[end - 1] as string)) end--;
	return text.slice(0, end);
}

/**
 * At most `limit` graphemes, cut at a word's end and closed by `mark` when anything was cut; the mark counts.
 * A single word longer than the limit is cut inside.
 */
export function clipText(text: string, limit: number, mark = '…'): string {
	if (text.length <= limit || offsetOfGrapheme(text, limit) < 0) return text;
	const room = limit - countGraphemes(mark);
	if (room <= 0) return text.slice(0, Math.max(0, offsetOfGrapheme(text, limit)));
	const hard = offsetOfGrapheme(text, room);
	return withoutLoose(text.slice(0, wordEndBefore(text, hard))) + mark;
}

/** The last place at or before `offset` where a word ends; `offset` itself when there is none in reach. */
function wordEndBefore(text: string, offset: number): number {
	if (SPACE.test(text[offset] ?? ' ')) return offset;
	for (let at = offset; at > 0; at--) if (SPACE.test(text[at - 1] as string)) return at - 1 > 0 ? at - 1 : offset;
	// No space at all: scripts that write without them still have words.
	const word = segmenter('en', 'word')
		.segment(text.slice(0, offset + 40))
		.containing(offset);
	return word && word.index > 0 ? word.index : offset;
}

/** The first `count` words of a text, closed by an ellipsis when any were left out. */
export function firstWords(text: string, count: number, language: string): string {
	let seen = 0;
	for (const part of segmenter(language, 'word').segment(text)) {
		if (!part.isWordLike) continue;
		if (seen === count) return withoutLoose(text.slice(0, part.index)) + '…';
		seen++;
	}
	return text;
}

/** The opening of a text in whole sentences: as many as fit `aim` graphemes. A first one that is longer is clipped. */
export function firstSentences(text: string, aim: number, language: string): string {
	const head = cleanText(text.slice(0, aim * 8));
	let end = 0;
	for (const sentence of segmenter(language, 'sentence').segment(head)) {
		const next = sentence.index + sentence.segment.length;
		if (end > 0 && countGraphemes(head.slice(0, next).trim()) > aim) break;
		end = next;
	}
	return clipText(head.slice(0, end).trim(), aim);
}
