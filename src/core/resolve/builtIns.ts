import { toText, isEmpty, partOf } from '../template/values';
import type { BodyReading, ContentType, Fields, Page, PictureMention } from '../model';
import { openingOf } from '../markup/reading';
import { iconsOf, MANIFEST_PATH, nameOfIcon } from '../pictures/icons';
import { MEDIA_PATH } from '../pictures/shapes';
import { canonicalLanguage } from '../text/text';
import { UNKNOWN_LANGUAGE } from './language';
import { localeOf } from './legal';
import { BUILT_IN_PICTURES, choosePictures, pictureAt } from './pictures';
import type { PageScope } from './scope';
import type { BuiltInName, SkippedSource } from './trace';
import type { ChosenPicture, Link, TagValue } from './value';

/** A rule of the built-in layer (R5). */
export interface BuiltIn {
	readonly tag: string;
	readonly name: BuiltInName;
	/** Tags whose outcome it asks for. */
	readonly reads?: readonly string[];
	/** It is exactly a borrow of that tag. */
	readonly borrows?: string;
	/** It says nothing unless `og:type` is this. */
	readonly onlyFor?: string;
	/** It depends on site, type and language alone, and comes to the same on all their pages. */
	readonly isShared?: true;
	/** It depends on nothing but the tags it reads. */
	readonly isDerived?: true;
	/** What it asks of the page before anything else: without it, it says nothing. */
	readonly needs?: PageNeed;
	/** It chooses among picture sources and notes what it skips. */
	readonly choosesPictures?: true;
	/** Of several it takes the first. */
	readonly isFirst?: true;
	/** What it gives is legal for the tag as it is. */
	readonly isLegal?: true;
	readonly value: (page: PageScope, skipped?: SkippedSource[]) => TagValue | undefined;
}

/** What most pages have not, and what a built-in that asks for it therefore says nothing of. */
export type PageNeed = 'author' | 'alternates' | 'hidden';

const NEEDS: Readonly<Record<PageNeed, number>> = { author: 1, alternates: 2, hidden: 4 };

/** What a page has of that, as one number: pages with the same share a plan. */
export function needsMet(page: Page, type: ContentType | undefined): number {
	let met = page.hidden === true || type?.special === 'not-found' ? NEEDS.hidden : 0;
	if (page.alternates) met |= NEEDS.alternates;
	const author = page.fields?.author;
	if (author !== undefined && author !== null) met |= NEEDS.author;
	return met;
}

/** Whether a number from `needsMet` holds a need. */
export const isMet = (need: PageNeed, met: number) => (met & NEEDS[need]) !== 0;

/**
 * A body's opening makes a description of at most so much: what the search listing that shows most of one still shows
 * whole. A test holds it to the readers' profiles.
 */
const DESCRIPTION_LIMITS = { graphemes: 200, ems: 68.5 } as const;
/** From this size (pixels) and shape (width by height) on, a picture fills a large card. */
const LARGE_CARD = { width: 600, height: 300, shape: 1.4 } as const;

const borrow = (tag: string, from: string): BuiltIn => ({
	tag,
	name: 'borrow',
	reads: [from],
	borrows: from,
	isDerived: true,
	value: (page) => page.valueOf(from)
});
const ofArticle = (tag: string, name: BuiltInName, value: (page: PageScope) => TagValue | undefined): BuiltIn => ({
	tag,
	name,
	reads: ['og:type'],
	onlyFor: 'article',
	value: (page) => (page.textOf('og:type') === 'article' ? value(page) : undefined)
});
const field = (name: string) => (page: PageScope) => toText(page.pageValue(name));
const ofSite = (name: string) => (page: PageScope) => toText(page.siteValue(name));
const ofAuthor = (part: string) => (page: PageScope) => toText(partOf(page.pageValue('author'), part));

/** What a private site says before all that any layer could: nothing of it is for search. */
export const OF_PRIVATE: BuiltIn = { tag: 'robots', name: 'private-site', isShared: true, value: () => 'noindex' };

/** The built-in layer, in the order in which each tag's own candidates are tried. */
export const BUILT_INS: readonly BuiltIn[] = [
	{ tag: 'title', name: 'page-title', value: field('title') },
	{ tag: 'title', name: 'site-name', isShared: true, value: ofSite('name') },
	{ tag: 'title', name: 'path', value: (page) => page.page.path },
	{ tag: 'description', name: 'page-summary', value: field('summary') },
	{ tag: 'description', name: 'body-opening', value: openingOfBody },
	{ tag: 'author', name: 'page-author', needs: 'author', value: field('author') },
	// What is not found stands nowhere.
	{
		...{ tag: 'canonical', name: 'page-address', isLegal: true },
		value: (page) => (page.type?.special === 'not-found' ? undefined : page.pageAddress)
	},
	{ tag: 'robots', name: 'hidden', needs: 'hidden', value: (page) => (page.isHidden ? 'noindex' : undefined) },
	{ tag: 'alternate', name: 'other-versions', needs: 'alternates', value: alternates },
	{ tag: 'icon', name: 'site-icon', isShared: true, value: icons },
	{ tag: 'apple-touch-icon', name: 'square-icon', isShared: true, value: touchIcon },
	{ tag: 'manifest', name: 'icon-manifest', isShared: true, value: manifest },
	borrow('og:title', 'title'),
	borrow('og:description', 'description'),
	{ tag: 'og:type', name: 'type-kind', isShared: true, value: (page) => toText(page.typeValue('kind')) || 'website' },
	borrow('og:url', 'canonical'),
	{ tag: 'og:site_name', name: 'site-name', isShared: true, value: ofSite('name') },
	{ tag: 'og:locale', name: 'page-language', isShared: true, value: (page) => localeOf(page.language) },
	{ tag: 'og:locale:alternate', name: 'other-languages', needs: 'alternates', value: otherLocales },
	{
		tag: 'og:image',
		name: 'page-pictures',
		isLegal: true,
		choosesPictures: true,
		value: (page, skipped) => choosePictures(BUILT_IN_PICTURES, 'og:image', page, skipped)
	},
	ofArticle('article:published_time', 'page-published', field('published')),
	ofArticle('article:modified_time', 'page-modified', field('modified')),
	ofArticle('article:author', 'author-address', ofAuthor('address')),
	ofArticle('article:section', 'page-section', field('section')),
	ofArticle('article:tag', 'page-tags', (page) => {
		const tags = page.pageValue('tags');
		return Array.isArray(tags) ? tags.map(toText) : toText(tags);
	}),
	{
		tag: 'twitter:card',
		name: 'picture-size',
		reads: ['twitter:image'],
		isDerived: true,
		isLegal: true,
		value: cardForm
	},
	{ tag: 'twitter:site', name: 'site-handle', isShared: true, value: ofSite('handle') },
	{ tag: 'twitter:creator', name: 'author-handle', needs: 'author', value: ofAuthor('handle') },
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
		name: 'picture-alt',
		reads: ['twitter:image', 'og:image', 'og:image:alt'],
		isDerived: true,
		value: altOfCard
	},
	{
		tag: 'og:image:alt',
		name: 'picture-alt',
		reads: ['og:image'],
		isDerived: true,
		value: (page) => page.pictureOf('og:image')?.alt
	}
];

const firstOnly = (value: TagValue | undefined) => (Array.isArray(value) ? value.slice(0, 1) : value);

/** The text given to a picture goes with it, to every tag that shows the same picture, however it is cut there. */
function altOfCard(page: PageScope): TagValue | undefined {
	const picture = page.pictureOf('twitter:image');
	if (!picture) return undefined;
	const isShared = picture.src === page.pictureOf('og:image')?.src;
	return (isShared ? page.valueOf('og:image:alt') : undefined) ?? picture.alt;
}

/** Reading a body is the dearest of all: what it came to is kept with the fields it was read from. */
const readings = new WeakMap<Fields, BodyReading>();

/** What was read out of a page's body while it was resolved; undefined when nothing asked for it. */
export const readingOfBody = ({ fields }: Page): BodyReading | undefined => readings.get(fields);

function openingOfBody(page: PageScope): string | undefined {
	const known = page.page.reading ?? readings.get(page.fields);
	if (known?.language === page.language) return known.opening;
	const body = toText(page.pageValue('body'));
	if (!body) return undefined;
	const opening = openingOf(body, DESCRIPTION_LIMITS, page.language);
	readings.set(page.fields, { language: page.language, opening });
	return opening;
}

/** For readers of none of the languages. */
const FALLBACK = 'x-default';

/**
 * The versions of a page that can be told of: a language tag, and an address that is one. The page itself stands at its
 * own address. Of two tags that differ by case alone, the first counts.
 */
function versionsOf(page: PageScope): Map<string, string> {
	const versions = new Map<string, string>();
	const own = page.page.alternates ?? {};
	for (const [key, path] of [...Object.entries(own), [page.language, page.page.path] as const]) {
		const language = key.toLowerCase() === FALLBACK ? FALLBACK : canonicalLanguage(key);
		if (language === undefined || language === UNKNOWN_LANGUAGE || versions.has(language)) continue;
		const address = isOwn(page, language) ? page.pageAddress : addressOfVersion(page, path);
		if (address !== undefined) versions.set(language, address);
	}
	return versions;
}

const isOwn = (page: PageScope, language: string) => language === canonicalLanguage(page.language);

/** A path is a page's, and an address of its own stands as it is. */
const addressOfVersion = ({ addresses, pageAddress }: PageScope, path: string) =>
	path.startsWith('/') ? addresses.ofPath(path) : addresses.ofValue(path, pageAddress);

/** The languages of a page in order, itself among them, then the one for readers of none of them: the site's first. */
function alternates(page: PageScope): TagValue | undefined {
	if (!page.page.alternates) return undefined;
	const versions = versionsOf(page);
	const fallback = versions.get(FALLBACK) ?? versions.get(canonicalLanguage(page.site.languages[0] ?? '') ?? '');
	versions.delete(FALLBACK);
	if (![...versions.keys()].some((language) => !isOwn(page, language))) return undefined;
	const links = [...versions].sort(([a], [b]) => (a < b ? -1 : 1));
	return [...links, ...(fallback === undefined ? [] : [[FALLBACK, fallback] as const])].map(
		([hreflang, address]): Link => ({ kind: 'link', address, attributes: { hreflang } })
	);
}

function otherLocales(page: PageScope): TagValue | undefined {
	if (!page.page.alternates) return undefined;
	const own = localeOf(page.language);
	const locales = [...versionsOf(page).keys()].flatMap((language) => localeOf(language) ?? []);
	return [...new Set(locales)].filter((locale) => locale !== own).sort();
}

/** The sizes an icon has when the site lists them, else the icon itself with its own size. */
function icons(page: PageScope): TagValue | undefined {
	const sized = page.siteValue('icons');
	const made = Array.isArray(sized) && sized.length > 0 ? undefined : madeIcons(page);
	if (made)
		return made.links.flatMap((file) => {
			const value = page.addresses.ofPicture(MEDIA_PATH + nameOfIcon(file), page.addresses.base);
			const attributes = { type: 'image/png', sizes: `${file.size}x${file.size}` };
			return value ? [{ kind: 'link' as const, address: value, attributes }] : [];
		});
	const mentions =
		Array.isArray(sized) && sized.length > 0 ? (sized as PictureMention[]) : [page.siteValue('icon') as PictureMention];
	return mentions.flatMap((mention) => {
		const src = typeof mention === 'string' ? mention : toText(partOf(mention, 'src'));
		const picture = isEmpty(src) ? undefined : pictureAt(src, page, page.addresses.base);
		return picture ? [{ kind: 'link' as const, address: picture.address, attributes: iconAttributes(picture) }] : [];
	});
}

/** The sizes made of the site's icon, where the library holds it and it is square. */
function madeIcons(page: PageScope) {
	const value = page.siteValue('icon');
	const src = typeof value === 'string' ? value : toText(partOf(value, 'src'));
	const picture = isEmpty(src) ? undefined : page.facts(src);
	return picture && iconsOf(picture);
}

function touchIcon(page: PageScope): TagValue | undefined {
	const file = madeIcons(page)?.touch;
	const picture = file && pictureAt(MEDIA_PATH + nameOfIcon(file), page, page.addresses.base);
	return picture && [picture];
}

function manifest(page: PageScope): string | undefined {
	return madeIcons(page)?.manifest.length ? page.addresses.ofPath(MANIFEST_PATH) : undefined;
}

function iconAttributes({ type, width, height }: ChosenPicture): Record<string, string> {
	const sizes = type === 'image/svg+xml' ? 'any' : width && height ? `${width}x${height}` : undefined;
	return { ...(type && { type }), ...(sizes && { sizes }) };
}

function cardForm(page: PageScope): string {
	const { width = 0, height = 0 } = page.pictureOf('twitter:image') ?? {};
	const large = width >= LARGE_CARD.width && height >= LARGE_CARD.height && width / height >= LARGE_CARD.shape;
	return large ? 'summary_large_image' : 'summary';
}
