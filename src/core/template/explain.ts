import type { FilterCall, OptionalNode, PlaceholderNode, TemplateNode, VariableTerm } from './ast';
import type { KnownVariable } from './check';
import { parseTemplate } from './parse';

/**
 * A template in a sentence: what it prints, in its order, by the names that fields have in words. Undefined where it cannot be
 * read, and for one that is nothing but words.
 */
export function explainTemplate(source: string, known: readonly KnownVariable[]): string | undefined {
	const { nodes, issues } = parseTemplate(source);
	if (issues.some(({ severity }) => severity === 'error') || nodes.every(({ kind }) => kind === 'text'))
		return undefined;
	const teller = new Teller(new Map(known.map((variable) => [variable.name, variable])));
	const asked = nodes.filter((node) => node.kind === 'placeholder').filter(({ asks }) => asks);
	const fit = nodes.find((node) => node.kind === 'fit');
	const whole = [
		...asked.map((node) => `only where ${teller.question(node)}`),
		...(fit ? [`in at most ${fit.limit} ${fit.by}, as much of it as fits`] : [])
	];
	const told = teller.sequence(nodes);
	const sentence = whole.length > 0 ? `${whole.join(', ')}: ${told}` : told;
	return `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)}.`;
}

class Teller {
	constructor(private readonly known: ReadonlyMap<string, KnownVariable>) {}

	sequence(nodes: readonly TemplateNode[]): string {
		const parts = nodes.flatMap((node) => this.node(node));
		return parts.length === 0 ? 'nothing' : parts.join(', then ');
	}

	private node(node: TemplateNode): string[] {
		switch (node.kind) {
			case 'text':
				return [`‘${node.text}’`];
			case 'separator':
				return ['the separator, where something stands on both sides'];
			case 'placeholder':
				return node.asks ? [] : [this.value(node)];
			case 'optional':
				return [this.optional(node)];
			case 'choice':
				return [
					`the first of these that says something: ${node.options.map((one) => this.optional(one)).join('; or ')}`
				];
			case 'fit':
			case 'goes':
				return [];
		}
	}

	private optional({ nodes }: OptionalNode): string {
		const needs = nodes
			.filter((node) => node.kind === 'placeholder')
			.map((node) => (node.asks ? this.question(node) : `there is ${this.terms(node)}`));
		const turn = nodes.find((node) => node.kind === 'goes')?.turn;
		const gives =
			turn === undefined ? '' : ` (to go ${turn === 1 ? 'first' : `in turn ${turn}`} where there is no room)`;
		const told = this.sequence(nodes);
		return needs.length > 0 ? `where ${needs.join(' and ')}: (${told})${gives}` : `(${told})${gives}`;
	}

	question(node: PlaceholderNode): string {
		const last = node.filters.at(-1);
		const value = this.through(this.terms(node), node.filters.slice(0, -1));
		if (!last) return `there is ${value}`;
		const ask = ASKED.get(last.name);
		return ask ? `${value} ${ask}${this.argumentsOf(last, ' or ')}` : `there is ${this.through(value, [last])}`;
	}

	private value(node: PlaceholderNode): string {
		return this.through(this.terms(node), node.filters);
	}

	private terms({ terms }: PlaceholderNode): string {
		return terms.map((term) => (term.kind === 'string' ? `‘${term.value}’` : this.name(term))).join(', or else ');
	}

	private name({ name, root, path }: VariableTerm): string {
		if (root === 'words') return `the words “${path.join('.')}”`;
		if (root === 'piece') return `the piece “${path.join('.')}”`;
		const label = this.known.get(name)?.label ?? path.join(' ');
		return root === 'head'
			? `what ${path.join('.')} comes to`
			: `the ${small(label || name)}${root === 'site' && !/site/i.test(label) ? ' of the site' : ''}`;
	}

	private through(value: string, filters: readonly FilterCall[]): string {
		return filters.length === 0
			? value
			: `${value} (${filters.map((call) => call.name + this.argumentsOf(call, ' ')).join(', ')})`;
	}

	private argumentsOf({ args }: FilterCall, between: string): string {
		const told = args.map((arg) =>
			arg.kind === 'variable' ? this.name(arg) : typeof arg.value === 'number' ? String(arg.value) : `‘${arg.value}’`
		);
		return told.length === 0 ? '' : ` ${told.join(between)}`;
	}
}

/** What asks, as it is said behind what it is asked of. */
const ASKED: ReadonlyMap<string, string> = new Map([
	['is', 'is'],
	['has', 'has'],
	['over', 'is over'],
	['under', 'is under'],
	['past', 'is past'],
	['coming', 'is yet to come'],
	['today', 'is today'],
	['not', 'is not there or not so']
]);

/** With a small first letter, unless the word is written in capitals. */
const small = (label: string) =>
	/^\p{Lu}\p{Lu}/u.test(label) ? label : label.charAt(0).toLowerCase() + label.slice(1);
