import type { Pieces } from '../template/pieces';
import { CATALOGUE, findTag } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import type { FoundPolicy, Layer, Rule } from '../model';
import { BUILT_INS, isMet, OF_PRIVATE, type BuiltIn } from './builtIns';
import type { Said } from './words';
import { LEFT_OUT, makeBuiltIn, makeFound, makeRule, type Candidate, type Evaluate } from './candidate';
import { languageChain } from './language';
import { hasCircle } from './loops';
import type { PageScope } from './scope';
import { TracedSearch, type SharedTraces } from './search';
import type { TagValue } from './value';

/** A tag on its way out, with what is asked of it for every page. */
export interface Step {
	/** Its place in the plan. */
	readonly index: number;
	readonly tag: TagDefinition;
	/** The place of the tag it belongs to; negative: see `NO_PARENT`. */
	readonly parent: number;
	/** The place of the tag that it borrows from, whose text it mostly repeats; its own for others. */
	readonly borrowed: number;
	/** The place of the alt text of a picture that goes out with its facts; -1 for other tags. */
	readonly alt: number;
	/** Where its value stands: at its own place, or at that of the tag it takes it from as it is, having no other. */
	readonly source: number;
	/** Its text, where that is the same on all pages. */
	readonly constant: string | undefined;
	readonly isOg: boolean;
	readonly isTwitter: boolean;
	/** It is written with its picture, not by itself. */
	readonly goesWithPicture: boolean;
	/** The markup of its constant text, once a writer has made it. */
	markup: string | undefined;
}

/** What is worked out once for a type and a language. Tags are known by their place in `tags`. */
export interface Plan {
	/** What the fields of its type say for their values; undefined where none has words. */
	readonly said: Said | undefined;
	/** The tags that any layer says something about, in the order of output (R11). */
	readonly tags: readonly TagDefinition[];
	readonly candidates: readonly (readonly Candidate[])[];
	/** Their bare functions: they run for every page. */
	readonly evaluators: readonly (readonly Evaluate[])[];
	/** Whether tags could borrow in a circle, so that each page is resolved on the watch for it (R7). */
	readonly hasCircle: boolean;
	/** Whether rules ask what the heads of other pages came to: then those are worked out on the same watch. */
	readonly readsHeads: boolean;
	/** The same candidates, for searches that are traced; made when the first trace is asked for. */
	readonly searches: () => readonly TracedSearch[];
	/** What the values of a page begin as: undefined for what is to be worked out, null for nothing. */
	readonly start: readonly (TagValue | null | undefined)[];
	/** Where the searches ended whose values are there from the start. */
	readonly startEnds: readonly number[];
	readonly indexOf: ReadonlyMap<string, number>;
	/** The tags that can come to something for this type, in the order of output. */
	readonly steps: readonly Step[];
	/** By place: the place of the tag that its built-in borrows from, or -1. */
	readonly borrowsFrom: readonly number[];
	/** The places of tags that a rule may end without a value (R4). */
	readonly mayLeaveOut: readonly number[];
	/** What is the same in the traces of all pages; made when the first trace is asked for. */
	shared: SharedTraces | undefined;
}

/** The parent of a tag that belongs to no other; -1 is one that no layer speaks of. */
export const NO_PARENT = -2;

interface LayerRules {
	readonly layer: Exclude<Layer, 'built-in'>;
	readonly rules: readonly Rule[];
}

/** A tag that the page's own file speaks of, and what the layers say of that (R13). */
interface FoundPlace {
	readonly tag: TagDefinition;
	readonly policy: FoundPolicy;
	readonly saidBy: Layer;
}

/** What a plan is made of. */
export interface PlanInput {
	/** Most specific first. */
	readonly layers: readonly LayerRules[];
	readonly found: readonly FoundPlace[];
	readonly language: string;
	/** What the type declares for `og:type`. */
	readonly kind: string;
	/** Nothing of the site is for search. */
	readonly isPrivate: boolean;
	readonly prefixes: Readonly<Record<string, string>>;
	readonly said: Said | undefined;
	readonly pieces: Pieces | undefined;
}

const BUILT_IN_CANDIDATES: ReadonlyMap<string, readonly Candidate[]> = groupBy(
	BUILT_INS.map(makeBuiltIn),
	(candidate) => (candidate.builtIn as BuiltIn).tag
);

const PRIVATE = makeBuiltIn(OF_PRIVATE);

function groupBy<T>(items: readonly T[], key: (item: T) => string): Map<string, T[]> {
	const groups = new Map<string, T[]>();
	for (const item of items) addTo(groups, key(item), item);
	return groups;
}

function addTo<T>(groups: Map<string, T[]>, key: string, item: T) {
	const group = groups.get(key);
	if (group) group.push(item);
	else groups.set(key, [item]);
}

/**
 * The order of candidates for every tag, worked out once for a type and a language.
 *
 * 1. Layer by layer, most specific first: page, type, site, built-in.
 * 2. In a layer: the rule for the exact language, for its shorter forms, for any language.
 * 3. What was found in the page's own file: directly below the page's rules, or directly above the built-in (R13).
 * 4. Before them all, what a private site says to search.
 */
export function makePlan(input: PlanInput): Plan {
	const byTag = new Map<string, Candidate[]>();
	const own = new OwnTags();
	for (const { layer, rules } of input.layers) {
		addRules(layer, rules, input, byTag, own);
		if (layer === 'page') addFound(input.found, (policy) => policy !== 'last', byTag);
	}
	addFound(input.found, (policy) => policy === 'last', byTag);
	if (input.isPrivate) byTag.set(OF_PRIVATE.tag, [PRIVATE, ...(byTag.get(OF_PRIVATE.tag) ?? [])]);
	return { ...orderPlan(byTag, own.sorted(), input.kind), said: input.said };
}

/**
 * What was made of each rule, for every plan that it stands in: those of pages with rules of their own, and those of the
 * same site after an edit of another rule. A rule is never changed in place.
 */
const MADE = new WeakMap<Rule, Candidate>();

/** The same for rules that may use pieces: what is made of them stands as long as the pieces do. */
const MADE_WITH = new WeakMap<Pieces, WeakMap<Rule, Candidate>>();

function madeWith(pieces: Pieces | undefined): WeakMap<Rule, Candidate> {
	if (!pieces) return MADE;
	let made = MADE_WITH.get(pieces);
	if (!made) MADE_WITH.set(pieces, (made = new WeakMap()));
	return made;
}

function candidateOf(tag: TagDefinition, layer: Layer, rule: Rule, pieces: Pieces | undefined): Candidate {
	const made = madeWith(pieces);
	const known = made.get(rule);
	// The tag is the same: a rule names it, and a declared prefix changes nothing but what is said of it.
	if (known?.layer === layer) return known;
	const candidate = makeRule(tag, layer, rule, pieces);
	made.set(rule, candidate);
	return candidate;
}

function addRules(
	layer: Layer,
	rules: readonly Rule[],
	{ language, prefixes, pieces }: PlanInput,
	byTag: Map<string, Candidate[]>,
	own: OwnTags
) {
	for (const step of languageChain(language))
		for (const rule of rules) {
			if ((rule.language ?? '').toLowerCase() !== step) continue;
			const tag = findTag(rule.tag, prefixes);
			if (!tag || (tag.fact && tag.fact !== 'alt') || !own.admits(tag)) continue;
			addTo(byTag, tag.name, candidateOf(tag, layer, rule, pieces));
		}
}

function addFound(
	found: readonly FoundPlace[],
	isMeant: (policy: FoundPolicy) => boolean,
	byTag: Map<string, Candidate[]>
) {
	for (const { tag, policy, saidBy } of found)
		if (isMeant(policy)) addTo(byTag, tag.name, makeFound(tag, policy, saidBy));
}

/** The tags beside the catalogue's. Two that are written under the same name would stand twice: the first is taken. */
class OwnTags {
	private readonly byKey = new Map<string, TagDefinition>();

	admits(tag: TagDefinition): boolean {
		if (CATALOGUE.includes(tag)) return true;
		const key = `${tag.place} ${tag.key.toLowerCase()}`;
		const known = this.byKey.get(key);
		if (known) return known.name === tag.name;
		this.byKey.set(key, tag);
		return true;
	}

	sorted(): TagDefinition[] {
		return [...this.byKey.values()].sort((a, b) => (a.name < b.name ? -1 : 1));
	}
}

function orderPlan(byTag: Map<string, Candidate[]>, own: readonly TagDefinition[], kind: string): Omit<Plan, 'said'> {
	const tags = [...CATALOGUE, ...own].filter((tag) => byTag.has(tag.name) || BUILT_IN_CANDIDATES.has(tag.name));
	const candidates = tags.map((tag) => [...(byTag.get(tag.name) ?? []), ...(BUILT_IN_CANDIDATES.get(tag.name) ?? [])]);
	const indexOf = new Map(tags.map((tag, index) => [tag.name, index]));
	const place = (name: string | undefined) => (name === undefined ? -1 : (indexOf.get(name) ?? -1));
	// With no rule for og:type, its value is the type's kind: what only goes with another kind is idle on every page.
	const isIdle = (list: readonly Candidate[]) =>
		!byTag.has('og:type') && list.every(({ builtIn: one }) => one?.onlyFor !== undefined && one.onlyFor !== kind);
	const evaluators = candidates.map((list) => list.map((candidate) => evaluateAt(candidate, place(candidate.takes))));
	const borrowsFrom = candidates.map((list) =>
		place(list.find((candidate) => candidate.builtIn?.borrows)?.builtIn?.borrows)
	);
	let searches: readonly TracedSearch[] | undefined;
	return {
		tags,
		candidates,
		evaluators,
		// The built-ins alone have no circle: some rule must read another tag.
		hasCircle:
			[...byTag.values()].some((list) => list.some((candidate) => candidate.reads.length > 0)) &&
			hasCircle(
				tags.map((tag) => tag.name),
				candidates
			),
		readsHeads: [...byTag.values()].some((list) => list.some((candidate) => candidate.readsHeads)),
		searches: () =>
			(searches ??= candidates.map(
				(list, index) =>
					new TracedSearch(tags[index]!.name, index, list, evaluators[index] as readonly Evaluate[], isIdle(list))
			)),
		start: candidates.map((list) => (isIdle(list) ? null : undefined)),
		startEnds: candidates.map((list) => (isIdle(list) ? list.length : 0)),
		indexOf,
		steps: [...tags.entries()]
			.filter(([index]) => !isIdle(candidates[index] as Candidate[]))
			.map(([index, tag]) => {
				const parent = tag.parent === undefined ? NO_PARENT : place(tag.parent);
				const borrowed = borrowsFrom[index] as number;
				const alt = tag.name === 'og:image' ? place('og:image:alt') : -1;
				return stepOf(tag, { index, parent, borrowed: borrowed < 0 ? index : borrowed, alt, source: index });
			}),
		borrowsFrom,
		mayLeaveOut: [...candidates.entries()]
			.filter(([, list]) => list.some(({ rule }) => rule?.kind === 'leaveOut'))
			.map(([index]) => index),
		shared: undefined
	};
}

function stepOf(
	tag: TagDefinition,
	{ index, parent, borrowed, alt, source }: Pick<Step, 'index' | 'parent' | 'borrowed' | 'alt' | 'source'>,
	constant?: string
): Step {
	return {
		index,
		tag,
		parent,
		borrowed,
		alt,
		source,
		constant,
		isOg: tag.family === 'og',
		isTwitter: tag.family === 'twitter',
		goesWithPicture: tag.name === 'og:image:alt',
		markup: undefined
	};
}

/** A tag that is taken over as it is, is read at its place rather than by its name. */
function evaluateAt(candidate: Candidate, from: number): Evaluate {
	return from < 0 ? candidate.evaluate : (page) => page.valueAt(from) ?? undefined;
}

/**
 * The plan with what comes to the same on all its pages worked out, by any one of them: pages of one type and language
 * that have the same of what built-ins need. Tags that come to nothing need not be looked at again. A plan that may
 * have circles is left alone: its searches are on the watch.
 */
export function withConstants(plan: Plan, page: PageScope, met: number): Plan {
	if (plan.hasCircle) return plan;
	const known = new Constants(plan, page, met);
	const ends = plan.candidates.map((_, index) => known.at(index));
	const start = ends.map((search, index) => (search ? search.value : plan.start[index]));
	return {
		...plan,
		start,
		startEnds: ends.map((search, index) => search?.end ?? (plan.startEnds[index] as number)),
		shared: undefined,
		steps: plan.steps
			.filter(({ index }) => start[index] !== null)
			.map((step) => {
				const value = start[step.index];
				if (typeof value === 'string' && !step.tag.attributes && !step.goesWithPicture)
					return stepOf(step.tag, step, value);
				return stepOf(step.tag, { ...step, source: sourceOf(step.index, plan) });
			})
	};
}

/** The place that the value of a tag is taken from as it is, by way of others too, where nothing else could give one. */
function sourceOf(index: number, plan: Plan): number {
	const [first, second] = plan.candidates[index] as readonly Candidate[];
	const from = first?.takes === undefined || second ? undefined : plan.indexOf.get(first.takes);
	return from === undefined ? index : sourceOf(from, plan);
}

/** A search that goes the same way on every page of a plan: what it comes to, and where it ends. */
interface ConstantSearch {
	readonly value: TagValue | null;
	readonly end: number;
}

/** The searches of a plan that go the same way on all its pages. */
class Constants {
	private readonly known: (ConstantSearch | undefined | null)[] = [];

	constructor(
		private readonly plan: Plan,
		private readonly page: PageScope,
		private readonly met: number
	) {}

	/** Undefined for a search that depends on the page, or fails and must be told. */
	at(index: number): ConstantSearch | undefined {
		let known = this.known[index];
		if (known === undefined)
			this.known[index] = known = this.search(this.plan.candidates[index] as readonly Candidate[]) ?? null;
		return known ?? undefined;
	}

	private search(candidates: readonly Candidate[]): ConstantSearch | undefined {
		try {
			for (let end = 0; end < candidates.length; end++) {
				const candidate = candidates[end] as Candidate;
				if (!this.isConstant(candidate)) return undefined;
				const value = candidate.evaluate(this.page);
				if (value !== undefined) return { value: value === LEFT_OUT ? null : value, end };
			}
		} catch {
			return undefined;
		}
		return { value: null, end: candidates.length };
	}

	private isConstant({ isConstant, isDerived, builtIn, reads }: Candidate): boolean {
		if (isConstant || (builtIn?.needs && !isMet(builtIn.needs, this.met))) return true;
		if (!isDerived) return false;
		// A tag that nobody speaks of comes to nothing on every page.
		return reads.every((name) => {
			const from = this.plan.indexOf.get(name);
			return from === undefined || this.at(from) !== undefined;
		});
	}
}
