import {
	canonicalLanguage,
	expectedOf,
	finding,
	isLanguageTag,
	legalValue,
	nearestWithin,
	ownOf,
	parseUrl,
	remembered,
	ROBOTS_DIRECTIVES,
	type Finding,
	type ServedHead,
	type ServedTag,
	type TagDefinition,
	type Target
} from '$core';
import { IN_WORDS, isPlaceholder, isStandIn, markupIn, saysNothing } from './slips';

/** So much of a value is looked at, and shown (UTF-16 code units). */
const MOST_LOOKED = 2000;
const MOST_SHOWN = 80;

/** What is wrong with what the tags of a head say, each by its kind; and what is nearly a tag, or data that cannot be read. */
export function findInValues(head: ServedHead, target: Target): Finding[] {
	const own = head.tags.filter(({ isBelow }) => !isBelow);
	return [
		...own.flatMap((one) => findInValue(one, target)),
		...findNear(head.near, target),
		...head.brokenData.map((data) =>
			finding('broken-data', target, undefined, { ...data, why: data.why.slice(0, 120) })
		),
		...findInLanguages(head, own, target),
		...findInDates(own, target),
		...findInForms(own, target)
	];
}

/** What is nearly a tag; of those that stand in another attribute as a whole, one is told for all. */
function findNear(near: ServedHead['near'], target: Target): Finding[] {
	const misplaced = near.filter(({ how }) => how === 'place');
	const others = near.filter(({ how }) => how !== 'place');
	const tags = [...new Set(misplaced.map(({ tag }) => tag))].slice(0, 5).join(', ');
	const told = [
		...misplaced.slice(0, 1).map((one) => ({ ...one, all: tags })),
		...others.map((one) => ({ ...one, all: one.tag }))
	];
	return told.map(({ how, seen, meant, tag, line, all }) =>
		finding('near-tag', target, tag, { tag: all, line, how, seen, meant })
	);
}

function findInValue({ name, tag, value: whole, line, attributes }: ServedTag, target: Target): Finding[] {
	const value = whole.slice(0, MOST_LOOKED).trim();
	if (!tag) return [];
	const of = { tag: name, line };
	// A title that is missing or empty is told by who asks for it.
	if (value === '')
		return ALWAYS_ASKED.has(name) || name.startsWith('meta:') ? [] : [finding('empty-tag', target, name, of)];
	if (IN_WORDS.test(name)) return findInWords(name, value, of, target);
	if (tag.kind === 'address' || tag.kind === 'picture') return findInAddress(tag, value, of, target);
	// Tags of one's own hold what they like.
	if (name.startsWith('meta:') || attributes.media !== undefined) return [];
	if (isStandIn(name, value)) return [finding('placeholder', target, name, { ...of, value })];
	return isLegal(tag, value) ? [] : [broken(tag, value, of, target)];
}
const ALWAYS_ASKED = new Set(['title', 'description', 'og:title', 'og:image']);

function findInWords(name: string, value: string, of: { tag: string; line: number }, target: Target): Finding[] {
	const shown = value.slice(0, MOST_SHOWN);
	if (isPlaceholder(name, value)) return [finding('placeholder', target, name, { ...of, value: shown })];
	const markup = markupIn(value);
	if (markup !== undefined)
		return [finding('markup-shown', target, name, { ...of, seen: markup.slice(0, MOST_SHOWN) })];
	const isTitle = name === 'title' || name === 'og:title' || name === 'twitter:title';
	if (isTitle && saysNothing(value)) return [finding('thin-title', target, name, { ...of, title: value })];
	return [];
}

/** Whether a value is as readers take it. A locale is written in one way, a language tag in another. */
function isLegal(tag: TagDefinition, value: string): boolean {
	const legal = legalValue(tag, value, 'UTC');
	if (legal === undefined) return false;
	if (tag.fact === 'width' || tag.fact === 'height') return legal !== '0';
	if (tag.kind === 'locale') return legal === value && knownLanguage(value.replace('_', '-')) === undefined;
	return !(tag.open && isSlip(value, tag.choices ?? []));
}

/** Shorter names are a few letters apart from anything. */
const LEAST_OF_A_SLIP = 5;
/** Whether a name of one's own choice is a known one but for a slip of the hand; one of a vocabulary of its own is meant. */
function isSlip(value: string, known: readonly string[]): boolean {
	const lower = value.toLowerCase();
	if (value.length < LEAST_OF_A_SLIP || value.includes(':') || known.includes(lower)) return false;
	return nearestWithin(lower, known, value.length < 9 ? 1 : 2) !== undefined;
}

const broken = (tag: TagDefinition, value: string, of: { tag: string; line: number }, target: Target) =>
	finding('value-broken', target, of.tag, {
		...{ ...of, value: value.slice(0, MOST_SHOWN), expected: expectedOf(tag), meant: meantBy(tag, value) }
	});

/** What those who follow links put behind an address. */
const MARKED = /[?&](?:utm_\w+|fbclid|gclid|msclkid|mc_eid|PHPSESSID|jsessionid)=|;jsessionid=/i;
/** Files that are no pictures, by their endings; programs may answer with one. */
const NO_PICTURE = /\.(?:html?|xhtml|pdf|txt|zip|mp4|webm|mp3|css|js|json)$/i;

function findInAddress(
	tag: TagDefinition,
	value: string,
	of: { tag: string; line: number },
	target: Target
): Finding[] {
	if (!isAddress(value)) return [broken(tag, value, of, target)];
	const isOwn = tag.name === 'canonical' || tag.name === 'og:url';
	const path = value.split(/[?#]/, 1)[0]!;
	const expected =
		isOwn && value.includes('#')
			? 'the address of a whole page'
			: isOwn && MARKED.test(value)
				? 'an address without marks of a visit or a campaign'
				: tag.kind === 'picture' && NO_PICTURE.test(path)
					? 'the address of a picture'
					: undefined;
	if (expected === undefined) return [];
	const meant = isOwn ? path : undefined;
	return [finding('value-broken', target, of.tag, { ...of, value: value.slice(0, MOST_SHOWN), expected, meant })];
}

/** What a value that is none is likely meant to be. */
function meantBy(tag: TagDefinition, value: string): string | undefined {
	switch (tag.kind) {
		case 'choice':
			return nearestWithin(value.toLowerCase().replaceAll('-', '_'), tag.choices ?? [], 2);
		case 'locale': {
			const language = value.replace('_', '-');
			const known = isLanguageTag(language) ? (knownLanguage(language) ?? canonicalLanguage(language)) : undefined;
			return known === undefined ? undefined : legalValue(tag, known);
		}
		case 'directives': {
			const parts = value.split(/[\s,;]+/).filter(Boolean);
			const meant = parts.map((part) =>
				legalValue(tag, part) !== undefined ? part : nearestWithin(part.toLowerCase(), ROBOTS_DIRECTIVES, 2)
			);
			return meant.length > 0 && meant.every((part) => part !== undefined) ? meant.join(', ') : undefined;
		}
		case 'date':
		case 'number':
		case 'handle':
		case 'language':
		case 'colour':
		case 'mediaType':
		case 'address':
		case 'picture':
		case 'text':
			return undefined;
	}
}

/** Whether an address is one that a browser would follow as it is meant; other schemes and relative ones are told apart. */
function isAddress(value: string): boolean {
	if (/^[a-z][a-z0-9+.-]*:/i.test(value) && !/^https?:/i.test(value)) return true;
	if (/^https?:(?!\/\/[^/])|^https?:\/\/https?[:/]/i.test(value)) return false;
	const url = parseUrl(value, 'https://a.example/');
	return url !== undefined && !/\s/.test(value);
}

let regions: Intl.DisplayNames | undefined;
let languages: Intl.DisplayNames | undefined;
/** Names by which people call languages and regions that have another code (ISO 639, ISO 3166). */
const CALLED: Readonly<Record<string, string>> = {
	...{ jp: 'ja', cz: 'cs', dk: 'da', gr: 'el', ua: 'uk', cn: 'zh', kr: 'ko', si: 'sl', uk: 'en-GB' }
};

/** What is likely meant by a tag whose language or region there is not; undefined for one that is known. */
const knownLanguage = remembered((tag: string): string | undefined => {
	const [language = '', ...rest] = tag.split('-');
	languages ??= new Intl.DisplayNames('en', { type: 'language', fallback: 'none' });
	regions ??= new Intl.DisplayNames('en', { type: 'region', fallback: 'none' });
	if (languages.of(language) === undefined) return [ownOf(CALLED, language.toLowerCase()) ?? '', ...rest].join('-');
	const region = rest.find((part) => /^(?:[a-z]{2}|\d{3})$/i.test(part));
	if (region?.toUpperCase() === 'UK') return canonicalLanguage(tag);
	return region !== undefined && regions.of(region.toUpperCase()) === undefined ? language : undefined;
});

function findInLanguages({ language }: ServedHead, own: readonly ServedTag[], target: Target): Finding[] {
	const found: Finding[] = [];
	const look = (value: string, where: string, line: number | undefined, tag?: string) => {
		const told = { where, line, value: value.slice(0, MOST_SHOWN) };
		const meant = isLanguageTag(value) ? knownLanguage(value) : '';
		if (meant === undefined) return;
		const isMeant = meant !== '' && isLanguageTag(meant);
		found.push(finding('language-broken', target, tag, { ...told, meant: isMeant ? meant : likely(value) }));
	};
	const documents = language?.trim() ?? '';
	if (language !== undefined) look(documents, 'The document', undefined);
	const locale = own.find(({ name }) => name === 'og:locale');
	if (isLanguageTag(documents) && locale && legalValue(locale.tag!, locale.value) === locale.value) {
		const [own, other] = [documents, locale.value.replace('_', '-')].map(spokenIn);
		const data = { line: locale.line, language: documents, tag: 'og:locale', value: locale.value };
		if (own !== other) found.push(finding('languages-differ', target, 'og:locale', data));
	}
	const itself = own.find(({ name }) => name === 'canonical')?.value;
	const seen = new Map<string, ServedTag>();
	for (const one of own) {
		const hreflang = one.name === 'alternate' ? one.attributes.hreflang?.trim() : undefined;
		if (hreflang === undefined) continue;
		if (hreflang.toLowerCase() !== 'x-default') {
			look(hreflang, 'hreflang', one.line, 'alternate');
			const isItself = itself !== undefined && one.value === itself;
			if (isItself && [documents, hreflang].every(isLanguageTag) && spokenIn(documents) !== spokenIn(hreflang))
				found.push(
					finding('languages-differ', target, 'alternate', {
						...{ line: one.line, language: documents, tag: 'hreflang', value: hreflang.slice(0, MOST_SHOWN) }
					})
				);
		}
		const before = seen.get(hreflang.toLowerCase());
		if (!before) seen.set(hreflang.toLowerCase(), one);
		else if (before.value !== one.value)
			found.push(
				finding('version-twice', target, 'alternate', { language: hreflang, line: one.line, other: before.line })
			);
	}
	return found;
}

function findInDates(own: readonly ServedTag[], target: Target): Finding[] {
	const of = (name: string) => own.find((one) => one.name === name);
	const [published, modified] = [of('article:published_time'), of('article:modified_time')];
	if (!published || !modified || !(Date.parse(modified.value) < Date.parse(published.value))) return [];
	const data = { line: modified.line, published: published.value, modified: modified.value };
	return [finding('dates-swapped', target, modified.name, data)];
}

/** What a feed is called that is no type of one. */
const NEARLY_FEED =
	/^(?:application|text)\/(?:atom|rss|rdf|x-rss|x-atom|rss\+atom|xml\+rss|xml\+atom)$|^text\/(?:atom|rss)\+xml$/i;
/** `any`, or sizes such as `32x32` (HTML standard, 4.6.7.9). */
const SIZES = /^\s*(?:any|\d{1,5}x\d{1,5})(?:\s+(?:any|\d{1,5}x\d{1,5}))*\s*$/i;

/** Values that are of the right kind each, and not beside what they stand with. */
function findInForms(own: readonly ServedTag[], target: Target): Finding[] {
	const found: Finding[] = [];
	const tell = ({ name, line }: ServedTag, value: string, expected: string, meant?: string) =>
		found.push(
			finding('value-broken', target, name, {
				...{ tag: name, line, expected, meant },
				value: value.slice(0, MOST_SHOWN)
			})
		);
	const locale = own.find(({ name }) => name === 'og:locale')?.value;
	for (const one of own) {
		const { name, value, attributes } = one;
		if (name === 'og:locale:alternate' && value !== '' && value === locale)
			tell(one, value, 'another locale than og:locale');
		if (name === 'icon' && attributes.sizes !== undefined && !SIZES.test(attributes.sizes))
			tell(one, attributes.sizes, 'sizes such as 32x32');
		if (name === 'alternate-form' && NEARLY_FEED.test(attributes.type?.trim() ?? ''))
			tell(one, attributes.type!, 'application/atom+xml or application/rss+xml');
	}
	return found;
}

/** The language of a tag; Norwegian is written as Bokmål where nothing else is said. */
const spokenIn = remembered((tag: string) => new Intl.Locale(tag).language.replace(/^no$/, 'nb'));

/** A language tag as people write it otherwise: `en_GB`, `EN-gb`. */
function likely(value: string): string | undefined {
	const text = value.replaceAll('_', '-');
	return isLanguageTag(text) && knownLanguage(text) === undefined ? canonicalLanguage(text) : undefined;
}
