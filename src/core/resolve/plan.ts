import { CATALOGUE, findTag } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import type { Layer, Rule } from '../model';
import { BUILT_INS, type BuiltIn } from './builtIns';
import { LEFT_OUT, makeBuiltIn, makeRule, type Candidate } from './candidate';
import { hasCircle } from './loops';
import type { Resolution } from './resolution';
import { TellingSearch } from './telling';
import type { Step, TagValue } from './types';

/** What is worked out once for a type and a language. Tags are known by their place in `tags`. */
export interface Plan {
	/** The tags that any layer says something about, in the order of output (R11). */
	readonly tags: readonly TagDefinition[];
	readonly candidates: readonly (readonly Candidate[])[];
	/** Their bare functions: they run for every page. */
	readonly tries: readonly (readonly Candidate['evaluate'][])[];
	/** Whether tags could borrow in a circle, so that each page is resolved on the watch for it (R7). */
	readonly hasCircle: boolean;
	/** The same candidates, for searches that tell how they went. */
	readonly searches: readonly TellingSearch[];
	/** What the values of a page begin as: undefined for what is to be worked out, null for nothing. */
	readonly start: readonly (TagValue | null | undefined)[];
	/** Where the searches ended whose values are there from the start. */
	readonly startEnds: readonly number[];
	readonly indexOf: ReadonlyMap<string, number>;
	/** The tags that can come to something for this type, in the order of output. */
	readonly steps: readonly Step[];
	/** By place: the place of the tag that its built-in borrows from, or -1. */
	readonly borrowsFrom: readonly number[];
}

/** The parent of a tag that belongs to no other; -1 is one that no layer speaks of. */
export const NO_PARENT = -2;

export interface LayerRules {
	readonly layer: Exclude<Layer, 'built-in'>;
	readonly rules: readonly Rule[];
}

type Prefixes = Readonly<Record<string, string>>;

/** What was made of each rule: a page with rules of its own has a plan of its own, but shares these. */
export type MadeRules = WeakMap<Rule, Candidate>;

const BUILT_IN_CANDIDATES: ReadonlyMap<string, readonly Candidate[]> = groupBy(
	BUILT_INS.map(makeBuiltIn),
	(candidate) => (candidate.builtIn as BuiltIn).tag
);

function groupBy<T>(items: readonly T[], key: (item: T) => string): Map<string, T[]> {
	const groups = new Map<string, T[]>();
	for (const item of items) {
		const group = groups.get(key(item));
		if (group) group.push(item);
		else groups.set(key(item), [item]);
	}
	return groups;
}

/** A language tag and its shorter forms: `pt-BR` gives `pt-br`, `pt`, and '' for the rule for any language. */
export function languageChain(language: string): string[] {
	const parts = language.toLowerCase().split('-');
	return [...parts.map((_, i) => parts.slice(0, parts.length - i).join('-')), ''];
}

/**
 * The order of candidates for every tag, worked out once for a type and a language.
 *
 * 1. Layer by layer, most specific first: page, type, site, built-in.
 * 2. In a layer: the rule for the exact language, for its shorter forms, for any language.
 *
 * `kind` is what the type declares for `og:type`; `made` keeps what was made of the rules for the next plan.
 */
export function makePlan(
	layers: readonly LayerRules[],
	language: string,
	kind: string,
	prefixes: Prefixes,
	made: MadeRules
): Plan {
	const chain = languageChain(language);
	const byTag = new Map<string, Candidate[]>();
	const own = new Map<string, TagDefinition>();
	for (const { layer, rules } of layers)
		for (const step of chain)
			for (const rule of rules) {
				if ((rule.language ?? '').toLowerCase() !== step) continue;
				const tag = findTag(rule.tag, prefixes);
				if (!tag || (tag.fact && tag.fact !== 'alt')) continue;
				if (!CATALOGUE.includes(tag)) own.set(tag.name, tag);
				let candidate = made.get(rule);
				if (!candidate) made.set(rule, (candidate = makeRule(tag, layer, rule)));
				const list = byTag.get(tag.name);
				if (list) list.push(candidate);
				else byTag.set(tag.name, [candidate]);
			}
	return orderPlan(byTag, own, kind);
}

function orderPlan(byTag: Map<string, Candidate[]>, own: ReadonlyMap<string, TagDefinition>, kind: string): Plan {
	const added = [...own.values()].sort((a, b) => (a.name < b.name ? -1 : 1));
	const tags = [...CATALOGUE, ...added].filter((tag) => byTag.has(tag.name) || BUILT_IN_CANDIDATES.has(tag.name));
	const candidates = tags.map((tag) => [...(byTag.get(tag.name) ?? []), ...(BUILT_IN_CANDIDATES.get(tag.name) ?? [])]);
	const indexOf = new Map(tags.map((tag, index) => [tag.name, index]));
	const place = (name: string | undefined) => (name === undefined ? -1 : (indexOf.get(name) ?? -1));
	// With no rule for og:type, its value is the type's kind: what only goes with another kind is idle on every page.
	const isIdle = (list: readonly Candidate[]) =>
		!byTag.has('og:type') && list.every(({ builtIn: one }) => one?.onlyFor !== undefined && one.onlyFor !== kind);
	const tries = candidates.map((list) => list.map((candidate) => evaluateAt(candidate, place(candidate.takes))));
	const borrowsFrom = candidates.map((list) =>
		place(list.find((candidate) => candidate.builtIn?.borrows)?.builtIn?.borrows)
	);
	return {
		tags,
		candidates,
		tries,
		// The built-ins alone have no circle: some rule must read another tag.
		hasCircle:
			[...byTag.values()].some((list) => list.some((candidate) => candidate.reads.length > 0)) &&
			hasCircle(
				tags.map((tag) => tag.name),
				candidates
			),
		searches: candidates.map(
			(list, index) =>
				new TellingSearch(tags[index]!.name, index, list, tries[index] as Plan['tries'][number], isIdle(list))
		),
		start: tags.map(() => undefined),
		startEnds: tags.map(() => 0),
		indexOf,
		steps: [...tags.entries()]
			.filter(([index]) => !isIdle(candidates[index] as Candidate[]))
			.map(([index, tag]) => {
				const parent = tag.parent === undefined ? NO_PARENT : place(tag.parent);
				const kin = borrowsFrom[index] as number;
				return stepOf(tag, index, parent, kin < 0 ? index : kin, undefined);
			}),
		borrowsFrom
	};
}

function stepOf(tag: TagDefinition, index: number, parent: number, kin: number, same: string | undefined): Step {
	return {
		index,
		tag,
		parent,
		kin,
		same,
		isOg: tag.family === 'og',
		isTwitter: tag.family === 'twitter',
		goesWithPicture: tag.name === 'og:image:alt'
	};
}

/** A tag that is taken over as it is, is read at its place rather than by its name. */
function evaluateAt(candidate: Candidate, from: number): Candidate['evaluate'] {
	return from < 0 ? candidate.evaluate : (page) => page.valueAt(from) ?? undefined;
}

/**
 * The plan with what comes to the same on all its pages worked out, by any one of them; tags that come to nothing need
 * not be looked at again. A plan that may have circles is left alone: its searches are on the watch.
 */
export function withConstants(plan: Plan, page: Resolution): Plan {
	if (plan.hasCircle) return plan;
	const known = plan.candidates.map((list) => constantOf(list, page));
	const start = known.map((search) => search?.value);
	return {
		...plan,
		start,
		startEnds: known.map((search) => search?.end ?? 0),
		steps: plan.steps.filter(({ index }) => start[index] !== null).map((step) => withSame(step, start[step.index]))
	};
}

const withSame = (step: Step, value: TagValue | null | undefined): Step =>
	typeof value === 'string' && !step.tag.attributes ? stepOf(step.tag, step.index, step.parent, step.kin, value) : step;

/** How the search for a tag goes on every page; undefined when it depends on the page. */
function constantOf(candidates: readonly Candidate[], page: Resolution) {
	for (let end = 0; end < candidates.length; end++) {
		const candidate = candidates[end] as Candidate;
		if (!candidate.isConstant) return undefined;
		const value = candidate.evaluate(page);
		if (value !== undefined) return { value: value === LEFT_OUT ? null : value, end };
	}
	return { value: null, end: candidates.length };
}
