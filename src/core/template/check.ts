import { nearestName, type Issue, type IssueCode } from '../issue';
import {
	LISTING_FIELDS,
	PAGE_FACTS,
	PAGE_FIELDS,
	RECORD_PARTS,
	SITE_FIELDS,
	TYPE_FIELDS,
	type Field,
	type ValueWords
} from '../model';
import type { FilterCall, PlaceholderNode, TemplateNode, VariableTerm } from './ast';
import { issuesOfCall } from './arguments';
import { filterOf, kindOfField } from './filters';
import { formsNeeded } from './filters/numbers';
import type { ValueKind } from './filters/spec';
import { nodesIn, placeholdersIn, termsOf, variablesIn } from './nodes';
import { MOST_PIECES, nameOfPiece, sizeOfPiece } from './pieces';
import { parseTemplate } from './parse';
import { isBlank } from '../text/text';

/** What a template may name where it stands. */
export interface TemplateContext {
	/** The fields its type declares; undefined at the site, where any type's fields may be meant. */
	readonly fields: readonly Field[];
	/** Names that the site gives values to beside the known ones. */
	readonly siteFields?: readonly string[];
	readonly tagNames: readonly string[];
	/** Names of the site's own words. */
	readonly words?: readonly string[];
	/** The pieces that it may use, by name. */
	readonly pieces?: ReadonlyMap<string, string>;
	/** The name of the piece that is checked, where it is one. */
	readonly pieceName?: string;
	/** The languages of the site. */
	readonly languages?: readonly string[];
}

/** What can be written at a place, with the kind of value it gives. */
export interface KnownVariable {
	readonly name: string;
	readonly kind: Field['kind'];
	/** Its name in words. */
	readonly label?: string;
	/** What its field calls its values. */
	readonly words?: readonly ValueWords[];
}

/** Values that are never empty, so that nothing behind them in a chain is reached. */
const NEVER_EMPTY = new Set([
	'site.name',
	'site.base',
	'site.language',
	'page.path',
	'page.address',
	'page.language',
	'type.name',
	'now'
]);
const ROOTS = ['page', 'site', 'type', 'listing', 'head', 'words', 'piece', 'now', 'separator'];

/** Every variable that a template may name in this context, in the order in which they are offered. */
export function knownVariables(context: TemplateContext): KnownVariable[] {
	const own = new Set(context.fields.map((field) => field.name));
	const page = [...context.fields, ...PAGE_FIELDS.filter((field) => !own.has(field.name)), ...PAGE_FACTS];
	const site = [
		...SITE_FIELDS,
		...(context.siteFields ?? [])
			.filter((name) => !SITE_FIELDS.some((f) => f.name === name))
			.map((name) => ({ name, kind: 'text' as const }))
	];
	return [
		...underRoot('page', page),
		...underRoot('site', site),
		...underRoot('type', TYPE_FIELDS),
		...underRoot('listing', LISTING_FIELDS),
		...context.tagNames.map((name) => ({
			name: `head.${name}`,
			kind: 'text' as const,
			label: `What ${name} comes to`
		})),
		...(context.words ?? []).map((name) => ({
			name: `words.${name}`,
			kind: 'text' as const,
			label: 'The site’s own words'
		})),
		...[...(context.pieces?.keys() ?? [])].map((name) => ({
			...{ name: `piece.${name}`, kind: 'text' as const, label: 'A piece' }
		})),
		{ name: 'now', kind: 'date', label: 'The moment of making' }
	];
}

function underRoot(root: string, fields: readonly Field[]): KnownVariable[] {
	return fields.flatMap((field) => [
		{
			...{ name: `${root}.${field.name}`, kind: field.kind, ...(field.words?.length && { words: field.words }) },
			...(field.label !== undefined && { label: field.label })
		},
		...Object.entries(RECORD_PARTS[field.kind] ?? {}).map(([part, words]) => ({
			name: `${root}.${field.name}.${part}`,
			kind: 'text' as const,
			label: `${field.label ?? field.name}: ${words}`
		}))
	]);
}

/**
 * Everything that is wrong or doubtful in a template, in the order of its places: syntax, unknown names, filters fed
 * with what they do not take, fallbacks that are never reached, a site name that prints twice.
 */
export function checkTemplate(source: string, context: TemplateContext): Issue[] {
	const { nodes, issues } = parseTemplate(source);
	if (nodes.every(({ kind }) => kind === 'text')) return [...issues];
	const check = new Checker(
		new Map(knownVariables(context).map((variable) => [variable.name, variable])),
		context.languages ?? []
	);
	check.sequence(nodes);
	check.room(nodes);
	check.brand(nodes);
	check.pieces(nodes, source, context);
	return [...issues, ...check.issues].sort((a, b) => a.start - b.start);
}

class Checker {
	readonly issues: Issue[] = [];
	constructor(
		private readonly known: ReadonlyMap<string, KnownVariable>,
		private readonly languages: readonly string[]
	) {}

	private report(code: IssueCode, at: { start: number; end: number }, more: Partial<Issue> = {}) {
		this.issues.push({ code, severity: 'error', start: at.start, end: at.end, ...more });
	}

	sequence(nodes: readonly TemplateNode[]) {
		for (const node of nodes) {
			if (node.kind === 'placeholder') this.placeholder(node);
			// The last of a choice stands where no other does.
			if (node.kind === 'choice')
				node.options.forEach((one, at) => this.optional(one.nodes, one, at < node.options.length - 1));
			if (node.kind === 'optional') this.optional(node.nodes, node, !node.nodes.some(({ kind }) => kind === 'goes'));
		}
	}

	private optional(nodes: readonly TemplateNode[], at: { start: number; end: number }, mustVary: boolean) {
		this.sequence(nodes);
		if (mustVary && variablesIn(nodes).length === 0)
			this.report('template/constant-optional', at, { severity: 'warning' });
	}

	/** What is said of room is said at the top, once, and stretches take turns only where room is said. */
	room(nodes: readonly TemplateNode[]) {
		const [fit, ...more] = nodes.filter(({ kind }) => kind === 'fit');
		const visit = (node: TemplateNode, depth: number) => {
			const isIdle =
				node.kind === 'goes' ? !fit || depth !== 1 : node.kind === 'fit' && (depth > 0 || more.includes(node));
			if (isIdle) this.report('template/idle-word', node, { severity: 'warning', seen: node.kind });
			for (const inner of nodesIn(node)) visit(inner, depth + 1);
		};
		for (const node of nodes) visit(node, 0);
	}

	/** Pieces that lead back to themselves, and more than a template may hold. */
	pieces(nodes: readonly TemplateNode[], source: string, { pieces, pieceName }: TemplateContext) {
		if (!pieces) return;
		const all = pieceName === undefined ? pieces : new Map([...pieces, [pieceName, source]]);
		let count = 0;
		for (const variable of variablesIn(nodes)) {
			const name = nameOfPiece(variable);
			if (variable.root !== 'piece' || !all.has(name)) continue;
			const size = sizeOfPiece(all, name);
			if (size === undefined) this.report('template/piece-circle', variable, { seen: variable.name });
			const before = count;
			count += size ?? 0;
			if (before <= MOST_PIECES && count > MOST_PIECES)
				this.report('template/too-many-pieces', variable, { seen: variable.name, expected: String(MOST_PIECES) });
		}
	}

	private placeholder(node: PlaceholderNode) {
		for (const variable of variablesIn([node])) this.variable(variable);
		const sure = node.terms.findIndex((term) =>
			term.kind === 'string' ? !isBlank(term.value) : NEVER_EMPTY.has(term.name)
		);
		const after = sure >= 0 ? node.terms[sure + 1] : undefined;
		if (after)
			this.report('template/unreachable', after, {
				severity: 'warning',
				seen: after.kind === 'string' ? after.value : after.name
			});
		let kinds = node.terms.map((term) => (term.kind === 'string' ? 'text' : this.kindOf(term)));
		for (const filter of node.filters) kinds = [this.filter(filter, kinds)];
		if (!node.asks && this.isBareFlag(node, kinds)) this.report('template/prints-flag', node, { severity: 'warning' });
	}

	/** Whether it would print `true`: a yes or no that nothing has words for. */
	private isBareFlag(node: PlaceholderNode, kinds: readonly ValueKind[]): boolean {
		if (node.filters.length > 0) return kinds[0] === 'flag';
		return termsOf(node).some(({ name }) => this.known.get(name)?.kind === 'flag' && !this.known.get(name)?.words);
	}

	private kindOf(term: VariableTerm): ValueKind {
		const variable = this.known.get(term.name);
		return variable ? kindOfField(variable.kind) : 'any';
	}

	private variable(term: VariableTerm) {
		if (this.known.has(term.name)) return;
		// Of another page anything can be asked that its type declares, and of a page that such a field leads to; and any tag.
		if (term.root === 'page' && this.known.get(`page.${term.path[0]}`)?.kind === 'page') {
			if (term.path[1] !== 'head' ? term.path.length <= 3 : term.path.length > 2) return this.tagOfOther(term);
		}
		if (term.name === 'or') return this.report('template/or-alone', term);
		if (!ROOTS.includes(term.root)) {
			const nearest = nearestName(term.root, ROOTS) ?? this.pageFieldNamed(term.root);
			return this.report('template/unknown-root', term, {
				seen: term.root,
				expected: 'page, site, type, listing, head, words, piece or now',
				...(nearest && { nearest })
			});
		}
		const nearest = nearestName(term.name, this.known.keys());
		const siblings = [...this.known.keys()].filter(
			(name) => name.startsWith(`${term.root}.`) && name.split('.').length === 2
		);
		const expected = siblings.slice(0, 12).join(', ');
		this.report('template/unknown-variable', term, { seen: term.name, expected, ...(nearest && { nearest }) });
	}

	/** A tag of another page is one that a layer could speak of. */
	private tagOfOther(term: VariableTerm) {
		if (term.path[1] !== 'head') return;
		const [, , ...rest] = term.path;
		const name = `head.${rest.join('.')}`;
		if (this.known.has(name)) return;
		const tags = [...this.known.keys()].filter((one) => one.startsWith('head.'));
		const nearest = nearestName(name, tags);
		this.report('template/unknown-variable', term, {
			...{ seen: term.name, expected: 'a tag, such as head.title' },
			...(nearest && { nearest: `page.${term.path[0]}.${nearest}` })
		});
	}

	private pageFieldNamed(name: string) {
		return this.known.has(`page.${name}`) ? `page.${name}` : undefined;
	}

	/** Checks one filter and says what it gives. */
	private filter(call: FilterCall, kinds: readonly ValueKind[]): ValueKind {
		const issues = issuesOfCall(call);
		this.issues.push(...issues);
		const spec = filterOf(call.name);
		if (!spec) return 'any';
		const takes = (kind: ValueKind) => kind === 'any' || spec.takes.includes('any') || spec.takes.includes(kind);
		const wrong = kinds.find((kind) => !takes(kind));
		if (wrong)
			this.report('template/wrong-kind', call, {
				seen: call.name,
				expected: `a ${spec.takes.join(' or ')}, not ${wrong === 'rich' ? 'rich text' : `a ${wrong}`}`
			});
		if (call.name === 'plural' && issues.length === 0) this.plural(call);
		return spec.gives;
	}

	/** A plural with fewer forms than the numbers of a language take is wrong for some of them. */
	private plural(call: FilterCall) {
		for (const language of this.languages) {
			const needed = formsNeeded(language);
			if (call.args.length >= needed.length) continue;
			return this.report('template/few-forms', call, {
				severity: 'warning',
				seen: language,
				expected: `${needed.length}: ${needed.join(', ')}`
			});
		}
	}

	/** A name of the site written twice in one template, outside alternatives, prints twice. */
	brand(nodes: readonly TemplateNode[]) {
		// What goes where another says it does not print twice.
		const brands = placeholdersIn(nodes)
			.filter(({ filters }) => !filters.some(({ name }) => name === 'unless'))
			.flatMap(termsOf)
			.filter((variable) => variable.name === 'site.name' || variable.name === 'head.title');
		const second = brands[1];
		if (second && brands.some((brand) => brand.name === 'site.name'))
			this.report('template/double-brand', second, {
				severity: 'warning',
				expected: `${brands.map((brand) => `{${brand.name}}`).join(' and ')} both bring it`
			});
	}
}
