import type { TemplateNode } from './ast';
import { nodesIn } from './nodes';
import { parseTemplate } from './parse';
import { toTemplate } from './quote';

/**
 * A template in whose own words one text stands for another; what stands in braces is left as it is, and so are words
 * that do not hold it. A template that cannot be read is left whole. Every sign of both texts stands for itself.
 */
export function replaceWords(source: string, find: string, by: string): string {
	const { nodes, issues } = parseTemplate(source);
	if (find === '' || issues.some(({ severity }) => severity === 'error')) return source;
	let out = '';
	let from = 0;
	for (const { text, start, end } of wordsIn(nodes)) {
		if (!text.includes(find)) continue;
		out += source.slice(from, start) + toTemplate(text.split(find).join(by));
		from = end;
	}
	return out + source.slice(from);
}

/** The words of a template in their order, with their places. */
const wordsIn = (nodes: readonly TemplateNode[]): Extract<TemplateNode, { kind: 'text' }>[] =>
	nodes.flatMap((node) => (node.kind === 'text' ? [node] : wordsIn(nodesIn(node))));
