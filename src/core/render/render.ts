import type { Resolver } from '../resolve/resolver';
import type { Head, HeadTag, TagSink } from '../resolve/head';
import type { Step } from '../resolve/plan';
import type { Trace } from '../resolve/trace';
import type { ExtraMarkup, Page } from '../model';
import { tagAsWritten } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import { escapeAttribute, escapeText } from './escape';

declare const trusted: unique symbol;
/** Markup that this writer made. Nothing else does. */
export type Markup = string & { readonly [trusted]: true };

export interface RenderOptions {
	/** Self-closed tags, for XHTML. */
	readonly xhtml?: boolean;
}

/**
 * Writes tags as markup, one a line. Tags of one page often carry the same text, and some the same on page after page:
 * what each place of the plan carried last is kept with its escaped form, and used again while the text is the same.
 */
class MarkupWriter implements TagSink {
	private readonly close: string;
	private readonly raw: string[] = [];
	private readonly escaped: string[] = [];

	constructor(private readonly isXhtml: boolean) {
		this.close = isXhtml ? '" />\n' : '">\n';
	}

	markup(_where: keyof ExtraMarkup, elements: readonly string[]): string {
		return elements.length === 0 ? '' : `${elements.join('\n')}\n`;
	}

	tag(tag: TagDefinition, value: string, attributes: HeadTag['attributes']): string {
		if (tag.place === 'title') return titleElement(value);
		let out = tag.markup + escapeAttribute(value);
		if (attributes) for (const [name, said] of Object.entries(attributes)) out += `" ${name}="${escapeAttribute(said)}`;
		return out + this.close;
	}

	text(step: Step, value: string): string {
		const { tag } = step;
		if (tag.place === 'title') return titleElement(value);
		return tag.markup + this.escape(step.index, step.borrowed, value) + this.close;
	}

	/** Its markup is made once for each plan. */
	constant(step: Step, value: string): string {
		if (this.isXhtml) return this.tag(step.tag, value, undefined);
		return (step.markup ??= this.tag(step.tag, value, undefined));
	}

	/** A text is mostly the one that its tag borrows; that of a tag which borrows nothing is often the page's before. */
	private escape(index: number, borrowed: number, text: string): string {
		const { raw, escaped } = this;
		if (raw[borrowed] === text) return escaped[borrowed] as string;
		raw[index] = text;
		return (escaped[index] = escapeAttribute(text));
	}
}

const titleElement = (text: string) => `<title>${escapeText(text)}</title>\n`;
const writerFor = ({ xhtml = false }: RenderOptions) => new MarkupWriter(xhtml);

/** One tag as markup. */
export function renderTag({ tag, value, attributes }: HeadTag, options: RenderOptions = {}): Markup {
	return writerFor(options).tag(tag, value, attributes).slice(0, -1) as Markup;
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
	const writer = writerFor(options);
	const tags = head.tags.map(({ tag, value, attributes }) => writer.tag(tag, value, attributes));
	return (writer.markup('before', head.before) + tags.join('') + writer.markup('after', head.after)) as Markup;
}

/**
 * Writes the heads of many pages straight from the resolver: the same bytes as `renderHead` of each page's head,
 * without making the heads.
 */
export class PageRenderer {
	private readonly writer: MarkupWriter;

	constructor(
		private readonly resolver: Resolver,
		options: RenderOptions = {}
	) {
		this.writer = writerFor(options);
	}

	/** The markup of a page's head. */
	render(page: Page): Markup {
		return this.resolver.writeTags(page, this.writer) as Markup;
	}

	/** The same, with a trace for every tag that anything was said about. */
	renderWithTrace(page: Page): { markup: Markup; traces: Trace[] } {
		const { written, traces } = this.resolver.writeWithTrace(page, this.writer);
		return { markup: written as Markup, traces };
	}
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
	/** Tags that a rule leaves out of this head: one that a file has goes out of it. */
	readonly leftOut?: readonly string[];
	readonly traces?: readonly Trace[];
}

/** What can be said of a head beside its tags. */
interface AboutHead {
	readonly leftOut?: readonly string[];
	readonly traces?: readonly Trace[] | undefined;
}

export function headToJson(head: Head, { leftOut = [], traces }: AboutHead = {}): HeadJson {
	return {
		html: head.html,
		tags: head.tags.map(({ tag, value, attributes }) => ({
			tag: tag.name,
			element: tag.place === 'title' ? 'title' : tag.place === 'rel' ? 'link' : 'meta',
			attributes: tag.place === 'title' ? { ...attributes } : { [tag.place]: tag.key, ...attributes },
			value
		})),
		...(head.before.length && { before: head.before }),
		...(head.after.length && { after: head.after }),
		...(leftOut.length && { leftOut }),
		...(traces && { traces })
	};
}

/** The head that was kept as plain data: it renders to the same bytes, whatever the catalogue says by now. */
export function headOfJson({ html, tags, before = [], after = [] }: HeadJson): Head {
	return {
		...{ html, before, after },
		tags: tags.map(({ tag: name, element, attributes: { name: own, property, rel, ...more }, value }) => {
			const place = element === 'title' ? 'title' : rel !== undefined ? 'rel' : own !== undefined ? 'name' : 'property';
			const tag = tagAsWritten(name, place, own ?? property ?? rel ?? name);
			return { tag, value, attributes: Object.keys(more).length ? more : undefined };
		})
	};
}
