import type { PlaceholderNode, TemplateNode } from '../template/ast';
import { parseTemplate } from '../template/parse';
import { nameOfPiece, NO_PIECES, variablesBehind, type Pieces } from '../template/pieces';

/** Ways to mend a template, as templates. Undefined where a way does not fit what is written. */

function nodesOf(template: string): readonly TemplateNode[] | undefined {
	const { nodes, issues } = parseTemplate(template);
	return issues.some(({ severity }) => severity === 'error') ? undefined : nodes;
}

/** Whether a placeholder prints one of some variables, by itself or in a piece. */
const asks = (node: TemplateNode, names: ReadonlySet<string>, pieces: Pieces = NO_PIECES): node is PlaceholderNode =>
	node.kind === 'placeholder' &&
	!node.asks &&
	node.terms.some(
		(term) =>
			term.kind === 'variable' &&
			(names.has(term.name) ||
				(term.root === 'piece' && [...variablesBehind(pieces, nameOfPiece(term))].some((name) => names.has(name))))
	);

/**
 * What belongs to variables that can be empty goes with them: each is put into an optional stretch with the words
 * before it, or, at the beginning, with those behind it.
 */
export function wrapGaps(template: string, variables: readonly string[], pieces?: Pieces): string | undefined {
	const nodes = nodesOf(template);
	const names = new Set(variables);
	if (!nodes?.some((node) => asks(node, names, pieces))) return undefined;
	const wraps: { start: number; end: number }[] = [];
	nodes.forEach((node, at) => {
		if (!asks(node, names, pieces)) return;
		const [before, behind] = [nodes[at - 1], nodes[at + 1]];
		const free = before?.kind === 'text' && (wraps.at(-1)?.end ?? 0) <= before.start;
		if (free && at > 1) wraps.push({ start: startOfWords(template, before), end: node.end });
		else if (behind?.kind === 'text' && nodes[at + 2] !== undefined)
			wraps.push({ start: free ? before.start : node.start, end: behind.end });
		else wraps.push({ start: free ? before.start : node.start, end: node.end });
	});
	return wraps.reduceRight(
		(text, { start, end }) => `${text.slice(0, start)}[[${text.slice(start, end)}]]${text.slice(end)}`,
		template
	);
}

/** After a sentence's end only the words of the next one belong to what follows. */
function startOfWords(template: string, { start, end }: TemplateNode): number {
	const text = template.slice(start, end);
	const sentence = /^[\s\S]*[.!?](?=\s)/.exec(text)?.[0].length ?? 0;
	return start + sentence;
}

/** Without the site's name, and the separator or the words that led to it. */
export function dropSiteName(template: string): string | undefined {
	const nodes = nodesOf(template);
	if (!nodes) return undefined;
	const at = nodes.findIndex((node) => asks(node, new Set(['site.name'])));
	if (at < 0 || nodes.length === 1) return undefined;
	let [first, last] = [at, at];
	const isBetween = (node: TemplateNode | undefined) =>
		node?.kind === 'separator' || (node?.kind === 'text' && node.text.trim().length <= 3);
	while (first > 0 && isBetween(nodes[first - 1])) first--;
	if (first === 0) while (isBetween(nodes[last + 1])) last++;
	const [from, to] = [nodes[first] as TemplateNode, nodes[last] as TemplateNode];
	const rest = (template.slice(0, from.start) + template.slice(to.end)).trim();
	return rest === '' ? undefined : rest;
}

/** With the longest part clipped: the first variable of the page that no filter shortens yet. */
export function clipFirst(template: string, length: number): string | undefined {
	const nodes = nodesOf(template);
	if (!nodes || length < 10) return undefined;
	const inside = (all: readonly TemplateNode[]): PlaceholderNode[] =>
		all.flatMap((node) => (node.kind === 'placeholder' ? [node] : node.kind === 'optional' ? inside(node.nodes) : []));
	const found = inside(nodes).find(
		({ terms, filters }) =>
			terms.some((term) => term.kind === 'variable' && /^page\.(title|heading|summary|body|short)$/.test(term.name)) &&
			!filters.some(({ name }) => name === 'clip' || name === 'words')
	);
	return found && `${template.slice(0, found.end - 1).trimEnd()} | clip ${length}}${template.slice(found.end)}`;
}

/** With the site's words behind it: its description after a description, its name after any other. */
export function withSite(template: string, isDescription: boolean): string | undefined {
	if (!nodesOf(template) || /\{\s*site\./.test(template)) return undefined;
	return `${template}${isDescription ? '[[ {site.description}]]' : ' {separator} {site.name}'}`;
}

/** With the page's title before it, so that pages which say the same are told apart. */
export function withTitle(template: string): string | undefined {
	const nodes = nodesOf(template);
	if (!nodes || nodes.some((node) => asks(node, new Set(['page.title'])))) return undefined;
	return `[[{page.title}: ]]${template}`;
}

/** With what sets pages apart put behind the page's own title. */
export function addSection(template: string): string | undefined {
	const nodes = nodesOf(template);
	const title = nodes?.find((node) => asks(node, new Set(['page.title'])));
	if (!title || template.includes('page.section')) return undefined;
	return `${template.slice(0, title.end)}[[, {page.section}]]${template.slice(title.end)}`;
}
