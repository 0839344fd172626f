import { parse } from 'parse5';
import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import type { FoundTag, PictureMention } from '../model';
import { canonicalLanguage, countGraphemes, settleText } from '../text/text';
import { SILENT, textOf } from './plainText';
import { hideSelfClosed, isXhtml } from './xhtml';

/** What a page's HTML says about itself. */
export interface PageReading {
	readonly title: string;
	readonly heading: string;
	/** The first real paragraphs of the main content, the best to sum the page up first. May be empty. */
	readonly paragraphs: readonly string[];
	/** The text of the main content on one line. */
	readonly body: string;
	/** Pictures of the main content in their order; sources as written. */
	readonly pictures: readonly PictureMention[];
	readonly language: string | undefined;
	/** Where the page only leads on to, when it asks for that at once. */
	readonly leadsTo: string | undefined;
	readonly found: readonly FoundTag[];
}

/** Longer bodies are cut here (UTF-16 code units): nothing downstream reads further. */
const MAX_BODY = 20_000;

/** Elements and roles that stand around the content, not in it. */
const FRAME_TAGS = new Set(['nav', 'aside', 'footer', 'form', 'dialog', 'menu']);
const FRAME_ROLES = new Set([
	'navigation',
	'banner',
	'contentinfo',
	'search',
	'complementary',
	'menu',
	'menubar',
	'dialog'
]);
/** Whole class names and ids that themes give to them; a part of a longer name means nothing (`sql-comment`). */
const FRAME_NAME =
	/^((site|page|main|top|global|doc|sub|side|fancy)[-_]?)?(nav|navbar|navheader|navfooter|navigation|menu|toc|toc_sub|breadcrumbs?|sidebar|footer|masthead|banner|cookies?|search|searchmenu|searchbox|skip-?links?|pager|pagination|share|social|comments|tagline|copyright)([-_](list|links?|bar|box|menu|mark|wrapper|container|inner))?$/i;
const namesFrame = (names: string | undefined) =>
	names !== undefined && names.split(/\s+/).some((name) => FRAME_NAME.test(name));

/** Reads a page. Accepts any string: broken markup is repaired as a browser would. `fileName` may tell XHTML. */
export function readPage(html: string, fileName = ''): PageReading {
	const document = parse(isXhtml(html, fileName) ? hideSelfClosed(html) : html);
	const all = [...elementsOf(document)];
	const body = all.find((element) => element.tagName === 'body');
	const main = body && mainOf(body);
	const headings = main ? [...contentOf(main)].filter((element) => /^h[1-3]$/.test(element.tagName)) : [];
	const heading = firstText(
		[headings.find((element) => element.tagName === 'h1'), ...headings].filter((element) => element !== undefined)
	);
	const title = firstText(all.filter((element) => element.tagName === 'title' && isHtml(element)));
	return {
		title: title || heading,
		heading,
		paragraphs: main ? paragraphsOf(main) : [],
		body: main ? cut(bodyOf(main, heading), MAX_BODY) : '',
		pictures: main ? picturesIn(main) : [],
		language: languageIn(all),
		leadsTo: all.map(refreshOf).find((target) => target !== undefined),
		found: all.filter((element) => isHtml(element)).flatMap(foundTag)
	};
}

/** What the page says its language is: on its html element, or in its header; the first of several. */
function languageIn(all: readonly Tree.Element[]): string | undefined {
	const html = all.find((element) => element.tagName === 'html');
	const header = all.find(
		(element) =>
			element.tagName === 'meta' && attribute(element, 'http-equiv')?.trim().toLowerCase() === 'content-language'
	);
	const said = [attribute(html, 'lang'), attribute(html, 'xml:lang'), attribute(header, 'content')?.split(',')[0]];
	return said.map((tag) => tag?.trim().replaceAll('_', '-')).find((tag) => tag && canonicalLanguage(tag));
}

const isHtml = (element: Tree.Element) => element.namespaceURI === 'http://www.w3.org/1999/xhtml';
const cut = (text: string, length: number) => (text.length > length ? text.slice(0, length).toWellFormed() : text);

/** An attribute's value, or undefined. */
export function attribute(element: Tree.Element | undefined, name: string): string | undefined {
	return element?.attrs.find((attr) => attr.name === name)?.value;
}

/** Every element in document order, without the contents of templates. `enter` says whether to go into one. */
export function* elementsOf(
	top: Tree.ParentNode,
	enter: (element: Tree.Element) => boolean = () => true
): Generator<Tree.Element> {
	const waiting: Tree.ChildNode[] = [...top.childNodes].reverse();
	for (let node = waiting.pop(); node; node = waiting.pop()) {
		if (!('tagName' in node) || !enter(node)) continue;
		yield node;
		for (let i = node.childNodes.length - 1; i >= 0; i--) waiting.push(node.childNodes[i] as Tree.ChildNode);
	}
}

function isFrame(element: Tree.Element): boolean {
	const { tagName } = element;
	if (FRAME_TAGS.has(tagName) || SILENT.has(tagName) || tagName === 'head') return true;
	if (attribute(element, 'hidden') !== undefined || attribute(element, 'aria-hidden') === 'true') return true;
	const role = attribute(element, 'role');
	if (role) return FRAME_ROLES.has(role);
	return namesFrame(attribute(element, 'class')) || namesFrame(attribute(element, 'id'));
}

const contentOf = (top: Tree.ParentNode) => elementsOf(top, (element) => !isFrame(element));

/** The element that holds the content: said by the markup, or else the whole body. */
function mainOf(body: Tree.Element): Tree.Element {
	const elements = [...elementsOf(body)];
	const articles = elements.filter((element) => element.tagName === 'article');
	return (
		elements.find((element) => element.tagName === 'main' || attribute(element, 'role') === 'main') ??
		(articles.length === 1 ? articles[0] : undefined) ??
		body
	);
}

/** Less text than this (UTF-16 code units) is no content: then a table of contents is what the page has to say. */
const LEAST_BODY = 40;
const isContents = (element: Tree.Element) => /(^|\s)toc(\s|$)/.test(attribute(element, 'class') ?? '');

/** The text of the main content, without the heading that it begins with: that is the title again. */
function bodyOf(main: Tree.Element, heading: string): string {
	const read = (skip: (element: Tree.Element) => boolean) => {
		const text = settleText(textOf(main, skip));
		return text.startsWith(heading) ? text.slice(heading.length).trim() : text;
	};
	const body = read(isFrame);
	return body.length >= LEAST_BODY
		? body
		: read((element) => isFrame(element) && !isContents(element)).replace(/^table of contents\s*/i, '');
}

function firstText(elements: readonly Tree.Element[]): string {
	for (const element of elements) {
		const text = settleText(textOf(element, (inner) => attribute(inner, 'class') === 'headerlink'));
		if (text) return text;
	}
	return '';
}

const LEAST_WORDS = 6;
const BLOCKS = new Set(['p', 'dd', 'li', 'blockquote', 'td', 'div', 'section']);
/** Marks that begin or end lines about the page rather than in it. */
const ABOUT_THE_PAGE =
	/^(©|copyright\b|all rights reserved|(this (page|document|article) )?(was )?last (modified|updated|changed|edited)|published on|posted (on|by)|table of contents|prev(ious)?\b.*\bnext\b|up\b.*\bnext\b)/i;

/** How many paragraphs are offered. */
const MOST_PARAGRAPHS = 8;

/**
 * The first real paragraphs: words in sentences rather than links or labels. Paragraph elements come first, then other
 * blocks that hold text of their own; one that only leads up to a list or an example comes after those that stand alone.
 */
function paragraphsOf(main: Tree.Element): string[] {
	const blocks = [...contentOf(main)].filter((element) => BLOCKS.has(element.tagName));
	const inParagraphs = blocks.filter((element) => element.tagName === 'p');
	const others = blocks.filter((element) => element.tagName !== 'p');
	const found = new Set<string>();
	for (const block of [...inParagraphs, ...others]) {
		const { text, linked } = ownText(block);
		if (isProse(text, linked)) found.add(withoutLeadUp(text));
		if (found.size === MOST_PARAGRAPHS) break;
	}
	const leadsUp = (text: string) => text.endsWith(':');
	return [...[...found].filter((text) => !leadsUp(text)), ...[...found].filter(leadsUp)];
}

/** What is left of a paragraph must be this long (UTF-16 code units) to stand alone. */
const LEAST_SENTENCE = 25;

/** A paragraph whose last sentence only leads up to what follows it, without that sentence where others are left. */
function withoutLeadUp(text: string): string {
	if (!text.endsWith(':')) return text;
	const end = Math.max(text.lastIndexOf('. '), text.lastIndexOf('。'));
	return end >= LEAST_SENTENCE ? text.slice(0, end + 1) : text;
}

/** The text of a block up to the first block inside it, and how much of it stands in links. */
function ownText(block: Tree.Element): { text: string; linked: number } {
	let linked = 0;
	const stop = (inner: Tree.Element) =>
		isFrame(inner) || BLOCKS.has(inner.tagName) || /^(h[1-6]|ul|ol|dl|table|pre|hr)$/.test(inner.tagName);
	const text = settleText(
		textOf(block, (inner) => {
			if (stop(inner)) return inner !== block;
			if (inner.tagName === 'a') linked += settleText(textOf(inner)).length;
			return false;
		})
	);
	return { text, linked };
}

function isProse(text: string, linked: number): boolean {
	if (linked > text.length * 0.6 || ABOUT_THE_PAGE.test(text)) return false;
	const words = text.split(' ').length;
	// A script without spaces has its words in one run.
	return words >= LEAST_WORDS || countGraphemes(text) / words > 24;
}

function picturesIn(main: Tree.Element): PictureMention[] {
	return [...contentOf(main)].flatMap((element) => {
		const src = element.tagName === 'img' ? attribute(element, 'src')?.trim() : undefined;
		if (!src || src.startsWith('data:')) return [];
		const alt = settleText(attribute(element, 'alt') ?? '');
		return [{ src, ...(alt && { alt }) }];
	});
}

/** The target of an immediate refresh (HTML standard, 4.2.5.3). */
function refreshOf(element: Tree.Element): string | undefined {
	if (element.tagName !== 'meta' || attribute(element, 'http-equiv')?.toLowerCase() !== 'refresh') return undefined;
	return /^\s*0\s*[;,]\s*(?:url\s*=\s*)?["']?([^"']+)/i.exec(attribute(element, 'content') ?? '')?.[1]?.trim();
}

const LINKS_READ = new Set(['canonical', 'icon', 'shortcut icon', 'apple-touch-icon', 'manifest', 'alternate']);

/** A head tag as it stands in the file. */
export function foundTag(element: Tree.Element): FoundTag[] {
	const content = attribute(element, 'content');
	if (element.tagName === 'title') return [{ name: 'title', value: settleText(textOf(element)) }];
	if (element.tagName === 'meta') {
		const name = attribute(element, 'property') ?? attribute(element, 'name');
		return name && content !== undefined ? [{ name: name.trim(), value: settleText(content) }] : [];
	}
	const rel = element.tagName === 'link' ? attribute(element, 'rel')?.toLowerCase() : undefined;
	const href = attribute(element, 'href');
	return rel && href !== undefined && LINKS_READ.has(rel) ? [{ name: rel, value: href }] : [];
}
