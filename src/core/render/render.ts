import type { Head, HeadTag, Trace } from '../resolve/types';
import { escapeAttribute, escapeText, isPlain } from './escape';

declare const trusted: unique symbol;
/** Markup that this writer made. Nothing else does. */
export type Markup = string & { readonly [trusted]: true };

export interface RenderOptions {
	/** Self-closed tags, for XHTML. */
	readonly xhtml?: boolean;
}

const NONE: string[] = [];

/** Values escaped for attributes, kept for one head: several tags often carry the same text. */
class Escaped {
	private raw: string[] | undefined;
	private done: string[] = NONE;
	of(text: string): string {
		if (isPlain(text)) return text;
		if (!this.raw) [this.raw, this.done] = [[], []];
		const at = this.raw.indexOf(text);
		if (at >= 0) return this.done[at] as string;
		const escaped = escapeAttribute(text);
		this.raw.push(text);
		this.done.push(escaped);
		return escaped;
	}
}

const CLOSE = '">';
const CLOSE_XHTML = '" />';

function writeTag({ tag, value, attributes }: HeadTag, isXhtml: boolean, escaped: Escaped): string {
	if (tag.place === 'title') return `<title>${escapeText(value)}</title>`;
	const close = isXhtml ? CLOSE_XHTML : CLOSE;
	if (!attributes) return tag.opening + escaped.of(value) + close;
	let out = tag.opening + escaped.of(value);
	for (const name of Object.keys(attributes)) out += `" ${name}="${escapeAttribute(attributes[name] as string)}`;
	return out + close;
}

/** One tag as markup. */
export function renderTag(tag: HeadTag, options: RenderOptions = {}): Markup {
	return writeTag(tag, options.xhtml === true, new Escaped()) as Markup;
}

/** The markup of a head, a line for each tag. */
export function renderLines(head: Head, options: RenderOptions = {}): Markup[] {
	return [
		...(head.before as Markup[]),
		...head.tags.map((tag) => renderTag(tag, options)),
		...(head.after as Markup[])
	];
}

/** The markup of a head: one tag a line, ending in a line feed. */
export function renderHead(head: Head, options: RenderOptions = {}): Markup {
	const isXhtml = options.xhtml === true;
	const escaped = new Escaped();
	let out = '';
	for (const markup of head.before) out += markup + '\n';
	for (let i = 0; i < head.tags.length; i++) out += writeTag(head.tags[i] as HeadTag, isXhtml, escaped) + '\n';
	for (const markup of head.after) out += markup + '\n';
	return out as Markup;
}

/** A head as plain data: the same tags in the same order, for programs that write their own markup. */
export interface HeadJson {
	readonly html: Head['html'];
	readonly tags: readonly {
		readonly tag: string;
		readonly element: 'title' | 'meta' | 'link';
		readonly attributes: Readonly<Record<string, string>>;
		readonly value: string;
	}[];
	readonly before?: readonly string[];
	readonly after?: readonly string[];
	readonly traces?: readonly Trace[];
}

export function headToJson(head: Head, traces?: readonly Trace[]): HeadJson {
	return {
		html: head.html,
		tags: head.tags.map(({ tag, value, attributes }) => ({
			tag: tag.name,
			element: tag.place === 'title' ? 'title' : tag.place === 'rel' ? 'link' : 'meta',
			attributes: { ...(tag.place !== 'title' && { [tag.place]: tag.key }), ...attributes },
			value
		})),
		...(head.before.length && { before: head.before }),
		...(head.after.length && { after: head.after }),
		...(traces && { traces })
	};
}
