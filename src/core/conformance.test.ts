import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from 'vitest';
import {
	headToJson,
	renderHead,
	Resolver,
	type ContentType,
	type Outcome,
	type Page,
	type Picture,
	type Rule,
	type Shape,
	type Site,
	type Trace,
	type TraceStep
} from './index';

/** Runs the vectors of conformance/: each a small site, the whole head expected, and what became of the candidates. */

type ShortRule = [
	tag: string,
	body: string | { borrow: string; shapes?: Shape[] } | { leaveOut: true } | { pictures: unknown[] },
	language?: string
];
interface Vector {
	name: string;
	site?: Partial<Omit<Site, 'rules'>> & { rules?: ShortRule[] };
	types?: (Omit<ContentType, 'rules'> & { rules: ShortRule[] })[];
	page: Partial<Omit<Page, 'rules'>> & { rules?: ShortRule[] };
	pictures?: Picture[];
	head: [tag: string, value: string, attributes?: Record<string, string>][];
	trace: Record<string, string[]>;
	passedOver?: Record<string, [tag: string, layer: string]>;
	withheld?: Record<string, string>;
	/** The bytes of the markup. */
	html?: string;
	xhtml?: string;
	/** Extra markup, one element each. */
	before?: string[];
	after?: string[];
}
interface Group {
	rule: string;
	about: string;
	site: Omit<Site, 'rules'>;
	vectors: Vector[];
}

const folder = fileURLToPath(new URL('../../conformance/', import.meta.url));
const groups = readdirSync(folder)
	.filter((file) => file.endsWith('.json'))
	.map((file) => JSON.parse(readFileSync(folder + file, 'utf8')) as Group);

const longRule = ([tag, body, language]: ShortRule): Rule => {
	const named = { tag, ...(language && { language }) };
	if (typeof body === 'string') return { ...named, kind: 'template', template: body };
	if ('borrow' in body) {
		const { borrow: from, ...more } = body;
		return { ...named, kind: 'borrow', from, ...more };
	}
	if ('leaveOut' in body) return { ...named, kind: 'leaveOut' };
	const { pictures, ...more } = body;
	return { ...named, kind: 'pictures', sources: pictures, ...more } as Rule;
};
const longRules = (rules: ShortRule[] = []) => rules.map(longRule);

function shortOutcome(outcome: Outcome): string {
	switch (outcome.kind) {
		case 'empty':
			return ['empty', ...outcome.variables].join(' ');
		case 'cannot-run':
			return `cannot-run ${outcome.filter}`;
		case 'frame':
			return `frame ${outcome.pages}`;
		case 'set-aside':
			return `set-aside ${outcome.layer}`;
		case 'borrowed-nothing':
			return `borrowed-nothing ${outcome.from}`;
		case 'won':
		case 'no-picture':
			return [outcome.kind, ...(outcome.skipped ?? []).map(({ source, why }) => `${source}:${why}`)].join(' ');
		default:
			return outcome.kind;
	}
}
const shortStep = ({ layer, language, rule, outcome }: TraceStep) =>
	`${layer}${language ? `/${language}` : ''}${rule.kind === 'built-in' ? '' : ` ${rule.kind}`}: ${shortOutcome(outcome)}`;
const reached = (trace: Trace | undefined) =>
	trace?.steps.filter((step) => step.outcome.kind !== 'not-reached').map(shortStep);

test('there are at least 200 vectors', () => {
	expect(groups.reduce((sum, group) => sum + group.vectors.length, 0)).toBeGreaterThanOrEqual(200);
});

describe.each(groups.map((group) => [group.rule, group.about, group] as const))('%s: %s', (_rule, _about, group) => {
	test.each(group.vectors.map((vector) => [vector.name, vector] as const))('%s', (_name, vector) => {
		const site: Site = { ...group.site, ...vector.site, rules: longRules(vector.site?.rules) };
		const types = (vector.types ?? [{ name: 't', fields: [], rules: [] }]).map((type) => ({
			...type,
			rules: longRules(type.rules)
		}));
		const page: Page = {
			path: '/p',
			type: 't',
			state: 'live',
			fields: {},
			...vector.page,
			rules: longRules(vector.page.rules)
		};
		const resolver = new Resolver({ site, types, pictures: vector.pictures ?? [] }, '2026-05-03T10:00:00Z');
		const { head, traces } = resolver.resolveWithTrace(page);
		expect(
			head.tags.map(({ tag, value, attributes }) => [tag.name, value, ...(attributes ? [attributes] : [])])
		).toEqual(vector.head);
		if (vector.html !== undefined) expect(renderHead(head)).toBe(vector.html);
		if (vector.xhtml !== undefined) expect(renderHead(head, { xhtml: true })).toBe(vector.xhtml);
		for (const where of ['before', 'after'] as const)
			if (vector[where]) {
				expect(head[where]).toEqual(vector[where]);
				expect(headToJson(head)[where]).toEqual(vector[where]);
			}
		const byTag = new Map(traces.map((trace) => [trace.tag, trace]));
		for (const [tag, steps] of Object.entries(vector.trace))
			expect(reached(byTag.get(tag)), `the trace of ${tag}`).toEqual(steps);
		if (vector.passedOver)
			expect(
				Object.fromEntries(
					traces.flatMap(({ tag, passedOver }) => (passedOver ? [[tag, [passedOver.tag, passedOver.layer]]] : []))
				)
			).toEqual(vector.passedOver);
		for (const [tag, why] of Object.entries(vector.withheld ?? {})) {
			const withheld = byTag.get(tag)?.withheld;
			expect(withheld && Object.values(withheld).join(' '), `why ${tag} is withheld`).toBe(why);
		}
		// Without a trace the head is the same.
		expect(resolver.resolveHead(page)).toEqual(head);
	});
});
