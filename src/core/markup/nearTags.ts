import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import { CATALOGUE, tagOfName } from '../catalogue/catalogue';
import { nearestWithin } from '../issue';
import { attribute } from './readPage';

/** Something in a head that is nearly a tag: written so, it is another thing, or nothing. */
export interface NearTag {
	/**
	 * What is not as it is meant: the name, the attribute that the name or the value stands in, a link’s relation, or the
	 * quotation marks round a value.
	 */
	readonly how: 'name' | 'attribute' | 'content' | 'place' | 'rel' | 'quotes';
	/** As it is written, and as it is likely meant. */
	readonly seen: string;
	readonly meant: string;
	/** The tag that is meant. */
	readonly tag: string;
	/** Where it begins, from 1. */
	readonly line: number;
	readonly column: number;
}

const NAMES = CATALOGUE.filter(({ place }) => place === 'name' || place === 'property').map(({ key }) => key);
/** Names of the markup’s own that others read (HTML standard, 4.2.5.1). */
const STANDARD = ['viewport', 'generator', 'application-name', 'color-scheme', 'referrer'];
const RELS = ['canonical', 'alternate', 'icon', 'shortcut icon', 'apple-touch-icon', 'manifest'];
/** Relations that are near to one of those and are another (HTML standard, 4.6.7, and what browsers read beside). */
const OTHER_RELS = /^(?:mask-icon|fluid-icon|apple-touch-icon-precomposed|icons?\d*|alternate stylesheet|stylesheet)$/;
/** Names of the vocabularies whose names are known: what is near to one of theirs is likely meant. */
const OF_VOCABULARY = /^(?:og|twitter|article|book|profile|music|video):/i;
/** An address, or a path from the root. */
const ADDRESS = /^(?:https?:)?\/\S/i;
/** Attributes of a `meta` that give it a name (HTML standard, 4.2.5; RDFa; microdata). */
const NAMING = ['name', 'property', 'http-equiv', 'charset', 'itemprop'];
/** Shorter names are too many edits apart from nothing. */
const LEAST_LENGTH = 5;

/** So many edits away from a name is near it: one in a short one. */
const mostEdits = (seen: string) => (seen.length < 9 ? 1 : 2);
const nearest = (seen: string, names: readonly string[]) =>
	seen.length < LEAST_LENGTH ? undefined : nearestWithin(seen, names, mostEdits(seen));

/** What of an element is nearly a tag; most say nothing of the kind. */
export function nearTagsIn(element: Tree.Element): NearTag[] {
	const place = element.sourceCodeLocation;
	if (!place) return [];
	const at = { line: place.startLine, column: place.startCol };
	if (element.tagName === 'link') return nearLink(element).map((one) => ({ ...one, ...at }));
	return element.tagName === 'meta' ? nearMeta(element).map((one) => ({ ...one, ...at })) : [];
}

type Near = Omit<NearTag, 'line' | 'column'>;

function nearLink(element: Tree.Element): Near[] {
	const rel = attribute(element, 'rel')?.toLowerCase().trim();
	if (!rel) return [];
	if (attribute(element, 'href') === undefined) {
		const instead = element.attrs.find(({ name, value }) => name !== 'rel' && ADDRESS.test(value));
		return instead && RELS.includes(rel) ? [{ how: 'content', seen: instead.name, meant: 'href', tag: rel }] : [];
	}
	if (RELS.includes(rel) || OTHER_RELS.test(rel)) return [];
	const meant = nearest(rel, RELS);
	return meant === undefined ? [] : [{ how: 'rel', seen: rel, meant, tag: meant }];
}

function nearMeta(element: Tree.Element): Near[] {
	const named = NAMING.some((name) => attribute(element, name) !== undefined);
	if (!named) return nearAttribute(element);
	const [property, name] = [attribute(element, 'property')?.trim(), attribute(element, 'name')?.trim()];
	const said = property ?? name;
	if (said === undefined) return [];
	const tag = tagOfName(said);
	if (!tag) {
		if (STANDARD.includes(said.toLowerCase())) return [];
		const names = OF_VOCABULARY.test(said) ? NAMES : [...NAMES.filter((one) => !one.includes(':')), ...STANDARD];
		const meant = nearest(said.toLowerCase(), property === undefined || said.includes(':') ? names : NAMES);
		return meant === undefined ? [] : [{ how: 'name', seen: said, meant, tag: meant }];
	}
	const quoted = badlyQuoted(element);
	if (quoted !== undefined) return [{ how: 'quotes', seen: quoted, meant: '"', tag: tag.name }];
	if (attribute(element, 'content') === undefined) {
		const instead = element.attrs.find((one) => !NAMING.includes(one.name));
		return instead ? [{ how: 'content', seen: instead.name, meant: 'content', tag: tag.name }] : [];
	}
	return property === undefined && tag.place === 'property'
		? [{ how: 'place', seen: 'name', meant: 'property', tag: tag.name }]
		: [];
}

/** What shows that a value is not enclosed as it is meant: typographic marks are none, and one that is open takes in what follows. */
function badlyQuoted(element: Tree.Element): string | undefined {
	const content = attribute(element, 'content') ?? '';
	const runsOn = /<(?:meta|link|title|\/head)\b/i.exec(content.slice(0, MOST_LOOKED));
	if (runsOn) return content.slice(Math.max(0, runsOn.index - 30), runsOn.index + 10);
	const within = element.attrs.find(({ name }) => /["']/.test(name));
	if (within) return `${content.slice(0, 40)}" ${within.name}`;
	const isSplit = element.attrs.filter(({ value }) => value === '').length > 1;
	return /^[“”„‘’]/.test(content) && isSplit ? content.slice(0, 40) : undefined;
}
const MOST_LOOKED = 2000;

/** The name of a tag in an attribute that names nothing. */
function nearAttribute(element: Tree.Element): Near[] {
	const odd = element.attrs.find(
		({ name, value }) => name !== 'content' && tagOfName(value.trim()) !== undefined && value.length >= LEAST_LENGTH
	);
	const tag = odd && tagOfName(odd.value.trim());
	if (!odd || !tag || tag.place === 'rel') return [];
	const meant = tag.place === 'property' ? 'property' : 'name';
	return [{ how: 'attribute', seen: odd.name, meant, tag: tag.name }];
}
