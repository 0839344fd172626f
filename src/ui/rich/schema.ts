import { Schema, type DOMOutputSpec, type MarkSpec, type NodeSpec } from 'prosemirror-model';

/** The attributes of an element as its author wrote them, by name. */
export type Kept = Readonly<Record<string, string>>;

const NONE: Kept = {};
const kept = { kept: { default: NONE } };

/** A block that is one element with attributes of its own. */
const element = (tag: string, spec: NodeSpec): NodeSpec => ({
	group: 'block',
	...spec,
	attrs: { ...kept, ...spec.attrs },
	parseDOM: [{ tag }],
	toDOM: () => [tag, 0]
});

/** What the editor has no form for stands as a piece that can be moved and taken out, and is written as it was. */
const asItStands = (inline: boolean): NodeSpec => ({
	group: inline ? 'inline' : 'block',
	inline,
	atom: true,
	attrs: { html: {}, shown: { default: '' } },
	parseDOM: [
		{
			tag: inline ? 'span[data-html]' : 'div[data-html]',
			getAttrs: (dom) => ({ html: dom.dataset.html, shown: dom.textContent })
		}
	],
	toDOM: ({ attrs }): DOMOutputSpec => [
		inline ? 'span' : 'div',
		{ class: 'as-it-stands', 'data-html': attrs.html as string, title: attrs.html as string },
		attrs.shown as string
	]
});

const nodes = {
	doc: { content: 'block+' },
	// Bare: text that stands without an element of its own.
	paragraph: element('p', { content: 'inline*', attrs: { bare: { default: false } } }),
	heading: {
		group: 'block',
		content: 'inline*',
		defining: true,
		attrs: { ...kept, level: { default: 2 } },
		parseDOM: [1, 2, 3, 4, 5, 6].map((level) => ({ tag: `h${level}`, attrs: { level } })),
		toDOM: ({ attrs }): DOMOutputSpec => [`h${attrs.level as number}`, 0]
	},
	quote: element('blockquote', { content: 'block+', defining: true }),
	bullets: element('ul', { content: 'item+' }),
	numbers: element('ol', { content: 'item+' }),
	item: element('li', { group: '', content: 'block+', defining: true }),
	code: {
		group: 'block',
		content: 'text*',
		marks: '',
		code: true,
		defining: true,
		// The attributes of the code element in it; null where there is none.
		attrs: { ...kept, inner: { default: null } },
		parseDOM: [{ tag: 'pre', preserveWhitespace: 'full' as const }],
		toDOM: (): DOMOutputSpec => ['pre', 0]
	},
	line: { group: 'block', attrs: kept, parseDOM: [{ tag: 'hr' }], toDOM: (): DOMOutputSpec => ['hr'] },
	pieceBlock: asItStands(false),
	text: { group: 'inline' },
	break: {
		...{ group: 'inline', inline: true, selectable: false, attrs: kept },
		parseDOM: [{ tag: 'br' }],
		toDOM: (): DOMOutputSpec => ['br']
	},
	// Not fetched: where it lies is the website, not here.
	picture: {
		...{ group: 'inline', inline: true, atom: true, attrs: kept },
		parseDOM: [{ tag: 'img[src]', getAttrs: (dom) => ({ kept: attributesOf(dom, ['src', 'alt']) }) }],
		toDOM: ({ attrs }): DOMOutputSpec => {
			const { src = '', alt = '' } = attrs.kept as Kept;
			return ['span', { class: 'as-it-stands', title: src }, alt === '' ? `picture ${src}` : `picture: ${alt}`];
		}
	},
	pieceInline: asItStands(true)
} satisfies Record<string, NodeSpec>;

const mark = (tags: readonly [string, ...string[]], spec: MarkSpec = {}): MarkSpec => ({
	...spec,
	attrs: { ...kept, tag: { default: tags[0] } },
	parseDOM: tags.map((tag) => ({ tag, attrs: { tag } })),
	toDOM: ({ attrs }): DOMOutputSpec => [attrs.tag as string, 0]
});

/** The outermost first. */
const marks = {
	// Not a link here: it is written in, not followed.
	link: {
		inclusive: false,
		attrs: { ...kept, tag: { default: 'a' } },
		parseDOM: [{ tag: 'a[href]', getAttrs: (dom) => ({ kept: attributesOf(dom, ['href', 'title']) }) }],
		toDOM: ({ attrs }): DOMOutputSpec => ['span', { class: 'link-text', title: (attrs.kept as Kept).href ?? '' }, 0]
	},
	strong: mark(['strong', 'b']),
	em: mark(['em', 'i']),
	mono: mark(['code'])
} satisfies Record<string, MarkSpec>;

/** The attributes of an element, or those of some names. */
export function attributesOf(element: Element, names = element.getAttributeNames()): Kept {
	const all = names.flatMap((name) => {
		const value = element.getAttribute(name);
		return value === null ? [] : [[name, value] as const];
	});
	return all.length > 0 ? Object.fromEntries(all) : NONE;
}

/** What rich text is made of: what an editor has a form for, and pieces that stand as they are. */
export const schema = new Schema({ nodes, marks });
