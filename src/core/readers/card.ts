import type { Head } from '../resolve/head';
import { measureText, offsetOfWidth } from '../text/measure';
import { offsetOfGrapheme } from '../text/text';
import { parseUrl } from '../text/url';
import type { ReaderProfile, TextLimit } from './profiles';
import { reasonWords, type NoPicture, type SmallCard } from './reasons';

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
	/** Why the card is small though there is a picture; and in words. */
	readonly because?: SmallCard;
	readonly why?: string;
	/** It is shown moving. */
	readonly moves?: true;
}

/** What a reader makes of a head. */
export interface Card {
	readonly reader: ReaderProfile;
	readonly title: CardText;
	readonly description: CardText;
	readonly picture: CardPicture | undefined;
	/** All pictures, for a reader that takes every one; else the one. */
	readonly pictures: readonly CardPicture[];
	/** Pictures that it would have taken, had they been what their tags say, with why it did not. */
	readonly passedOver: readonly PassedOver[];
	/** The host and path it names under or over the title, and the tag they are read from. */
	readonly host: string;
	readonly placeFrom: string | undefined;
	readonly crumbs: readonly string[];
	readonly siteName: string;
	/** The address of the site's icon, for a reader that shows it. */
	readonly icon: string | undefined;
	/** The label/data pairs, for a reader that shows them. */
	readonly pairs: readonly { readonly label: string; readonly data: string }[];
}

/** A picture that a reader would have taken, and why it did not; and in words that follow its address. */
interface PassedOver {
	readonly address: string;
	readonly from: string;
	readonly because: NoPicture;
	readonly why: string;
}

type Values = ReadonlyMap<string, string>;

/** What came of fetching a picture: what it is, or why it is none. */
export type PictureSeen =
	| {
			readonly type: string;
			readonly width: number;
			readonly height: number;
			readonly bytes: number;
			/** It has several frames. */
			readonly isAnimated?: boolean;
	  }
	| { readonly why: NoPicture };

/**
 * What a page says beside its tags, by the names that readers ask for it under: its first heading `h1`, its first picture
 * `img`, what JSON-LD (`ld:name`), microdata (`itemprop:name`) and oEmbed (`oembed:title`) say, `favicon` where one is found.
 */
export type MoreOfPage = ReadonlyMap<string, string>;
const NOTHING_MORE: MoreOfPage = new Map();

/** A picture with a side of fewer pixels is a mark that counts visits, and taken by no reader. */
export const LEAST_SIDE = 16;

/**
 * The card that a reader draws from a head. Pure: the same head gives the same card. Where the pictures were fetched,
 * `seen` says by address what each is: the reader takes the first that it can show, and each is what it is, whatever its
 * tags say. One that nobody has looked at is taken at its tags' word. `more` is what the page says beside its tags.
 */
export function cardOf(
	reader: ReaderProfile,
	head: Head,
	seen?: (address: string) => PictureSeen | undefined,
	more: MoreOfPage = NOTHING_MORE
): Card {
	// What is no tag has a name that no tag has.
	const values = more.size === 0 ? valuesOf(head) : new Map([...valuesOf(head), ...more]);
	const [placeFrom, address = ''] = firstOf(reader.place, values);
	const url = parseUrl(address);
	const { pictures, passedOver } = picturesOf(reader, head, values, seen, more);
	return {
		reader,
		title: textWithin(firstOf(reader.title, values), reader.shows.title),
		description: textWithin(firstOf(reader.description, values), reader.shows.description),
		picture: pictures[0],
		pictures,
		passedOver,
		host: url?.host ?? '',
		placeFrom,
		crumbs: (url?.pathname ?? '').split('/').filter(Boolean).map(readable),
		siteName: values.get('og:site_name') ?? url?.host ?? '',
		icon: reader.icon && (values.get('icon') ?? (reader.icon === 'or-favicon' ? more.get('favicon') : undefined)),
		pairs: reader.pairs ? pairsOf(values) : []
	};
}

/** What each tag of a head says first; of a head that several readers take, once. */
const saidBy = new WeakMap<Head, Values>();
function valuesOf(head: Head): Values {
	const known = saidBy.get(head);
	if (known) return known;
	const values = new Map<string, string>();
	for (const { tag, value } of head.tags) if (!values.has(tag.name)) values.set(tag.name, value);
	saidBy.set(head, values);
	return values;
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

function textWithin([from, text]: readonly [string | undefined, string], limit: TextLimit): CardText {
	const at = offsetOfLimit(text, limit);
	return at < 0 ? { shown: text, cut: '', from } : { shown: text.slice(0, at), cut: text.slice(at), from };
}

/** Whether a reader shows a text whole; it is not asked where it would cut it, which takes longer to tell. */
export const isShownWhole = (text: string, limit: TextLimit): boolean =>
	limit.by === 'characters'
		? offsetOfGrapheme(text, limit.limit) < 0
		: measureText(text, limit.fontSize) <= limit.limit;

/** Where a reader cuts a text; -1 when it shows it whole. */
const offsetOfLimit = (text: string, limit: TextLimit): number =>
	limit.by === 'characters' ? offsetOfGrapheme(text, limit.limit) : offsetOfWidth(text, limit.limit, limit.fontSize);

/** Where the first of some readers that ask for a tag first cuts a text; -1 where all show it whole. */
export function firstCut(readers: readonly ReaderProfile[], tag: 'title' | 'description', text: string): number {
	let first = -1;
	for (const reader of readers) {
		if (reader[tag][0] !== tag || isShownWhole(text, reader.shows[tag])) continue;
		const at = offsetOfLimit(text, reader.shows[tag]);
		if (at >= 0 && (first < 0 || at < first)) first = at;
	}
	return first;
}

/** The pictures a reader shows: the first, or every one, each with the facts that stand directly after it (R11). */
function picturesOf(
	reader: ReaderProfile,
	head: Head,
	values: Values,
	seen: (address: string) => PictureSeen | undefined = () => undefined,
	more: MoreOfPage
): Pick<Card, 'pictures' | 'passedOver'> {
	const { frame } = reader;
	if (!frame) return { pictures: [], passedOver: [] };
	const known = picturesIn(head, 'og:image');
	const passedOver: Card['passedOver'][number][] = [];
	for (const from of frame.otherwise === 'first' ? [...reader.picture, 'img'] : reader.picture) {
		const taken: CardPicture[] = [];
		for (const picture of values.has(from) ? picturesIn(head, from, more) : []) {
			// A Twitter card picture has no facts of its own in the head: they stand with its Open Graph twin.
			const twin = known.find(({ address }) => address === picture.address);
			const is = seen(picture.address);
			const passes = (why: NoPicture) => passedOver.push(passing({ address: picture.address, from, because: why }));
			// One that believes what tags say sends on what they name: where there is nothing, nothing is shown.
			const believed = frame.judges === 'tags' && is && 'width' in is ? undefined : is;
			const why = believed && whyNot(believed, frame);
			// A picture in a form that it cannot read is none.
			const isRead = believed !== undefined || readsForm(frame, twin?.type, picture.address);
			if (why !== undefined) {
				passes(why);
				if (frame.failing === 'blank' || frame.judges === 'tags') return { pictures: taken, passedOver };
			} else if (isRead) {
				const { type: _type, ...facts } = { ...twin, ...picture };
				const real =
					believed && 'width' in believed ? { ...facts, width: believed.width, height: believed.height } : facts;
				const small = smallBecause(reader, real.width, values);
				const moves = frame.animated === 'moves' && is && 'width' in is && is.isAnimated;
				taken.push({
					...real,
					from,
					small: small !== undefined,
					...(small && becauseOf(small)),
					...(moves && { moves })
				});
				if (!frame.every) break;
			}
		}
		if (taken.length > 0) return { pictures: taken, passedOver };
	}
	return { pictures: [], passedOver };
}

const readsForm = ({ takes }: NonNullable<ReaderProfile['frame']>, type: string | undefined, address: string) =>
	(takes as readonly string[]).includes(formOf(type, address));

const passing = (one: Omit<PassedOver, 'why'>): PassedOver => ({ ...one, why: reasonWords().noPicture(one.because) });
const becauseOf = (because: SmallCard) => ({ because, why: reasonWords().smallCard(because) });

/** A card that was made elsewhere, with its reasons in the words of the language that is spoken now. */
export function cardInWords(card: Card): Card {
	const said = (one: CardPicture): CardPicture => (one.because ? { ...one, ...becauseOf(one.because) } : one);
	const pictures = card.pictures.map(said);
	return { ...card, picture: pictures[0], pictures, passedOver: card.passedOver.map(passing) };
}

/** Why a reader takes no picture that was fetched; undefined where it does. */
function whyNot(
	seen: PictureSeen,
	{ takes, maxBytes, animated }: NonNullable<ReaderProfile['frame']>
): NoPicture | undefined {
	if ('why' in seen) return seen.why;
	const form = formOf(seen.type, '');
	if (!(takes as readonly string[]).includes(form)) return { is: 'form', form: form.toUpperCase() };
	if (maxBytes !== undefined && seen.bytes > maxBytes) return { is: 'heavy', bytes: seen.bytes, most: maxBytes };
	if (Math.min(seen.width, seen.height) < LEAST_SIDE) {
		const { width, height } = seen;
		return { is: 'mark', width, height };
	}
	return seen.isAnimated && animated === 'none' ? { is: 'moves' } : undefined;
}

function smallBecause(
	{ frame, chooses }: ReaderProfile,
	width: number | undefined,
	values: Values
): SmallCard | undefined {
	if (chooses && values.get(chooses.by) !== chooses.large)
		return { is: 'chooses', by: chooses.by, says: values.get(chooses.by) };
	if (width !== undefined && frame && width < frame.minWidth) return { is: 'narrow', width, least: frame.minWidth };
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

function picturesIn(head: Head, name: string, more?: MoreOfPage): KnownPicture[] {
	const other = more?.get(name);
	const found: KnownPicture[] = other === undefined ? [] : [{ address: other }];
	for (const { tag, value } of head.tags) {
		if (!tag.name.startsWith(name)) continue;
		const last = found.at(-1);
		const of = tag.name.slice(name.length);
		if (of === '') found.push({ address: value });
		else if (last && of === ':type') last.type = value;
		else if (last && of === ':width') last.width = Number(value);
		else if (last && of === ':height') last.height = Number(value);
		else if (last && of === ':alt') last.alt = value;
	}
	return found;
}
