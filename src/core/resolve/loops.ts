import type { TagDefinition } from '../catalogue/types';
import type { Candidate } from './candidate';

/**
 * Marks every candidate that would make tags borrow in a circle (R7).
 *
 * 1. Among the rules people wrote: a candidate is looping when what it borrows from leads back to its own tag.
 * 2. With those gone, the built-ins: where a rule borrows from a tag whose built-in borrows back, the built-in gives way.
 *
 * What is left has no circle, so resolution needs no guard and does not depend on the order in which tags are asked for.
 */
export function skipLoops(tags: readonly TagDefinition[], candidates: readonly (readonly Candidate[])[]): readonly (readonly Candidate[])[] {
	if (!candidates.some((list) => list.some((candidate) => candidate.layer !== 'built-in' && candidate.reads.length > 0))) return candidates;
	const names = tags.map((tag) => tag.name);
	const written = markCircles(names, candidates, (candidate) => candidate.layer !== 'built-in');
	return markCircles(names, written, () => true, (candidate) => candidate.layer === 'built-in');
}

type Test = (candidate: Candidate) => boolean;

function markCircles(
	names: readonly string[],
	candidates: readonly (readonly Candidate[])[],
	counts: Test,
	mayMark: Test = counts
): readonly (readonly Candidate[])[] {
	const reads = new Map(
		names.map((name, i) => [name, candidates[i]!.filter((candidate) => counts(candidate) && !candidate.loop).flatMap((candidate) => candidate.reads)])
	);
	return candidates.map((list, i) =>
		list.map((candidate) => {
			if (candidate.reads.length === 0 || candidate.loop || !mayMark(candidate)) return candidate;
			const loop = candidate.reads.map((from) => pathBetween(from, names[i]!, reads)).find((path) => path !== undefined);
			return loop ? { ...candidate, loop: { kind: 'loop', tags: [names[i]!, ...loop] } } : candidate;
		})
	);
}

/** The shortest way from one tag to another along what each reads, both ends included; undefined when there is none. */
export function pathBetween(from: string, to: string, reads: ReadonlyMap<string, readonly string[]>): string[] | undefined {
	const cameFrom = new Map<string, string | undefined>([[from, undefined]]);
	for (const tag of cameFrom.keys()) {
		if (tag === to) return stepsBack(tag, cameFrom);
		for (const next of reads.get(tag) ?? []) if (!cameFrom.has(next)) cameFrom.set(next, tag);
	}
	return undefined;
}

function stepsBack(end: string, cameFrom: ReadonlyMap<string, string | undefined>): string[] {
	const path: string[] = [];
	for (let tag: string | undefined = end; tag !== undefined; tag = cameFrom.get(tag)) path.unshift(tag);
	return path;
}
