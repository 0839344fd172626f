import type { Head } from '../resolve/types';
import { offsetOfGrapheme, segmenter } from '../text/text';
import type { Cut, ReaderProfile } from './profiles';
import widths from './widths.json';

/** A text as a reader shows it, with what it cuts away. */
export interface CardText {
	readonly shown: string;
	/** The rest, which the reader does not show. '' when all fits. */
	readonly cut: string;
	/** The tag it came from, or undefined when the head has none for it. */
	readonly from: string | undefined;
}

export interface CardPicture {
	readonly address: string;
	readonly from: string;
	readonly width?: number;
	readonly height?: number;
	readonly alt?: string;
	/** Too narrow for the large form (in pixels): the reader falls back to a small one. */
	readonly small: boolean;
}

/** What a reader makes of a head. */
export interface Card {
	readonly reader: ReaderProfile;
	readonly title: CardText;
	readonly description: CardText;
	readonly picture: CardPicture | undefined;
	/** The host and path it names under or over the title. */
	readonly host: string;
	readonly crumbs: readonly string[];
	readonly siteName: string;
}

type Values = ReadonlyMap<string, string>;

/** The card that a reader draws from a head. Pure: the same head gives the same card. */
export function cardOf(reader: ReaderProfile, head: Head): Card {
	const values: Values = new Map([...head.tags].reverse().map(({ tag, value }) => [tag.name, value]));
	const [, address = ''] = firstOf(reader.place, values);
	const url = URL.canParse(address) ? new URL(address) : undefined;
	return {
		reader,
		title: cutText(firstOf(reader.title, values), reader.cuts.title),
		description: cutText(firstOf(reader.description, values), reader.cuts.description),
		picture: pictureOf(reader, values),
		host: url?.host ?? '',
		crumbs: (url?.pathname ?? '').split('/').filter(Boolean).map(readable),
		siteName: values.get('og:site_name') ?? url?.host ?? ''
	};
}

function readable(part: string): string {
	try {
		return decodeURIComponent(part);
	} catch {
		return part;
	}
}

function firstOf(tags: readonly string[], values: Values): readonly [from: string | undefined, value: string] {
	const from = tags.find((tag) => values.has(tag));
	return [from, from === undefined ? '' : (values.get(from) as string)];
}

function cutText([from, text]: readonly [string | undefined, string], cut: Cut): CardText {
	const at = cut.by === 'characters' ? offsetOfGrapheme(text, cut.limit) : offsetOfPixel(text, cut.limit, cut.fontSize);
	return at < 0 ? { shown: text, cut: '', from } : { shown: text.slice(0, at), cut: text.slice(at), from };
}

function pictureOf(reader: ReaderProfile, values: Values): CardPicture | undefined {
	const [from, address] = firstOf(reader.picture, values);
	if (from === undefined || !reader.frame) return undefined;
	const fact = (name: string) => values.get(`og:image:${name}`);
	const [width, height, alt] = [Number(fact('width')) || undefined, Number(fact('height')) || undefined, fact('alt')];
	return {
		address,
		from,
		...(width && { width }),
		...(height && { height }),
		...(alt && { alt }),
		small: width !== undefined && width < reader.frame.minWidth
	};
}

/** Advance widths of the measuring font in thousandths of an em, by code point. */
const WIDTHS: ReadonlyMap<number, number> = new Map(
	(widths.runs as [number, string][]).flatMap(([first, run]) =>
		run.split(' ').map((width, i): [number, number] => [first + i, Number(width)])
	)
);
/** Characters that the font has not: ideographs and other wide ones fill an em, others about half. */
const widthOf = (code: number) => WIDTHS.get(code) ?? (code >= 0x1100 ? 1000 : code >= 0x300 && code < 0x370 ? 0 : 556);

/** How wide a text is in pixels at a font size (pixels), by the widths of a metric-compatible open font. */
export function measureText(text: string, fontSize: number): number {
	let sum = 0;
	for (const char of text) sum += widthOf(char.codePointAt(0) as number);
	return (sum * fontSize) / 1000;
}

/** Where a text that is too wide is cut, room for the ellipsis left; -1 when it fits. */
function offsetOfPixel(text: string, limit: number, fontSize: number): number {
	if (measureText(text, fontSize) <= limit) return -1;
	const room = limit - measureText('…', fontSize);
	let sum = 0;
	for (const { segment, index } of segmenter('en', 'grapheme').segment(text)) {
		sum += measureText(segment, fontSize);
		if (sum > room) return index;
	}
	return -1;
}
