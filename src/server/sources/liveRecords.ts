import CachePolicy from 'http-cache-semantics';
import { ownOf, type Fields } from '$core';
import type { RecordMapping } from '../heads/records';
import type { RecordAnswer, RecordTask } from './readRecord';

/** What is known of the record of a page at this moment. */
export type Known =
	/** `isLate`: its time is over, and it goes out because the source is away, or is being asked. */
	| { readonly is: 'there'; readonly fields: Fields; readonly isLate: boolean }
	/** The source has no such record. */
	| { readonly is: 'gone' }
	/** The source is away, and nothing was known. */
	| { readonly is: 'away'; readonly why: string };

/** A page's record, as it is asked for. */
export interface Wanted {
	/** What its source is called: sources that are away are not asked by every request. */
	readonly source: string;
	readonly address: string;
	readonly mapping?: RecordMapping | undefined;
}

/**
 * Told whether a source answers: when that is first known, and when it changes. `why` it does not. Says whether it was noted; else it
 * is told again.
 */
export type TellSource = (source: string, why: string | undefined) => boolean;

interface Kept {
	readonly policy: CachePolicy;
	/** Undefined where there is none. */
	readonly fields: Fields | undefined;
	readonly size: number;
}
interface Away {
	readonly why: string;
	/** How often in turn. */
	readonly times: number;
	/** Until then it is not asked (milliseconds). */
	readonly until: number;
}

/** So much is kept (characters of JSON, and so many records), the oldest dropped first. */
const MOST_KEPT = 64_000_000;
const MOST_RECORDS = 50_000;
/** A source that is away is asked again after so long (milliseconds), twice as long each time. */
const FIRST_WAIT = 1000;
const LONGEST_WAIT = 30_000;

/**
 * Records of live data, kept as long as their answers allow (RFC 9111, as a cache that many share): late ones go out while they are
 * asked for anew (RFC 5861, `stale-while-revalidate`), and as long as the source is away, unless they say that they must not.
 */
export class LiveRecords {
	private readonly kept = new Map<string, Kept>();
	private readonly asking = new Map<string, Promise<Known>>();
	private readonly away = new Map<string, Away>();
	/** Of which sources it was noted that they are away, or not: what an earlier process noted may hold no more. */
	private readonly noted = new Map<string, boolean>();
	/** Sources that were away, and are being asked by one request. */
	private readonly trials = new Set<string>();
	private size = 0;

	constructor(
		private readonly ask: (task: Omit<RecordTask, 'inside'>) => Promise<RecordAnswer>,
		private readonly tell: TellSource = () => true
	) {}

	/** The record of a page, from what is kept or from its source. */
	async get(wanted: Wanted): Promise<Known> {
		const key = JSON.stringify([wanted.address, wanted.mapping]);
		const kept = this.kept.get(key);
		if (kept?.policy.satisfiesWithoutRevalidation(asRequest(wanted))) return known(kept, false);
		const away = this.away.get(wanted.source);
		if (away && (Date.now() < away.until || this.trials.has(wanted.source))) return lateOr(kept, away.why);
		const asked = this.asking.get(key) ?? this.begin(key, wanted, kept);
		return kept && mayBeLate(kept.policy) ? known(kept, true) : asked;
	}

	/** Many that ask for one at once ask its source once. */
	private begin(key: string, wanted: Wanted, kept: Kept | undefined): Promise<Known> {
		const { source } = wanted;
		const isTrial = this.away.has(source);
		if (isTrial) this.trials.add(source);
		const asked = this.renew(key, wanted, kept).finally(() => {
			this.asking.delete(key);
			if (isTrial) this.trials.delete(source);
		});
		this.asking.set(key, asked);
		return asked;
	}

	private async renew(key: string, wanted: Wanted, kept: Kept | undefined): Promise<Known> {
		const { address, mapping, source } = wanted;
		const request = asRequest(wanted);
		const fields = kept ? conditional(kept.policy.revalidationHeaders(request)) : {};
		const answer = await this.ask({ address, mapping, known: fields }).catch((error: unknown) => ({
			...{ headers: {}, status: undefined, fields: undefined },
			why: error instanceof Error ? error.message : String(error)
		}));
		const { status, headers, why = `It answered ${status}.` } = answer;
		const isNotModified = status === 304 && kept !== undefined;
		const isGone = status === 404 || status === 410;
		if (!isNotModified && !isGone && answer.fields === undefined) {
			this.fails(source, why);
			return lateOr(kept, why);
		}
		this.answers(source);
		if (isNotModified) {
			const { policy } = kept.policy.revalidatedPolicy(request, { status: 304, headers });
			return this.keep(key, { ...kept, policy });
		}
		const policy = new CachePolicy(request, { status: status!, headers }, { shared: true });
		const size = key.length + JSON.stringify(answer.fields ?? null).length + 500;
		return this.keep(key, { policy, fields: answer.fields, size });
	}

	private keep(key: string, made: Kept): Known {
		const before = this.kept.get(key);
		if (before) {
			this.kept.delete(key);
			this.size -= before.size;
		}
		if (made.policy.storable()) {
			this.kept.set(key, made);
			this.size += made.size;
			for (const [oldest, { size }] of this.kept) {
				if (this.size <= MOST_KEPT && this.kept.size <= MOST_RECORDS) break;
				this.kept.delete(oldest);
				this.size -= size;
			}
		}
		return known(made, false);
	}

	private fails(source: string, why: string) {
		const before = this.away.get(source);
		// Those that were on their way together failed once.
		if (before && Date.now() < before.until) return;
		const times = (before?.times ?? 0) + 1;
		const wait = Math.min(FIRST_WAIT * 2 ** (times - 1), LONGEST_WAIT);
		this.away.set(source, { why, times, until: Date.now() + wait });
		this.note(source, why);
	}
	private answers(source: string) {
		this.away.delete(source);
		this.note(source, undefined);
	}
	private note(source: string, why: string | undefined) {
		const isAway = why !== undefined;
		if (this.noted.get(source) !== isAway && this.tell(source, why)) this.noted.set(source, isAway);
	}
}

const known = ({ fields }: Kept, isLate: boolean): Known =>
	fields === undefined ? { is: 'gone' } : { is: 'there', fields, isLate };

/** The last that was good, where it may go out late (RFC 9111, section 4.2.4). */
function lateOr(kept: Kept | undefined, why: string): Known {
	if (!kept) return { is: 'away', why };
	const said = String(kept.policy.responseHeaders()['cache-control'] ?? '');
	return /\b(?:must-revalidate|proxy-revalidate|no-cache)\b/i.test(said) ? { is: 'away', why } : known(kept, true);
}

/** Whether a late one may go out while another is asked for (RFC 5861, section 3). */
function mayBeLate(policy: CachePolicy): boolean {
	const seconds = /\bstale-while-revalidate\s*=\s*"?(\d+)/i.exec(
		String(policy.responseHeaders()['cache-control'] ?? '')
	)?.[1];
	return seconds !== undefined && policy.maxAge() + Number(seconds) > policy.age();
}

function asRequest({ address }: Wanted) {
	const { host, pathname, search } = new URL(address);
	return { method: 'GET', url: pathname + search, headers: { host, accept: 'application/json' } };
}

/** The fields that ask whether what is known still holds. */
const conditional = (headers: Readonly<Record<string, string | string[] | undefined>>) =>
	Object.fromEntries(
		['if-none-match', 'if-modified-since'].flatMap((name) => {
			const value = ownOf(headers, name);
			return typeof value === 'string' ? [[name, value]] : [];
		})
	);
