import { ownOf } from '../own';
import { nearestName, type Issue, type IssueCode } from '../issue';
import { LISTING_FIELDS, PAGE_FACTS, PAGE_FIELDS, RECORD_PARTS, SITE_FIELDS, TYPE_FIELDS, type Field } from '../model';
import type { FilterCall, PlaceholderNode, TemplateNode, VariableTerm } from './ast';
import { variablesIn } from './compile';
import { issuesOfCall } from './arguments';
import { FILTERS, formsNeeded, kindOfField, type ValueKind } from './filters';
import { parseTemplate } from './parse';
import { isBlank } from '../text/text';

/** What a template may name where it stands. */
export interface TemplateContext {
	/** The fields its type declares; undefined at the site, where any type's fields may be meant. */
	readonly fields: readonly Field[];
	/** Names that the site gives values to beside the known ones. */
	readonly siteFields?: readonly string[];
	readonly tagNames: readonly string[];
	/** The languages of the site. */
	readonly languages?: readonly string[];
}

/** What can be written at a place, with the kind of value it gives. */
export interface KnownVariable {
	readonly name: string;
	readonly kind: Field['kind'];
	/** Its name in words. */
	readonly label?: string;
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
const ROOTS = ['page', 'site', 'type', 'listing', 'head', 'now', 'separator'];

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
		{ name: 'now', kind: 'date', label: 'The moment of making' }
	];
}

function underRoot(root: string, fields: readonly Field[]): KnownVariable[] {
	return fields.flatMap((field) => [
		{ ...field, name: `${root}.${field.name}` },
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
	check.brand(nodes);
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
			if (node.kind !== 'optional') continue;
			this.sequence(node.nodes);
			if (variablesIn(node.nodes).length === 0)
				this.report('template/constant-optional', node, { severity: 'warning' });
		}
	}

	private placeholder(node: PlaceholderNode) {
		for (const term of node.terms) if (term.kind === 'variable') this.variable(term);
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
	}

	private kindOf(term: VariableTerm): ValueKind {
		const variable = this.known.get(term.name);
		return variable ? kindOfField(variable.kind) : 'any';
	}

	private variable(term: VariableTerm) {
		if (this.known.has(term.name)) return;
		if (!ROOTS.includes(term.root)) {
			const nearest = nearestName(term.root, ROOTS) ?? this.pageFieldNamed(term.root);
			return this.report('template/unknown-root', term, {
				seen: term.root,
				expected: 'page, site, type, listing, head or now',
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

	private pageFieldNamed(name: string) {
		return this.known.has(`page.${name}`) ? `page.${name}` : undefined;
	}

	/** Checks one filter and says what it gives. */
	private filter(call: FilterCall, kinds: readonly ValueKind[]): ValueKind {
		const issues = issuesOfCall(call);
		this.issues.push(...issues);
		const spec = ownOf(FILTERS, call.name);
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
		const brands = variablesIn(nodes).filter(
			(variable) => variable.name === 'site.name' || variable.name === 'head.title'
		);
		const second = brands[1];
		if (second && brands.some((brand) => brand.name === 'site.name'))
			this.report('template/double-brand', second, {
				severity: 'warning',
				expected: `${brands.map((brand) => `{${brand.name}}`).join(' and ')} both bring it`
			});
	}
}
