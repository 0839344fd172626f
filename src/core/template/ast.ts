/** The nodes of a parsed template. Every node keeps its span: offsets in UTF-16 code units, `end` exclusive. */

interface Span {
	readonly start: number;
	readonly end: number;
}

export type TemplateNode = TextNode | SeparatorNode | PlaceholderNode | OptionalNode;

interface TextNode extends Span {
	readonly kind: 'text';
	readonly text: string;
}

/** `{separator}` */
interface SeparatorNode extends Span {
	readonly kind: 'separator';
}

/** `{a ?? b | filter}`: the first term that is not empty, through the filters from left to right. */
export interface PlaceholderNode extends Span {
	readonly kind: 'placeholder';
	readonly terms: readonly Term[];
	readonly filters: readonly FilterCall[];
}

/** `[[ … ]]`: gone, with its own words, when a placeholder directly in it is empty. */
interface OptionalNode extends Span {
	readonly kind: 'optional';
	readonly nodes: readonly TemplateNode[];
}

export type Term = VariableTerm | StringTerm;

export interface VariableTerm extends Span {
	readonly kind: 'variable';
	/** The name as written, such as `page.author.name` or `head.og:title`. */
	readonly name: string;
	readonly root: string;
	readonly path: readonly string[];
}

interface StringTerm extends Span {
	readonly kind: 'string';
	readonly value: string;
}

export interface FilterCall extends Span {
	readonly name: string;
	readonly args: readonly Argument[];
}

export interface Argument extends Span {
	readonly value: string | number;
}
