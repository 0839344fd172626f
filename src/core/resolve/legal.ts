import type { TagDefinition, TagKind } from '../catalogue/types';
import { isLanguageTag } from '../text/text';
import { UNKNOWN_LANGUAGE } from './language';
import { toIsoDate } from '../template/dates';

/** Directives that the search engines' common robots vocabulary knows; those with a colon take a value. */
const DIRECTIVES = new Set([
	'all',
	'index',
	'follow',
	'noindex',
	'nofollow',
	'none',
	'noarchive',
	'nosnippet',
	'notranslate',
	'noimageindex',
	'indexifembedded'
]);
const VALUED: Readonly<Record<string, RegExp>> = {
	'max-snippet': /^-1$|^\d{1,6}$/,
	'max-video-preview': /^-1$|^\d{1,6}$/,
	'max-image-preview': /^(none|standard|large)$/,
	unavailable_after: /^\S.*$/
};
export const ROBOTS_DIRECTIVES: readonly string[] = [...DIRECTIVES, ...Object.keys(VALUED)];

const COLOUR =
	/^(#[0-9a-f]{3,4}|#[0-9a-f]{6}|#[0-9a-f]{8}|[a-z]{3,24}|(rgb|hsl|oklch|oklab|lab|lch|hwb|color)a?\([^()<>"']{1,60}\))$/i;

/** What a legal value of each kind looks like, in words that finish "is not …". */
const KIND_EXPECTED: Readonly<Record<TagKind, string>> = {
	text: 'a text',
	address: 'an http or https address',
	picture: 'the address of a picture',
	date: 'a date such as 2026-05-03 or 2026-05-03T18:30:00+02:00',
	number: 'a whole number',
	choice: 'one of the known values',
	language: 'a language tag such as "en-GB"',
	locale: 'a locale such as "en_GB"',
	handle: 'an account name such as "@merrowcoast"',
	colour: 'a CSS colour',
	directives: 'a list of robots directives such as "noindex, max-snippet:50"',
	mediaType: 'a media type such as "image/jpeg"'
};

/** What a legal value of a tag looks like, in words that finish "is not …". */
export const expectedOf = ({ kind, choices, open }: TagDefinition): string =>
	choices && !open ? `one of ${choices.join(', ')}` : KIND_EXPECTED[kind];

/**
 * The legal form of a settled text for a tag, or undefined when it has none. Dates without an offset are the time zone's. Addresses and pictures are made legal
 * elsewhere: they need the site's base.
 */
export function legalValue(tag: TagDefinition, text: string, timeZone?: string): string | undefined {
	switch (tag.kind) {
		case 'text':
		case 'address':
		case 'picture':
			return text;
		case 'date':
			return toIsoDate(text, timeZone);
		case 'number':
			return /^\d{1,9}$/.test(text) ? String(Number(text)) : undefined;
		case 'choice':
			return tag.choices?.includes(text) || (tag.open && /^[\w.-]+(:[\w.-]+)?$/.test(text)) ? text : undefined;
		case 'language':
			return isLanguageTag(text) ? Intl.getCanonicalLocales(text)[0] : undefined;
		case 'locale':
			return /^[a-z]{2,3}_([A-Z]{2}|\d{3})$/.test(text) ? text : localeOf(text);
		case 'handle':
			return /^@?\w{1,30}$/.test(text) ? `@${text.replace('@', '')}` : undefined;
		case 'colour':
			return COLOUR.test(text) ? text : undefined;
		case 'directives':
			return legalDirectives(text);
		case 'mediaType':
			return legalMediaType(text);
	}
}

/** `type/subtype` by the characters of RFC 6838, section 4.2, in lower case. */
export const legalMediaType = (text: string): string | undefined =>
	/^[a-z0-9][a-z0-9!#$&^_.+-]{0,126}\/[a-z0-9][a-z0-9!#$&^_.+-]{0,126}$/i.test(text) ? text.toLowerCase() : undefined;

const locales = new Map<string, string | undefined>();
/** Sites have a handful of languages; data from outside may hold any number of texts. */
const MOST_LOCALES = 1000;

/** A language tag as Open Graph writes it, `language_TERRITORY`; the likely territory where the tag names none. */
export function localeOf(language: string): string | undefined {
	if (!locales.has(language)) {
		if (locales.size >= MOST_LOCALES) locales.clear();
		locales.set(language, workOutLocale(language));
	}
	return locales.get(language);
}

function workOutLocale(language: string): string | undefined {
	if (!isLanguageTag(language) || language === UNKNOWN_LANGUAGE) return undefined;
	const locale = new Intl.Locale(language);
	const region = locale.region ?? locale.maximize().region;
	return region && `${locale.language}_${region}`;
}

/** Directives in lower case, each once, in their order; undefined when one is unknown. */
function legalDirectives(text: string): string | undefined {
	const parts = [...new Set(text.split(',').map((part) => part.trim()))].filter(Boolean).map(legalDirective);
	return parts.length && parts.every((part) => part !== undefined) ? parts.join(', ') : undefined;
}

function legalDirective(part: string): string | undefined {
	const [name = '', ...rest] = part.split(':');
	const key = name.trim().toLowerCase();
	if (DIRECTIVES.has(key) && rest.length === 0) return key;
	const value = rest.join(':').trim();
	if (!Object.hasOwn(VALUED, key) || !VALUED[key]!.test(value)) return undefined;
	return `${key}:${key === 'unavailable_after' ? ` ${value}` : value}`;
}
