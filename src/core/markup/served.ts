import { html as spec, type DefaultTreeAdapterTypes as Tree } from 'parse5';
import { findTag, tagOfName } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import { settleText } from '../text/text';
import { attribute, elementsOf, nameOfAlternate, relOf, readRefresh } from './readPage';
import { parseDocument } from './parseBounded';
import { nearTagsIn, type NearTag } from './nearTags';
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
	/** What else it says of itself, under the names that readers ask for: `h1`, `ld:name`, `itemprop:image`; as written. */
	readonly more: ReadonlyMap<string, string>;
	/** Where its oEmbed stands, as written (oEmbed 1.0, 4). */
	readonly oembed: string | undefined;
	/** Words in the body, counted up to 200, and scripts: many scripts and no words are a shell that scripts fill. */
	readonly words: number;
	readonly scripts: number;
	/** What relative addresses stand under, where its first `base` element says so; as written (HTML standard, 4.2.3); and the line of that. */
	readonly base: string | undefined;
	readonly baseAt: number | undefined;
	/** Where it goes on to by a refresh in its markup, and after how many seconds. */
	readonly refresh: { readonly to: string; readonly seconds: number } | undefined;
	/** There is a field for a password, or one for a name or an address in a page that says that one signs in there. */
	readonly asksToSignIn: boolean;
	/** What is nearly a tag of the head. */
	readonly near: readonly NearTag[];
	/** JSON-LD that cannot be read, by the line that it begins in, and why. */
	readonly brokenData: readonly { readonly line: number; readonly why: string }[];
	/** What JSON-LD says, text by text: each with the name that it stands under, and the line that its script begins in. */
	readonly data: readonly SaidInData[];
	/** The language that the document says it is in, as written. */
	readonly language: string | undefined;
	/** Where the declaration of the encoding ends, in characters, and what it says; undefined for none. */
	readonly charsetAt: number | undefined;
	readonly charset: string | undefined;
	/** The line of that, and a later declaration with what it says. */
	readonly charsetLine: number | undefined;
	readonly charsetAgain: { readonly line: number; readonly said: string } | undefined;
}

/** A text in JSON-LD. */
interface SaidInData {
	readonly name: string;
	readonly value: string;
	readonly line: number;
}

/** Elements whose place in the text is told. */
const PLACED = new Set(['title', 'meta', 'link', 'script', 'base']);
/** Elements that are tags of a head, or nearly. */
const SPEAKING = new Set(['title', 'meta', 'link']);
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
	const document = parseDocument(html, { sourceCodeLocationInfo: true, scriptingEnabled: false }, PLACED);
	const reading = new Reading();
	for (const element of elementsOf(document)) reading.take(element);
	return reading.head();
}

/** What is gathered of a page, element by element. */
class Reading {
	private readonly tags: ServedTag[] = [];
	private readonly pictures: string[] = [];
	private readonly more = new Map<string, string>();
	private readonly near: NearTag[] = [];
	private readonly brokenData: { line: number; why: string }[] = [];
	private words = 0;
	private scripts = 0;
	private isBelow = false;
	private asksForPassword = false;
	private asksForName = false;
	private language: string | undefined;
	private oembed: string | undefined;
	private base: string | undefined;
	private baseAt: number | undefined;
	private readonly data: SaidInData[] = [];
	private charsetLine: number | undefined;
	private charsetAgain: ServedHead['charsetAgain'];
	private refresh: ServedHead['refresh'];
	private charsetAt: number | undefined;
	private charset: string | undefined;

	take(element: Tree.Element) {
		this.takeKind(element);
		const property = attribute(element, 'itemprop')?.trim();
		if (property && /^[\w-]{1,40}$/.test(property)) this.say(`itemprop:${property}`, propertyOf(element));
		if (!SPEAKING.has(element.tagName)) return;
		if (!this.isBelow && this.near.length < MOST_PICTURES) this.near.push(...nearTagsIn(element));
		for (const name of namesOf(element)) {
			const tag = servedTag(element, name, this.isBelow);
			if (tag && this.tags.length < MOST_TAGS) this.tags.push(tag);
		}
	}

	/** What an element says by being what it is. */
	private takeKind(element: Tree.Element) {
		switch (element.tagName) {
			case 'html':
				this.language = attribute(element, 'lang');
				break;
			case 'body':
				this.isBelow = true;
				this.words = countWords(textOf(element));
				break;
			case 'script':
				this.takeScript(element);
				break;
			case 'h1':
				this.say('h1', settleText(textOf(element)));
				break;
			case 'base':
				this.baseAt ??= element.sourceCodeLocation?.startLine;
				this.base ??= attribute(element, 'href');
				break;
			case 'img':
				this.takePicture(attribute(element, 'src'));
				break;
			case 'input':
				this.asksForPassword ||= attribute(element, 'type')?.toLowerCase() === 'password';
				this.asksForName ||= ['type', 'name', 'id', 'autocomplete'].some((of) =>
					NAMES_SOMEONE.test(attribute(element, of) ?? '')
				);
				break;
			case 'meta':
				this.takeMeta(element);
				break;
			case 'link':
				if (/^(application|text)\/json\+oembed$/i.test(attribute(element, 'type')?.trim() ?? ''))
					this.oembed ??= attribute(element, 'href')?.trim();
		}
	}

	private takeScript(element: Tree.Element) {
		const type = attribute(element, 'type')?.trim().slice(0, 60) ?? '';
		const line = element.sourceCodeLocation?.startLine ?? 1;
		const spoils = (why: string | undefined) => {
			if (why !== undefined && this.brokenData.length < MOST_PICTURES) this.brokenData.push({ line, why });
		};
		if (NEARLY_DATA.test(type)) spoils(`its type is “${type}”, which is not application/ld+json`);
		if (!/^application\/ld\+json\b/i.test(type)) return void this.scripts++;
		const data = readLinkedData(scriptOf(element));
		if (data === undefined) return;
		if ('why' in data) return spoils(data.why);
		spoils(sayLinkedData(data.is, (name, value) => this.say(name, value)));
		for (const one of textsIn(data.is, MOST_SAID - this.data.length)) this.data.push({ ...one, line });
	}

	private takePicture(src: string | undefined) {
		if (src && this.pictures.length < MOST_PICTURES) this.pictures.push(src);
		this.say('img', src);
	}

	private takeMeta(element: Tree.Element) {
		const equiv = attribute(element, 'http-equiv')?.toLowerCase();
		if (equiv === 'refresh') this.refresh ??= readRefresh(attribute(element, 'content'));
		const said =
			equiv === 'content-type' ? charsetIn(attribute(element, 'content') ?? '') : attribute(element, 'charset');
		if (said === undefined) return;
		const line = element.sourceCodeLocation?.startLine;
		if (this.charset !== undefined) return void (this.charsetAgain ??= { line: line ?? 1, said: said.trim() });
		this.charset = said.trim();
		this.charsetLine = line;
		this.charsetAt = element.sourceCodeLocation?.endOffset;
	}

	private say(name: string, value: string | undefined) {
		if (value && !this.more.has(name)) this.more.set(name, value.slice(0, LONGEST_MORE));
	}

	head(): ServedHead {
		const { tags, pictures, more, oembed, words, scripts, base, baseAt, refresh, near, brokenData, data, language } =
			this;
		const title = tags.find(({ name }) => name === 'title')?.value ?? '';
		const saysSignIn = [title, more.get('h1') ?? ''].some((text) => SIGNS_IN.test(text));
		const asksToSignIn = this.asksForPassword || (this.asksForName && saysSignIn);
		return {
			...{ tags, pictures, more, oembed, words, scripts, base, baseAt, refresh, asksToSignIn, near, brokenData, data },
			...{ language, charsetAt: this.charsetAt, charset: this.charset },
			...{ charsetLine: this.charsetLine, charsetAgain: this.charsetAgain }
		};
	}
}

/** So much is kept of what a page says beside its tags (UTF-16 code units), and read of JSON-LD. */
const LONGEST_MORE = 5000;
const LONGEST_LINKED_DATA = 500_000;

/** Fields in which one says who one is, and what pages that ask for that call themselves, in the languages seen most. */
const NAMES_SOMEONE = /^(?:e-?mail|user-?name|user|login|identifier|account)$/i;
const SIGNS_IN =
	/\b(?:sign|log)[ -]?in\b|\b(?:se connecter|connexion|anmelden|anmeldung|iniciar sesi[oó]n|acceder|accedi|inloggen|logga in|zaloguj)\b/i;

/** The text of a script, which is no text of the page. */
const scriptOf = (element: Tree.Element): string =>
	element.childNodes.map((node) => (node.nodeName === '#text' && 'value' in node ? node.value : '')).join('');

/** What an element says of its `itemprop` (HTML standard, 5.2.4), in short. */
function propertyOf(element: Tree.Element): string | undefined {
	if (element.tagName === 'meta') return settleText(attribute(element, 'content') ?? '');
	const address = attribute(element, 'src') ?? attribute(element, 'href') ?? attribute(element, 'data');
	return address?.trim() ?? settleText(textOf(element));
}

/** The type of a script that is meant to be JSON-LD, and is not called so. */
const NEARLY_DATA = /^application\/(?:json\+ld|ld-json|ldjson|json-ld|ld\+jason|jsonld)\b|^ld\+json$/i;

/** What stands in a script of JSON-LD, or why it cannot be read; undefined for one that is too long to be read. */
function readLinkedData(text: string): { readonly is: unknown } | { readonly why: string } | undefined {
	if (text.length > LONGEST_LINKED_DATA) return undefined;
	try {
		return { is: JSON.parse(text) as unknown };
	} catch (error) {
		return { why: (error as Error).message };
	}
}

/** Texts of JSON-LD that are kept of a page, each so long (UTF-16 code units). */
const MOST_SAID = 300;
const LONGEST_SAID = 500;

/** The texts in what JSON said, with the names that they stand under, in their order; at most so many. */
function textsIn(data: unknown, most: number): { readonly name: string; readonly value: string }[] {
	const found: { name: string; value: string }[] = [];
	const waiting: (readonly [name: string, value: unknown])[] = [['', data]];
	for (let next = waiting.pop(); next && found.length < most; next = waiting.pop()) {
		const [name, value] = next;
		if (typeof value === 'string') found.push({ name, value: value.slice(0, LONGEST_SAID) });
		else if (Array.isArray(value))
			waiting.push(
				...value
					.slice(0, most)
					.map((one: unknown) => [name, one] as const)
					.reverse()
			);
		else if (isThing(value)) waiting.push(...Object.entries(value).slice(0, most).reverse());
	}
	return found;
}

/**
 * Says the first thing of JSON-LD that has a name, with its description and picture. One of no type is nothing that readers
 * know; then it gives why.
 */
function sayLinkedData(data: unknown, say: (name: string, value: string | undefined) => void): string | undefined {
	const things = thingsIn(data);
	const thing = things.find((one) => typeof one.headline === 'string' || typeof one.name === 'string') ?? things[0];
	if (!thing) return undefined;
	for (const name of ['headline', 'name', 'description'] as const)
		if (typeof thing[name] === 'string') say(`ld:${name}`, settleText(thing[name]));
	const [image] = [thing.image].flat();
	const address = typeof image === 'string' ? image : image?.url;
	if (typeof address === 'string') say('ld:image', address.trim());
	const isMeant = [data].flat().some((one) => isThing(one) && one['@context'] !== undefined);
	return !isMeant || things.some((one) => one['@type'] !== undefined) ? undefined : 'it names no @type';
}

/** What of it is read; anything else may stand there. */
interface Thing {
	readonly headline?: unknown;
	readonly name?: unknown;
	readonly description?: unknown;
	readonly image?: string | { readonly url?: unknown } | readonly (string | { readonly url?: unknown })[];
	readonly '@context'?: unknown;
	readonly '@graph'?: unknown;
	readonly '@type'?: unknown;
}
function thingsIn(data: unknown): readonly Thing[] {
	const all: readonly unknown[] = [data].flat();
	const graph = all.flatMap((one) => (isThing(one) ? [one['@graph'] ?? one].flat() : []));
	return graph.filter(isThing).slice(0, MOST_TAGS);
}
const isThing = (one: unknown): one is Thing => typeof one === 'object' && one !== null;

/** So many words are counted: a page of more is no shell. */
const MOST_WORDS = 200;

/** Runs of letters between white space, up to so many. */
function countWords(text: string): number {
	let [count, isWithin] = [0, false];
	for (let at = 0; at < text.length && count < MOST_WORDS; at++) {
		const isSpace = isWhiteSpace(text.charCodeAt(at));
		if (isWithin && isSpace) count++;
		isWithin = !isSpace;
	}
	return isWithin ? count + 1 : count;
}
/** White space as `\s` has it, told without an expression: most letters are neither. */
const isWhiteSpace = (code: number): boolean =>
	code === 32 || (code >= 9 && code <= 13) || (code >= 0xa0 && /\s/.test(String.fromCharCode(code)));

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
		const [property, name] = [attribute(element, 'property')?.trim(), attribute(element, 'name')?.trim()];
		if (property === undefined) return name === undefined ? [] : [name];
		return name === undefined || name === property ? [property] : [property, name];
	}
	const rel = relOf(element);
	if (rel === undefined || !LINKS.test(rel)) return [];
	return [rel === 'alternate' ? (nameOfAlternate(element) ?? 'alternate-form') : rel];
}

function valueOf(element: Tree.Element): string | undefined {
	if (element.tagName === 'title') return settleText(textOf(element));
	if (element.tagName === 'meta') return settleText(attribute(element, 'content') ?? '');
	return attribute(element, 'href')?.trim();
}
