import { ownOf } from '../own';
import type { Issue } from '../issue';
import { PAGE_FACTS, type FieldValue } from '../model';
import type { PlaceholderNode, TemplateNode, Term, VariableTerm } from './ast';
import { isBlank, trimSpace } from '../text/text';
import { issuesOfCall } from './arguments';
import { FILTERS, runFilter, type FilterSpec } from './filters';
import { parseTemplate } from './parse';
import { isEmpty, ownValue, partOf, toText, type Value } from './values';

/** What a template can ask for while it runs. One object serves all templates of a page. */
export interface Scope {
	readonly language: string;
	/** As it stands between two stretches, with its spaces: see `spaced`. */
	readonly separator: string;
	/** The moment of rendering, ISO 8601. */
	readonly now: string;
	/** The page's own fields; only own properties count. */
	readonly fields: Readonly<Record<string, FieldValue>>;
	pageValue(name: string): Value;
	siteValue(name: string): Value;
	typeValue(name: string): Value;
	listingValue(name: string): Value;
	/** What another tag of the same page came to, '' for nothing. */
	headValue(tag: string): string;
}

/** What is worked out from the page rather than read from its fields. */
const FACTS: ReadonlySet<string> = new Set(PAGE_FACTS.map((fact) => fact.name));

/** The longest text (UTF-16 code units) a template may come to; a longer one is refused. */
export const MAX_OUTPUT = 10_000;

export interface CompiledTemplate {
	readonly source: string;
	/** Why it does not run and comes to nothing: an error found in reading, or a filter that cannot be run as written. */
	readonly fault: Issue | undefined;
	/** The tags whose outcome the template asks for. */
	readonly reads: readonly string[];
	/** It asks for nothing but what site, type and language say: it comes to the same on all their pages. */
	readonly isConstant: boolean;
	run(scope: Scope): string;
	/** For a template that is one placeholder and nothing else: its value, still a list where it is one. */
	readonly value?: (scope: Scope) => Value;
	/** The variables that are empty where words stand beside them, so that "in {page.region}" ends in "in". */
	gapNames(scope: Scope): string[];
	/** The variables that are empty in this scope and left a gap. For the trace; not on the hot path. */
	emptyNames(scope: Scope): string[];
}

type Part = (scope: Scope) => string | undefined;

/** A template read once and made into closures; running it parses nothing. */
export function compileTemplate(source: string): CompiledTemplate {
	const { nodes, issues } = parseTemplate(source);
	const fault = issues.find((issue) => issue.severity === 'error') ?? misusedFilter(nodes);
	const used = fault ? [] : nodes;
	const [first] = used;
	const only = used.length === 1 && first?.kind === 'placeholder' ? compileExpression(first) : undefined;
	const reads = variablesIn(used).flatMap((v) => (v.root === 'head' ? v.path : []));
	return {
		source,
		fault,
		reads: [...new Set(reads)],
		isConstant: variablesIn(used).every(({ root }) => root === 'site' || root === 'type'),
		run: compileSequence(used),
		...(only && { value: only }),
		gapNames: compileGaps(used),
		emptyNames: (scope) => emptyPlaceholders(used, scope)
	};
}

/** The first filter of a template that is unknown or has arguments that it cannot take. */
function misusedFilter(nodes: readonly TemplateNode[]): Issue | undefined {
	for (const node of nodes) {
		const found =
			node.kind === 'optional'
				? misusedFilter(node.nodes)
				: node.kind === 'placeholder'
					? node.filters.flatMap(issuesOfCall)[0]
					: undefined;
		if (found) return found;
	}
	return undefined;
}

/** Stands for `{separator}` until both its sides are known. Values never hold it: see `withoutMark`. */
const SEPARATOR_MARK = '\u0000';
const asItIs = (text: string) => text;
const withoutMark = (text: string) => (text.includes(SEPARATOR_MARK) ? text.replaceAll(SEPARATOR_MARK, '') : text);

function compileSequence(nodes: readonly TemplateNode[]): (scope: Scope) => string {
	if (!hasSeparator(nodes)) return joiner(nodes.map((node) => compileNode(node, asItIs)));
	if (nodes.some((node) => node.kind === 'optional' && hasSeparator(node.nodes))) {
		const join = joiner(nodes.map((node) => compileNode(node, withoutMark)));
		return (scope) => settleSeparators(join(scope).split(SEPARATOR_MARK), scope.separator);
	}
	const stretches = stretchesOf(nodes).map((stretch) =>
		joiner(trimEdges(stretch).map((node) => compileNode(node, asItIs)))
	);
	return (scope) => settleSeparators(stretches, scope.separator, scope);
}

/** A separator with a space on each side; a blank one is one space. */
export function spaced(separator: string): string {
	const sign = trimSpace(separator);
	return isBlank(sign) ? ' ' : ` ${sign} `;
}

/** The nodes between the separators. */
function stretchesOf(nodes: readonly TemplateNode[]): TemplateNode[][] {
	const stretches: TemplateNode[][] = [[]];
	for (const node of nodes) {
		if (node.kind === 'separator') stretches.push([]);
		else stretches.at(-1)?.push(node);
	}
	return stretches;
}

/** Runs the parts in order. The short cases are spelled out: most templates have one to three parts. */
function joiner(parts: readonly Part[]): (scope: Scope) => string {
	const [a, b, c] = parts;
	if (!a) return () => '';
	if (!b) return (scope) => a(scope) ?? '';
	if (!c) return (scope) => (a(scope) ?? '') + (b(scope) ?? '');
	return (scope) => {
		let out = '';
		for (const part of parts) out += part(scope) ?? '';
		return out;
	};
}

const hasSeparator = (nodes: readonly TemplateNode[]): boolean =>
	nodes.some((node) => node.kind === 'separator' || (node.kind === 'optional' && hasSeparator(node.nodes)));

/** Without blank words at the edges of a stretch: their spaces are trimmed while running in any case. */
function trimEdges(nodes: readonly TemplateNode[]): TemplateNode[] {
	const isEdge = (at: number) => at === 0 || at === nodes.length - 1;
	return nodes.filter((node, at) => node.kind !== 'text' || !isEdge(at) || trimSpace(node.text) !== '');
}

/** A separator prints only between two stretches that both printed something: never at an edge, never twice. */
function settleSeparators(stretches: readonly string[], separator: string): string;
function settleSeparators(stretches: readonly ((scope: Scope) => string)[], separator: string, scope: Scope): string;
function settleSeparators(
	stretches: readonly (string | ((scope: Scope) => string))[],
	separator: string,
	scope?: Scope
): string {
	let out = '';
	for (const stretch of stretches) {
		const text = trimSpace(typeof stretch === 'string' ? stretch : stretch(scope as Scope));
		if (!isBlank(text)) out = out === '' ? text : out + separator + text;
	}
	return out;
}

/** `tidy` is done to every value: where marks stand for separators, a value must hold none. */
function compileNode(node: TemplateNode, tidy: (text: string) => string): Part {
	switch (node.kind) {
		case 'text':
			return () => node.text;
		case 'separator':
			return () => SEPARATOR_MARK;
		case 'placeholder':
			return compilePlaceholder(node, tidy);
		case 'optional':
			return compileOptional(node.nodes, tidy);
	}
}

function compilePlaceholder(node: PlaceholderNode, tidy: (text: string) => string): Part {
	const value = compileExpression(node);
	return (scope) => {
		const got = value(scope);
		return isEmpty(got) ? undefined : tidy(toText(got));
	};
}

/** Comes to '' as soon as a placeholder directly in it is empty; a nested stretch that is gone does not matter. */
function compileOptional(nodes: readonly TemplateNode[], tidy: (text: string) => string): Part {
	const parts = nodes.map((node) => ({ run: compileNode(node, tidy), isVariable: node.kind === 'placeholder' }));
	return (scope) => {
		let out = '';
		for (const { run, isVariable } of parts) {
			const text = run(scope) ?? '';
			if (isVariable && isBlank(text)) return '';
			out += text;
		}
		return out;
	};
}

function compileExpression(node: PlaceholderNode): (scope: Scope) => Value {
	const chain = compileTerms(node.terms.map(compileTerm));
	if (!node.filters.length) return chain;
	// The template does not run with a filter that is unknown or misused: see `misusedFilter`.
	const steps = node.filters.map(({ name, args }) => ({
		spec: ownOf(FILTERS, name) as FilterSpec,
		args: args.map((arg) => arg.value)
	}));
	return (scope) => {
		let value = chain(scope);
		for (const { spec, args } of steps) value = runFilter(spec, value, args, scope.language);
		return value;
	};
}

function compileTerms(terms: readonly ((scope: Scope) => Value)[]): (scope: Scope) => Value {
	if (terms.length === 1) return terms[0]!;
	return (scope) => {
		for (const term of terms) {
			const value = term(scope);
			if (!isEmpty(value)) return value;
		}
		return undefined;
	};
}

function compileTerm(term: Term): (scope: Scope) => Value {
	if (term.kind === 'string') return () => term.value;
	const [name = '', ...deeper] = term.path;
	const read = compileRoot(term.root, name);
	if (term.root === 'head' || deeper.length === 0) return read;
	return (scope) => deeper.reduce<Value>(partOf, read(scope));
}

function compileRoot(root: string, name: string): (scope: Scope) => Value {
	switch (root) {
		case 'page':
			if (FACTS.has(name)) return (scope) => scope.pageValue(name);
			return (scope) => ownValue(scope.fields, name);
		case 'site':
			return (scope) => scope.siteValue(name);
		case 'type':
			return (scope) => scope.typeValue(name);
		case 'listing':
			return (scope) => scope.listingValue(name);
		case 'head':
			return (scope) => scope.headValue(name);
		case 'now':
			return (scope) => (name === '' ? scope.now : undefined);
		default:
			return () => undefined;
	}
}

/** Every variable in a template, in the order of their places. */
export function variablesIn(nodes: readonly TemplateNode[]): VariableTerm[] {
	return nodes.flatMap((node) => {
		if (node.kind === 'optional') return variablesIn(node.nodes);
		return node.kind === 'placeholder' ? node.terms.filter((term) => term.kind === 'variable') : [];
	});
}

/** A letter, a digit or a sign that leads on: words that need what they stand beside. */
const WORDS = /[\p{L}\p{N},.:;(&]/u;

/** What is optional leaves no gap, nor does a stretch between separators that has no words of its own. */
function compileGaps(nodes: readonly TemplateNode[]): (scope: Scope) => string[] {
	const risks = stretchesOf(nodes)
		.filter((stretch) => stretch.some((node) => node.kind === 'text' && WORDS.test(node.text)))
		.flatMap((stretch) => stretch.filter((node) => node.kind === 'placeholder'))
		.map((node) => ({ names: variablesIn([node]).map(({ name }) => name), value: compileExpression(node) }));
	return (scope) => [...new Set(risks.flatMap(({ names, value }) => (isEmpty(value(scope)) ? names : [])))];
}

function emptyPlaceholders(nodes: readonly TemplateNode[], scope: Scope): string[] {
	const names = new Set<string>();
	const visit = (list: readonly TemplateNode[]) => {
		for (const node of list) {
			if (node.kind === 'optional') visit(node.nodes);
			else if (node.kind === 'placeholder' && isEmpty(compileExpression(node)(scope)))
				for (const term of node.terms) if (term.kind === 'variable') names.add(term.name);
		}
	};
	visit(nodes);
	return [...names];
}
