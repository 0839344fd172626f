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
	/** The reader falls back to its small card: the picture is too narrow, or the head asks for it. */
	readonly small: boolean;
	/** Why the card is small though there is a picture, in words. */
	readonly why?: string;
}

/** What a reader makes of a head. */
export interface Card {
	readonly reader: ReaderProfile;
	readonly title: CardText;
	readonly description: CardText;
	readonly picture: CardPicture | undefined;
	/** All pictures, for a reader that takes every one; else the one. */
	readonly pictures: readonly CardPicture[];
	/** The host and path it names under or over the title. */
	readonly host: string;
	readonly crumbs: readonly string[];
	readonly siteName: string;
	/** The address of the site's icon, for a reader that shows it. */
	readonly icon: string | undefined;
	/** The label/data pairs, for a reader that shows them. */
	readonly pairs: readonly { readonly label: string; readonly data: string }[];
}

type Values = ReadonlyMap<string, string>;

/** The card that a reader draws from a head. Pure: the same head gives the same card. */
export function cardOf(reader: ReaderProfile, head: Head): Card {
	const values: Values = new Map([...head.tags].reverse().map(({ tag, value }) => [tag.name, value]));
	const [, address = ''] = firstOf(reader.place, values);
	const url = URL.canParse(address) ? new URL(address) : undefined;
	const pictures = picturesOf(reader, head, values);
	return {
		reader,
		title: cutText(firstOf(reader.title, values), reader.cuts.title),
		description: cutText(firstOf(reader.description, values), reader.cuts.description),
		picture: pictures[0],
		pictures,
		host: url?.host ?? '',
		crumbs: (url?.pathname ?? '').split('/').filter(Boolean).map(readable),
		siteName: values.get('og:site_name') ?? url?.host ?? '',
		icon: reader.icon && values.get('icon'),
		pairs: reader.pairs ? pairsOf(values) : []
	};
}

function pairsOf(values: Values) {
	return ['1', '2'].flatMap((number) => {
		const [label, data] = [values.get(`twitter:label${number}`), values.get(`twitter:data${number}`)];
		return label && data ? [{ label, data }] : [];
	});
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

/** The pictures a reader shows: the first, or every one, each with the facts that stand directly after it (R11). */
function picturesOf(reader: ReaderProfile, head: Head, values: Values): CardPicture[] {
	const { frame } = reader;
	if (!frame) return [];
	const known = picturesIn(head, 'og:image');
	const isTaken = ({ address }: KnownPicture) =>
		(frame.takes as readonly string[]).includes(
			formOf(known.find((other) => other.address === address)?.type, address)
		);
	// A picture in a form that it cannot read is none.
	const from = reader.picture.find((tag) => values.has(tag) && picturesIn(head, tag).some(isTaken));
	if (from === undefined) return [];
	const all = picturesIn(head, from).filter(isTaken);
	const chosen = frame.every ? all : all.slice(0, 1);
	return chosen.map((picture) => {
		// A Twitter card picture has no facts of its own in the head: they stand with its Open Graph twin.
		const { type: _type, ...facts } = { ...known.find((other) => other.address === picture.address), ...picture };
		const why = smallBecause(reader, facts.width, values);
		return { ...facts, from, small: why !== undefined, ...(why && { why }) };
	});
}

function smallBecause({ frame, chooses }: ReaderProfile, width: number | undefined, values: Values) {
	if (chooses && values.get(chooses.by) !== chooses.large)
		return `${chooses.by} says ${values.get(chooses.by) ?? 'nothing'}`;
	if (width !== undefined && frame && width < frame.minWidth)
		return `the picture is ${width} pixels wide; from ${frame.minWidth} it would fill the card`;
	return undefined;
}

interface KnownPicture {
	readonly address: string;
	type?: string;
	width?: number;
	height?: number;
	alt?: string;
}

/** The form of a picture by its declared type, else by its name; one that says neither is taken for a photograph. */
function formOf(type: string | undefined, address: string): string {
	const form = type?.replace('image/', '') ?? /\.(jpe?g|png|webp|gif|svg|avif|tiff?)(?:$|[?#])/i.exec(address)?.[1];
	return (form ?? 'jpeg')
		.toLowerCase()
		.replace(/^jpg$/, 'jpeg')
		.replace(/\+xml$/, '');
}

function picturesIn(head: Head, name: string): KnownPicture[] {
	const found: KnownPicture[] = [];
	for (const { tag, value } of head.tags) {
		const last = found.at(-1);
		if (tag.name === name) found.push({ address: value });
		else if (last && tag.name === `${name}:type`) last.type = value;
		else if (last && tag.name === `${name}:width`) last.width = Number(value);
		else if (last && tag.name === `${name}:height`) last.height = Number(value);
		else if (last && tag.name === `${name}:alt`) last.alt = value;
	}
	return found;
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
