import type { Issue } from '../issue';
import { PAGE_FACTS, type FieldValue } from '../model';
import type { ChoiceNode, FilterCall, PlaceholderNode, TemplateNode, Term } from './ast';
import { isBlank, trimSpace } from '../text/text';
import { asArgument, issuesOfCall } from './arguments';
import { filterOf, runFilter } from './filters';
import type { ArgumentValue, FilterContext, FilterSpec } from './filters/spec';
import { compileFit, type Stretch } from './fit';
import { nodesIn, placeholdersIn, termsOf, variablesIn } from './nodes';
import { MOST_PIECES, nameOfPiece, NO_PIECES, sizeOfPiece, type Pieces } from './pieces';
import { parseTemplate } from './parse';
import { isEmpty, ownValue, partOf, toText, type Value } from './values';

/** What a template can ask for while it runs. One object serves all templates of a page. */
export interface Scope extends FilterContext {
	/** As it stands between two stretches, with its spaces: see `spaced`. */
	readonly separator: string;
	/** The moment of rendering, that `{now}` names. */
	readonly moment: string;
	/** The page's own fields; only own properties count. */
	readonly fields: Readonly<Record<string, FieldValue>>;
	pageValue(name: string): Value;
	siteValue(name: string): Value;
	typeValue(name: string): Value;
	listingValue(name: string): Value;
	/** What another tag of the same page came to, '' for nothing. */
	headValue(tag: string): string;
	/** The site's own words by their name, in the page's language. */
	wordValue(name: string): Value;
	/** The words that the fields of its type have for their values; undefined where none has any. */
	readonly said: ((field: string, value: Value) => Value) | undefined;
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
	/** It asks what the heads of other pages came to. */
	readonly readsHeads: boolean;
	/** It asks for nothing but what site, type and language say: it comes to the same on all their pages. */
	readonly isConstant: boolean;
	run(scope: Scope): string;
	/** For a template that is one placeholder and nothing else: its value, still a list where it is one. */
	readonly value?: (scope: Scope) => Value;
	/** The stretches that gave way, where a template says how long it may be; by their places in the source. */
	gone(scope: Scope): readonly { readonly start: number; readonly end: number }[];
	/** The variables that are empty where words stand beside them, so that "in {page.region}" ends in "in". */
	gapNames(scope: Scope): string[];
	/** The variables that are empty in this scope and left a gap. For the trace; not on the hot path. */
	emptyNames(scope: Scope): string[];
}

type Part = (scope: Scope) => string | undefined;

/** A template read once and made into closures; running it parses nothing. `pieces` are those that it can use. */
export function compileTemplate(source: string, pieces: Pieces = NO_PIECES): CompiledTemplate {
	const { nodes, issues } = parseTemplate(source);
	const fault =
		issues.find((issue) => issue.severity === 'error') ?? misusedFilter(nodes) ?? tooManyPieces(nodes, pieces);
	const used = fault ? [] : nodes;
	const compiler = new Compiler(pieces);
	const [first] = used;
	const only =
		used.length === 1 && first?.kind === 'placeholder' && !first.asks ? compiler.expression(first) : undefined;
	const variables = variablesIn(used);
	const reads = variables.flatMap((v) => (v.root === 'head' ? v.path : []));
	const run = compiler.template(used);
	const inner = compiler.used;
	return {
		source,
		fault,
		reads: [...new Set([...reads, ...inner.flatMap((piece) => piece.reads)])],
		readsHeads: asksForHeads(used) || inner.some((piece) => piece.readsHeads),
		isConstant:
			variables.every(({ root }) => root === 'site' || root === 'type' || root === 'words' || root === 'piece') &&
			inner.every((piece) => piece.isConstant) &&
			!placeholdersIn(used).some(({ filters }) => filters.some(({ name }) => filterOf(name)?.isTimed)),
		run: run.run,
		...(only && { value: only }),
		gone: run.gone,
		gapNames: compileGaps(used, compiler),
		emptyNames: (scope) => emptyPlaceholders(used, scope, compiler)
	};
}

/** Whether nodes ask for what a tag of another page came to, by themselves or for each of several. */
const asksForHeads = (nodes: readonly TemplateNode[]): boolean =>
	variablesIn(nodes).some(({ root, path }) => root === 'page' && path[1] === 'head' && path.length > 2) ||
	placeholdersIn(nodes).some(({ filters }) =>
		filters.some(
			({ name, args: [part] }) => name === 'each' && (part?.kind !== 'literal' || /^head\./.test(String(part.value)))
		)
	);

/** The first filter of a template that is unknown or has arguments that it cannot take. */
const misusedFilter = (nodes: readonly TemplateNode[]): Issue | undefined =>
	placeholdersIn(nodes).flatMap(({ filters }) => filters.flatMap(issuesOfCall))[0];

/** The first use of a piece with which there are more than a template may hold. */
function tooManyPieces(nodes: readonly TemplateNode[], pieces: Pieces): Issue | undefined {
	let count = 0;
	for (const variable of variablesIn(nodes)) {
		if (variable.root !== 'piece') continue;
		count += sizeOfPiece(pieces, nameOfPiece(variable)) ?? 0;
		const { name: seen, start, end } = variable;
		if (count > MOST_PIECES)
			return { code: 'template/too-many-pieces', severity: 'error', start, end, seen, expected: String(MOST_PIECES) };
	}
	return undefined;
}

/** Pieces made ready, once for all templates that use them. */
const READY = new WeakMap<Pieces, Map<string, CompiledTemplate | undefined>>();

function pieceNamed(pieces: Pieces, name: string): CompiledTemplate | undefined {
	let ready = READY.get(pieces);
	if (!ready) READY.set(pieces, (ready = new Map<string, CompiledTemplate | undefined>()));
	if (!ready.has(name))
		ready.set(name, sizeOfPiece(pieces, name) === undefined ? undefined : compileTemplate(pieces.get(name)!, pieces));
	return ready.get(name);
}

/** Stands for `{separator}` until both its sides are known. Values never hold it: see `withoutMark`. */
const SEPARATOR_MARK = '\u0000';
const asItIs = (text: string) => text;
const withoutMark = (text: string) => (text.includes(SEPARATOR_MARK) ? text.replaceAll(SEPARATOR_MARK, '') : text);

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
	nodes.some((node) => node.kind === 'separator' || hasSeparator(nodesIn(node)));

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

const NOTHING_GONE = () => [];
const NOTHING = () => '';

/** Makes closures of nodes; knows the pieces that a template may use. */
class Compiler {
	/** The pieces that were used. */
	readonly used: CompiledTemplate[] = [];

	constructor(private readonly pieces: Pieces) {}

	/** A whole template: how long it may be and what it asks are said at its top. */
	template(nodes: readonly TemplateNode[]): Pick<CompiledTemplate, 'run' | 'gone'> {
		const fit = nodes.find((node) => node.kind === 'fit');
		const asks = nodes.filter((node) => node.kind === 'placeholder').filter((node) => node.asks);
		const questions = asks.map((node) => this.expression(node));
		const rest = nodes.filter((node) => node.kind !== 'placeholder' || !node.asks);
		const whole = fit ? this.fitted(rest, fit) : { run: this.sequence(rest), gone: NOTHING_GONE };
		if (questions.length === 0) return whole;
		const isSo = (scope: Scope) => questions.every((question) => !isEmpty(question(scope)));
		return {
			run: (scope) => (isSo(scope) ? whole.run(scope) : ''),
			gone: (scope) => (isSo(scope) ? whole.gone(scope) : [])
		};
	}

	private fitted(nodes: readonly TemplateNode[], fit: Extract<TemplateNode, { kind: 'fit' }>) {
		const stretches = nodes.map((node): Stretch<Scope> => {
			const readings = (node.kind === 'choice' ? node.options : [node]).map((one) => ({
				...{ start: one.start, end: one.end },
				read: this.node(one, withoutMark)
			}));
			const turn = node.kind === 'optional' ? node.nodes.find((one) => one.kind === 'goes')?.turn : undefined;
			return { readings, mayGo: node.kind === 'optional', turn };
		});
		return compileFit(stretches, fit, (texts, scope) =>
			settleSeparators(texts.join('').split(SEPARATOR_MARK), scope.separator)
		);
	}

	private sequence(nodes: readonly TemplateNode[]): (scope: Scope) => string {
		if (!hasSeparator(nodes)) return joiner(nodes.map((node) => this.node(node, asItIs)));
		if (nodes.some((node) => hasSeparator(nodesIn(node)))) {
			const join = joiner(nodes.map((node) => this.node(node, withoutMark)));
			return (scope) => settleSeparators(join(scope).split(SEPARATOR_MARK), scope.separator);
		}
		const stretches = stretchesOf(nodes).map((stretch) =>
			joiner(trimEdges(stretch).map((node) => this.node(node, asItIs)))
		);
		return (scope) => settleSeparators(stretches, scope.separator, scope);
	}

	/** `tidy` is done to every value: where marks stand for separators, a value must hold none. */
	private node(node: TemplateNode, tidy: (text: string) => string): Part {
		switch (node.kind) {
			case 'text':
				return () => node.text;
			case 'separator':
				return () => SEPARATOR_MARK;
			case 'placeholder':
				return this.placeholder(node, tidy);
			case 'optional':
				return this.optional(node.nodes, tidy);
			case 'choice':
				return this.choice(node, tidy);
			case 'fit':
			case 'goes':
				return NOTHING;
		}
	}

	private placeholder(node: PlaceholderNode, tidy: (text: string) => string): Part {
		const value = this.expression(node);
		return (scope) => {
			const got = value(scope);
			return isEmpty(got) ? undefined : tidy(toText(got));
		};
	}

	/**
	 * Comes to '' as soon as a placeholder directly in it is empty, or what it asks is not so; a nested stretch that is gone
	 * does not matter.
	 */
	private optional(nodes: readonly TemplateNode[], tidy: (text: string) => string): Part {
		const parts = nodes.map((node) =>
			node.kind === 'placeholder' && node.asks
				? { run: this.question(node), isVariable: true, isSilent: true }
				: { run: this.node(node, tidy), isVariable: node.kind === 'placeholder', isSilent: false }
		);
		return (scope) => {
			let out = '';
			for (const { run, isVariable, isSilent } of parts) {
				const text = run(scope) ?? '';
				if (isVariable && isBlank(text)) return '';
				if (!isSilent) out += text;
			}
			return out;
		};
	}

	/** Something for yes, nothing for no. */
	private question(node: PlaceholderNode): Part {
		const value = this.expression(node);
		return (scope) => (isEmpty(value(scope)) ? '' : 'yes');
	}

	/** The first stretch that prints something to see. */
	private choice({ options }: ChoiceNode, tidy: (text: string) => string): Part {
		const parts = options.map((option) => this.node(option, tidy));
		return (scope) => {
			for (const part of parts) {
				const text = part(scope) ?? '';
				if (!isBlank(text.replaceAll(SEPARATOR_MARK, ''))) return text;
			}
			return '';
		};
	}

	expression(node: PlaceholderNode): (scope: Scope) => Value {
		const [first] = node.filters;
		const isRaw = first ? filterOf(first.name)?.isRaw === true : node.asks;
		const chain = compileTerms(node.terms.map((term) => this.term(term, isRaw)));
		if (!first) return chain;
		// The template does not run with a filter that is unknown or misused: see `misusedFilter`.
		const steps = node.filters.map((call) => this.step(call));
		return (scope) => {
			let value = chain(scope);
			for (const { spec, args, read } of steps) {
				const given = args ?? read(scope);
				value = given && runFilter(spec, value, given, scope);
			}
			return value;
		};
	}

	/** A filter with its arguments; those that are all written out are made ready once. */
	private step({ name, args }: FilterCall) {
		const spec = filterOf(name) as FilterSpec;
		const literals = args.flatMap((arg) => (arg.kind === 'literal' ? [arg.value] : []));
		const readers = args.map((arg) => (arg.kind === 'literal' ? undefined : this.term(arg, true)));
		const read = (scope: Scope): ArgumentValue[] | undefined => {
			const given: ArgumentValue[] = [];
			for (const [index, arg] of args.entries()) {
				const one = arg.kind === 'literal' ? arg : asArgument(spec, index, readers[index]!(scope));
				if (!one) return undefined;
				given.push(one.value);
			}
			return given;
		};
		return { spec, read, args: literals.length === args.length ? literals : undefined };
	}

	/** The value of a term, in the words that its field has for it, or as it is. */
	private term(term: Term, isRaw: boolean): (scope: Scope) => Value {
		if (term.kind === 'string') return () => term.value;
		const [name = '', ...deeper] = term.path;
		if (term.root === 'piece') return this.piece(nameOfPiece(term));
		const read = compileRoot(term.root, name);
		if (term.root === 'head') return read;
		if (deeper.length > 0)
			return (scope) => {
				const value = read(scope);
				// A text is a path where the field holds a page: then the part is that page's.
				if (typeof value !== 'string') return deeper.reduce<Value>(partOf, value);
				return term.root === 'page' ? scope.partOfPage(name, value, deeper.join('.')) : undefined;
			};
		if (isRaw || term.root !== 'page' || FACTS.has(name)) return read;
		return (scope) => {
			const value = ownValue(scope.fields, name);
			return scope.said === undefined ? value : scope.said(name, value);
		};
	}

	/** The variables of a placeholder that comes to nothing: of a piece, those that are empty in it. */
	emptyIn(node: PlaceholderNode, scope: Scope): string[] {
		return termsOf(node).flatMap((term) => {
			const inner = term.root === 'piece' ? pieceNamed(this.pieces, nameOfPiece(term))?.emptyNames(scope) : undefined;
			return inner?.length ? inner : [term.name];
		});
	}

	private piece(name: string): (scope: Scope) => Value {
		const piece = pieceNamed(this.pieces, name);
		if (!piece) return () => undefined;
		this.used.push(piece);
		return piece.run;
	}
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
		case 'words':
			return (scope) => scope.wordValue(name);
		case 'now':
			return (scope) => (name === '' ? scope.moment : undefined);
		default:
			return () => undefined;
	}
}

/** A letter, a digit or a sign that leads on: words that need what they stand beside. */
const WORDS = /[\p{L}\p{N},.:;(&]/u;

/** What is optional leaves no gap, nor does a stretch between separators that has no words of its own. */
function compileGaps(nodes: readonly TemplateNode[], compiler: Compiler): (scope: Scope) => string[] {
	const risks = stretchesOf(nodes)
		.filter((stretch) => stretch.some((node) => node.kind === 'text' && WORDS.test(node.text)))
		.flatMap((stretch) => stretch.filter((node) => node.kind === 'placeholder'))
		.filter((node) => !node.asks)
		.map((node) => ({ node, value: compiler.expression(node) }));
	return (scope) => [
		...new Set(risks.flatMap(({ node, value }) => (isEmpty(value(scope)) ? compiler.emptyIn(node, scope) : [])))
	];
}

function emptyPlaceholders(nodes: readonly TemplateNode[], scope: Scope, compiler: Compiler): string[] {
	const empty = placeholdersIn(nodes).filter((node) => !node.asks && isEmpty(compiler.expression(node)(scope)));
	return [...new Set(empty.flatMap((node) => compiler.emptyIn(node, scope)))];
}
