import { randomUUID } from 'node:crypto';
import { hidesFromSearch, normaliseBase, parseUrl, READERS, type Habits, type HeadJson, type ServedTag } from '$core';
import { TracingFetcher, type TracedFetch, type Via } from '../fetching/trace';
import { readRobots } from '../imports/web/robots';
import { patiently } from '../store/opening/patiently';
import type { Store } from '../store/store';
import { refuse } from '../errors';
import { readOnce, type ReadOnce } from './readOnce';
import { headersOf, isComplete, mayRead, otherThanPage, WHY } from './looked';
import { directivesFor } from './served';
import { clock, pacer } from '../waiting';

/** How what is served of a page compares with what was released, the worse further on. */
export const DRIFTS = [
	'same',
	'old',
	'doubled',
	'other',
	'missing',
	/** A picture of its card is not where it was released to be. */
	'picture',
	/** Search is told not to list it, though the released head does not say so. */
	'noindex',
	/** It is no page: its type is another, or it is to be downloaded. */
	'no-page',
	/** Its server answers with an error, or leads nowhere, whatever stands in the body. */
	'error',
	'shut-out',
	'unreachable'
] as const;
export type Drift = (typeof DRIFTS)[number];

export interface DriftOfPage {
	readonly path: string;
	readonly is: Drift;
	/** The tags that differ, or why it could not be read. */
	readonly more: string;
}

export interface Verified {
	/** So many were looked at, of so many that are released. */
	readonly pages: number;
	readonly released: number;
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
	readonly via?: Via | readonly Via[] | undefined;
	readonly allowed?: ReadonlySet<string>;
	readonly progress?: (done: number, all: number) => void;
	readonly signal?: AbortSignal;
}

/** What is kept while it runs, so that it goes on where it was stopped. */
interface Kept {
	readonly release: number;
	readonly after: string;
	readonly counts: Record<Drift, number>;
	/** Who looks now, and until when it counts as looking without a word of it (milliseconds). */
	readonly by?: { readonly run: string; readonly process: number; readonly until: number };
}

/** A lenient reader, that takes tags below the head and works relative addresses out, and a strict one. */
const ASKED = ['wrack', 'bottle'];
/** One page in so many is read whole whatever its server says of it, others on another day. */
const WHOLE = 20;
const DAY = 86_400_000;

/** A run that says nothing for so long (milliseconds) has ended. */
const SILENT = 120_000;
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
	const state = isWhole
		? await begin(store, id, { run, release: release.number, all: paths.length })
		: fresh(release.number);
	const fetcher = new TracingFetcher(options.allowed, options.via);
	const robots = await readRobots(fetcher, new URL(base).origin);
	const left = wanted.slice(wanted.indexOf(state.after) + 1);
	const missing = new Set(types.filter(({ special }) => special === 'not-found').map(({ name }) => name));
	let done = 0;
	const isThere = picturesOnce(fetcher);
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
				const whyShut =
					shut === 'forbidden'
						? 'robots.txt forbids it'
						: shut === 'failing'
							? `robots.txt ${robots.failed}`
							: undefined;
				seen.push(
					await driftSeenBy(reader, { store, site: id, path, base, fetcher, whyShut, read, mustRead, isMissing })
				);
			}
			const drift = { path, ...(await withPictures(joined(seen), { store, id, path, turn, isThere })) };
			state.counts[drift.is]++;
			const isTold = drift.is !== 'same' && state.drifted.length < MOST_TOLD;
			if (isTold) state.drifted.push(drift);
			state.after = path;
			done++;
			if (isWhole) await note(store, id, run, state, isTold);
			options.progress?.(done, left.length);
		}
	} finally {
		await fetcher.close();
	}
	const waiting = left.length - done;
	if (isWhole) await leave(store, id, state, waiting === 0);
	const pages = Object.values(state.counts).reduce((sum, count) => sum + count, 0);
	return { pages, released: paths.length, counts: state.counts, drifted: state.drifted, waiting };
}

/** Why a picture is not there, in words that follow its address; undefined where it is. */
type PictureThere = (address: string) => Promise<string | undefined>;

/** Pictures that are remembered in one run. */
const MOST_PICTURES = 100_000;

/** Asks for each picture once in a run: for its head alone, or for a first byte where its server allows no such thing. */
function picturesOnce(fetcher: TracingFetcher): PictureThere & { readonly known: ReadonlyMap<string, unknown> } {
	const known = new Map<string, Promise<string | undefined>>();
	const { habits } = readerOf(ASKED[0]!);
	const ask = async (address: string) => {
		if (!(await mayRead(fetcher, habits, address))) return undefined;
		const limits = { maxBytes: 1, timeout: habits.patience, redirects: habits.redirects };
		const headers = { ...headersOf(habits), accept: 'image/*' };
		let got = await fetcher.fetch(address, { ...limits, headers, method: 'HEAD' });
		const isAnswered = (got.hops.at(-1)?.status ?? 0) < 400 && got.end === 'whole';
		if (!isAnswered) got = await fetcher.fetch(address, { ...limits, headers });
		const hop = got.hops.at(-1);
		if (!hop || hop.status === 0 || !isComplete(got)) return `cannot be fetched: ${WHY[got.end] ?? got.why ?? got.end}`;
		if (hop.status < 200 || hop.status >= 300) return `cannot be fetched: its server answers with ${hop.status}`;
		const type = hop.headers['content-type'] ?? '';
		return /^\s*(?:text|application\/(?:json|xhtml))/i.test(type)
			? `is no picture but ${type.slice(0, 60)}`
			: undefined;
	};
	const isThere = (address: string) => {
		const before = known.get(address) ?? ask(address);
		if (known.size < MOST_PICTURES) known.set(address, before);
		return before;
	};
	return Object.assign(isThere, { known });
}

interface PictureAsking {
	readonly store: Store;
	readonly id: number;
	readonly path: string;
	readonly turn: () => Promise<unknown>;
	readonly isThere: ReturnType<typeof picturesOnce>;
}

/** How a page is served whose head is as released: with its pictures, or without one. */
async function withPictures(seen: DriftSeen, { store, id, path, turn, isThere }: PictureAsking): Promise<DriftSeen> {
	if (seen.is !== 'same') return seen;
	const released = store.releases.head(id, { path });
	const { tags = [] } = released ? (JSON.parse(released.json) as HeadJson) : {};
	const pictures = tags.filter(({ tag, value }) => CARD_PICTURES.has(tag) && /^https?:/i.test(value));
	for (const { tag, value } of pictures.slice(0, MOST_OF_PAGE)) {
		if (!isThere.known.has(value)) await turn();
		const why = await isThere(value);
		if (why !== undefined) return { is: 'picture', more: `${tag}: ${value.slice(0, LONGEST_TOLD)} ${why}` };
	}
	return seen;
}
const CARD_PICTURES = new Set(['og:image', 'twitter:image']);
/** Pictures of one page that are asked for. */
const MOST_OF_PAGE = 4;

/** So many of a list, from its beginning to its end at even distances; all of a shorter one. */
const evenlyOf = (all: readonly string[], count: number) =>
	all.length <= count
		? all
		: Array.from({ length: count }, (_, at) => all[Math.floor((at * all.length) / count)] as string);

/** How far a look is, with the pages that drifted. */
type State = { -readonly [K in keyof Omit<Kept, 'by'>]: Kept[K] } & { readonly drifted: DriftOfPage[] };
const fresh = (release: number): State => ({ release, after: '', counts: none(), drifted: [] });

/** Where a look at all pages begins: where the one before was stopped, if it was of this release. Throws where one looks now. */
async function begin(
	store: Store,
	id: number,
	{ run, release, all }: { run: string; release: number; all: number }
): Promise<State> {
	const { sources } = store.working;
	return patiently(() =>
		store.transaction(() => {
			const before = sources.settings<Kept & { drifted?: DriftOfPage[] }>(id, 'verify');
			if (before?.by && isAtWork(before.by)) {
				const done = Object.values(before.counts).reduce((sum, count) => sum + count, 0);
				throw refuse('verify-running', { done, all });
			}
			const drifted = sources.settings<DriftOfPage[]>(id, 'verify-drifted') ?? before?.drifted ?? [];
			const state: State =
				before?.release === release
					? // What an earlier version kept knows fewer ways to differ.
						{ release, after: before.after, counts: { ...none(), ...before.counts }, drifted }
					: fresh(release);
			save(store, id, run, state, true);
			return state;
		})
	);
}

/** Whether a run still looks: its process is there, and has said so lately. */
function isAtWork({ process: by, until }: NonNullable<Kept['by']>): boolean {
	if (clock.now() > until) return false;
	try {
		return process.kill(by, 0);
	} catch (error) {
		return (error as NodeJS.ErrnoException).code === 'EPERM';
	}
}

function save(store: Store, id: number, run: string, { drifted, ...rest }: State, hasMore: boolean) {
	const kept: Kept = { ...rest, by: { run, process: process.pid, until: clock.now() + SILENT } };
	store.working.sources.saveSettings(id, 'verify', kept);
	if (hasMore) store.working.sources.saveSettings(id, 'verify-drifted', drifted);
}
const note = (store: Store, id: number, run: string, state: State, hasMore: boolean) =>
	patiently(() => store.transaction(() => save(store, id, run, state, hasMore)));

/** Ends a look: what is left of one that was stopped waits for the next. */
const leave = (store: Store, id: number, { drifted: _, ...kept }: State, isDone: boolean) =>
	patiently(() =>
		store.transaction(() => {
			if (!isDone) return store.working.sources.saveSettings(id, 'verify', kept);
			store.working.sources.forget(id, 'verify');
			store.working.sources.forget(id, 'verify-drifted');
		})
	);

const none = () => Object.fromEntries(DRIFTS.map((is) => [is, 0])) as Record<Drift, number>;

type DriftSeen = Omit<DriftOfPage, 'path'>;

/** What one page is to one reader. */
interface Asking {
	readonly store: Store;
	readonly site: number;
	readonly path: string;
	readonly base: string;
	readonly fetcher: TracingFetcher;
	/** Why this reader does not ask, where it does not. */
	readonly whyShut: string | undefined;
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
	if (whyShut !== undefined) return { is: 'shut-out', more: whyShut };
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
	const drift = driftIn(got, {
		read,
		habits,
		head,
		isMissing,
		earlier: () => store.releases.headsOfPage(site, path).slice(1)
	});
	const said = hop?.status === 200 && isComplete(got) ? hop.headers : {};
	const kept = { head: hash, drift, etag: said.etag ?? null, modified: said['last-modified'] ?? null };
	if (known || kept.etag || kept.modified)
		await patiently(() => store.transaction(() => store.state.looks.saveVerified(site, path, reader, kept)));
	return drift;
}

/** A head that was released before, and from which release on. */
interface EarlierHead {
	readonly since: number;
	readonly head: HeadJson;
}

interface Comparing {
	readonly read: ReadOnce;
	readonly habits: Habits;
	readonly head: HeadJson | undefined;
	readonly isMissing: boolean;
	readonly earlier: () => readonly EarlierHead[];
}

function driftIn(got: TracedFetch, { read, habits, head, isMissing, earlier }: Comparing): DriftSeen {
	const hop = got.hops.at(-1);
	if (!hop || hop.status === 0) return { is: 'unreachable', more: got.why ?? got.end };
	if (!(hop.status >= 200 && hop.status < 300) && !(hop.status === 404 && isMissing))
		return { is: 'error', more: `its server answers with ${hop.status}` };
	if (!isComplete(got)) return { is: 'unreachable', more: got.why ?? got.end };
	const other = otherThanPage(got);
	if (other !== undefined) return { is: 'no-page', more: other };
	const { tags, base } = read(got.body, hop.headers['content-type']).head;
	const under = (base !== undefined && parseUrl(base, hop.address)?.href) || hop.address;
	const taken = tags.flatMap((tag) => takenBy(habits, tag, under) ?? []);
	const drift = compare(head, taken, earlier);
	const hidden = isMissing ? undefined : hiddenFromSearch(head, taken, hop.headers['x-robots-tag'] ?? '');
	return hidden !== undefined && DRIFTS.indexOf(drift.is) < DRIFTS.indexOf('noindex')
		? { is: 'noindex', more: hidden }
		: drift;
}

/** So much is told of what a page says (UTF-16 code units). */
const LONGEST_TOLD = 200;

/** What tells search not to list a page whose released head does not say so. */
function hiddenFromSearch(head: HeadJson | undefined, taken: readonly ServedTag[], header: string): string | undefined {
	const isMeant = (head?.tags ?? []).some(({ tag, value }) => tag === 'robots' && hidesFromSearch(value));
	if (isMeant) return undefined;
	const inMarkup = taken.find(({ name, value }) => name === 'robots' && hidesFromSearch(value));
	if (inMarkup) return `robots: ${inMarkup.value.slice(0, LONGEST_TOLD)}`;
	return hidesFromSearch(directivesFor(header)) ? `X-Robots-Tag: ${header.slice(0, LONGEST_TOLD)}` : undefined;
}

/** A tag as a reader takes it: undefined for one that it does not look at. */
function takenBy({ readsBody, relative }: Habits, served: ServedTag, base: string): ServedTag | undefined {
	if (served.isBelow && !readsBody) return undefined;
	const isAddress = served.tag?.kind === 'address' || served.tag?.kind === 'picture';
	if (!isAddress || /^[a-z][a-z0-9+.-]*:/i.test(served.value)) return served;
	return relative === 'drops' ? undefined : { ...served, value: parseUrl(served.value, base)?.href ?? served.value };
}

/** What both readers saw, as one: the worse of the two, with who saw it where they do not agree. */
function joined(seen: readonly DriftSeen[]): DriftSeen {
	const worst = seen.reduce((one, other) => (DRIFTS.indexOf(other.is) > DRIFTS.indexOf(one.is) ? other : one));
	const at = seen.indexOf(worst);
	if (worst.is === 'same' || seen.every(({ is }) => is === worst.is)) return worst;
	const { name } = readerOf(ASKED[at]!);
	return { is: worst.is, more: `${worst.more}, as ${name} reads it` };
}

/** Values by the names of their tags. */
function byName(tags: readonly { readonly name: string; readonly value: string }[]): Map<string, string[]> {
	const all = new Map<string, string[]>();
	for (const { name, value } of tags) all.set(name, [...(all.get(name) ?? []), value]);
	return all;
}

const namesIn = (head: HeadJson | undefined) =>
	byName((head?.tags ?? []).map(({ tag: name, value }) => ({ name, value })));
const isEqual = (one: readonly string[] = [], other: readonly string[] = []) =>
	one.length === other.length && one.every((value, at) => value === other[at]);

/** By the values of each tag that was released; what else stands in the head is another's business. */
function compare(
	head: HeadJson | undefined,
	served: readonly ServedTag[],
	earlier: () => readonly EarlierHead[]
): DriftSeen {
	const [wanted, there] = [namesIn(head), byName(served)];
	const names = [...wanted.keys()];
	const missing = names.filter((name) => !there.has(name));
	if (names.length > 0 && missing.length === names.length) return { is: 'missing', more: 'none of its tags is served' };
	const differ = names.filter((name) => !isEqual(there.get(name), wanted.get(name)));
	if (differ.length === 0) return { is: 'same', more: '' };
	const old = earlier().find(({ head: before }) => {
		const had = namesIn(before);
		return names.every((name) => isEqual(there.get(name), had.get(name)));
	});
	if (old) return { is: 'old', more: `${differ.join(', ')}: as from release ${old.since}` };
	const doubled = differ.filter((name) => (there.get(name)?.length ?? 0) > wanted.get(name)!.length);
	if (doubled.length > 0) return { is: 'doubled', more: doubled.join(', ') };
	const other = differ.filter((name) => there.has(name));
	return { is: missing.length > other.length ? 'missing' : 'other', more: [...missing, ...other].join(', ') };
}
