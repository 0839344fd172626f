import { parse, serializeOuter, html as spec } from 'parse5';
import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import type { Issue } from '../issue';

/** What a head may hold (HTML standard, metadata content), less what would move or take over the page. */
const ALLOWED = new Set(['meta', 'link', 'style', 'script', 'noscript', 'template', 'title']);
const REASONS: Readonly<Record<string, string>> = {
	title: 'Set the title as a rule instead.',
	base: 'It would move every address of the page.'
};

/**
 * Reads raw extra markup and keeps what a head may hold, each element written out whole. Text, other elements and a
 * second title are left out and reported. Accepts any string.
 */
export function limitExtraMarkup(markup: string): { elements: string[]; issues: Issue[] } {
	const document = parse(`<!doctype html><head>${markup}`, {
		sourceCodeLocationInfo: true,
		// As a reader without scripts sees it: an element that noscript may not hold ends the head for all that follows.
		scriptingEnabled: false
	});
	const offset = '<!doctype html><head>'.length;
	const elements: string[] = [];
	const issues: Issue[] = [];
	for (const node of topNodes(document)) {
		const at = spanOf(node, offset, markup.length);
		if (isBlank(node)) continue;
		const refusal = refuse(node);
		if (refusal) issues.push({ code: 'rule/extra-markup', severity: 'error', ...at, ...refusal });
		else elements.push(serializeOuter(node as Tree.Element));
	}
	const loose = looseTags(markup).filter((one) => issues.every(({ start }) => start !== one.start));
	return { elements, issues: [...issues, ...loose].sort((a, b) => a.start - b.start) };
}

/** A remark, or a tag with its slash and its name. Signs in an attribute's value are no tags. */
const TAG = /<!--[^]*?(?:-->|$)|<(\/?)([a-z][^\s/>]*)(?:"[^"]*"|'[^']*'|[^'">])*>/gi;
/** Elements whose text holds no tags. */
const PLAIN = new Set(['script', 'style', 'title', 'textarea', 'iframe', 'noembed', 'noframes', 'xmp']);
const OF_THE_PAGE = new Set(['html', 'head', 'body']);

/** Tags that a browser passes over, since the page has its own, and ends of what was never opened. */
function looseTags(markup: string): Issue[] {
	const issues: Issue[] = [];
	const open = new Map<string, number>();
	const tags = new RegExp(TAG);
	for (let found = tags.exec(markup); found; found = tags.exec(markup)) {
		if (found[2] === undefined) continue;
		const [slash, name] = [found[1], found[2].toLowerCase()];
		const count = open.get(name) ?? 0;
		const isOfThePage = OF_THE_PAGE.has(name);
		if (isOfThePage || (slash && count === 0)) {
			const expected = isOfThePage ? 'Take it out: the page has its own.' : 'Take it out: it ends nothing.';
			const span = { start: found.index, end: found.index + found[0].length };
			issues.push({ code: 'rule/extra-markup', severity: 'error', ...span, seen: `<${slash}${name}>`, expected });
			continue;
		}
		open.set(name, count + (slash ? -1 : 1));
		if (!slash && PLAIN.has(name)) {
			const end = markup.slice(tags.lastIndex).search(new RegExp(`</${name}`, 'i'));
			tags.lastIndex = end < 0 ? markup.length : tags.lastIndex + end;
		}
	}
	return issues;
}

/** The children of head and body: where the head ends early, the rest lands in the body, and is refused there. */
function topNodes(document: Tree.Document): Tree.ChildNode[] {
	const root = document.childNodes.find((node): node is Tree.Element => 'tagName' in node);
	return (root?.childNodes ?? []).flatMap((part) =>
		'tagName' in part && 'childNodes' in part && part.tagName !== 'frameset' ? part.childNodes : [part]
	);
}

const isBlank = (node: Tree.ChildNode) => node.nodeName === '#comment' || ('value' in node && node.value.trim() === '');

function spanOf(node: Tree.ChildNode, offset: number, length: number): { start: number; end: number } {
	const location = node.sourceCodeLocation;
	const inside = (at: number) => Math.max(0, Math.min(length, at - offset));
	return { start: inside(location?.startOffset ?? offset), end: inside(location?.endOffset ?? offset + length) };
}

function refuse(node: Tree.ChildNode): { seen: string; expected: string } | undefined {
	if (!('tagName' in node)) return { seen: 'plain text', expected: 'Put it into an element, or take it out.' };
	const { tagName, namespaceURI } = node;
	if (namespaceURI === spec.NS.HTML && ALLOWED.has(tagName) && !Object.hasOwn(REASONS, tagName)) return undefined;
	return { seen: `<${tagName}>`, expected: REASONS[tagName] ?? 'Take it out, or put it into the body of the page.' };
}
