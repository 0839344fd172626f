import type { Fields, PictureMention } from '../model';
import { isEmpty, partOf, toText } from '../template/values';
import { cleanText, countGraphemes, firstSentences } from '../text/text';
import { htmlToText } from '../markup/plainText';
import { iconsOf, MANIFEST_PATH, nameOfIcon } from '../pictures/icons';
import { MEDIA_PATH } from '../pictures/shapes';
import { localeOf } from './legal';
import { BUILT_IN_PICTURES, choosePictures, pictureAt } from './pictures';
import type { Resolution } from './resolution';
import type { ChosenPicture, SkippedSource, TagValue } from './types';

/** A rule of the built-in layer (R5). `says` is how a trace names it. */
export interface BuiltIn {
	readonly tag: string;
	readonly says: string;
	/** Tags whose outcome it asks for. */
	readonly reads?: readonly string[];
	/** It is exactly a borrow of that tag. */
	readonly borrows?: string;
	/** It says nothing unless `og:type` is this. */
	readonly onlyFor?: string;
	/** It depends on site, type and language alone, and comes to the same on all their pages. */
	readonly isShared?: true;
	/** It chooses among picture sources and notes what it skips. */
	readonly choosesPictures?: true;
	/** Of several it takes the first. */
	readonly isFirst?: true;
	/** What it gives is legal for the tag as it is. */
	readonly isLegal?: true;
	readonly value: (page: Resolution, skipped?: SkippedSource[]) => TagValue | undefined;
}

/** A body's opening makes a description of about this many characters. */
const DESCRIPTION_AIM = 200;
/** From this size and shape on, a picture fills a large card. */
const LARGE = { width: 600, height: 300, shape: 1.4 };

const borrow = (tag: string, from: string): BuiltIn => ({
	tag,
	says: `what ${from} came to`,
	reads: [from],
	borrows: from,
	value: (page) => page.valueOf(from)
});
const field = (tag: string, name: string, says: string, when?: string): BuiltIn => ({
	tag,
	says,
	...(when && { reads: ['og:type'], onlyFor: when }),
	value: (page) => (when && page.textOf('og:type') !== when ? undefined : listOrText(page, name))
});

function listOrText(page: Resolution, name: string): TagValue | undefined {
	const value = page.pageValue(name);
	return Array.isArray(value) ? value.map(toText) : toText(value);
}

/** The built-in layer, in the order in which each tag's own candidates are tried. */
export const BUILT_INS: readonly BuiltIn[] = [
	{ tag: 'title', says: 'the page’s title', value: (page) => toText(page.pageValue('title')) },
	{ tag: 'title', says: 'the site’s name', isShared: true, value: (page) => toText(page.siteValue('name')) },
	{ tag: 'title', says: 'the path', value: (page) => page.page.path },
	{ tag: 'description', says: 'the page’s summary', value: (page) => toText(page.pageValue('summary')) },
	{ tag: 'description', says: 'the first sentences of the body', value: openingOfBody },
	{ tag: 'author', says: 'the page’s author', value: (page) => toText(page.pageValue('author')) },
	{ tag: 'canonical', says: 'the page’s address', isLegal: true, value: (page) => page.pageAddress },
	{ tag: 'robots', says: 'hidden from search', value: (page) => (page.isHidden ? 'noindex' : undefined) },
	{ tag: 'alternate', says: 'the page in its other languages', value: alternates },
	{ tag: 'icon', says: 'the site’s icon', isShared: true, value: icons },
	{ tag: 'apple-touch-icon', says: 'the site’s icon, if it is square', isShared: true, value: touchIcon },
	{ tag: 'manifest', says: 'made of the site’s icon, if it is square', isShared: true, value: manifest },
	borrow('og:title', 'title'),
	borrow('og:description', 'description'),
	{
		tag: 'og:type',
		says: 'the kind its type declares',
		isShared: true,
		value: (page) => toText(page.typeValue('kind')) || 'website'
	},
	borrow('og:url', 'canonical'),
	{ tag: 'og:site_name', says: 'the site’s name', isShared: true, value: (page) => toText(page.siteValue('name')) },
	{ tag: 'og:locale', says: 'the page’s language', isShared: true, value: (page) => localeOf(page.language) },
	{ tag: 'og:locale:alternate', says: 'its other languages', value: otherLocales },
	{
		tag: 'og:image',
		says: 'the lead picture, the first in the body, the type’s, the site’s',
		isLegal: true,
		choosesPictures: true,
		value: (page, skipped) => choosePictures(BUILT_IN_PICTURES, 'og:image', page, skipped)
	},
	field('article:published_time', 'published', 'when the page was published', 'article'),
	field('article:modified_time', 'modified', 'when the page last changed', 'article'),
	{
		tag: 'article:author',
		says: 'the address of the page’s author',
		reads: ['og:type'],
		onlyFor: 'article',
		value: (page) =>
			page.textOf('og:type') === 'article' ? toText(partOf(page.pageValue('author'), 'address')) : undefined
	},
	field('article:section', 'section', 'the page’s section', 'article'),
	field('article:tag', 'tags', 'the page’s tags', 'article'),
	{
		tag: 'twitter:card',
		says: 'large when the picture is wide and big enough',
		reads: ['twitter:image'],
		isLegal: true,
		value: cardForm
	},
	{
		tag: 'twitter:site',
		says: 'the site’s account',
		isShared: true,
		value: (page) => toText(page.siteValue('handle'))
	},
	{
		tag: 'twitter:creator',
		says: 'the account of the page’s author',
		value: (page) => toText(partOf(page.pageValue('author'), 'handle'))
	},
	borrow('twitter:title', 'og:title'),
	borrow('twitter:description', 'og:description'),
	{
		...borrow('twitter:image', 'og:image'),
		isFirst: true,
		isLegal: true,
		value: (page) => firstOnly(page.valueOf('og:image'))
	},
	{
		tag: 'twitter:image:alt',
		says: 'the alt text of the picture that won',
		reads: ['twitter:image', 'og:image', 'og:image:alt'],
		value: (page) => (samePicture(page) ? page.valueOf('og:image:alt') : page.pictureOf('twitter:image')?.alt)
	},
	{
		tag: 'og:image:alt',
		says: 'the alt text of the picture that won',
		reads: ['og:image'],
		value: (page) => page.pictureOf('og:image')?.alt
	}
];

const firstOnly = (value: TagValue | undefined) => (Array.isArray(value) ? value.slice(0, 1) : value);

/** The text given to a picture goes with it, to whichever tag shows the same picture. */
const samePicture = (page: Resolution) =>
	page.pictureOf('twitter:image')?.address === page.pictureOf('og:image')?.address;

/** Reading a body is the dearest of all: what it came to is kept with the fields it was read from. */
const openings = new WeakMap<Fields, { readonly language: string; readonly text: string }>();

function openingOfBody(page: Resolution): string | undefined {
	const body = toText(page.pageValue('body'));
	if (!body) return undefined;
	const known = openings.get(page.fields);
	if (known?.language === page.language) return known.text;
	const text = firstSentences(htmlToText(body.slice(0, 20_000)), DESCRIPTION_AIM, page.language);
	openings.set(page.fields, { language: page.language, text });
	return text;
}

/** The other languages of a page, then itself, then the default for readers of none of them. */
function alternates(page: Resolution): TagValue | undefined {
	if (!page.page.alternates) return undefined;
	const others = languagesOf(page);
	if (others.length === 0) return undefined;
	const all = [...others, [page.language, page.page.path] as const].sort(([a], [b]) => (a < b ? -1 : 1));
	const fallback = all.find(([language]) => language === page.site.languages[0]);
	return [...all, ...(fallback ? [['x-default', fallback[1]] as const] : [])].flatMap(([hreflang, path]) => {
		const value = page.addresses.ofValue(path, page.pageAddress);
		return value ? [{ value, attributes: { hreflang } }] : [];
	});
}

const languagesOf = (page: Resolution) =>
	Object.entries(page.page.alternates ?? {}).filter(([language]) => language !== page.language);

function otherLocales(page: Resolution): TagValue | undefined {
	if (!page.page.alternates) return undefined;
	return languagesOf(page)
		.flatMap(([language]) => localeOf(language) ?? [])
		.filter((locale) => locale !== localeOf(page.language))
		.sort();
}

/** The sizes an icon has when the site lists them, else the icon itself with its own size. */
function icons(page: Resolution): TagValue | undefined {
	const sized = page.siteValue('icons');
	const made = Array.isArray(sized) && sized.length > 0 ? undefined : madeIcons(page);
	if (made)
		return made.links.flatMap((file) => {
			const value = page.addresses.ofPicture(MEDIA_PATH + nameOfIcon(file), page.addresses.base);
			return value ? [{ value, attributes: { type: 'image/png', sizes: `${file.size}x${file.size}` } }] : [];
		});
	const mentions =
		Array.isArray(sized) && sized.length > 0 ? (sized as PictureMention[]) : [page.siteValue('icon') as PictureMention];
	return mentions.flatMap((mention) => {
		const src = typeof mention === 'string' ? mention : toText(partOf(mention, 'src'));
		const picture = isEmpty(src) ? undefined : pictureAt(src, page, page.addresses.base);
		return picture ? [{ value: picture.address, attributes: iconAttributes(picture) }] : [];
	});
}

/** The sizes made of the site's icon, where the library holds it and it is square. */
function madeIcons(page: Resolution) {
	const value = page.siteValue('icon');
	const src = typeof value === 'string' ? value : toText(partOf(value, 'src'));
	const picture = isEmpty(src) ? undefined : page.facts(src);
	return picture && iconsOf(picture);
}

function touchIcon(page: Resolution): TagValue | undefined {
	const file = madeIcons(page)?.touch;
	const picture = file && pictureAt(MEDIA_PATH + nameOfIcon(file), page, page.addresses.base);
	return picture && [picture];
}

function manifest(page: Resolution): string | undefined {
	return madeIcons(page)?.manifest.length ? page.addresses.ofPath(MANIFEST_PATH) : undefined;
}

function iconAttributes({ type, width, height }: ChosenPicture): Record<string, string> {
	const sizes = type === 'image/svg+xml' ? 'any' : width && height ? `${width}x${height}` : undefined;
	return { ...(type && { type }), ...(sizes && { sizes }) };
}

function cardForm(page: Resolution): string {
	const { width = 0, height = 0 } = page.pictureOf('twitter:image') ?? {};
	const large = width >= LARGE.width && height >= LARGE.height && width / height >= LARGE.shape;
	return large ? 'summary_large_image' : 'summary';
}

/** Words a minute that people read on a screen; the body's length by this gives `page.minutes`. */
const WORDS_A_MINUTE = 230;

/** Whole minutes to read a text, at least one for any text at all. Undefined for none. */
export function readingMinutes(body: string): number | undefined {
	const text = cleanText(htmlToText(body));
	if (text === '') return undefined;
	// A script without spaces is read at about 500 characters a minute.
	const words = text.split(' ').length;
	const dense = countGraphemes(text) / words > 20;
	return Math.max(1, Math.round(dense ? countGraphemes(text) / 500 : words / WORDS_A_MINUTE));
}
