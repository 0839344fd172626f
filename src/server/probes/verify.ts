import { randomUUID } from 'node:crypto';
import { normaliseBase, READERS, type DriftWhy, type HeadJson } from '$core';
import { TracingFetcher, type Via } from '../fetching/trace';
import { readRobots } from '../imports/web/robots';
import { patiently } from '../store/opening/patiently';
import type { Store } from '../store/store';
import { refuse } from '../errors';
import { readOnce, type ReadOnce } from './readOnce';
import { driftIn, DRIFTS, wayIn, type Drift, type DriftSeen, type HeadWay, type PageDrift } from './drifts';
import { headersOf, isComplete } from './looked';
import { picturesOnce, withPictures } from './picturesThere';
import { begin, fresh, leave, note } from './verifyRun';
import { clock, pacer } from '../waiting';

export interface Verified {
	/** So many were looked at, of so many that are released. */
	readonly pages: number;
	readonly released: number;
	readonly counts: Readonly<Record<Drift, number>>;
	readonly drifted: readonly PageDrift[];
	/** On how many pages the head was written in on its way, by what. */
	readonly ways: Readonly<Partial<Record<HeadWay, number>>>;
	/** Pages that wait: it was stopped. */
	readonly waiting: number;
}

export interface VerifyOptions {
	readonly site: string;
	/** So many pages, chosen evenly; all without it. */
	readonly sample?: number | undefined;
	/** Requests a second. */
	readonly rate: number;
	readonly via?: Via | readonly Via[] | undefined;
	readonly allowed?: ReadonlySet<string>;
	readonly progress?: (done: number, all: number) => void;
	readonly signal?: AbortSignal;
}

/** A lenient reader, that takes tags below the head and works relative addresses out, and a strict one. */
const ASKED = ['wrack', 'bottle'];
/** One page in so many is read whole whatever its server says of it, others on another day. */
const WHOLE = 20;
const DAY = 86_400_000;
/** Drifted pages that are told one by one. */
const MOST_TOLD = 1000;

/**
 * Fetches the released pages of a site, by path, as a lenient and a strict reader do, and compares each head as served
 * with the one released. A page that was verified before is asked for only if it changed, where its server allows that.
 * One that was stopped or killed goes on where it was, and asks for no page twice; while one looks, another is refused.
 * A sample is looked at by itself: it takes nothing from a look at all pages and adds nothing to it. Throws a `UserError`
 * where nothing is released.
 */
export async function verify(store: Store, options: VerifyOptions): Promise<Verified> {
	const { id, site, types } = store.working.sites.named(options.site);
	const base = normaliseBase(site.base) ?? site.base;
	const release = store.releases.latest(id);
	if (!release) throw refuse('verify-nothing-released', { site: options.site });
	const paths = [...store.releases.hashes(id, release.number).keys()];
	const wanted = options.sample === undefined ? paths : evenlyOf(paths, options.sample);
	// What was seen of a few pages is no part of a look at all of them, however it ends.
	const isWhole = options.sample === undefined;
	const run = randomUUID();
	const state = isWhole ? await begin(store, id, { run, release: release.number }) : fresh(release.number);
	const fetcher = new TracingFetcher(options.allowed, options.via);
	const robots = await readRobots(fetcher, new URL(base).origin);
	const left = wanted.slice(wanted.indexOf(state.after) + 1);
	const missing = new Set(types.filter(({ special }) => special === 'not-found').map(({ name }) => name));
	let done = 0;
	const isThere = picturesOnce(fetcher, readerOf(ASKED[0]!).habits);
	const turn = pacer(1000 / options.rate, options.signal);
	try {
		for (const [at, path] of left.entries()) {
			if (options.signal?.aborted) break;
			const seen: DriftSeen[] = [];
			const read = readOnce();
			const mustRead = (at + Math.floor(clock.now() / DAY)) % WHOLE === 0;
			const isMissing = missing.has(store.working.pages.at(id, path)?.type ?? '');
			for (const reader of ASKED) {
				await turn();
				const { obeysRobots, name } = readerOf(reader).habits;
				const shut = obeysRobots ? robots.shuts(base + path.slice(1), name) : undefined;
				const failed = shut === 'failing' && { robots: robots.failed ?? ({ is: 'no-answer' } as const) };
				const whyShut = shut && ({ is: 'shut', ...failed } as const);
				seen.push(
					await driftSeenBy(reader, { store, site: id, path, base, fetcher, whyShut, read, mustRead, isMissing })
				);
			}
			const { way, ...found } = await withPictures(joined(seen), { store, id, path, turn, isThere });
			const drift = { path, ...found };
			state.counts[drift.is]++;
			if (way) state.ways[way] = (state.ways[way] ?? 0) + 1;
			const isTold = drift.is !== 'same' && state.drifted.length < MOST_TOLD;
			if (isTold) state.drifted.push(drift);
			state.after = path;
			done++;
			if (isWhole) await note(store, id, run, state, isTold);
			options.progress?.(done, left.length);
		}
	} finally {
		await fetcher.close();
		if (isWhole) await leave(store, id, run, state, done === left.length);
	}
	const waiting = left.length - done;
	const pages = Object.values(state.counts).reduce((sum, count) => sum + count, 0);
	return { pages, released: paths.length, counts: state.counts, ways: state.ways, drifted: state.drifted, waiting };
}

/** So many of a list, from its beginning to its end at even distances; all of a shorter one. */
const evenlyOf = (all: readonly string[], count: number) =>
	all.length <= count
		? all
		: Array.from({ length: count }, (_, at) => all[Math.floor((at * all.length) / count)] as string);

/** What one page is to one reader. */
interface Asking {
	readonly store: Store;
	readonly site: number;
	readonly path: string;
	readonly base: string;
	readonly fetcher: TracingFetcher;
	/** Why this reader does not ask, where it does not. */
	readonly whyShut: DriftWhy | undefined;
	readonly read: ReadOnce;
	/** Its server's word that nothing has changed is not taken this time. */
	readonly mustRead: boolean;
	/** The page for what is not there: it may well answer with 404. */
	readonly isMissing: boolean;
}

const readerOf = (id: string) => READERS.find((reader) => reader.id === id)!;

/** How what a reader takes of a page differs from what was released. Where the server says that nothing changed, as before. */
async function driftSeenBy(
	reader: string,
	{ store, site, path, base, fetcher, whyShut, read, mustRead, isMissing }: Asking
): Promise<DriftSeen> {
	if (whyShut !== undefined) return { is: 'shut-out', why: whyShut };
	const { habits } = readerOf(reader);
	const released = store.releases.head(site, { path });
	const hash = released?.hash ?? '';
	const known = store.state.looks.verified<DriftSeen>(site, path, reader);
	// A 304 vouches for a file, not for what is written into it on its way: it is taken after a whole read that agreed.
	const before = known?.head === hash && known.drift.is === 'same' && !mustRead ? known : undefined;
	const address = base + path.slice(1);
	const got = await fetcher.fetch(address, {
		...{ maxBytes: habits.bytes, timeout: habits.patience, redirects: habits.redirects },
		headers: {
			...headersOf(habits),
			...(before?.etag && { 'if-none-match': before.etag }),
			...(before?.modified && { 'if-modified-since': before.modified })
		}
	});
	const hop = got.hops.at(-1);
	if (before && hop?.status === 304) return before.drift;
	const head = released && (JSON.parse(released.json) as HeadJson);
	const compared = driftIn(got, {
		read,
		habits,
		head,
		isMissing,
		earlier: () => store.releases.headsOfPage(site, path).slice(1)
	});
	const said = hop?.status === 200 && isComplete(got) ? hop.headers : {};
	const way = wayIn(said['kephalon-head']);
	const drift = { ...compared, ...(way && { way }) };
	const kept = { head: hash, drift, etag: said.etag ?? null, modified: said['last-modified'] ?? null };
	if (known || kept.etag || kept.modified)
		await patiently(() => store.transaction(() => store.state.looks.saveVerified(site, path, reader, kept)));
	return drift;
}

/** What both readers saw, as one: the worse of the two, with who saw it where they do not agree. */
function joined(seen: readonly DriftSeen[]): DriftSeen {
	const worst = seen.reduce((one, other) => (DRIFTS.indexOf(other.is) > DRIFTS.indexOf(one.is) ? other : one));
	const at = seen.indexOf(worst);
	if (worst.is === 'same' || seen.every(({ is }) => is === worst.is)) return worst;
	const { name } = readerOf(ASKED[at]!);
	return { ...worst, by: name };
}
