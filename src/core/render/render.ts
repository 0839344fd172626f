import type { TagDefinition } from '../catalogue/types';
import type { Head, HeadTag, Trace } from '../resolve/types';
import { escapeAttribute, escapeText } from './escape';

declare const trusted: unique symbol;
/** Markup that this writer made. Nothing else does. */
export type Markup = string & { readonly [trusted]: true };

export interface RenderOptions {
	/** Self-closed tags, for XHTML. */
	readonly xhtml?: boolean;
}

const openings = new WeakMap<TagDefinition, string>();

/** What stands before a tag's value; the same for all pages, so it is made once. */
function openingOf(tag: TagDefinition): string {
	let opening = openings.get(tag);
	if (opening === undefined) {
		opening =
			tag.place === 'title'
				? '<title>'
				: tag.place === 'rel'
					? `<link rel="${escapeAttribute(tag.key)}" href="`
					: `<meta ${tag.place}="${escapeAttribute(tag.key)}" content="`;
		openings.set(tag, opening);
	}
	return opening;
}

/** One tag as markup. */
export function renderTag({ tag, value, attributes }: HeadTag, { xhtml = false }: RenderOptions = {}): Markup {
	if (tag.place === 'title') return `<title>${escapeText(value)}</title>` as Markup;
	let out = openingOf(tag) + escapeAttribute(value) + '"';
	if (attributes) for (const name of Object.keys(attributes)) out += ` ${name}="${escapeAttribute(attributes[name] as string)}"`;
	return (out + (xhtml ? ' />' : '>')) as Markup;
}

/** The markup of a head, a line for each tag. */
export function renderLines(head: Head, options: RenderOptions = {}): Markup[] {
	return [...(head.before as Markup[]), ...head.tags.map((tag) => renderTag(tag, options)), ...(head.after as Markup[])];
}

/** The markup of a head: one tag a line, ending in a line feed. */
export function renderHead(head: Head, options: RenderOptions = {}): Markup {
	let out = '';
	for (const markup of head.before) out += markup + '\n';
	for (const tag of head.tags) out += renderTag(tag, options) + '\n';
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
