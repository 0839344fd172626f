import type { Issue } from '../issue';
import type { PlaceholderNode, TemplateNode, Term, VariableTerm } from './ast';
import { FILTERS, runFilter, type FilterSpec } from './filters';
import { parseTemplate } from './parse';
import { isEmpty, partOf, toText, type Value } from './values';

/** What a template can ask for while it runs. One object serves all templates of a page. */
export interface Scope {
	readonly language: string;
	readonly separator: string;
	/** The moment of rendering, ISO 8601. */
	readonly now: string;
	pageValue(name: string): Value;
	siteValue(name: string): Value;
	typeValue(name: string): Value;
	listingValue(name: string): Value;
	/** What another tag of the same page came to, '' for nothing. */
	headValue(tag: string): string;
}

/** The longest text (UTF-16 code units) a template may come to; a longer one is refused. */
export const MAX_OUTPUT = 10_000;

export interface CompiledTemplate {
	readonly source: string;
	/** Errors found in reading; with any, the template does not run and comes to nothing. */
	readonly issues: readonly Issue[];
	/** The tags whose outcome the template asks for. */
	readonly reads: readonly string[];
	run(scope: Scope): string;
	/** For a template that is one placeholder and nothing else: its value, still a list where it is one. */
	readonly value?: (scope: Scope) => Value;
	/** The variables that are empty in this scope and left a gap. For the trace; not on the hot path. */
	emptyNames(scope: Scope): string[];
}

type Part = (scope: Scope) => string | undefined;

/** A template read once and made into closures; running it parses nothing. */
export function compileTemplate(source: string): CompiledTemplate {
	const { nodes, issues } = parseTemplate(source);
	const broken = issues.some((issue) => issue.severity === 'error');
	const used = broken ? [] : nodes;
	const [first] = used;
	const only = used.length === 1 && first?.kind === 'placeholder' ? compileExpression(first) : undefined;
	const reads = variablesIn(used).flatMap((v) => (v.root === 'head' ? v.path : []));
	return {
		source,
		issues,
		reads: [...new Set(reads)],
		run: compileSequence(used),
		...(only && { value: only }),
		emptyNames: (scope) => emptyPlaceholders(used, scope)
	};
}

/** Stands for `{sep}` until both its sides are known. Values never hold it: see `withoutMark`. */
const SEPARATOR_MARK = '\u0000';
const withoutMark = (text: string) => (text.includes(SEPARATOR_MARK) ? text.replaceAll(SEPARATOR_MARK, '') : text);

function compileSequence(nodes: readonly TemplateNode[]): (scope: Scope) => string {
	const parts = nodes.map(compileNode);
	const join = joiner(parts);
	if (!hasSeparator(nodes)) return join;
	return (scope) => settleSeparators(join(scope), scope.separator);
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

/** A separator prints only between two stretches that both printed something: never at an edge, never twice. */
function settleSeparators(text: string, separator: string): string {
	const sign = separator.trim();
	return text
		.split(SEPARATOR_MARK)
		.map((stretch) => stretch.trim())
		.filter((stretch) => stretch !== '')
		.join(sign === '' ? ' ' : ` ${sign} `);
}

function compileNode(node: TemplateNode): Part {
	switch (node.kind) {
		case 'text':
			return () => node.text;
		case 'separator':
			return () => SEPARATOR_MARK;
		case 'placeholder':
			return compilePlaceholder(node);
		case 'optional':
			return compileOptional(node.nodes);
	}
}

function compilePlaceholder(node: PlaceholderNode): Part {
	const value = compileExpression(node);
	return (scope) => {
		const got = value(scope);
		if (typeof got === 'string' && got !== '') return withoutMark(got);
		return isEmpty(got) ? undefined : withoutMark(toText(got));
	};
}

/** Comes to '' as soon as a placeholder directly in it is empty; a nested stretch that is gone does not matter. */
function compileOptional(nodes: readonly TemplateNode[]): Part {
	const parts = nodes.map((node) => ({ run: compileNode(node), isVariable: node.kind === 'placeholder' }));
	return (scope) => {
		let out = '';
		for (const { run, isVariable } of parts) {
			const text = run(scope) ?? '';
			if (isVariable && text.trim() === '') return '';
			out += text;
		}
		return out;
	};
}

function compileExpression(node: PlaceholderNode): (scope: Scope) => Value {
	const chain = compileTerms(node.terms.map(compileTerm));
	if (!node.filters.length) return chain;
	const steps = node.filters.flatMap(({ name, args }) =>
		Object.hasOwn(FILTERS, name) ? [{ spec: FILTERS[name] as FilterSpec, args: args.map((arg) => arg.value) }] : []
	);
	// An unknown filter is an error of the check; in data from outside the value is treated as missing.
	if (steps.length < node.filters.length) return () => undefined;
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
			return (scope) => scope.pageValue(name);
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
