/**
 * Plain text as a head can carry it: settled, measured and cut by what a reader sees as one character. What counts as
 * empty and how a text is settled is said here and nowhere else; docs/resolution.md has the same in words.
 */

/** Noncharacters and the controls that are no white space: neither HTML nor XML can carry them. */
const UNCARRIED =
	/[\u0000-\u0008\u000e-\u001f\u007f-\u0084\u0086-\u009f\ufdd0-\ufdef\ufffe\uffff]|[\ud83f\ud87f\ud8bf\ud8ff\ud93f\ud97f\ud9bf\ud9ff\uda3f\uda7f\udabf\udaff\udb3f\udb7f\udbbf\udbff][\udffe\udfff]/g;
/**
 * White space that stands for one space wherever it stands: the space itself, the tab and all line ends. Other white
 * space (no-break, ideographic, thin, …) was meant, and stays: money in French has two kinds of it.
 */
const FOLDED = /[ \t\n\v\f\r\u0085\u2028\u2029]+/g;
/** A character that leaves a mark on the page: no white space, control, format character or noncharacter. */
const VISIBLE = /[^\p{White_Space}\p{Cc}\p{Cf}\p{Noncharacter_Code_Point}]/u;

/**
 * The text that is meant when a value is put into a head, in this order: lone surrogates become U+FFFD, what markup
 * cannot carry goes, white space that folds becomes one space, white space at both ends goes. '' when nothing is left
 * to see. What is done to a character depends on its own run of white space and on nothing else in the text.
 */
export function settleText(text: string): string {
	if (text === lastSettled || isSettled(text)) return (lastSettled = text);
	return (lastSettled = settleClosely(text));
}

/** What was settled last is often settled again: by a filter, then by its tag. */
let lastSettled = '';

function settleClosely(text: string): string {
	const whole = text.isWellFormed() ? text : text.toWellFormed();
	const settled = trimSpace(whole.replace(UNCARRIED, '').replace(FOLDED, ' '));
	return VISIBLE.test(settled) ? settled : '';
}

/** Whether a text is empty: nothing is left once controls, format characters and white space (Unicode's) are taken away. */
export function isBlank(text: string): boolean {
	// Most texts begin with a letter or a sign of ASCII; only the others need a closer look.
	const first = text.charCodeAt(0);
	return !(isAsciiSign(first) || VISIBLE.test(text));
}

/** Whether a UTF-16 code unit is white space by Unicode's property White_Space; all of it lies in the first plane. */
export function isSpace(unit: number): boolean {
	if (unit < 0x1680) return unit === 32 || (unit >= 9 && unit <= 13) || unit === 0x85 || unit === 0xa0;
	if (unit <= 0x200a) return unit >= 0x2000 || unit === 0x1680;
	return unit === 0x2028 || unit === 0x2029 || unit === 0x202f || unit === 0x205f || unit === 0x3000;
}

/** A text without the white space (Unicode's) at its ends. */
export function trimSpace(text: string): string {
	let [start, end] = [0, text.length];
	while (start < end && isSpace(text.charCodeAt(start))) start++;
	while (end > start && isSpace(text.charCodeAt(end - 1))) end--;
	return end - start === text.length ? text : text.slice(start, end);
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

/** Whether a text is ordinary, with something to see in it, and nothing to settle. */
function isSettled(text: string): boolean {
	const first = text.charCodeAt(0);
	if (first === 32 || text.charCodeAt(text.length - 1) === 32) return false;
	return (isAsciiSign(first) || ASCII_SIGN.test(text)) && ORDINARY.test(text) && !TWO_SPACES.test(text);
}

/** Code units that may join with their neighbours to one character, or be none by themselves. */
const NOT_SIMPLE = /[^\u0020-\u00ac\u00ae-\u02ff\u0400-\u0481\u2010-\u2027]/;

/** Ordinary and simple at once. */
const EVEN =
	/^[!-~\u00a1-\u00ac\u00ae-\u02ff\u0400-\u0481\u2010-\u2027][ -~\u00a1-\u00ac\u00ae-\u02ff\u0400-\u0481\u2010-\u2027]*$/;

/** Whether a text needs no settling but at its end, and every code unit of it is a character by itself. */
const isEven = (text: string) => EVEN.test(text) && !TWO_SPACES.test(text);

/** Whether every code unit of the first `length` is a character by itself, so that counting units counts graphemes. */
export function isSimple(text: string, length: number): boolean {
	return !NOT_SIMPLE.test(text.length > length ? text.slice(0, length) : text);
}

/** Sites have a handful of languages; data from outside may name any number. */
const MOST_SEGMENTERS = 100;
const segmenters = new Map<string, Intl.Segmenter>();

/** A segmenter kept for each language and granularity: making one costs more than using it. */
export function segmenter(language: string, granularity: 'grapheme' | 'word' | 'sentence'): Intl.Segmenter {
	const key = granularity + language;
	let made = segmenters.get(key);
	if (!made) {
		if (segmenters.size >= MOST_SEGMENTERS) segmenters.clear();
		made = new Intl.Segmenter(withData(Intl.Segmenter, language), { granularity });
		segmenters.set(key, made);
	}
	return made;
}

/** What nothing is known of stands in English, wherever it runs. */
export const FALLBACK_LANGUAGE = 'en';

/** The language where the engine has its data for it, else English: the engine itself would take the machine's. */
export function withData(made: Pick<typeof Intl.Segmenter, 'supportedLocalesOf'>, language: string): string {
	return isLanguageTag(language) && made.supportedLocalesOf(language).length > 0 ? language : FALLBACK_LANGUAGE;
}

/** Answers of the first so many texts, none longer than this, are remembered. */
const MOST_REMEMBERED = 500;
const LONGEST_REMEMBERED = 80;

/** What gives the same answer for a text each time, and is asked about the same few texts: of those, asked once. */
export function remembered<T>(answer: (text: string) => T): (text: string) => T {
	const known = new Map<string, T>();
	return (text) => {
		const before = known.get(text);
		if (before !== undefined || known.has(text)) return before as T;
		const said = answer(text);
		if (known.size < MOST_REMEMBERED && text.length <= LONGEST_REMEMBERED) known.set(text, said);
		return said;
	};
}

/** Whether the text is a well-formed language tag (BCP 47). */
export const isLanguageTag = remembered((tag: string): boolean => {
	try {
		return Intl.getCanonicalLocales(tag).length === 1;
	} catch {
		return false;
	}
});

/** The letters and digits of a text, in lower case: two texts that share them say the same. */
export const lettersOf = (text: string) =>
	isAscii(text)
		? text.toLowerCase().replace(/[^a-z0-9]+/g, '')
		: text.toLowerCase().replace(/[^\p{L}\p{M}\p{N}]+/gu, '');

/** Whether all of a text is ASCII: classes of letters are told several times faster there. */
export const isAscii = (text: string) => /^[\x00-\x7f]*$/.test(text);

/** A language tag as BCP 47 writes it (`fr-ca` is `fr-CA`); undefined for a text that is none. */
export const canonicalLanguage = remembered((tag: string): string | undefined =>
	isLanguageTag(tag) ? Intl.getCanonicalLocales(tag)[0] : undefined
);

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

/** White space at which a text may be cut: all but the no-break kinds. */
const isBreak = (unit: number) => isSpace(unit) && unit !== 0xa0 && unit !== 0x2007 && unit !== 0x202f;
/** Signs that must not end a text that was cut: what they lead to is gone. */
const LEADS_ON = /[\p{White_Space}\p{Pd}\p{Ps}\p{Pi},;:.·|/]/u;

/** A text without signs of a kind at its end. Looks from the end: an expression is tried at each place of a long text. */
export function withoutEnd(text: string, loose: RegExp): string {
	let end = text.length;
	while (end > 0 && loose.test(text[end - 1] as string)) end--;
	return text.slice(0, end);
}

/** The text without signs at its end that lead on to something. */
const withoutLoose = (text: string) => withoutEnd(text, LEADS_ON);

/**
 * At most `limit` graphemes, cut at a word's end and closed by `mark` when anything was cut; the mark counts.
 * A single word longer than the limit is cut inside.
 */
export function clipText(text: string, limit: number, mark = '…'): string {
	if (text.length <= limit) return text;
	const room = limit - countGraphemes(mark);
	// One look tells for both limits where each character is one code unit.
	const isUnitEach = isSimple(text, limit + 1);
	if (!isUnitEach && offsetOfGrapheme(text, limit) < 0) return text;
	const offsetOf = (count: number) => (isUnitEach ? count : offsetOfGrapheme(text, count));
	if (room <= 0) return text.slice(0, Math.max(0, offsetOf(limit)));
	return cutBefore(text, offsetOf(room), mark);
}

/** The same for a text that is yet to be settled. */
export function settleAndClip(text: string, limit: number, mark?: string): string {
	if (mark === undefined && limit > 1 && limit < text.length - 1) {
		// Of a long text no more is looked at than is left of it, and the sign after.
		const start = text.slice(0, limit + 2);
		if (isEven(start)) return (lastSettled = cutBefore(start, limit - 1));
	}
	const settled = settleText(text);
	const clipped = clipText(settled, limit, mark);
	// What is left of a settled text is settled, and so is the ellipsis.
	if (mark === undefined && clipped !== settled && clipped.endsWith('…')) lastSettled = clipped;
	return clipped;
}

/** A text cut at the last end of a word at or before an offset, else inside a word, and closed by `mark`. */
export function cutBefore(text: string, offset: number, mark = '…'): string {
	const whole = withoutLoose(text.slice(0, wordEndBefore(text, offset)));
	if (whole !== '') return whole + mark;
	// The mark never stands alone: a word is parted, and where nothing but such signs stands, they are the text.
	const parted = text.slice(0, offset);
	return (withoutLoose(parted) || trimSpace(parted)) + mark;
}

/** The last place at or before `offset` where a word ends; `offset` itself when there is none in reach. */
function wordEndBefore(text: string, offset: number): number {
	if (offset >= text.length || isBreak(text.charCodeAt(offset))) return offset;
	for (let at = offset; at > 0; at--) if (isBreak(text.charCodeAt(at - 1))) return at - 1 > 0 ? at - 1 : offset;
	// No space at all: scripts that write without them still have words.
	const words = segmenter('en', 'word').segment(text.slice(0, offset + 40));
	return words.containing(offset)?.index ?? offset;
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
