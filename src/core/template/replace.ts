import type { TemplateNode } from './ast';
import { nodesIn } from './nodes';
import { parseTemplate } from './parse';
import { toTemplate } from './quote';

/**
 * A template in whose own words one text stands for another; what stands in braces is left as it is, and so are words
 * that do not hold it. A template that cannot be read is left whole. Every sign of both texts stands for itself.
 */
export function replaceWords(source: string, find: string, by: string, whole = false): string {
	const { nodes, issues } = parseTemplate(source);
	if (find === '' || issues.some(({ severity }) => severity === 'error')) return source;
	let out = '';
	let from = 0;
	for (const { text, start, end } of wordsIn(nodes)) {
		const replaced = replaceInText(text, find, by, whole);
		if (replaced === text) continue;
		out += source.slice(from, start) + toTemplate(replaced);
		from = end;
	}
	return out + source.slice(from);
}

/** A text in which one text stands for another: everywhere, or (`whole`) where no letter or digit touches it. */
export function replaceInText(text: string, find: string, by: string, whole = false): string {
	if (find === '' || !text.includes(find)) return text;
	if (!whole) return text.split(find).join(by);
	const [first, last] = [isPartOfWord(find, 0), isPartOfWord(find, find.length - 1)];
	let [out, from] = ['', 0];
	for (let at = text.indexOf(find); at >= 0; at = text.indexOf(find, from)) {
		const end = at + find.length;
		// What begins or ends with a sign is not parted from a word by it.
		const touches = (first && isPartOfWord(text, at - 1)) || (last && isPartOfWord(text, end));
		out += text.slice(from, at) + (touches ? find : by);
		from = end;
	}
	return out + text.slice(from);
}
const isPartOfWord = (text: string, at: number) => {
	// The second half of a letter that has two units stands for the whole of it.
	const code = text.charCodeAt(at);
	const char =
		code >= 0xdc00 && code <= 0xdfff ? text.slice(at - 1, at + 1) : String.fromCodePoint(text.codePointAt(at) ?? 32);
	return /[\p{L}\p{N}\p{M}]/u.test(char);
};

/** The words of a template in their order, with their places. */
const wordsIn = (nodes: readonly TemplateNode[]): Extract<TemplateNode, { kind: 'text' }>[] =>
	nodes.flatMap((node) => (node.kind === 'text' ? [node] : wordsIn(nodesIn(node))));
