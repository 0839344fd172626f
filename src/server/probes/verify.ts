import { HABITS, normaliseBase, readServedHead, type HeadJson, type ServedTag } from '$core';
import { decodeServed } from '../fetching/charset';
import { TracingFetcher, type Via } from '../fetching/trace';
import { readRobots } from '../imports/web/robots';
import { patiently } from '../store/patiently';
import type { Store } from '../store/store';

/** How what is served of a page compares with what was released. */
export type Drift = 'same' | 'missing' | 'old' | 'other' | 'doubled' | 'unreachable' | 'shut-out';

export interface DriftOfPage {
	readonly path: string;
	readonly is: Drift;
	/** The tags that differ, or why it could not be read. */
	readonly more: string;
}

export interface Verified {
	readonly pages: number;
	readonly counts: Readonly<Record<Drift, number>>;
	readonly drifted: readonly DriftOfPage[];
	/** Pages that wait: it was stopped. */
	readonly waiting: number;
}

export interface VerifyOptions {
	readonly site: string;
	/** So many pages, chosen evenly; all without it. */
	readonly sample?: number | undefined;
	/** Requests a second. */
	readonly rate: number;
	readonly via?: Via | undefined;
	readonly allowed?: ReadonlySet<string>;
	readonly progress?: (done: number, all: number) => void;
	readonly signal?: AbortSignal;
}

/** What is kept while it runs, so that it goes on where it was stopped. */
interface Kept {
	readonly release: number;
	readonly after: string;
	readonly counts: Record<Drift, number>;
	readonly drifted: DriftOfPage[];
}

/** Pages between two notes of how far it is. */
const NOTED = 50;
/** Drifted pages that are told one by one. */
const MOST_TOLD = 1000;

/**
 * Fetches the released pages of a site, by path, and compares each head as served with the one released. One that was
 * stopped or killed goes on where it was; no page is asked for twice.
 */
export async function verify(store: Store, options: VerifyOptions): Promise<Verified> {
	const { id, site } = store.site(options.site);
	const base = normaliseBase(site.base) ?? site.base;
	const release = store.releases.latest(id);
	const paths = release ? [...store.releases.hashes(id, release.number).keys()] : [];
	const step = options.sample === undefined ? 1 : Math.max(1, Math.floor(paths.length / options.sample));
	const wanted = paths.filter((_, at) => at % step === 0).slice(0, options.sample);
	const before = store.sources.settings<Kept>(id, 'verify');
	const isResumed = before !== undefined && before.release === release?.number && options.sample === undefined;
	const kept: Kept = isResumed ? before : { release: release?.number ?? 0, after: '', counts: none(), drifted: [] };
	const state = { ...kept };
	const fetcher = new TracingFetcher(options.allowed, options.via);
	const robots = await readRobots(fetcher, new URL(base).origin);
	const left = isResumed ? wanted.filter((path) => path > kept.after) : wanted;
	let done = 0;
	let last = 0;
	try {
		for (const path of left) {
			if (options.signal?.aborted) break;
			const wait = last + 1000 / options.rate - Date.now();
			if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
			last = Date.now();
			const drift = await driftOf(store, id, path, base, fetcher, robots.allows(base + path.slice(1), 'gangway'));
			state.counts[drift.is]++;
			if (drift.is !== 'same' && state.drifted.length < MOST_TOLD) state.drifted.push(drift);
			state.after = path;
			if (++done % NOTED === 0) await note(store, id, state);
			options.progress?.(done, left.length);
		}
	} finally {
		await fetcher.close();
	}
	const waiting = left.length - done;
	if (waiting > 0) await note(store, id, state);
	else await patiently(() => store.transaction(() => store.sources.forget(id, 'verify')));
	const pages = Object.values(state.counts).reduce((sum, count) => sum + count, 0);
	return { pages, counts: state.counts, drifted: state.drifted, waiting };
}

const note = (store: Store, id: number, state: Kept) =>
	patiently(() => store.transaction(() => store.sources.saveSettings(id, 'verify', state)));

const none = (): Record<Drift, number> => ({
	same: 0,
	missing: 0,
	old: 0,
	other: 0,
	doubled: 0,
	unreachable: 0,
	'shut-out': 0
});

async function driftOf(
	store: Store,
	id: number,
	path: string,
	base: string,
	fetcher: TracingFetcher,
	isAllowed: boolean
): Promise<DriftOfPage> {
	if (!isAllowed) return { path, is: 'shut-out', more: 'robots.txt forbids it' };
	const habits = HABITS.gangway!;
	const got = await fetcher.fetch(base + path.slice(1), {
		...{ maxBytes: 2_000_000, timeout: habits.patience, redirects: habits.redirects },
		headers: { 'user-agent': habits.agent, accept: habits.accepts, 'accept-encoding': 'gzip, br' }
	});
	const hop = got.hops.at(-1);
	// The page for what is not there may well answer with 404.
	if (!hop || hop.status === 0 || (hop.status >= 400 && !(hop.status === 404 && got.body.length > 0)))
		return {
			path,
			is: 'unreachable',
			more: hop?.status ? `its server answers with ${hop.status}` : (got.why ?? got.end)
		};
	const { tags } = readServedHead(decodeServed(got.body, hop.headers['content-type']).text);
	const released = store.releases.head(id, { path });
	const head = released ? (JSON.parse(released.json) as HeadJson) : undefined;
	return {
		path,
		...compare(
			head,
			tags,
			store.releases
				.ofPage(id, path)
				.slice(1)
				.map(({ html }) => html)
		)
	};
}

/** By the values of each tag that was released; what else stands in the head is another's business. */
function compare(
	head: HeadJson | undefined,
	served: readonly ServedTag[],
	earlier: readonly string[]
): Omit<DriftOfPage, 'path'> {
	const wanted = new Map<string, string[]>();
	for (const { tag, value } of head?.tags ?? []) wanted.set(tag, [...(wanted.get(tag) ?? []), value]);
	const there = new Map<string, string[]>();
	for (const { name, value, isBelow } of served) if (!isBelow) there.set(name, [...(there.get(name) ?? []), value]);
	const names = [...wanted.keys()];
	const missing = names.filter((name) => !there.has(name));
	if (names.length > 0 && missing.length === names.length) return { is: 'missing', more: 'none of its tags is served' };
	const doubled = names.filter((name) => (there.get(name)?.length ?? 0) > (wanted.get(name)?.length ?? 0));
	const other = names.filter(
		(name) => there.has(name) && !doubled.includes(name) && there.get(name)!.join('\n') !== wanted.get(name)!.join('\n')
	);
	if (missing.length + doubled.length + other.length === 0) return { is: 'same', more: '' };
	if (doubled.length > 0) return { is: 'doubled', more: doubled.join(', ') };
	const isOld = earlier.some((html) =>
		other.every((name) => there.get(name)!.every((value) => html.includes(value.replaceAll('&', '&amp;'))))
	);
	if (isOld && missing.length === 0) return { is: 'old', more: other.join(', ') };
	return { is: missing.length > other.length ? 'missing' : 'other', more: [...missing, ...other].join(', ') };
}
