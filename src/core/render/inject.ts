import { html as spec, parse } from 'parse5';
import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import type { Head } from '../resolve/head';
import type { FoundTag } from '../model';
import { attribute, elementsOf, foundTag, nameOfAlternate, relOf } from '../markup/readPage';
import { hideSelfClosed } from '../markup/xhtml';

/** Open Graph vocabularies: a name that begins with one of these belongs to the family as a whole. */
const OG_NAME = /^(og|article|book|profile|music|video):/;
const TWITTER_NAME = /^twitter:/;

/**
 * Which tags of a file give way to a head: every one of the two families, since a mixture of two tools' cards is
 * worse than either, and of plain metadata those that the head has itself or that a rule leaves out.
 */
export function managedBy(head: Head, leftOut: readonly string[] = []): (name: string) => boolean {
	const own = new Set([...head.tags.map(({ tag }) => (tag.key === 'alternate' ? tag.name : tag.key)), ...leftOut]);
	return (name) => OG_NAME.test(name) || TWITTER_NAME.test(name) || own.has(name);
}

/** The name by which a tag in a file is managed, or undefined for what is none of ours. */
function managedName(element: Tree.Element): string | undefined {
	if (element.namespaceURI !== spec.NS.HTML) return undefined;
	if (element.tagName === 'title') return 'title';
	if (element.tagName === 'meta')
		return (attribute(element, 'property') ?? attribute(element, 'name'))?.trim().toLowerCase();
	const rel = relOf(element);
	if (rel === 'shortcut icon') return 'icon';
	return rel === 'alternate' ? nameOfAlternate(element) : rel;
}

interface Span {
	readonly start: number;
	readonly end: number;
}

/**
 * Puts the lines of a head into a file: directly after the charset, or at the beginning of the head, in place of the
 * managed tags that were there. Everything else stays as it was, and doing it again changes nothing. `source` is any
 * text in which each unit is one unit of the file; `xhtml` says that elements may close themselves.
 */
export function injectHead(
	source: string,
	lines: readonly string[],
	isManaged: (name: string) => boolean,
	xhtml: boolean,
	/** Told of each tag that goes, but for those that come again as they were. */
	gone: (tag: FoundTag) => void = () => undefined,
	/** The text of what stands in the source, where its units are no letters. */
	read: (units: string) => string = (text) => text
): string {
	return injectInto(source, lines, isManaged, xhtml, { gone, read })!;
}

/**
 * The same for the beginning of a file whose rest is still to come: undefined where it does not tell yet what the head is, since
 * the head is not over, or something in it that goes is not closed. What comes behind is then as it was, byte for byte.
 */
export function injectTop(
	source: string,
	lines: readonly string[],
	isManaged: (name: string) => boolean,
	xhtml: boolean
): string | undefined {
	return injectInto(source, lines, isManaged, xhtml, { gone: () => undefined, read: (text) => text, isPart: true });
}

interface Injecting {
	readonly gone: (tag: FoundTag) => void;
	readonly read: (units: string) => string;
	/** More comes behind the source. */
	readonly isPart?: boolean;
}

function injectInto(
	source: string,
	lines: readonly string[],
	isManaged: (name: string) => boolean,
	xhtml: boolean,
	{ gone, read, isPart = false }: Injecting
): string | undefined {
	// Extra markup has no name of its own: what an earlier run put in is known by its text.
	const own = new Set(lines);
	const cut = (top: Top) => {
		const { all, end } = top;
		const inHead = new Set(headOf(all));
		// What stands in the body is the page's text, whatever it looks like.
		const elements = all.filter(
			(element) => inHead.has(element) || (element.sourceCodeLocation?.startOffset ?? Infinity) < end
		);
		const going = elements.flatMap((element) => {
			const name = managedName(element);
			const isSame = own.has(writtenAs(source, element));
			return isSame || (name !== undefined && isManaged(name)) ? [{ element, isSame }] : [];
		});
		return { ...top, elements, going };
	};
	const start = cut(parseTop(source, xhtml));
	if (isPart && !start.isOver) return undefined;
	const isOpen = ({ element: { sourceCodeLocation: location } }: (typeof start.going)[number]) =>
		location !== undefined &&
		location !== null &&
		// Of what nobody closes a parser says that it ends where it begins.
		(location.endOffset >= start.length || location.endOffset < (location.startTag?.endOffset ?? 0));
	// What is not closed by then may be closed anywhere.
	const isOpened = start.going.some(isOpen);
	if (isPart && isOpened) return undefined;
	const isCutOff = start.length < source.length && isOpened;
	const { document, all, elements, going } = isCutOff ? cut(parseTop(source, xhtml, source.length)) : start;
	const removed = going.flatMap(({ element, isSame }) => {
		if (!isSame) foundTag(element, read).forEach(gone);
		return spanWithLine(source, element);
	});
	const at = placeFor(document, all, elements.find(isCharset), source);
	const lineEnd = /\r?\n|\r/.exec(source)?.[0] ?? '\n';
	const block = lines.map((line) => lineEnd + line.replaceAll('\n', lineEnd)).join('');
	return splice(source, removed, at, block);
}

/** The beginning of a file as a parser sees it, and where its author closed the head. */
interface Top {
	readonly document: Tree.Document;
	readonly all: readonly Tree.Element[];
	readonly end: number;
	/** How much of the file was parsed. */
	readonly length: number;
	/** Something stands behind the head, by which it is over. */
	readonly isOver: boolean;
}

/** So much (units) behind the head's end, and of a file that closes none, tells a parser that the head is over. */
const BEHIND_HEAD = 4096;
const WITHOUT_END = 262_144;

/** Parses a file no further than its head goes: a whole book may stand behind it. */
function parseTop(source: string, xhtml: boolean, least = 0): Top {
	const tag = /<\/head\s*>|<body[\s>]/i.exec(source)?.index;
	const close = tag === undefined ? -1 : source.slice(tag).search(/<\/head\s*>/i);
	const wanted = close < 0 ? WITHOUT_END : tag! + close + BEHIND_HEAD;
	const start = source.slice(0, Math.max(wanted, least));
	const document = parse(xhtml ? hideSelfClosed(start) : start, { sourceCodeLocationInfo: true });
	const all = [...elementsOf(document, (element) => element.tagName !== 'template')];
	const isOver = all.some((element) => element.parentNode?.nodeName === 'body');
	return isOver || start.length === source.length
		? { document, all, end: endOfHead(start, all), length: start.length, isOver }
		: parseTop(source, xhtml, source.length);
}

function headOf(all: readonly Tree.Element[]): readonly Tree.Element[] {
	const head = all.find((element) => element.tagName === 'head');
	return head ? [...elementsOf(head)] : [];
}

/** Where the author closed the head: a stray element ends it earlier for a parser. -1 where nobody did. */
function endOfHead(source: string, all: readonly Tree.Element[]): number {
	const end = source.search(/<\/head\s*>/i);
	const body = all.find((element) => element.tagName === 'body')?.sourceCodeLocation?.startTag?.startOffset;
	return body !== undefined && body < end ? -1 : end;
}

function writtenAs(source: string, { sourceCodeLocation: location }: Tree.Element): string {
	return location ? source.slice(location.startOffset, location.endOffset).replace(/\r\n?/g, '\n') : '';
}

/** An element and, when nothing stands before it on its line, the line end before it. */
function spanWithLine(source: string, element: Tree.Element): Span[] {
	// What goes out of a file stands in it.
	const location = element.sourceCodeLocation as NonNullable<typeof element.sourceCodeLocation>;
	let start = location.startOffset;
	while (start > 0 && (source[start - 1] === ' ' || source[start - 1] === '\t')) start--;
	if (start > 0 && source[start - 1] === '\n') start -= source[start - 2] === '\r' ? 2 : 1;
	else if (start > 0 && source[start - 1] === '\r') start--;
	else start = location.startOffset;
	return [{ start, end: location.endOffset }];
}

function isCharset(element: Tree.Element): boolean {
	if (element.tagName !== 'meta') return false;
	return (
		attribute(element, 'charset') !== undefined || attribute(element, 'http-equiv')?.toLowerCase() === 'content-type'
	);
}

/**
 * Behind the charset of the head; else behind the head's start tag, the html element's, the doctype, or at the very
 * beginning. A charset below the head, which a stray element ended, is no place: nothing would be found there again.
 */
function placeFor(
	document: Tree.Document,
	elements: readonly Tree.Element[],
	charset: Tree.Element | undefined,
	source: string
): number {
	const startTag = (name: string) =>
		elements.find((element) => element.tagName === name)?.sourceCodeLocation?.startTag?.endOffset;
	if (charset?.sourceCodeLocation) return charset.sourceCodeLocation.endOffset;
	const doctype = document.childNodes.find((node) => node.nodeName === '#documentType')?.sourceCodeLocation?.endOffset;
	const declaration = /^\uFEFF?\s*<\?xml[^>]*\?>/.exec(source)?.[0].length;
	return startTag('head') ?? startTag('html') ?? doctype ?? declaration ?? (source.startsWith('\uFEFF') ? 1 : 0);
}

function splice(source: string, removed: readonly Span[], at: number, block: string): string {
	let out = '';
	let from = 0;
	let placed = false;
	for (const span of [...removed].sort((a, b) => a.start - b.start)) {
		if (!placed && at <= span.start) {
			out += source.slice(from, at) + block;
			[from, placed] = [at, true];
		}
		// A tag inside a tag (a title within a broken one) went with it.
		if (span.end <= from) continue;
		out += source.slice(from, Math.max(from, span.start));
		from = span.end;
	}
	return placed ? out + source.slice(from) : out + source.slice(from, at) + block + source.slice(Math.max(from, at));
}
