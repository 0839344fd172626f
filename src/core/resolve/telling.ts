import { LEFT_OUT, type Candidate } from './candidate';
import { LOOPED } from './loops';
import type { Resolution } from './resolution';
import type { Outcome, TagValue, TraceStep } from './types';

const WON: Outcome = { kind: 'won' };
const ENDED: Outcome = { kind: 'left-out' };
const NOT_REACHED: Outcome = { kind: 'not-reached' };

/** How a search for a tag's value went. */
export interface Search {
	readonly value: TagValue | null;
	/** The place of the candidate it ended at; their number when none had a value. */
	readonly end: number;
	/** The places of candidates that borrow in a circle, and the circle. */
	readonly loops: readonly { readonly at: number; readonly tags: readonly string[] }[] | undefined;
}

/**
 * Searches for the value of one tag and tells how. The steps of a search that went in one of the usual ways are made
 * once for each place it can end at, and shared by all pages: a trace is asked for on many pages at a time.
 */
export class TellingSearch {
	private readonly usual: (readonly TraceStep[] | undefined)[] = [];
	private readonly evaluates: readonly Candidate['evaluate'][];
	private readonly losses: readonly Candidate['explainLoss'][];
	private readonly wins: readonly Candidate['explainWin'][];
	/** No candidate ever has more to say than the usual. */
	private readonly isSilent: boolean;

	/** `isIdle` says that no candidate can have a value for this type, so that none needs to be tried. */
	constructor(
		private readonly index: number,
		private readonly candidates: readonly Candidate[],
		private readonly isIdle: boolean
	) {
		this.evaluates = candidates.map((candidate) => candidate.evaluate);
		this.losses = candidates.map((candidate) => candidate.explainLoss);
		this.wins = candidates.map((candidate) => candidate.explainWin);
		this.isSilent = isIdle || [...this.losses, ...this.wins].every((explain) => explain === undefined);
	}

	run(page: Resolution): Search {
		if (page.watch) return this.runOnWatch(page);
		const { evaluates } = this;
		if (this.isIdle) return { value: null, end: evaluates.length, loops: undefined };
		for (let end = 0; end < evaluates.length; end++) {
			const value = (evaluates[end] as Candidate['evaluate'])(page);
			if (value !== undefined) return { value: value === LEFT_OUT ? null : value, end, loops: undefined };
		}
		return { value: null, end: evaluates.length, loops: undefined };
	}

	private runOnWatch(page: Resolution): Search {
		const loops: { at: number; tags: readonly string[] }[] = [];
		let end = 0;
		for (; end < this.candidates.length; end++) {
			const candidate = this.candidates[end] as Candidate;
			const value = page.watch!.attempt(this.index, candidate, () => candidate.evaluate(page));
			if (value === LOOPED) loops.push({ at: end, tags: page.watch!.tagsOf(candidate) });
			else if (value !== undefined) return { value: value === LEFT_OUT ? null : value, end, loops };
		}
		return { value: null, end, loops };
	}

	/** The steps of a search, once every tag of the page has its value: a reason may name another tag's. */
	explain(page: Resolution, { value, end, loops }: Search): readonly TraceStep[] {
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

const NO_LOOPS: NonNullable<Search['loops']> = [];
const NONE_SPECIAL: readonly undefined[] = [];
