import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
	settleText,
	FILTERS,
	parseTemplate,
	Resolver,
	type ContentType,
	type FieldValue,
	type Page,
	type Rule,
	type Site
} from '../index';
import type { TemplateNode, Term } from '../template/ast';
import { runFilter } from '../template/filters';
import { isEmpty, toText, type Value } from '../template/values';

/**
 * The rules read the slow and obvious way, for a few tags of text: no plan, no closures, no sharing. The compiled plan
 * must come to the same values.
 */
const TAGS = ['title', 'description', 'author', 'og:title', 'twitter:title'] as const;
const BUILT_IN_BORROWS: Record<string, string> = { 'og:title': 'title', 'twitter:title': 'og:title' };

interface World {
	site: Site;
	type: ContentType;
	page: Page;
}

class PlainReading {
	constructor(private readonly world: World) {}

	/** All rules for a tag, in the order R1 says. */
	rulesFor(tag: string): Rule[] {
		const { site, type, page } = this.world;
		const language = page.language ?? site.languages[0]!;
		const forms = language === 'pt-BR' ? ['pt-BR', 'pt', undefined] : [language, undefined];
		return [page.rules, type.rules, site.rules].flatMap((rules) =>
			forms.flatMap((form) => rules.filter((rule) => rule.tag === tag && rule.language === form))
		);
	}

	/** Tags being worked out, each with the rule that is being tried; and the rules found to lead in a circle. */
	private readonly trying: { tag: string; rule?: Rule }[] = [];
	private readonly looping = new Set<Rule>();
	private readonly known = new Map<string, string>();

	valueOf(tag: string): string {
		if (!this.known.has(tag)) this.known.set(tag, this.search(tag));
		return this.known.get(tag) as string;
	}

	private search(tag: string): string {
		const round = this.trying.slice(this.trying.findIndex((one) => one.tag === tag));
		if (this.trying.some((one) => one.tag === tag)) {
			for (const { rule } of round) if (rule) this.looping.add(rule);
			throw new Error(tag);
		}
		const depth = this.trying.length;
		for (;;)
			try {
				return this.firstOf(tag);
			} catch (circle) {
				this.trying.length = depth;
				if ((circle as Error).message !== tag) throw circle;
			}
	}

	private firstOf(tag: string): string {
		for (const rule of this.rulesFor(tag)) {
			if (this.looping.has(rule)) continue;
			if (rule.kind === 'leaveOut') return '';
			this.trying.push({ tag, rule });
			const text =
				rule.kind === 'borrow'
					? this.valueOf(rule.from)
					: rule.kind === 'template'
						? settleText(this.render(rule.template))
						: '';
			this.trying.pop();
			if (text !== '') return text;
		}
		this.trying.push({ tag });
		const text = this.builtIn(tag);
		this.trying.pop();
		return text;
	}

	private builtIn(tag: string): string {
		const { site, page } = this.world;
		const field = (name: string) =>
			settleText(toText(Object.hasOwn(page.fields, name) ? page.fields[name] : undefined));
		if (tag === 'title') return field('title') || settleText(site.name) || page.path;
		if (tag === 'description') return field('summary');
		if (tag === 'author') return field('author');
		const from = BUILT_IN_BORROWS[tag];
		return from === undefined ? '' : this.valueOf(from);
	}

	private render(source: string): string {
		const { nodes, issues } = parseTemplate(source);
		if (issues.some((issue) => issue.severity === 'error')) return '';
		if (nodes.some((node) => node.kind === 'placeholder' && node.asks && isEmpty(this.evaluate(node)))) return '';
		const pieces = this.pieces(nodes);
		// Separators: the texts between them, those with something in them joined.
		const stretches: string[] = [''];
		for (const text of pieces) {
			if (text === null) stretches.push('');
			else stretches[stretches.length - 1] += text;
		}
		if (stretches.length === 1) return stretches[0]!;
		return stretches
			.map((text) => text.trim())
			.filter(Boolean)
			.join(` ${this.world.site.separator} `);
	}

	/** The texts a template prints; null stands for a separator. */
	private pieces(nodes: readonly TemplateNode[]): (string | null)[] {
		return nodes.flatMap((node) => {
			if (node.kind === 'text') return [node.text];
			if (node.kind === 'separator') return [null];
			if (node.kind === 'placeholder') return node.asks ? [] : [toText(this.evaluate(node))];
			if (node.kind === 'optional') return this.stretch(node.nodes);
			if (node.kind === 'choice')
				for (const one of node.options) {
					const texts = this.stretch(one.nodes);
					if (texts.join('').trim() !== '') return texts;
				}
			return [];
		});
	}

	private stretch(nodes: readonly TemplateNode[]): (string | null)[] {
		const isGone = nodes.some((inner) => inner.kind === 'placeholder' && toText(this.evaluate(inner)).trim() === '');
		return isGone ? [] : this.pieces(nodes);
	}

	private evaluate(node: Extract<TemplateNode, { kind: 'placeholder' }>): Value {
		let first: Value;
		for (const term of node.terms) if (isEmpty(first)) first = this.term(term);
		if (isEmpty(first)) first = undefined;
		return node.filters.reduce<Value>(
			(value, { name, args }) =>
				runFilter(
					FILTERS[name]!,
					value,
					args.map((arg) => (arg.kind === 'literal' ? arg.value : this.term(arg))),
					{
						language: this.world.page.language ?? 'en',
						now: NOW,
						timeZone: undefined,
						partOfPage: () => undefined,
						changesAt: () => undefined
					}
				),
			first
		);
	}

	private term(term: Term): Value {
		const { site, page } = this.world;
		if (term.kind === 'string') return term.value;
		if (term.root === 'head') return this.valueOf(term.path[0]!);
		if (term.name === 'site.name') return site.name;
		return page.fields[term.path[0]!];
	}
}

const NOW = '2026-05-03T10:00:00Z';
const word = fc.constantFrom('', ' ', 'sand', 'salt & sea', 'tide');
const name = fc.constantFrom(
	'page.title',
	'page.summary',
	'page.region',
	'site.name',
	...TAGS.map((tag) => `head.${tag}`)
);
const piece = fc.oneof(
	fc
		.tuple(name, fc.constantFrom('', ' | clip 6', ' | case "upper"', ' | first'))
		.map(([variable, filter]) => `{${variable}${filter}}`),
	fc.tuple(name, name).map(([a, b]) => `{${a} ?? ${b}}`),
	fc.tuple(name, name).map(([a, b]) => `[[ in {${a}}[[, {${b}}]]]]`),
	fc.constantFrom('{separator}', ' {separator} ', ' and ', '[[{separator}{page.region}]]'),
	fc.tuple(name, name).map(([a, b]) => `[[ of {${a}}]] {or} [[{${b}} here]]{or}[[nowhere]]`),
	fc
		.tuple(name, name, fc.constantFrom('is "tide"', 'not', 'is page.region'))
		.map(([a, b, asked]) => `[[{${a} | ${asked}?}{${b}}!]]`),
	fc.tuple(name, name).map(([a, b]) => `{${a} | unless ${b}}`),
	name.map((one) => `{${one}?}`)
);
const rule: fc.Arbitrary<Rule> = fc
	.tuple(
		fc.constantFrom(...TAGS),
		fc.constantFrom(undefined, 'pt', 'pt-BR', 'fr'),
		fc.oneof(
			fc.array(piece, { maxLength: 4 }).map((pieces) => ({ kind: 'template' as const, template: pieces.join('') })),
			fc.constantFrom(...TAGS).map((from) => ({ kind: 'borrow' as const, from })),
			fc.constant({ kind: 'leaveOut' as const })
		)
	)
	.map(([tag, language, body]) => ({ tag, ...(language && { language }), ...body }));
const rules = fc.uniqueArray(rule, { maxLength: 5, selector: (one) => `${one.tag} ${one.language}` });
const fields = fc.record({ title: word, summary: word, region: word }, { requiredKeys: [] }) as fc.Arbitrary<
	Record<string, FieldValue>
>;
const world: fc.Arbitrary<World> = fc.record({
	site: fc
		.record({ name: word, rules })
		.map((site) => ({ ...site, base: 'https://site.example/', languages: ['fr'], separator: '·', fields: {} })),
	type: fc.record({ rules }).map((type) => ({ ...type, name: 't', fields: [] })),
	page: fc
		.record({ language: fc.constantFrom('fr', 'pt-BR'), fields, rules })
		.map((page) => ({ ...page, path: '/p', type: 't', state: 'live' as const }))
});

test('the compiled plan comes to what a plain reading of the rules comes to', () => {
	fc.assert(
		fc.property(world, (any) => {
			const { traces } = new Resolver({ site: any.site, types: [any.type], pictures: [] }, NOW).resolveWithTrace(
				any.page
			);
			const plain = new PlainReading(any);
			const seen = Object.fromEntries(TAGS.map((tag) => [tag, traces.find((trace) => trace.tag === tag)?.value ?? '']));
			expect(seen).toEqual(Object.fromEntries(TAGS.map((tag) => [tag, plain.valueOf(tag)])));
		}),
		{ numRuns: 1500, interruptAfterTimeLimit: 40_000, markInterruptAsFailure: true }
	);
});
