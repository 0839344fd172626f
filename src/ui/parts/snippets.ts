import { wording } from '$ui/words/en/parts';
import { escapeText, type Head, type HeadTag } from '$core';

/** Ways to write a value into a page that templates make: by the signs they put round it. */
export const SNIPPETS = [
	{
		kind: 'curly',
		get name() {
			return wording.doubleCurlyBraces;
		}
	},
	{
		kind: 'percent',
		get name() {
			return wording.angleAndPercent;
		}
	},
	{ kind: 'php', name: 'PHP' },
	{ kind: 'literal', name: 'JavaScript' }
] as const;
export type SnippetKind = (typeof SNIPPETS)[number]['kind'];

/** How each writes a value that it escapes: `head` is the released head as JSON, by tag. */
const WRITE: Readonly<Record<SnippetKind, (name: string) => string>> = {
	curly: (name) => `{{ head['${name}'] }}`,
	percent: (name) => `<%= head['${name}'] %>`,
	php: (name) => `<?= htmlspecialchars($head['${name}']) ?>`,
	literal: (name) => `\${escape(head['${name}'])}`
};

/** The head's lines with places for the values instead of the values of this page. A repeated tag stands once. */
export function snippetOf(kind: SnippetKind, head: Head): string {
	const seen = new Set<string>();
	const lines = head.tags.flatMap((tag) => {
		if (seen.has(tag.tag.name)) return [];
		seen.add(tag.tag.name);
		return [lineOf(tag, WRITE[kind](tag.tag.name))];
	});
	return lines.join('\n') + '\n';
}

function lineOf({ tag, attributes }: HeadTag, value: string): string {
	if (tag.place === 'title') return `<title>${value}</title>`;
	const more = Object.entries(attributes ?? {}).map(([name, text]) => ` ${name}="${escapeText(text)}"`);
	return `${tag.markup}${value}"${more.join('')}>`;
}
