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
	readonly steps: readonly TraceStep[];
	/** The step that won, or -1. */
	readonly winner: number;
}

/**
 * Searches for the value of one tag and tells how. The steps of a search that went in one of the usual ways are made
 * once for each place it can end at, and shared by all pages: a trace is asked for on many pages at a time.
 */
export class TellingSearch {
	private readonly usual: (readonly TraceStep[] | undefined)[] = [];

	private readonly evaluates: readonly Candidate['evaluate'][];
	private readonly explains: readonly Candidate['explain'][];

	constructor(
		private readonly index: number,
		private readonly candidates: readonly Candidate[]
	) {
		this.evaluates = candidates.map((candidate) => candidate.evaluate);
		this.explains = candidates.map((candidate) => candidate.explain);
	}

	run(page: Resolution): Search {
		const { evaluates, explains } = this;
		let special: (Outcome | undefined)[] | undefined;
		let at = 0;
		let value: TagValue | typeof LEFT_OUT | undefined;
		for (; at < evaluates.length; at++) {
			const candidate = this.candidates[at] as Candidate;
			const got = page.watch ? page.watch.attempt(this.index, candidate, () => candidate.evaluate(page)) : (evaluates[at] as Candidate['evaluate'])(page);
			value = got === LOOPED ? undefined : got;
			const outcome: Outcome | undefined = got === LOOPED ? { kind: 'loop', tags: page.watch!.tagsOf(candidate) } : (explains[at] as Candidate['explain'])(page, value);
			if (outcome) (special ??= [])[at] = outcome;
			if (value !== undefined) break;
		}
		const steps = special ? this.makeSteps(at, value, special) : (this.usual[at] ??= this.makeSteps(at, value, []));
		return value === undefined || value === LEFT_OUT ? { value: null, steps, winner: -1 } : { value, steps, winner: at };
	}

	/** The steps of a search that ended at a place; `special` holds the outcomes that are not the usual ones. */
	private makeSteps(end: number, value: TagValue | typeof LEFT_OUT | undefined, special: readonly (Outcome | undefined)[]): TraceStep[] {
		return this.candidates.map((candidate, at) => {
			const usual = at > end ? NOT_REACHED : at < end ? candidate.usual : value === LEFT_OUT ? ENDED : WON;
			return { ...candidate.base, outcome: special[at] ?? usual };
		});
	}
}
