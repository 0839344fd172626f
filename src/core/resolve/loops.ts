import type { Candidate } from './candidate';

/**
 * Whether tags could borrow in a circle: whether what any candidate reads leads back to its own tag. Nearly no plan
 * has one; those that have are resolved on the watch for it (R7).
 */
export function hasCircle(names: readonly string[], candidates: readonly (readonly Candidate[])[]): boolean {
	const reads = new Map(names.map((name, at) => [name, candidates[at]!.flatMap((candidate) => candidate.reads)]));
	return names.some((name) =>
		(reads.get(name) as string[]).some((from) => pathBetween(from, name, reads) !== undefined)
	);
}

/** The shortest way from one tag to another along what each reads, both ends included; undefined when there is none. */
export function pathBetween(
	from: string,
	to: string,
	reads: ReadonlyMap<string, readonly string[]>
): string[] | undefined {
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

/** Thrown inside a resolution only, to leave a circle for the tag where it closed. */
class Circle {
	constructor(readonly index: number) {}
}

/** Whether something thrown is a circle on its way to where it closed. */
export const isCircle = (error: unknown): boolean => error instanceof Circle;

/** A candidate that borrows in a circle. */
export const LOOPED = Symbol('looped');

interface Frame {
	readonly index: number;
	readonly candidate: Candidate;
}

/**
 * The watch for circles, for one page. When a tag is asked for while it is being worked out, every rule on the way
 * round is a looping candidate: it is remembered, left, and never tried again. Built-ins are not to blame and stay.
 * Each circle found takes at least one rule out, so this ends.
 */
export class LoopWatch {
	private readonly stack: Frame[] = [];
	private readonly looping = new Map<Candidate, readonly string[]>();

	constructor(private readonly nameAt: (index: number) => string) {}

	/** Called when a tag is asked for that has no value yet. */
	enter(index: number) {
		const from = this.stack.findIndex((frame) => frame.index === index);
		if (from < 0) return;
		const round = this.stack.slice(from);
		const tags = [...round.map((frame) => this.nameAt(frame.index)), this.nameAt(index)];
		for (const { candidate } of round) if (candidate.rule) this.looping.set(candidate, tags);
		throw new Circle(index);
	}

	/** Tries a candidate; `LOOPED` when it borrows in a circle. */
	attempt<T>(index: number, candidate: Candidate, evaluate: () => T): T | typeof LOOPED {
		const depth = this.stack.length;
		try {
			while (!this.looping.has(candidate)) {
				this.stack.push({ index, candidate });
				try {
					return evaluate();
				} catch (circle) {
					if (!(circle instanceof Circle) || circle.index !== index) throw circle;
					this.stack.length = depth;
				}
			}
			return LOOPED;
		} finally {
			this.stack.length = depth;
		}
	}

	/** The circle that a candidate was found in. */
	tagsOf(candidate: Candidate): readonly string[] {
		return this.looping.get(candidate) ?? [];
	}
}
