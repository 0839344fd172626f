import { wording } from '$ui/words/en/rich';
import type { Mark, Node } from 'prosemirror-model';
import { looseTags } from '$core';
import { attributesOf, schema, type Kept } from './schema';

/** Markup of a page's text into what is edited, and back. */

const { nodes, marks } = schema;

/** Elements that stand in a line of text; all others are blocks. */
const INLINE = new Set(
	'a abbr audio b bdi bdo br button canvas cite code data del dfn em i iframe img input ins kbd label map mark math meter object output picture progress q ruby s samp select slot small span strong sub sup svg textarea time u var video wbr'.split(
		' '
	)
);
const MARK_OF: Readonly<Record<string, keyof typeof marks>> = {
	...{ a: 'link', strong: 'strong', b: 'strong', em: 'em', i: 'em', code: 'mono' }
};
const SPACE = /[ \t\n\r\f]+/g;
const isBlank = (text: string) => text.replace(SPACE, '') === '';

/** Reads markup. Whatever the editor has no form for is a piece that stands as it is, so that nothing is lost. */
export function readMarkup(html: string): Node {
	const blocks = blocksOf(parse(html));
	return nodes.doc.create(null, blocks.length > 0 ? blocks : [nodes.paragraph.create()]);
}

/** As part of a page: nothing moves into a head, and cells of tables stay where they are. */
function parse(html: string): DocumentFragment {
	const template = document.createElement('template');
	template.innerHTML = html;
	return template.content;
}

function blocksOf(parent: ParentNode & globalThis.Node): Node[] {
	const blocks: Node[] = [];
	let line: ChildNode[] = [];
	const endLine = () => {
		if (line.some((one) => !isBlank(one.textContent ?? '') || one.nodeType !== 3))
			blocks.push(nodes.paragraph.create({ bare: true }, inlinesOf(line)));
		line = [];
	};
	for (const child of parent.childNodes)
		if (isInline(child)) line.push(child);
		else {
			endLine();
			blocks.push(blockOf(child));
		}
	endLine();
	return blocks;
}

/** Whether a node stands in a line. What holds blocks itself is one. */
function isInline(node: ChildNode): boolean {
	if (!isElement(node)) return true;
	return INLINE.has(node.localName) && [...node.querySelectorAll('*')].every(({ localName }) => INLINE.has(localName));
}
const isElement = (node: ChildNode): node is Element & ChildNode => node.nodeType === 1;

function blockOf(node: ChildNode): Node {
	const element = node as Element & ChildNode;
	const { localName } = element;
	const kept = attributesOf(element);
	const children = [...element.childNodes];
	const heading = /^h([1-6])$/.exec(localName);
	if (heading && children.every(isInline))
		return nodes.heading.create({ level: Number(heading[1]), kept }, inlinesOf(children));
	if (localName === 'p') return nodes.paragraph.create({ kept }, inlinesOf(children));
	if (localName === 'blockquote') {
		const blocks = blocksOf(element);
		if (blocks.length > 0) return nodes.quote.create({ kept }, blocks);
	}
	if (localName === 'ul' || localName === 'ol') {
		const items = children.filter((one) => one.nodeType !== 3 || !isBlank(one.textContent ?? ''));
		if (items.length > 0 && items.every((one) => isElement(one) && one.localName === 'li'))
			return (localName === 'ul' ? nodes.bullets : nodes.numbers).create(
				{ kept },
				items.map((item) => {
					const blocks = blocksOf(item as Element);
					return nodes.item.create(
						{ kept: attributesOf(item as Element) },
						blocks.length > 0 ? blocks : [nodes.paragraph.create({ bare: true })]
					);
				})
			);
	}
	if (localName === 'hr') return nodes.line.create({ kept });
	if (localName === 'pre') {
		const [only] = children;
		const code = children.length === 1 && only && isElement(only) && only.localName === 'code' ? only : undefined;
		const holder = code ?? element;
		if (holder.children.length === 0) {
			const text = holder.textContent;
			return nodes.code.create({ kept, inner: code ? attributesOf(code) : null }, text ? schema.text(text) : undefined);
		}
	}
	return nodes.pieceBlock.create({ html: element.outerHTML, shown: shownOf(element) });
}

/** What a piece is called in the text: its element and what it says. */
function shownOf(node: ChildNode): string {
	if (!isElement(node)) return wording.aRemark;
	const text = node.textContent.replace(SPACE, ' ').trim();
	return `<${node.localName}> ${text.slice(0, 60)}${text.length > 60 ? '…' : ''}`.trim();
}

/** A line of text: white space as a browser shows it, none at its ends. */
function inlinesOf(line: readonly ChildNode[]): Node[] {
	const out: Node[] = [];
	let isAfterSpace = true;
	const put = (children: Iterable<ChildNode>, around: readonly Mark[]) => {
		for (const node of children)
			if (node.nodeType === 3) {
				let text = (node.textContent ?? '').replace(SPACE, ' ');
				if (isAfterSpace) text = text.replace(/^ /, '');
				if (text === '') continue;
				isAfterSpace = text.endsWith(' ');
				out.push(schema.text(text, around));
			} else putElement(node as Element & ChildNode, around);
	};
	const putElement = (element: Element & ChildNode, around: readonly Mark[]) => {
		const name = isElement(element) ? MARK_OF[element.localName] : undefined;
		const type = name && marks[name];
		if (type && hasWords(element) && around.every((mark) => mark.type !== type)) {
			const mark = type.create({ tag: element.localName, kept: attributesOf(element) });
			return put(element.childNodes, mark.addToSet(around));
		}
		isAfterSpace = isElement(element) && element.localName === 'br';
		const isPlain = isElement(element) && (isAfterSpace || element.localName === 'img');
		const leaf = isAfterSpace ? nodes.break : nodes.picture;
		out.push(
			isPlain
				? leaf.create({ kept: attributesOf(element) }, null, around)
				: nodes.pieceInline.create({ html: htmlOf(element), shown: shownOf(element) }, null, around)
		);
	};
	put(line, []);
	return withoutLastSpace(out);
}
/** An anchor, say, has none: it is a piece of its own. */
const hasWords = (element: Element) => element.children.length > 0 || !isBlank(element.textContent);
const htmlOf = (node: ChildNode) => (isElement(node) ? node.outerHTML : `<!--${node.textContent ?? ''}-->`);

function withoutLastSpace(line: Node[]): Node[] {
	const last = line.at(-1);
	if (!last?.isText || !last.text!.endsWith(' ')) return line;
	const text = last.text!.slice(0, -1);
	return [...line.slice(0, -1), ...(text === '' ? [] : [schema.text(text, last.marks)])];
}

/** Writes markup: a block on a line; '' for an empty text. */
export function writeMarkup(doc: Node): string {
	const isEmpty = doc.childCount === 1 && doc.firstChild!.isTextblock && doc.firstChild!.content.size === 0;
	return isEmpty ? '' : writeBlocks(doc).join('\n');
}

function writeBlocks(parent: Node): string[] {
	const blocks: string[] = [];
	parent.forEach((block, _offset, at) => {
		const isBare = (one: Node | null | undefined) => one?.attrs.bare === true;
		// Two lines without an element would run into one.
		const standsAlone = !isBare(at > 0 ? parent.child(at - 1) : null) || block.content.size === 0;
		blocks.push(isBare(block) && standsAlone ? writeLine(block) : writeBlock(block));
	});
	return blocks;
}

function writeBlock(block: Node): string {
	const { type, attrs } = block;
	const kept = attrs.kept as Kept;
	switch (type) {
		case nodes.pieceBlock:
			return attrs.html as string;
		case nodes.heading:
			return wrap(`h${attrs.level as number}`, kept, writeLine(block));
		case nodes.line:
			return opening('hr', kept);
		case nodes.code: {
			const text = escape(block.textContent);
			// A line feed right behind the opening tag is not part of the text.
			const inside = text.startsWith('\n') ? `\n${text}` : text;
			return wrap('pre', kept, attrs.inner ? wrap('code', attrs.inner as Kept, text) : inside);
		}
		case nodes.quote:
			return wrap('blockquote', kept, writeBlocks(block).join('\n'));
		case nodes.bullets:
		case nodes.numbers:
			return wrap(type === nodes.bullets ? 'ul' : 'ol', kept, `\n${writeBlocks(block).join('\n')}\n`);
		case nodes.item:
			return wrap('li', kept, writeBlocks(block).join('\n'));
		default:
			return wrap('p', kept, writeLine(block));
	}
}

function writeLine(block: Node): string {
	let [html, open] = ['', [] as readonly Mark[]];
	const close = (count: number) => {
		for (const { attrs } of open.slice(count).toReversed()) html += `</${attrs.tag as string}>`;
	};
	block.forEach((node) => {
		const shared = open.findIndex((mark, at) => !node.marks[at] || !mark.eq(node.marks[at]));
		const same = shared < 0 ? open.length : shared;
		close(same);
		for (const { attrs } of node.marks.slice(same)) html += opening(attrs.tag as string, attrs.kept as Kept);
		open = node.marks;
		html += writeInline(node);
	});
	close(0);
	return html;
}

function writeInline(node: Node): string {
	if (node.isText) return escape(node.text!);
	if (node.type === nodes.pieceInline) return node.attrs.html as string;
	return opening(node.type === nodes.break ? 'br' : 'img', node.attrs.kept as Kept);
}

const wrap = (tag: string, kept: Kept, inside: string) => `${opening(tag, kept)}${inside}</${tag}>`;
const opening = (tag: string, kept: Kept) =>
	`<${tag}${Object.entries(kept)
		.map(([name, value]) => ` ${name}="${value.replaceAll('&', '&amp;').replaceAll('"', '&quot;')}"`)
		.join('')}>`;
const escape = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

/** So much markup (UTF-16 code units) is compared within a moment. */
const MOST = 500_000;

/** Why markup is edited as it stands; undefined where it says the same after it was read and written. */
export function whyAsItStands(html: string): string | undefined {
	if (html.length > MOST) return wording.itIsTooLongToBeShown;
	return isFaithful(html) ? undefined : wording.itHasPartsThatOnlyMarkupCan;
}

/** Whether markup says the same after it was read and written. */
export function isFaithful(html: string): boolean {
	// What a browser passes over would be lost.
	return (
		looseTags(html).length === 0 && !/<frameset\b/i.test(html) && told(html) === told(writeMarkup(readMarkup(html)))
	);
}

/** Stands for a space that counts, in what is told. */
const HELD = '\u0001';

/** What markup says, whatever its white space and the order of what lies around the same words. */
function told(html: string): string {
	const out: string[] = [];
	let words = '';
	const tag = (element: Element) => opening(element.localName, attributesOf(element));
	const visit = (parent: ParentNode & globalThis.Node, around: readonly string[], isPre: boolean) => {
		for (const node of parent.childNodes) {
			if (node.nodeType === 3) {
				const text = node.textContent ?? '';
				for (const sign of isPre ? text.replaceAll(' ', HELD) : text.replace(SPACE, ' '))
					words += sign === ' ' ? sign : sign + around.join('');
				continue;
			}
			if (!isElement(node)) {
				words += `<!--${node.textContent ?? ''}-->`;
				continue;
			}
			if (MARK_OF[node.localName] && hasWords(node) && !around.includes(tag(node)) && !isPre) {
				visit(node, [...around, tag(node)].sort(), isPre);
				continue;
			}
			const isBlock = !INLINE.has(node.localName);
			const put = (text: string) => {
				if (!isBlock) return void (words += text);
				endWords();
				out.push(text);
			};
			put(tag(node) + around.join(''));
			visit(node, around, isPre || node.localName === 'pre');
			put(`</${node.localName}>`);
		}
	};
	const endWords = () => {
		const settled = words
			.replace(/ +/g, ' ')
			.replace(/ ?(<br>(?:<[^>]*>)*) ?/g, '$1')
			.trim();
		if (settled !== '') out.push(settled);
		words = '';
	};
	visit(parse(html), [], false);
	endWords();
	return out.join('\n');
}
