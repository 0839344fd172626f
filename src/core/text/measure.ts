import { isSimple, segmenter } from './text';
import widths from './widths.json';

/** How wide a text is, by the advance widths of a metric-compatible open font: what pixel limits of readers are told by. */

/** Advance widths in thousandths of an em, by code point. */
const WIDTHS: ReadonlyMap<number, number> = new Map(
	(widths.runs as [number, string][]).flatMap(([first, run]) =>
		run.split(' ').map((width, i): [number, number] => [first + i, Number(width)])
	)
);
/** Characters that the font has not: combining marks take no room, ideographs and other wide ones an em, others half. */
const widthOf = (code: number) => WIDTHS.get(code) ?? (code >= 0x1100 ? 1000 : code >= 0x300 && code < 0x370 ? 0 : 556);

/** The same for code units that are characters by themselves, below the surrogates: most texts hold no others. */
const SURROGATES = 0xd800;
const UNIT_WIDTHS = Uint16Array.from({ length: SURROGATES }, (_, code) => widthOf(code));

/** How wide a text is at a font size; in the unit of the size, so that a size of 1 gives ems. */
export function measureText(text: string, fontSize: number): number {
	let sum = 0;
	for (let at = 0; at < text.length; at++) {
		const unit = text.charCodeAt(at);
		if (unit < SURROGATES) sum += UNIT_WIDTHS[unit] as number;
		else {
			const code = text.codePointAt(at) as number;
			if (code > 0xffff) at++;
			sum += widthOf(code);
		}
	}
	return (sum * fontSize) / 1000;
}

/** Where a text that is wider than a limit must be cut so that `mark` still fits behind it; -1 when it fits whole. */
export function offsetOfWidth(text: string, limit: number, fontSize: number, mark = '…'): number {
	if (measureText(text, fontSize) <= limit) return -1;
	const room = limit - measureText(mark, fontSize);
	let sum = 0;
	// In most texts each code unit up to the cut, and the one behind it, is a character by itself.
	for (let at = 0; at < text.length; at++) {
		sum += ((UNIT_WIDTHS[text.charCodeAt(at)] ?? 0) * fontSize) / 1000;
		if (sum <= room) continue;
		if (isSimple(text, at + 2)) return at;
		break;
	}
	sum = 0;
	for (const { segment, index } of segmenter('en', 'grapheme').segment(text)) {
		sum += measureText(segment, fontSize);
		if (sum > room) return index;
	}
	return -1;
}
