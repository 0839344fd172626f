import { html as spec, type DefaultTreeAdapterTypes as Tree } from 'parse5';
import { LINK_ATTRIBUTES } from '../catalogue/catalogue';
import type { FoundTag, PictureMention } from '../model';
import { canonicalLanguage, isBlank, settleText } from '../text/text';
import { parseDocument, parsePiece } from './parseBounded';
import { contentsIn, type Contents } from './contents';
import { ofNames } from './names';
import { SILENT, textOf } from './plainText';
import { proseOf, type ProseCandidate } from './prose';
import { hideSelfClosed, isXhtml } from './xhtml';

/** What a page's HTML says about itself. */
export interface PageReading {
	readonly title: string;
	readonly heading: string;
	/** What a person would quote of the main content, the best to sum the page up first. May be empty. */
	readonly paragraphs: readonly ProseCandidate[];
	/** What it leads to, where it is there to lead and says nothing else. */
	readonly contents: Contents | undefined;
	/** The text of the main content on one line. */
	readonly body: string;
	/** Pictures of the main content in their order; sources as written. */
	readonly pictures: readonly PictureMention[];
	readonly language: string | undefined;
	/** Where the page only leads on to, when it asks for that at once or after a few seconds. */
	readonly leadsTo: string | undefined;
	/** What relative addresses in the page stand under, when its `base` element says so; as written. */
	readonly base: string | undefined;
	/** What the page stands in, by its own words: the page above it, or the last step of the way that leads to it. */
	readonly section: string | undefined;
	/** The same page in other languages: addresses as written, by language tag. */
	readonly versions: Readonly<Record<string, string>>;
	/** Where its links lead, as written, each once; not those that are not to be followed. */
	readonly links: readonly string[];
	readonly found: readonly FoundTag[];
}

/** A page is read this far (UTF-16 code units): what it is about, it has said by then. A whole book in one file is longer. */
const MAX_READ = 400_000;
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
/** What leads to a page step by step is called by it. */
const namesWay = ofNames((names) => /(^|[-_\s])(breadcrumbs?|crumbs)([-_\s]|$)/i.test(names));
/** Whole class names and ids that themes give to them; a part of a longer name means nothing (`sql-comment`). */
const FRAME_NAME =
	/^((site|page|main|top|global|doc|sub|side|fancy)[-_]?)?(nav|navbar|navheader|navfooter|navigation|menu|toc|toc_sub|breadcrumbs?|sidebar|footer|masthead|banner|cookies?|search|searchmenu|searchbox|skip-?links?|pager|pagination|share|social|comments|tagline|copyright)([-_](list|links?|bar|box|menu|mark|wrapper|container|inner))?$/i;
const namesFrame = ofNames((names) => names.split(/\s+/).some((name) => FRAME_NAME.test(name)));

/** Names that programs give to what stands for a heading. */
const HEADING_NAME = /(^|\s)(title|headertitle|(page|entry|post|article|doc|document|section)-?title)(\s|$)/i;
const namesHeading = ofNames((names) => HEADING_NAME.test(names));

/** Reads a page. Accepts any string: broken markup is repaired as a browser would. `fileName` may tell XHTML. */
export function readPage(html: string, fileName = ''): PageReading {
	const start = cut(html, MAX_READ);
	const document = parseDocument(isXhtml(start, fileName) ? hideSelfClosed(start) : start);
	const parts = partsOf(document);
	const { tells, frames } = parts;
	const isFrame = (element: Tree.Element) => frames.has(element);
	const main = parts.body ? mainOf(parts.body, parts) : withoutFrames(parts);
	const content = main ? [...elementsOf(main, (element) => !isFrame(element))] : [];
	const headings = content.filter((element) => /^h[1-3]$/.test(element.tagName));
	const titled = content.find((element) => namesHeading(attribute(element, 'class')));
	const heading = firstText(
		[headings.find((element) => element.tagName === 'h1'), titled, ...headings].filter(
			(element) => element !== undefined
		)
	);
	const title = firstText(tells.filter((element) => element.tagName === 'title' && isHtml(element)));
	const names = [title, heading, ...headings.map((element) => settleText(textOf(element)))];
	const paragraphs = main ? proseOf(main, names, isFrame) : [];
	return {
		title: title || heading,
		heading,
		paragraphs,
		contents:
			main && paragraphs.length === 0
				? contentsIn(elementsOf(main, (element) => !isFrame(element) || isContents(element)))
				: undefined,
		body: main ? cut(bodyOf(main, heading, isFrame), MAX_BODY) : '',
		pictures: picturesIn(content),
		language: languageIn(parts),
		leadsTo: tells.map(refreshOf).find((target) => target !== undefined),
		base: attribute(
			tells.find((element) => element.tagName === 'base' && attribute(element, 'href') !== undefined),
			'href'
		)?.trim(),
		section: sectionIn(parts, [title, heading]),
		versions: versionsIn(parts),
		links: linksIn(parts),
		found: tells.filter((element) => isHtml(element)).flatMap((element) => foundTag(element))
	};
}

/** What is asked of a whole page, found in one walk; each in document order. */
interface Parts {
	/** What tells of the page: `title`, `meta`, `link`, `base`. */
	readonly tells: Tree.Element[];
	/** What leads on: `link`, `a`, `area`, frames. */
	readonly leads: Tree.Element[];
	readonly mains: Tree.Element[];
	readonly articles: Tree.Element[];
	/** What stands round the content: several ask for it. */
	readonly frames: Set<Tree.Element>;
	html?: Tree.Element;
	body?: Tree.Element;
	noframes?: Tree.Element;
	/** The way that leads to the page. */
	way?: Tree.Element;
}

function partsOf(document: Tree.Document): Parts {
	const parts: Parts = { tells: [], leads: [], mains: [], articles: [], frames: new Set() };
	for (const element of elementsOf(document)) {
		if (standsAround(element)) parts.frames.add(element);
		switch (element.tagName) {
			case 'title':
			case 'meta':
			case 'base':
				parts.tells.push(element);
				break;
			case 'link':
				parts.tells.push(element);
				parts.leads.push(element);
				break;
			case 'a':
			case 'area':
			case 'frame':
			case 'iframe':
				parts.leads.push(element);
				break;
			case 'main':
				parts.mains.push(element);
				break;
			case 'article':
				parts.articles.push(element);
				break;
			case 'html':
			case 'body':
			case 'noframes':
				parts[element.tagName] ??= element;
		}
		for (const { name, value } of element.attrs) {
			if (name === 'role' && value === 'main' && element.tagName !== 'main') parts.mains.push(element);
			if (!parts.way && (name === 'class' || name === 'id' || name === 'aria-label') && namesWay(value))
				parts.way = element;
		}
	}
	return parts;
}

/** What a page of frames shows where there are none (HTML standard, 16.2). */
function withoutFrames({ noframes, frames }: Parts): Tree.ParentNode | undefined {
	const piece = noframes && parsePiece(textOf(noframes));
	for (const element of piece ? elementsOf(piece) : []) if (standsAround(element)) frames.add(element);
	return piece;
}

/** The page above this one: named by a link of the head, or the last link of the way that leads here. */
function sectionIn({ tells, way }: Parts, own: readonly string[]): string | undefined {
	const up = tells.find(
		(element) => element.tagName === 'link' && /^(up|parent)$/i.test(attribute(element, 'rel')?.trim() ?? '')
	);
	const steps = way ? [...elementsOf(way)].filter((element) => element.tagName === 'a') : [];
	const said = [attribute(up, 'title') ?? '', ...steps.reverse().map((step) => textOf(step))].map(settleText);
	return said.find((text) => text !== '' && !own.includes(text));
}

/** None where the page says that none is to be followed. */
function linksIn({ tells, leads }: Parts): string[] {
	const isClosed = tells.some(
		(element) =>
			element.tagName === 'meta' &&
			attribute(element, 'name')?.toLowerCase() === 'robots' &&
			/\b(nofollow|none)\b/i.test(attribute(element, 'content') ?? '')
	);
	if (isClosed) return [];
	const links = new Set<string>();
	for (const element of leads) {
		if (element.tagName === 'link' || /\bnofollow\b/i.test(attribute(element, 'rel') ?? '')) continue;
		const href = (
			attribute(element, 'href') ?? (element.tagName.endsWith('frame') ? attribute(element, 'src') : undefined)
		)?.trim();
		if (href && !/^(#|javascript:|mailto:|tel:|data:)/i.test(href)) links.add(href);
	}
	return [...links];
}

/** The alternates that a page names: links of its head, or of its text that say the language of what they lead to. */
function versionsIn({ leads }: Parts): Record<string, string> {
	const versions: Record<string, string> = {};
	for (const element of leads) {
		if (element.tagName !== 'link' && element.tagName !== 'a') continue;
		const named = attribute(element, 'hreflang')?.trim();
		if (!named || (element.tagName === 'link' && !/(^|\s)alternate(\s|$)/i.test(attribute(element, 'rel') ?? '')))
			continue;
		const tag = canonicalLanguage(named);
		const href = attribute(element, 'href')?.trim();
		if (tag && href && !Object.hasOwn(versions, tag)) versions[tag] = href;
	}
	return versions;
}

/** What the page says its language is: on its html element, or in its header; the first of several. */
function languageIn({ html, tells }: Parts): string | undefined {
	const header = tells.find(
		(element) =>
			element.tagName === 'meta' && attribute(element, 'http-equiv')?.trim().toLowerCase() === 'content-language'
	);
	const said = [attribute(html, 'lang'), attribute(html, 'xml:lang'), attribute(header, 'content')?.split(',')[0]];
	return said.map((tag) => tag?.trim().replaceAll('_', '-')).find((tag) => tag && canonicalLanguage(tag));
}

const isHtml = (element: Tree.Element) => element.namespaceURI === spec.NS.HTML;
const cut = (text: string, length: number) => text.slice(0, length).toWellFormed();

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

function standsAround(element: Tree.Element): boolean {
	const { tagName, attrs } = element;
	if (FRAME_TAGS.has(tagName) || SILENT.has(tagName) || tagName === 'head') return true;
	if (attrs.length === 0) return false;
	if (attribute(element, 'hidden') !== undefined || attribute(element, 'aria-hidden') === 'true') return true;
	const role = attribute(element, 'role');
	if (role) return FRAME_ROLES.has(role);
	return namesFrame(attribute(element, 'class')) || namesFrame(attribute(element, 'id'));
}

/** The element that holds the content: said by the markup, or else the whole body. */
const mainOf = (body: Tree.Element, { mains, articles }: Parts): Tree.Element =>
	// A theme may leave one of them empty.
	mains.find(hasText) ?? mains[0] ?? (articles.length === 1 ? articles[0] : undefined) ?? body;

/** Whether there is anything to read in an element. */
function hasText(top: Tree.Element): boolean {
	const waiting: Tree.ChildNode[] = [...top.childNodes];
	for (let node = waiting.pop(); node; node = waiting.pop()) {
		if ('value' in node ? !isBlank(node.value) : false) return true;
		if ('tagName' in node && !SILENT.has(node.tagName)) for (const inner of node.childNodes) waiting.push(inner);
	}
	return false;
}

/** Less text than this (UTF-16 code units) is no content: then a table of contents is what the page has to say. */
const LEAST_BODY = 40;
const isContents = (element: Tree.Element) => /(^|\s)toc(\s|$)/.test(attribute(element, 'class') ?? '');

/** The text of the main content, without the heading that it begins with: that is the title again. */
function bodyOf(main: Tree.ParentNode, heading: string, isFrame: (element: Tree.Element) => boolean): string {
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

function picturesIn(content: readonly Tree.Element[]): PictureMention[] {
	return content.flatMap((element) => {
		const src = element.tagName === 'img' ? attribute(element, 'src')?.trim() : undefined;
		if (!src || src.startsWith('data:')) return [];
		const alt = settleText(attribute(element, 'alt') ?? '');
		return [{ src, ...(alt && { alt }) }];
	});
}

/** After so many seconds a page has been read; what goes on sooner only leads on. */
const READ_AFTER = 15;

/** The target of a refresh that comes at once or after a few seconds (HTML standard, 4.2.5.3). */
function refreshOf(element: Tree.Element): string | undefined {
	if (element.tagName !== 'meta' || attribute(element, 'http-equiv')?.toLowerCase() !== 'refresh') return undefined;
	const refresh = readRefresh(attribute(element, 'content'));
	return refresh && refresh.seconds <= READ_AFTER ? refresh.to : undefined;
}

/** Seconds, perhaps with a part, then where to (HTML standard, section 4.2.5.3). */
const REFRESH = /^\s*(\d+)(?:\.[\d.]*)?[\s;,]+(?:url\s*=\s*)?["']?([^"']+)/i;

/** Where a refresh leads, and after how many seconds; undefined for a page that only loads itself again (the same). */
export function readRefresh(content = ''): { readonly seconds: number; readonly to: string } | undefined {
	const [, seconds, target] = REFRESH.exec(content) ?? [];
	const to = target?.trim();
	return to ? { seconds: Number(seconds), to } : undefined;
}

const LINKS_READ = new Set(['canonical', 'icon', 'shortcut icon', 'apple-touch-icon', 'manifest', 'alternate']);

const KEPT_ATTRIBUTES: ReadonlySet<string> = new Set(LINK_ATTRIBUTES);

/**
 * What a link is to its page: `rel` is a set of words in any case (HTML standard, section 4.6.7), of which the one counts that a head
 * of ours could have. As it is written, where none of them is; undefined of what is no link.
 */
export function relOf(element: Tree.Element): string | undefined {
	if (element.tagName !== 'link') return undefined;
	const rel = attribute(element, 'rel')?.trim().toLowerCase();
	if (rel === undefined || LINKS_READ.has(rel)) return rel;
	return rel.split(/\s+/).find((word) => LINKS_READ.has(word)) ?? rel;
}

/** A head tag as it stands in the file. `read` gives the text of what stands there, where that is not text yet. */
export function foundTag(element: Tree.Element, read: (units: string) => string = (text) => text): FoundTag[] {
	const content = attribute(element, 'content');
	if (element.tagName === 'title') return [{ name: 'title', value: settleText(read(textOf(element))) }];
	if (element.tagName === 'meta') {
		const name = (attribute(element, 'property') ?? attribute(element, 'name'))?.trim();
		if (!name || content === undefined) return [];
		const isDark = /^theme-color$/i.test(name) && /\bdark\b/i.test(attribute(element, 'media') ?? '');
		return [{ name: isDark ? 'theme-color:dark' : name, value: settleText(read(content)) }];
	}
	const rel = relOf(element);
	const href = attribute(element, 'href');
	if (!rel || href === undefined || !LINKS_READ.has(rel)) return [];
	const name = rel === 'alternate' ? nameOfAlternate(element) : rel;
	if (name === undefined) return [];
	const kept = element.attrs.filter(
		(one) => KEPT_ATTRIBUTES.has(one.name) && !(one.name === 'type' && name.startsWith('feed:'))
	);
	const attributes = Object.fromEntries(kept.map((one) => [one.name, one.value]));
	return [{ name, value: read(href), ...(kept.length > 0 && rel !== 'canonical' && { attributes }) }];
}

/** What a link to another form of a page stands for: a version in another language, or a feed; else it is none of ours. */
export function nameOfAlternate(element: Tree.Element): string | undefined {
	if (attribute(element, 'hreflang') !== undefined) return 'alternate';
	const type = attribute(element, 'type')?.trim() ?? '';
	const kind = /^application\/(atom|rss|feed)\+(?:xml|json)$/i.exec(type)?.[1]?.toLowerCase();
	return kind && `feed:${kind === 'feed' ? 'json' : kind}`;
}
