import { parse, serializeOuter, html as spec } from 'parse5';
import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import type { Issue } from '../issue';
import { ownOf } from '../own';
import { looseTags } from './looseTags';

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
	const refused = new Set(issues.map(({ start }) => start));
	for (const { start, end, tag, isOfThePage } of looseTags(markup)) {
		if (refused.has(start)) continue;
		const expected = isOfThePage ? 'Remove it: the page has its own.' : 'Remove it: it ends nothing.';
		issues.push({ code: 'rule/extra-markup', severity: 'error', start, end, seen: tag, expected });
	}
	return { elements, issues: issues.sort((a, b) => a.start - b.start) };
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
	if (!('tagName' in node)) return { seen: 'plain text', expected: 'Put it into an element, or remove it.' };
	const { tagName, namespaceURI } = node;
	if (namespaceURI === spec.NS.HTML && ALLOWED.has(tagName) && !Object.hasOwn(REASONS, tagName)) return undefined;
	return {
		seen: `<${tagName}>`,
		expected: ownOf(REASONS, tagName) ?? 'Remove it, or put it into the body of the page.'
	};
}
