import { parse } from 'parse5';
import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import type { FoundTag, PictureMention } from '../model';
import { cleanText, countGraphemes } from '../text/text';
import { SILENT, textOf } from './plainText';

/** What a page's HTML says about itself. */
export interface PageReading {
	readonly title: string;
	readonly heading: string;
	/** The first real paragraph of the main content, or '' when there is none. */
	readonly summary: string;
	/** The text of the main content on one line. */
	readonly body: string;
	/** Pictures of the main content in their order; sources as written. */
	readonly pictures: readonly PictureMention[];
	readonly language: string | undefined;
	readonly found: readonly FoundTag[];
}

/** Longer bodies are cut here (UTF-16 code units): nothing downstream reads further. */
const MAX_BODY = 20_000;

/** Elements and roles that stand around the content, not in it. */
const FRAME_TAGS = new Set(['nav', 'aside', 'footer', 'form', 'dialog', 'menu']);
const FRAME_ROLES = new Set(['navigation', 'banner', 'contentinfo', 'search', 'complementary', 'menu', 'menubar', 'dialog']);
const FRAME_NAMES = /(^|[\s_-])(nav\w*|menus?|mainmenu|submenu|toc\w*|breadcrumbs?|sidebars?|footer|site-?header|banner|masthead|cookies?|search\w*|skip\w*|pager|pagination|share|social|comments?|tagline|copyright|printfooter|fancy_toc)($|[\s_-])/i;

/** Reads a page. Accepts any string: broken markup is repaired as a browser would. */
export function readPage(html: string): PageReading {
	const document = parse(html);
	const all = [...elementsOf(document)];
	const body = all.find((element) => element.tagName === 'body');
	const main = body && mainOf(body);
	const headings = main ? [...contentOf(main)].filter((element) => /^h[1-3]$/.test(element.tagName)) : [];
	const heading = firstText([headings.find((element) => element.tagName === 'h1'), ...headings].filter((element) => element !== undefined));
	const title = firstText(all.filter((element) => element.tagName === 'title' && isHtml(element)));
	return {
		title: title || heading,
		heading,
		summary: main ? summaryOf(main) : '',
		body: main ? cut(readable(main), MAX_BODY) : '',
		pictures: main ? picturesIn(main) : [],
		language: attribute(all.find((element) => element.tagName === 'html'), 'lang')?.trim() || undefined,
		found: all.filter((element) => isHtml(element)).flatMap(foundTag)
	};
}

const isHtml = (element: Tree.Element) => element.namespaceURI === 'http://www.w3.org/1999/xhtml';
const cut = (text: string, length: number) => (text.length > length ? text.slice(0, length).toWellFormed() : text);

/** An attribute's value, or undefined. */
export function attribute(element: Tree.Element | undefined, name: string): string | undefined {
	return element?.attrs.find((attr) => attr.name === name)?.value;
}

/** Every element in document order, without the contents of templates. `enter` says whether to go into one. */
export function* elementsOf(top: Tree.ParentNode, enter: (element: Tree.Element) => boolean = () => true): Generator<Tree.Element> {
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
	return FRAME_NAMES.test(attribute(element, 'class') ?? '') || FRAME_NAMES.test(attribute(element, 'id') ?? '');
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

const readable = (element: Tree.Node) => cleanText(textOf(element, isFrame));

function firstText(elements: readonly Tree.Element[]): string {
	for (const element of elements) {
		const text = cleanText(textOf(element, (inner) => attribute(inner, 'class') === 'headerlink'));
		if (text) return text;
	}
	return '';
}

const LEAST_WORDS = 6;
const BLOCKS = new Set(['p', 'dd', 'li', 'blockquote', 'td', 'div', 'section']);
/** Marks that begin or end lines about the page rather than in it. */
const ABOUT_THE_PAGE = /^(©|copyright\b|all rights reserved|last (modified|updated)|(this page was )?last |published on|posted (on|by)|table of contents|prev(ious)?\b.*\bnext\b|up\b.*\bnext\b)/i;

/**
 * The first real paragraph: words in sentences rather than links or labels. Paragraph elements are asked first, then
 * other blocks that hold text of their own.
 */
function summaryOf(main: Tree.Element): string {
	const blocks = [...contentOf(main)].filter((element) => BLOCKS.has(element.tagName));
	const paragraphs = blocks.filter((element) => element.tagName === 'p');
	for (const candidates of [paragraphs, blocks]) {
		const found = candidates.map(ownText).find(({ text, linked }) => isProse(text, linked));
		if (found) return found.text;
	}
	return '';
}

/** The text of a block up to the first block inside it, and how much of it stands in links. */
function ownText(block: Tree.Element): { text: string; linked: number } {
	let linked = 0;
	const stop = (inner: Tree.Element) => isFrame(inner) || BLOCKS.has(inner.tagName) || /^(h[1-6]|ul|ol|dl|table|pre|hr)$/.test(inner.tagName);
	const text = cleanText(
		textOf(block, (inner) => {
			if (stop(inner)) return inner !== block;
			if (inner.tagName === 'a') linked += cleanText(textOf(inner)).length;
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
		const alt = cleanText(attribute(element, 'alt') ?? '');
		return [{ src, ...(alt && { alt }) }];
	});
}

const LINKS_READ = new Set(['canonical', 'icon', 'shortcut icon', 'apple-touch-icon', 'manifest', 'alternate']);

/** A head tag as it stands in the file. */
function foundTag(element: Tree.Element): FoundTag[] {
	const content = attribute(element, 'content');
	if (element.tagName === 'title') return [{ name: 'title', value: cleanText(textOf(element)) }];
	if (element.tagName === 'meta') {
		const name = attribute(element, 'property') ?? attribute(element, 'name');
		return name && content !== undefined ? [{ name: name.trim(), value: cleanText(content) }] : [];
	}
	const rel = element.tagName === 'link' ? attribute(element, 'rel')?.toLowerCase() : undefined;
	const href = attribute(element, 'href');
	return rel && href !== undefined && LINKS_READ.has(rel) ? [{ name: rel, value: href }] : [];
}
