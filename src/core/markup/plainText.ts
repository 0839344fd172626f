import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import { isBlank, settleText } from '../text/text';
import { parsePiece } from './parseBounded';

/** Elements whose text is not for reading. */
export const SILENT = new Set([
	'script',
	'style',
	'template',
	'noscript',
	'iframe',
	'object',
	'svg',
	'math',
	'canvas',
	'audio',
	'video',
	'select',
	'textarea',
	'button'
]);
/** Elements that stand in a line of text: no space is meant at their edges. */
export const INLINE = new Set([
	'a',
	'abbr',
	'acronym',
	'b',
	'bdi',
	'bdo',
	'big',
	'cite',
	'code',
	'data',
	'del',
	'dfn',
	'em',
	'font',
	'i',
	'ins',
	'kbd',
	'img',
	'mark',
	'nobr',
	'q',
	'rb',
	'ruby',
	's',
	'samp',
	'small',
	'span',
	'strike',
	'strong',
	'sub',
	'sup',
	'time',
	'tt',
	'u',
	'var',
	'wbr'
]);

/** The text a reader would see, with one space where a block begins or ends. Accepts any string. */
export function htmlToText(html: string): string {
	if (!/[<&]/.test(html)) return html;
	return settleText(textOf(parsePiece(html)));
}

/**
 * The text below a node, blocks set apart by spaces; not yet trimmed. `skip` leaves out whole elements.
 * Walks with a stack of its own: markup from outside can nest deeper than calls can.
 */
export function textOf(top: Tree.Node, skip: (element: Tree.Element) => boolean = () => false): string {
	let out = '';
	const waiting: (Tree.Node | ' ')[] = [top];
	for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
		if (node === ' ') out += ' ';
		// A block that holds nothing but white space, of whatever kind, is an empty line.
		else if ('value' in node) out += isAlone(node) && isBlank(node.value) ? ' ' : node.value;
		else if ('childNodes' in node) {
			const isBlock = 'tagName' in node && !INLINE.has(node.tagName);
			if (isBlock) out += ' ';
			if ('tagName' in node && (SILENT.has(node.tagName) || skip(node))) continue;
			if (isBlock) waiting.push(' ');
			for (let i = node.childNodes.length - 1; i >= 0; i--) waiting.push(node.childNodes[i] as Tree.Node);
		}
	}
	return out;
}

/** Whether a text is all that its block holds. */
const isAlone = ({ parentNode: parent }: Tree.TextNode | Tree.CommentNode) =>
	parent !== null && parent.childNodes.length === 1 && 'tagName' in parent && !INLINE.has(parent.tagName);
