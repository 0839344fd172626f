import { trimSpace } from '../../text/text';

/** Markdown is read this far (UTF-16 code units): no head says more. */
const MOST = 20_000;

/**
 * Markdown (CommonMark 0.31) without its signs, on one line: headings, quotes and items without what marks them, links and
 * pictures by their words, code by itself; fences, rules, tables' lines and HTML go. Each pass takes time that grows with
 * the length alone.
 */
export function unmark(source: string): string {
	const lines: string[] = [];
	let fence = '';
	for (const line of source.slice(0, MOST).split(/\r\n?|\n/)) {
		const mark = /^ {0,3}(`{3,}|~{3,})/.exec(line)?.[1]?.[0] ?? '';
		if (fence !== '') {
			if (mark === fence) fence = '';
			continue;
		}
		if (mark !== '') fence = mark;
		else if (!isRule(line)) lines.push(inLine(withoutMarker(line)));
	}
	return trimSpace(lines.filter((line) => line !== '').join(' '));
}

/** A rule, the line under a heading, the line under the head of a table, the definition of a link. */
const isRule = (line: string) => /^[\s|:=*_-]*$/.test(line) || /^ {0,3}\[[^\]]{1,200}\]:/.test(line);

/** Without the signs that a line begins with: quotes, items, numbers, headings. */
function withoutMarker(line: string): string {
	let rest = line.trimStart();
	for (let deep = 0; deep < 8; deep++) {
		const next = rest.replace(/^(?:>|[-*+](?=\s)|\d{1,9}[.)](?=\s)|#{1,6}(?=\s)|\[[ xX]\](?=\s))\s*/, '');
		if (next === rest) break;
		rest = next;
	}
	return rest.replace(/ #{1,20} ?$/, '').trim();
}

/** A link or a picture, `[words](where)` or `[words][which]`; words of a bounded length, so that time is. */
const LINK = /!?\[([^[\]]{0,500})\](?:\([^()\s]{0,1000}(?: "[^"]{0,300}")?\)|\[[^[\]]{0,200}\])/g;
const AUTOLINK = /<((?:https?:|mailto:)[^<>\s]{1,500})>/g;
const TAG = /<\/?[a-z][^<>]{0,500}>|<!--[^>]{0,500}-->/gi;
const ESCAPED = /\\([!-/:-@[-`{-~])/g;
/** Stands for an escaped sign while others are taken off. */
const HELD = 0xe000;

function inLine(line: string): string {
	const held = line.replace(ESCAPED, (_, sign: string) => String.fromCharCode(HELD + sign.charCodeAt(0)));
	return held
		.replace(LINK, '$1')
		.replace(LINK, '$1')
		.replace(AUTOLINK, '$1')
		.replace(TAG, '')
		.replace(/`/g, '')
		.replace(/\*{1,3}(?=\S)|(?<=\S)\*{1,3}/g, '')
		.replace(/(?<![\p{L}\p{N}])_{1,3}(?=\S)|(?<=\S)_{1,3}(?![\p{L}\p{N}])/gu, '')
		.replace(/~~/g, '')
		.replace(/[\ue021-\ue07e]/g, (sign) => String.fromCharCode(sign.charCodeAt(0) - HELD))
		.trim();
}
