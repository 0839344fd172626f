/** The nodes of a parsed template. Every node keeps its span: offsets in UTF-16 code units, `end` exclusive. */

interface Span {
	readonly start: number;
	readonly end: number;
}

export type TemplateNode = TextNode | SeparatorNode | PlaceholderNode | OptionalNode | ChoiceNode | FitNode | GoesNode;

interface TextNode extends Span {
	readonly kind: 'text';
	readonly text: string;
}

/** `{separator}` */
interface SeparatorNode extends Span {
	readonly kind: 'separator';
}

/**
 * `{a ?? b | filter}`: the first term that is not empty, through the filters from left to right. With a question mark before
 * its closing brace it prints nothing: its stretch is gone where it comes to nothing.
 */
export interface PlaceholderNode extends Span {
	readonly kind: 'placeholder';
	readonly terms: readonly Term[];
	readonly filters: readonly FilterCall[];
	readonly asks: boolean;
}

/** `[[ … ]]`: gone, with its own words, when a placeholder directly in it is empty. */
export interface OptionalNode extends Span {
	readonly kind: 'optional';
	readonly nodes: readonly TemplateNode[];
}

/** `[[ … ]] {or} [[ … ]]`: the first stretch that prints something. */
export interface ChoiceNode extends Span {
	readonly kind: 'choice';
	readonly options: readonly OptionalNode[];
}

/** `{fit 60}` or `{fit 580 px}`: how long or how wide the template may come to be. */
interface FitNode extends Span {
	readonly kind: 'fit';
	readonly limit: number;
	readonly by: 'characters' | 'pixels';
}

/** `{goes 1}`: the stretch in which it stands is the first to go where there is no room. */
interface GoesNode extends Span {
	readonly kind: 'goes';
	readonly turn: number;
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

export type Argument = LiteralArgument | VariableTerm;

interface LiteralArgument extends Span {
	readonly kind: 'literal';
	readonly value: string | number;
}
