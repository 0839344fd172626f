import { html as spec, type DefaultTreeAdapterTypes as Tree } from 'parse5';
import { findTag, tagOfName } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import { settleText } from '../text/text';
import { attribute, elementsOf, nameOfAlternate, readRefresh } from './readPage';
import { parseDocument } from './parseBounded';
import { textOf } from './plainText';

/** One tag of a head as it is served. */
export interface ServedTag {
	/** Its name as markup writes it: `title`, `og:image`, `canonical`. */
	readonly name: string;
	readonly value: string;
	/** The tag of the catalogue that it is; undefined for one that is not known. */
	readonly tag: TagDefinition | undefined;
	/** Where it begins, from 1. */
	readonly line: number;
	readonly column: number;
	/** Bytes of the page, about, before its end. */
	readonly end: number;
	/** It stands below the head, where most readers do not look. */
	readonly isBelow: boolean;
	/** Attributes beside the name and the value. */
	readonly attributes: Readonly<Record<string, string>>;
}

/** What a served page says to readers of links. */
export interface ServedHead {
	readonly tags: readonly ServedTag[];
	/** The first pictures of the page. */
	readonly pictures: readonly string[];
	/** Words in the body, and scripts: many scripts and no words are a shell that scripts fill. */
	readonly words: number;
	readonly scripts: number;
	/** What relative addresses stand under, where its first `base` element says so; as written (HTML standard, 4.2.3). */
	readonly base: string | undefined;
	/** Where it goes on to by a refresh in its markup, and after how many seconds. */
	readonly refresh: { readonly to: string; readonly seconds: number } | undefined;
	/** There is a field for a password. */
	readonly asksToSignIn: boolean;
	/** Where the declaration of the encoding ends, in characters, and what it says; undefined for none. */
	readonly charsetAt: number | undefined;
	readonly charset: string | undefined;
}

const LINKS = /^(canonical|icon|shortcut icon|apple-touch-icon|manifest|alternate|author|me)$/;
const MOST_PICTURES = 20;
/** Tags that are kept of one page: no head has as many. */
const MOST_TAGS = 2000;

/** The encoding that a media type names. */
export const charsetIn = (type: string): string | undefined => /charset\s*=\s*["']?([\w:.-]+)/i.exec(type)?.[1];

/**
 * Reads what is served as a browser without scripts would build it, with the place of each tag: a picture in the head's
 * `noscript` ends the head for such a reader. Never throws, whatever the text.
 */
export function readServedHead(html: string): ServedHead {
	const document = parseDocument(html, { sourceCodeLocationInfo: true, scriptingEnabled: false });
	const tags: ServedTag[] = [];
	const pictures: string[] = [];
	let [words, scripts, isBelow, asksToSignIn] = [0, 0, false, false];
	let base: string | undefined;
	let refresh: ServedHead['refresh'];
	let charsetAt: number | undefined;
	let charset: string | undefined;
	for (const element of elementsOf(document)) {
		const { tagName } = element;
		if (tagName === 'body') {
			isBelow = true;
			words = countWords(textOf(element));
		} else if (tagName === 'script') scripts++;
		else if (tagName === 'base') base ??= attribute(element, 'href');
		else if (tagName === 'img') {
			const src = attribute(element, 'src');
			if (src && pictures.length < MOST_PICTURES) pictures.push(src);
		} else if (tagName === 'input') asksToSignIn ||= attribute(element, 'type')?.toLowerCase() === 'password';
		else if (tagName === 'meta') {
			const equiv = attribute(element, 'http-equiv')?.toLowerCase();
			if (equiv === 'refresh') refresh ??= readRefresh(attribute(element, 'content'));
			const said =
				equiv === 'content-type' ? charsetIn(attribute(element, 'content') ?? '') : attribute(element, 'charset');
			if (said !== undefined && charset === undefined) {
				charset = said.trim();
				charsetAt = element.sourceCodeLocation?.endOffset;
			}
		}
		for (const name of namesOf(element)) {
			const tag = servedTag(element, name, isBelow);
			if (tag && tags.length < MOST_TAGS) tags.push(tag);
		}
	}
	return { tags, pictures, words, scripts, base, refresh, asksToSignIn, charsetAt, charset };
}

/** Runs of letters between white space. */
function countWords(text: string): number {
	let count = 0;
	for (const _ of text.matchAll(/\S+/g)) count++;
	return count;
}

function servedTag(element: Tree.Element, name: string, isBelow: boolean): ServedTag | undefined {
	const value = valueOf(element);
	const place = element.sourceCodeLocation;
	if (value === undefined || !place) return undefined;
	const known = tagOfName(name) ?? (element.tagName === 'meta' ? findTag(`meta:${name}`) : undefined);
	const attributes = Object.fromEntries(
		element.attrs
			.filter((one) => /^(hreflang|sizes|type|media|title|data-.*)$/.test(one.name))
			.map((one) => [one.name, one.value])
	);
	return {
		...{ name: known?.name ?? name, value, tag: known, isBelow, attributes },
		...{ line: place.startLine, column: place.startCol, end: place.endOffset }
	};
}

/** The names that an element speaks under: a `meta` that has a property and a name speaks under both. */
function namesOf(element: Tree.Element): string[] {
	if (element.tagName === 'title') return element.namespaceURI === spec.NS.HTML ? ['title'] : [];
	if (element.tagName === 'meta') {
		const names = [attribute(element, 'property'), attribute(element, 'name')];
		return [...new Set(names.filter((name) => name !== undefined))];
	}
	const rel = element.tagName === 'link' ? attribute(element, 'rel')?.toLowerCase().trim() : undefined;
	if (rel === undefined || !LINKS.test(rel)) return [];
	return [rel === 'alternate' ? (nameOfAlternate(element) ?? 'alternate-form') : rel];
}

function valueOf(element: Tree.Element): string | undefined {
	if (element.tagName === 'title') return settleText(textOf(element));
	if (element.tagName === 'meta') return settleText(attribute(element, 'content') ?? '');
	return attribute(element, 'href')?.trim();
}
