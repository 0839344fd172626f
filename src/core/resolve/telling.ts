import { LEFT_OUT, type Candidate } from './candidate';
import { LOOPED } from './loops';
import type { Resolution } from './resolution';
import type { Outcome, SkippedSource, TagValue, Trace, TraceStep, Withheld } from './types';

const WON: Outcome = { kind: 'won' };
const ENDED: Outcome = { kind: 'left-out' };
const NOT_REACHED: Outcome = { kind: 'not-reached' };

/** A candidate that borrows in a circle, by its place, and the circle. */
interface Looped {
	readonly at: number;
	readonly tags: readonly string[];
}

/** What the searches of one page told. Tags are known by their place in the plan. Most pages tell only the ends. */
export class Telling {
	/** Where each search ended: the place of a candidate, or their number when none had a value. */
	readonly ends: number[];
	loops: Map<number, readonly Looped[]> | undefined = undefined;
	/** Why a tag that came to something is not written. */
	withheld: Map<number, Withheld> | undefined = undefined;
	private skipped: Map<object, readonly SkippedSource[]> | undefined = undefined;

	constructor(startEnds: readonly number[]) {
		this.ends = startEnds.slice();
	}

	loop(index: number, loops: readonly Looped[]) {
		(this.loops ??= new Map()).set(index, loops);
	}

	withhold(index: number, why: Withheld) {
		(this.withheld ??= new Map()).set(index, why);
	}

	/** What a picture rule or built-in skipped. */
	skip(chooser: object, skipped: readonly SkippedSource[]) {
		(this.skipped ??= new Map()).set(chooser, skipped);
	}

	skippedBy(chooser: object): readonly SkippedSource[] {
		return this.skipped?.get(chooser) ?? NONE_SKIPPED;
	}
}

const NONE_SKIPPED: readonly SkippedSource[] = [];

/**
 * Searches for the value of one tag and tells how. The steps of a search that went in one of the usual ways are made
 * once for each place it can end at, and shared by all pages: a trace is asked for on many pages at a time.
 */
export class TellingSearch {
	private readonly usual: (readonly TraceStep[] | undefined)[] = [];
	private readonly fruitless: (Trace | undefined)[] = [];
	/** The trace of a tag that is the same on all pages. */
	private constant: Trace | undefined;
	private readonly losses: readonly Candidate['explainLoss'][];
	private readonly wins: readonly Candidate['explainWin'][];
	/** No candidate ever has more to say than the usual. */
	private readonly isSilent: boolean;

	/** `isIdle` says that no candidate can have a value for this type, so that none needs to be tried. */
	constructor(
		private readonly tag: string,
		private readonly index: number,
		private readonly candidates: readonly Candidate[],
		private readonly evaluates: readonly Candidate['evaluate'][],
		private readonly isIdle: boolean
	) {
		this.losses = candidates.map((candidate) => candidate.explainLoss);
		this.wins = candidates.map((candidate) => candidate.explainWin);
		this.isSilent = isIdle || [...this.losses, ...this.wins].every((explain) => explain === undefined);
	}

	run(page: Resolution, telling: Telling): TagValue | null {
		if (page.watch) return this.runOnWatch(page, telling);
		const { evaluates } = this;
		telling.ends[this.index] = evaluates.length;
		if (this.isIdle) return null;
		for (let end = 0; end < evaluates.length; end++) {
			const value = (evaluates[end] as Candidate['evaluate'])(page);
			if (value === undefined) continue;
			telling.ends[this.index] = end;
			return value === LEFT_OUT ? null : value;
		}
		return null;
	}

	private runOnWatch(page: Resolution, telling: Telling): TagValue | null {
		const loops: Looped[] = [];
		telling.loop(this.index, loops);
		for (let end = 0; end < this.candidates.length; end++) {
			const candidate = this.candidates[end] as Candidate;
			const value = page.watch!.attempt(this.index, candidate, () => candidate.evaluate(page));
			if (value === LOOPED) loops.push({ at: end, tags: page.watch!.tagsOf(candidate) });
			else if (value !== undefined) {
				telling.ends[this.index] = end;
				return value === LEFT_OUT ? null : value;
			}
		}
		telling.ends[this.index] = this.candidates.length;
		return null;
	}

	/** The layer that the value of this tag came from; undefined when it has none. */
	layerOf(page: Resolution, telling: Telling) {
		if (page.valueAt(this.index) === null) return undefined;
		return this.candidates[telling.ends[this.index] as number]?.layer;
	}

	/** The trace of a search, once every tag of the page has its value: a reason may name another tag's. */
	trace(page: Resolution, telling: Telling): Trace {
		if (page.plan.start[this.index] !== undefined) return (this.constant ??= this.makeTrace(page, telling));
		return this.makeTrace(page, telling);
	}

	private makeTrace(page: Resolution, telling: Telling): Trace {
		const value = page.valueAt(this.index);
		const end = telling.ends[this.index] as number;
		if (value !== null) {
			const steps = this.isSilent && !telling.loops ? this.usual[end] : undefined;
			return { tag: this.tag, value, steps: steps ?? this.explain(page, telling, end, value), winner: end };
		}
		if (this.isSilent && !telling.loops) return (this.fruitless[end] ??= this.nothing(page, telling, end));
		return this.nothing(page, telling, end);
	}

	private nothing(page: Resolution, telling: Telling, end: number): Trace {
		return { tag: this.tag, value: undefined, steps: this.explain(page, telling, end, null), winner: -1 };
	}

	private explain(page: Resolution, telling: Telling, end: number, value: TagValue | null): readonly TraceStep[] {
		const loops = telling.loops?.get(this.index);
		if (this.isSilent && !loops) return (this.usual[end] ??= this.makeSteps(end, value, NONE_SPECIAL));
		let special: (Outcome | undefined)[] | undefined;
		for (let at = 0; at < end; at++) {
			const outcome = this.losses[at]?.(page);
			if (outcome) (special ??= [])[at] = outcome;
		}
		const win = value === null ? undefined : this.wins[end]?.(page);
		if (win) (special ??= [])[end] = win;
		for (const { at, tags } of loops ?? NO_LOOPS) (special ??= [])[at] = { kind: 'loop', tags };
		return special
			? this.makeSteps(end, value, special)
			: (this.usual[end] ??= this.makeSteps(end, value, NONE_SPECIAL));
	}

	/** `special` holds the outcomes that are not the usual ones. */
	private makeSteps(end: number, value: TagValue | null, special: readonly (Outcome | undefined)[]): TraceStep[] {
		return this.candidates.map((candidate, at) => {
			const usual = at > end ? NOT_REACHED : at < end ? candidate.usual : value === null ? ENDED : WON;
			return { ...candidate.base, outcome: special[at] ?? usual };
		});
	}
}

const NO_LOOPS: readonly Looped[] = [];
const NONE_SPECIAL: readonly undefined[] = [];
