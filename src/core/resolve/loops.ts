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

/** A page on the watch: it knows the names of its tags by their places. */
interface Watched {
	readonly page: { readonly path: string };
	tagAt(index: number): string;
}

/** Thrown inside a resolution only, to leave a circle for the tag where it closed. */
class Circle {
	constructor(
		readonly of: Watched,
		readonly index: number
	) {}
}

/** Whether something thrown is a circle on its way to where it closed. */
export const isCircle = (error: unknown): boolean => error instanceof Circle;

/** A candidate that borrows in a circle. */
export const LOOPED = Symbol('looped');

interface Frame {
	readonly of: Watched;
	readonly index: number;
	readonly candidate: Candidate;
}

/**
 * The watch for circles, for one page and those whose heads it reads. When a tag is asked for while it is being worked out,
 * every rule on the way round is a looping candidate: it is remembered, left, and never tried again. Built-ins are not to
 * blame and stay. Each circle found takes at least one rule out, so this ends.
 */
export class LoopWatch {
	private readonly stack: Frame[] = [];
	private readonly looping = new Map<Watched, Map<Candidate, readonly string[]>>();

	/** Called when a tag is asked for that has no value yet. */
	enter(of: Watched, index: number) {
		const from = this.stack.findIndex((frame) => frame.of === of && frame.index === index);
		if (from < 0) return;
		const round = this.stack.slice(from);
		const names = (frames: readonly Pick<Frame, 'of' | 'index'>[]) =>
			frames.map((frame) =>
				round.every((one) => one.of === of)
					? frame.of.tagAt(frame.index)
					: `${frame.of.tagAt(frame.index)} of ${frame.of.page.path}`
			);
		const tags = names([...round, { of, index }]);
		for (const frame of round) if (frame.candidate.rule) this.ofPage(frame.of).set(frame.candidate, tags);
		throw new Circle(of, index);
	}

	private ofPage(of: Watched) {
		let looping = this.looping.get(of);
		if (!looping) this.looping.set(of, (looping = new Map<Candidate, readonly string[]>()));
		return looping;
	}

	/** Tries a candidate; `LOOPED` when it borrows in a circle. */
	attempt<T>(of: Watched, index: number, candidate: Candidate, evaluate: () => T): T | typeof LOOPED {
		const depth = this.stack.length;
		const looping = this.ofPage(of);
		try {
			while (!looping.has(candidate)) {
				this.stack.push({ of, index, candidate });
				try {
					return evaluate();
				} catch (circle) {
					if (!(circle instanceof Circle) || circle.of !== of || circle.index !== index) throw circle;
					this.stack.length = depth;
				}
			}
			return LOOPED;
		} finally {
			this.stack.length = depth;
		}
	}

	/** The circles through other pages that tags of a page were found in, each with the way round. */
	circlesOf(of: Watched): { readonly tag: string; readonly way: readonly string[] }[] {
		const end = ` of ${of.page.path}`;
		const circles = new Map<string, readonly string[]>();
		for (const way of this.ofPage(of).values()) {
			const own = way.find((name) => name.endsWith(end));
			if (own !== undefined) circles.set(own.slice(0, -end.length), way);
		}
		return [...circles].map(([tag, way]) => ({ tag, way }));
	}

	/** The circle that a candidate was found in. */
	tagsOf(of: Watched, candidate: Candidate): readonly string[] {
		return this.ofPage(of).get(candidate) ?? [];
	}
}
