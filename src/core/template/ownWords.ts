import type { TemplateNode } from './ast';
import { nodesIn } from './nodes';
import { parseTemplate } from './parse';

/** A word that is no name: it begins with a small letter, or it is of a script that has no capitals. */
const PLAIN_WORD = /(?<![\p{L}\p{N}\p{M}@#/._'’-])(?:\p{Ll}|\p{Lo})[\p{L}\p{M}'’-]+(?![\p{L}\p{M}'’@-]|\.\p{L})/u;

/**
 * What a template says in words of its own, piece by piece as they stand, where there are words in it that are no names: text
 * beside its placeholders, texts that stand in, words that filters choose among. None of a template that cannot be read.
 */
export function ownWords(source: string): string[] {
	const { nodes, issues } = parseTemplate(source);
	if (issues.some(({ severity }) => severity === 'error')) return [];
	return [...new Set(textsIn(nodes).map((text) => text.trim()))].filter((text) => PLAIN_WORD.test(text));
}

const textsIn = (nodes: readonly TemplateNode[]): string[] =>
	nodes.flatMap((node) => {
		if (node.kind === 'text') return [node.text];
		if (node.kind !== 'placeholder') return textsIn(nodesIn(node));
		const standIns = node.terms.flatMap((term) => (term.kind === 'string' ? [term.value] : []));
		const chosen = node.filters.flatMap(({ name, args }) =>
			name === 'plural' ? args.flatMap((one) => (one.kind === 'literal' ? [String(one.value)] : [])) : []
		);
		return [...standIns, ...chosen];
	});
