import { LEFT_OUT, type Candidate, type Evaluate } from './candidate';
import { isCircle, LOOPED, type LoopWatch } from './loops';
import type { PageScope } from './scope';
import type { Outcome, SkippedSource, Trace, TraceStep, Withheld } from './trace';
import type { TagValue } from './value';

const WON: Outcome = { kind: 'won' };
const ENDED: Outcome = { kind: 'left-out' };
const NOT_REACHED: Outcome = { kind: 'not-reached' };
const FAILED: Outcome = { kind: 'failed' };

/**
 * Tries candidates in order, without keeping anything but the value. A candidate that throws, on data that no check
 * has seen, comes to nothing: it costs its own tag, never the run.
 */
export function searchQuietly(evaluators: readonly Evaluate[], page: PageScope): TagValue | null {
	for (let at = 0; at < evaluators.length; at++) {
		let value: ReturnType<Evaluate>;
		try {
			value = (evaluators[at] as Evaluate)(page);
		} catch {
			continue;
		}
		if (value === LEFT_OUT) return null;
		if (value !== undefined) return value;
	}
	return null;
}

/** What one candidate comes to by itself; undefined also when it fails. */
export function tryCandidate({ evaluate }: Candidate, page: PageScope): ReturnType<Evaluate> {
	try {
		return evaluate(page);
	} catch {
		return undefined;
	}
}

/** The same search, on the watch for circles (R7). */
export function searchOnWatch(
	candidates: readonly Candidate[],
	index: number,
	page: PageScope,
	watch: LoopWatch
): TagValue | null {
	const value = endOnWatch(candidates, index, page, watch)?.value;
	return value === undefined || value === LEFT_OUT ? null : value;
}

/** The candidate that ends the search, with what it came to; undefined where none does. */
export function endOnWatch(
	candidates: readonly Candidate[],
	index: number,
	page: PageScope,
	watch: LoopWatch
): { readonly candidate: Candidate; readonly value: TagValue | typeof LEFT_OUT } | undefined {
	for (const candidate of candidates) {
		const value = watch.attempt(page, index, candidate, () => evaluateSafely(candidate, page));
		if (value !== undefined && value !== LOOPED && value !== FAILURE) return { candidate, value };
	}
	return undefined;
}

/** A candidate threw. */
const FAILURE = Symbol('failure');

function evaluateSafely({ evaluate }: Candidate, page: PageScope): ReturnType<Evaluate> | typeof FAILURE {
	try {
		return evaluate(page);
	} catch (error) {
		if (isCircle(error)) throw error;
		return FAILURE;
	}
}

/** A candidate that borrows in a circle, or failed, by its place. */
interface Mishap {
	readonly at: number;
	readonly outcome: Outcome;
}

/** What is recorded of the searches of one page, to make its traces of. Tags are known by their place in the plan. */
export class SearchRecord {
	/** Where each search ended: the place of a candidate, or their number when none had a value. */
	readonly ends: number[];
	/** Most pages have none. */
	mishaps: Map<number, readonly Mishap[]> | undefined = undefined;
	/** Why a tag that came to something is not written. */
	withheld: Map<number, Withheld> | undefined = undefined;
	private skipped: Map<object, readonly SkippedSource[]> | undefined = undefined;

	constructor(startEnds: readonly number[]) {
		this.ends = startEnds.slice();
	}

	note(index: number, mishap: Mishap) {
		this.mishaps ??= new Map();
		this.mishaps.set(index, [...(this.mishaps.get(index) ?? NO_MISHAPS), mishap]);
	}

	withhold(index: number, why: Withheld) {
		(this.withheld ??= new Map()).set(index, why);
	}

	/** What a picture rule or built-in skipped. */
	noteSkipped(chooser: object, skipped: readonly SkippedSource[]) {
		(this.skipped ??= new Map()).set(chooser, skipped);
	}

	skippedBy(chooser: object): readonly SkippedSource[] {
		return this.skipped?.get(chooser) ?? NONE_SKIPPED;
	}
}

const NO_MISHAPS: readonly Mishap[] = [];
const NONE_SKIPPED: readonly SkippedSource[] = [];

/** The traces of a plan, by place. */
export interface SharedTraces {
	/** Those that are the same on every page; undefined for the others. */
	readonly traces: readonly (Trace | undefined)[];
	/** The places of the others. */
	readonly others: readonly number[];
}

/**
 * Searches for the value of one tag and makes its trace. The steps of a search that went in one of the usual ways are
 * made once for each place it can end at, and shared by all pages: a trace is asked for on many pages at a time.
 */
export class TracedSearch {
	private readonly usualSteps: (readonly TraceStep[] | undefined)[] = [];
	private readonly emptyTraces: (Trace | undefined)[] = [];
	/** No candidate ever has more to say than the usual. */
	private readonly isSilent: boolean;
	/** Some candidate is named by what the page says. */
	private readonly namesByPage: boolean;

	/** `isIdle` says that no candidate can have a value for this type, and none is tried. */
	constructor(
		readonly tag: string,
		private readonly index: number,
		private readonly candidates: readonly Candidate[],
		private readonly evaluators: readonly Evaluate[],
		isIdle: boolean
	) {
		this.namesByPage = candidates.some(({ nameOn }) => nameOn !== undefined);
		this.isSilent = isIdle || candidates.every((one) => !one.explainLoss && !one.explainWin && !one.nameOn);
	}

	run(page: PageScope, record: SearchRecord): TagValue | null {
		const { evaluators, index } = this;
		record.ends[index] = evaluators.length;
		for (let end = 0; end < evaluators.length; end++) {
			let value: ReturnType<Evaluate>;
			try {
				value = (evaluators[end] as Evaluate)(page);
			} catch {
				record.note(index, { at: end, outcome: FAILED });
				continue;
			}
			if (value === undefined) continue;
			record.ends[index] = end;
			return value === LEFT_OUT ? null : value;
		}
		return null;
	}

	/** The same, on the watch for circles (R7). */
	runOnWatch(page: PageScope, record: SearchRecord, watch: LoopWatch): TagValue | null {
		for (let end = 0; end < this.candidates.length; end++) {
			const candidate = this.candidates[end] as Candidate;
			const value = watch.attempt(page, this.index, candidate, () => evaluateSafely(candidate, page));
			if (value === LOOPED)
				record.note(this.index, { at: end, outcome: { kind: 'loop', tags: watch.tagsOf(page, candidate) } });
			else if (value === FAILURE) record.note(this.index, { at: end, outcome: FAILED });
			else if (value !== undefined) {
				record.ends[this.index] = end;
				return value === LEFT_OUT ? null : value;
			}
		}
		record.ends[this.index] = this.candidates.length;
		return null;
	}

	/** The layer that the value of this tag came from; undefined when it has none. */
	layerOf(page: PageScope, record: SearchRecord) {
		if (page.valueAt(this.index) === null) return undefined;
		return this.candidates[record.ends[this.index] as number]?.layer;
	}

	/** The trace of a search, once every tag of the page has its value: a reason may name another tag's. */
	trace(page: PageScope, record: SearchRecord): Trace {
		const value = page.valueAt(this.index);
		const end = record.ends[this.index] as number;
		const isUsual = this.isSilent && !record.mishaps;
		if (value !== null) {
			const steps = isUsual ? this.usualSteps[end] : undefined;
			return { tag: this.tag, value, steps: steps ?? this.explain(page, record, end, value), winner: end };
		}
		if (isUsual) return (this.emptyTraces[end] ??= this.nothing(page, record, end));
		return this.nothing(page, record, end);
	}

	private nothing(page: PageScope, record: SearchRecord, end: number): Trace {
		return { tag: this.tag, value: undefined, steps: this.explain(page, record, end, null), winner: -1 };
	}

	private explain(page: PageScope, record: SearchRecord, end: number, value: TagValue | null): readonly TraceStep[] {
		const mishaps = record.mishaps?.get(this.index);
		if (this.isSilent && !mishaps) return (this.usualSteps[end] ??= this.makeSteps(page, end, value, NONE_SPECIAL));
		let special: (Outcome | undefined)[] | undefined;
		for (let at = 0; at < end; at++) {
			const outcome = explainSafely(this.candidates[at]?.explainLoss, page);
			if (outcome) (special ??= [])[at] = outcome;
		}
		const win = value === null ? undefined : explainSafely(this.candidates[end]?.explainWin, page);
		if (win) (special ??= [])[end] = win;
		for (const { at, outcome } of mishaps ?? NO_MISHAPS) (special ??= [])[at] = outcome;
		return special || this.namesByPage
			? this.makeSteps(page, end, value, special ?? NONE_SPECIAL)
			: (this.usualSteps[end] ??= this.makeSteps(page, end, value, NONE_SPECIAL));
	}

	/** `special` holds the outcomes that are not the usual ones. */
	private makeSteps(
		page: PageScope,
		end: number,
		value: TagValue | null,
		special: readonly (Outcome | undefined)[]
	): TraceStep[] {
		return this.candidates.map(({ base, usual, nameOn }, at) => {
			const expected = at > end ? NOT_REACHED : at < end ? usual : value === null ? ENDED : WON;
			return { ...base, ...(nameOn && { rule: nameOn(page) }), outcome: special[at] ?? expected };
		});
	}
}

const NONE_SPECIAL: readonly undefined[] = [];

/** An explanation that fails on data no check has seen says that. */
function explainSafely(explain: Candidate['explainLoss'], page: PageScope): Outcome | undefined {
	try {
		return explain?.(page);
	} catch {
		return FAILED;
	}
}
