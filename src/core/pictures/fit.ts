import { segmenter, withoutEnd } from '../text/text';

/** A text as it stands in its box. */
export interface FittedText {
	/** Pixels. */
	readonly size: number;
	readonly lines: readonly string[];
	/** The text did not fit even at the least size: its end is cut off behind an ellipsis. */
	readonly isCut: boolean;
}

/** Whether a language is written from right to left: lines that begin at the start begin at the right. */
export const isWrittenToTheLeft = (language: string) => /^(ar|he|fa|ur|yi|ps|sd|ug|dv|ckb)\b/i.test(language);

/** The width in pixels of one line of text at a size. */
export type Measure = (text: string, size: number) => number;

/** Lines stand apart by this much of their size. */
export const LINE_HEIGHT = 1.24;
const ELLIPSIS = '…';
/** Sizes are tried in steps of this many pixels. */
const STEP = 2;

interface Room {
	readonly width: number;
	readonly height: number;
	/** Pixels, the largest and the least. */
	readonly size: number;
	readonly least: number;
}

/**
 * Fits a text into a box without ever spilling: the largest size at which it wraps into the box; at the least size what
 * is too much is cut, with an ellipsis. A box that not even one line fits into gets none. Pure: `measure` tells widths.
 */
export function fitText(text: string, room: Room, language: string, measure: Measure): FittedText {
	const words = piecesOf(text, language);
	const least = Math.max(1, Math.min(room.least, room.size));
	for (let size = room.size; size > least; size -= STEP) {
		const lines = wrap(words, size, room.width, measure);
		if (lines && lines.length <= linesIn(room, size)) return { size, lines, isCut: false };
	}
	return cutTo(linesIn(room, least), words, least, room.width, language, measure);
}

const linesIn = ({ height }: Room, size: number) => Math.floor(height / (size * LINE_HEIGHT) + 1e-6);

/** What may not be broken, each with whether a space stands before it. */
interface Piece {
	readonly text: string;
	readonly spaced: boolean;
}

const DENSE = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}]/u;
/** Signs that do not begin a line. */
const CLINGS = /^[\p{Pe}\p{Pf}\p{Po}、。，．・：；？！ー々\u3041\u3043\u3045\u3047\u3049\u3063\u3083\u3085\u3087]/u;

/** White space at which a line can end: all but the no-break kinds. */
const BREAKS = /[^\S\u00a0\u2007\u202f]+/u;

/** A text in pieces between which a line can end: at spaces, and in scripts without spaces between words. */
function piecesOf(text: string, language: string): Piece[] {
	const pieces: Piece[] = [];
	for (const word of text.split(BREAKS).filter(Boolean)) {
		const parts = DENSE.test(word) ? wordsOf(word, language) : [word];
		parts.forEach((part, at) => pieces.push({ text: part, spaced: at === 0 && pieces.length > 0 }));
	}
	return pieces;
}

function wordsOf(text: string, language: string): string[] {
	const words: string[] = [];
	for (const { segment } of segmenter(language, 'word').segment(text)) {
		if (words.length > 0 && CLINGS.test(segment)) words[words.length - 1] += segment;
		else words.push(segment);
	}
	return words;
}

/** The lines of a text at a size; undefined when one piece alone is wider than the box. */
function wrap(pieces: readonly Piece[], size: number, width: number, measure: Measure): string[] | undefined {
	const lines: string[] = [];
	let line = '';
	for (const { text, spaced } of pieces) {
		const longer = line + (spaced && line !== '' ? ' ' : '') + text;
		if (measure(longer, size) <= width) line = longer;
		else {
			if (line !== '') lines.push(line);
			if (measure(text, size) > width) return undefined;
			line = text;
		}
	}
	return line === '' ? lines : [...lines, line];
}

/** The text in so many lines at a size, pieces that are too wide broken, and what is too much cut. */
function cutTo(
	most: number,
	pieces: readonly Piece[],
	size: number,
	width: number,
	language: string,
	measure: Measure
): FittedText {
	const small = pieces.flatMap((piece) =>
		measure(piece.text, size) <= width ? [piece] : breakUp(piece, size, width, language, measure)
	);
	const lines = wrap(small, size, width, measure) ?? [];
	const lengthOf = (parts: readonly Piece[]) => parts.reduce((sum, { text }) => sum + text.length, 0);
	if (lines.length <= most) return { size, lines, isCut: lengthOf(small) < lengthOf(pieces) };
	if (most === 0) return { size, lines: [], isCut: pieces.length > 0 };
	const kept = lines.slice(0, most);
	return {
		size,
		lines: [...kept.slice(0, -1), endOf(kept.at(-1) as string, size, width, language, measure)],
		isCut: true
	};
}

const graphemesOf = (text: string, language: string) =>
	[...segmenter(language, 'grapheme').segment(text)].map(({ segment }) => segment);

function breakUp(piece: Piece, size: number, width: number, language: string, measure: Measure): Piece[] {
	const parts: string[] = [];
	let part = '';
	for (const sign of graphemesOf(piece.text, language)) {
		if (part !== '' && measure(part + sign, size) > width) {
			parts.push(part);
			part = '';
		}
		// One sign wider than the box cannot be drawn without spilling.
		if (measure(sign, size) <= width) part += sign;
	}
	if (part !== '') parts.push(part);
	return parts.map((text, at) => ({ text, spaced: at === 0 && piece.spaced }));
}

/** A line that ends in an ellipsis, at a word's end where that leaves more than half of it. */
function endOf(line: string, size: number, width: number, language: string, measure: Measure): string {
	const signs = graphemesOf(line, language);
	while (signs.length > 0 && measure(signs.join('').trimEnd() + ELLIPSIS, size) > width) signs.pop();
	const text = signs.join('');
	const isWhole = text.length === line.length;
	const space = text.lastIndexOf(' ');
	const cut = !isWhole && space > text.length / 2 ? text.slice(0, space) : text;
	const bare = withoutEnd(cut, /[\s,;:.\p{Pd}]/u);
	const ended = (bare || cut.trimEnd()) + ELLIPSIS;
	return measure(ended, size) <= width ? ended : '';
}
