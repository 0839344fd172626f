import { CATALOGUE, findTag } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import type { Layer, Rule } from '../model';
import { BUILT_INS, type BuiltIn } from './builtIns';
import { makeBuiltIn, makeRule, type Candidate } from './candidate';
import { skipLoops } from './loops';

/** The rules of one layer for one tag, exact language first (R1). */
export interface Plan {
	/** The tags that any layer says something about, in the order of output (R11). */
	readonly tags: readonly TagDefinition[];
	readonly candidates: readonly (readonly Candidate[])[];
	readonly indexOf: ReadonlyMap<string, number>;
}

export interface LayerRules {
	readonly layer: Exclude<Layer, 'built-in'>;
	readonly rules: readonly Rule[];
}

type Prefixes = Readonly<Record<string, string>>;

const BUILT_IN_CANDIDATES: ReadonlyMap<string, readonly Candidate[]> = groupBy(BUILT_INS.map(makeBuiltIn), (candidate) => (candidate.builtIn as BuiltIn).tag);

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
function languageChain(language: string): string[] {
	const parts = language.toLowerCase().split('-');
	return [...parts.map((_, i) => parts.slice(0, parts.length - i).join('-')), ''];
}

/**
 * The order of candidates for every tag, worked out once for a type and a language.
 *
 * 1. Layer by layer, most specific first: page, type, site, built-in.
 * 2. In a layer: the rule for the exact language, for its shorter forms, for any language.
 * 3. Candidates that borrow in a circle are marked and skipped (R7).
 */
export function makePlan(layers: readonly LayerRules[], language: string, prefixes: Prefixes): Plan {
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
				const candidate = makeRule(tag, layer, rule);
				const list = byTag.get(tag.name);
				if (list) list.push(candidate);
				else byTag.set(tag.name, [candidate]);
			}
	return orderPlan(byTag, own);
}

function orderPlan(byTag: Map<string, Candidate[]>, own: ReadonlyMap<string, TagDefinition>): Plan {
	const added = [...own.values()].sort((a, b) => (a.name < b.name ? -1 : 1));
	const tags = [...CATALOGUE, ...added].filter((tag) => byTag.has(tag.name) || BUILT_IN_CANDIDATES.has(tag.name));
	const candidates = skipLoops(tags, tags.map((tag) => [...(byTag.get(tag.name) ?? []), ...(BUILT_IN_CANDIDATES.get(tag.name) ?? [])]));
	return { tags, candidates, indexOf: new Map(tags.map((tag, index) => [tag.name, index])) };
}
