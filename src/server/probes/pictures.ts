import {
	finding,
	LEAST_SIDE,
	parseUrl,
	type Card,
	type Finding,
	type Habits,
	type NoPicture,
	type Picture,
	type PictureSeen,
	type ServedHead
} from '$core';
import type { TracedFetch, TraceLimits, TracingFetcher } from '../fetching/trace';
import { isAnimated, readPictureFacts } from '../files/pictureFacts';
import { headFor, isComplete, isPage, kindOfBytes, mayRead, perRun, endedAs, PLACE, type Looked } from './looked';

/** A picture as it was fetched: what it is, or why it is none. */
export interface FetchedPicture {
	readonly address: string;
	/** The tag that named it first. */
	readonly from: string;
	readonly facts: Omit<Picture, 'src'> | null;
	/** It has several frames. */
	readonly isAnimated?: true;
	readonly why?: NoPicture;
	/** It answers, with something that is no picture. */
	readonly is?: string;
	/** What its server says that it is, where that is no picture and it is one. */
	readonly servedAs?: string;
	/** Those, by what they call themselves, to whom it is not given though others get it, with why. */
	readonly apart?: ReadonlyMap<string, NoPicture>;
}

/** A picture as it was fetched, whatever named it. */
type Got = Omit<FetchedPicture, 'from'>;

/** So many pictures of a page are fetched. */
const MOST_PICTURES = 8;
const PICTURE_BYTES = 20_000_000;
export const SHUT = { why: { is: 'shut' } } as const;

/** What a picture is to a reader; undefined for one that nobody fetched. */
export function seenOf(picture: FetchedPicture | undefined, { agent }: Habits): PictureSeen | undefined {
	if (!picture) return undefined;
	const refused = picture.apart?.get(agent);
	if (refused !== undefined) return { why: refused };
	const { width, height, bytes, type } = picture.facts ?? {};
	if (width === undefined || height === undefined || bytes === undefined || type === undefined)
		return { why: picture.why ?? { is: 'no-picture' } };
	return { width, height, bytes, type, ...(picture.isAnimated && { isAnimated: true }) };
}

/** The pictures that a reader may not fetch. */
export async function picturesShut(
	fetcher: TracingFetcher,
	habits: Habits,
	pictures: ReadonlyMap<string, FetchedPicture>
): Promise<ReadonlySet<string>> {
	const shut = new Set<string>();
	for (const address of pictures.keys()) if (!(await mayRead(fetcher, habits, address))) shut.add(address);
	return shut;
}

/** Every picture that some reader may take, each fetched once, by its address. */
export async function fetchPictures(
	fetcher: TracingFetcher,
	all: readonly Looked[]
): Promise<ReadonlyMap<string, FetchedPicture>> {
	const wanted = new Map<string, { readonly from: string; readonly asking: Habits[] }>();
	for (const looked of all)
		for (const [from, value] of isPage(looked) ? picturesFor(looked) : []) {
			const one = wanted.get(value) ?? { from, asking: [] };
			one.asking.push(looked.habits);
			wanted.set(value, one);
		}
	const pictures = new Map<string, FetchedPicture>();
	// One after the other: each may be large.
	for (const [address, { from, asking }] of [...wanted].slice(0, MOST_PICTURES)) {
		const may = await Promise.all(asking.map((habits) => mayRead(fetcher, habits, address)));
		const open = asking.filter((_, at) => may[at]);
		const got = open.length > 0 ? await oncePerRun(fetcher, address, open) : { address, facts: null, why: SHUT.why };
		pictures.set(address, { ...got, from });
	}
	return pictures;
}

/** Pictures that were fetched in one run, by their address and who asked: one that many pages share is fetched once. */
const pictureOf = perRun(() => new Map<string, Promise<Got>>());
const MOST_IN_RUN = 10_000;

function oncePerRun(fetcher: TracingFetcher, address: string, asking: readonly Habits[]): Promise<Got> {
	const known = pictureOf(fetcher);
	const key = [address, ...asking.map(({ agent }) => agent)].join('\n');
	const got = known.get(key) ?? fetchForAll(fetcher, address, asking);
	if (known.size < MOST_IN_RUN) known.set(key, got);
	return got;
}

/** Hosts that gave all readers the same picture, in one run: their other pictures are fetched once. */
const alike = perRun(() => new Set<string>());

/** A picture fetched whole once, by the name of a reader that gets it, and asked for by all others that may have it. */
async function fetchForAll(fetcher: TracingFetcher, address: string, asking: readonly Habits[]): Promise<Got> {
	const byAgent = [...new Map(asking.map((habits) => [habits.agent, habits])).values()];
	const [first, ...others] = byAgent as [Habits, ...Habits[]];
	const got = await fetchPicture(fetcher, address, first);
	const known = alike(fetcher);
	const host = parseUrl(address)?.origin ?? '';
	if (!/^https?:/i.test(address) || (got.facts && known.has(host))) return got;
	const refused = new Map<string, NoPicture>();
	await Promise.all(
		others.map(async (habits) => {
			const why = await whyNotGiven(fetcher, address, habits.agent, PICTURE_LIMITS);
			if (why !== undefined) refused.set(habits.agent, why);
		})
	);
	if (got.facts) {
		if (refused.size === 0) known.add(host);
		return refused.size === 0 ? got : { ...got, apart: refused };
	}
	// Where the first gets none and another does, that one's is looked at.
	const other = others.find(({ agent }) => !refused.has(agent));
	const theirs = other && (await fetchPicture(fetcher, address, other));
	if (!theirs?.facts || got.why === undefined) return got;
	return { ...theirs, apart: refused.set(first.agent, got.why) };
}

const PICTURE_LIMITS = { timeout: 10_000, redirects: 5 };
const askingAs = (agent: string) => ({ 'user-agent': agent, accept: 'image/*' });
/** Its first bytes tell a picture from a page. */
const FIRST_BYTES = 64;

/** Why a picture is not given to whoever calls itself so: by its first bytes alone. */
export async function whyNotGiven(
	fetcher: TracingFetcher,
	address: string,
	agent: string,
	limits: Pick<TraceLimits, 'timeout' | 'redirects'>
): Promise<NoPicture | undefined> {
	const got = await fetcher.fetch(address, { ...limits, maxBytes: FIRST_BYTES, headers: askingAs(agent) });
	const why = whyNotThere(got);
	if (why !== undefined) return why;
	const type = got.hops.at(-1)?.headers['content-type'] ?? '';
	return TEXTS.test(type) && !kindOfBytes(got.body)?.startsWith('image/')
		? { is: 'no-picture', but: type.slice(0, 100) }
		: undefined;
}
/** Types that are no pictures, whatever else a server may call one. */
export const TEXTS = /^\s*(?:text\/|application\/(?:json|xhtml))/i;

/** Why an answer is no picture. */
export function whyNotThere({ hops, end, why }: TracedFetch): NoPicture | undefined {
	const status = hops.at(-1)?.status ?? 0;
	if (status === 0 || !isComplete({ end })) return endedAs({ end, why });
	return status < 200 || status >= 300 ? { is: 'answers', status } : undefined;
}

/** The pictures that a reader may take of a page, each under what names it: from tags, then from the rest of the page. */
function picturesFor(looked: Looked): (readonly [from: string, address: string])[] {
	const { picture, frame } = looked.reader;
	const tagged = headFor(looked).tags.flatMap(({ tag, value }) =>
		picture.includes(tag.name) ? [[tag.name, value] as const] : []
	);
	// The first of the page is looked at where nothing else names one.
	const falls = frame?.otherwise === 'first' && tagged.length === 0;
	const others = [...picture, ...(falls ? ['img'] : [])].flatMap((name) => {
		const value = looked.more.get(name);
		return value === undefined ? [] : [[name, value] as const];
	});
	return [...tagged, ...others];
}

async function fetchPicture(fetcher: TracingFetcher, address: string, habits: Habits): Promise<Got> {
	const scheme = /^([a-z][a-z0-9+.-]*):/i.exec(address)?.[1]?.toLowerCase() ?? '';
	if (scheme !== 'http' && scheme !== 'https') return { address, facts: null, why: { is: 'scheme', scheme } };
	const got = await fetcher.fetch(address, {
		...{ ...PICTURE_LIMITS, maxBytes: PICTURE_BYTES },
		headers: askingAs(habits.agent)
	});
	const hop = got.hops.at(-1);
	if (got.end === 'cut') return { address, facts: null, why: { is: 'too-large', megabytes: PICTURE_BYTES / 1e6 } };
	const none = whyNotThere(got);
	if (none !== undefined) return { address, facts: null, why: none };
	if (got.body.length === 0) return { address, facts: null, why: { is: 'empty' }, is: 'empty' };
	const facts = await readPictureFacts(got.body);
	const said = (hop?.headers['content-type'] ?? '').slice(0, 100);
	if (facts && isCutShort(got.body, facts.type)) return { address, facts: null, why: { is: 'cut-short' } };
	const servedAs = said !== '' && !/^\s*image\//i.test(said) ? { servedAs: said } : {};
	if (facts) return { address, facts, ...servedAs, ...((await isAnimated(got.body)) && { isAnimated: true }) };
	const is = said || 'no-picture';
	return { address, facts: null, why: { is: 'no-picture', ...(said && { but: said }) }, is };
}

/** Whether a picture lacks its end: the marker of a JPEG (T.81, B.1.1.3), the last chunk of a PNG (11.2.5). */
function isCutShort(body: Buffer, type: string | undefined): boolean {
	if (type === 'image/jpeg') return body.lastIndexOf(JPEG_END) < 0;
	return type === 'image/png' && body.lastIndexOf('IEND') < 0;
}
const JPEG_END = Buffer.from([0xff, 0xd9]);

export function judgePictures(
	pictures: ReadonlyMap<string, FetchedPicture>,
	cards: readonly Card[],
	head: ServedHead
): Finding[] {
	return [...pictures.values()].flatMap((one) => judgePicture(one, cards, head));
}

const names = (of: readonly Card[]) => of.map(({ reader }) => reader.name);

/** What is wrong with a picture, for those whose card it would have been on. */
function judgePicture(
	{ address, from, facts, why = { is: 'no-picture' }, is, servedAs, apart }: FetchedPicture,
	cards: readonly Card[],
	head: ServedHead
): Finding[] {
	if (!facts && !/^https?:/i.test(address)) return [];
	if (!facts)
		return is !== undefined
			? [finding('picture-unreadable', PLACE, from, { address, type: is })]
			: [finding('picture-missing', PLACE, from, { address, why })];
	const found: Finding[] = [];
	const { type = '' } = facts;
	const shut = cards.filter(({ passedOver }) =>
		passedOver.some((one) => one.address === address && one.because.is === 'shut')
	);
	if (shut.length > 0) found.push(finding('picture-shut', PLACE, from, { readers: names(shut) }));
	const reasons = new Map([...(apart?.values() ?? [])].map((why) => [JSON.stringify(why), why]));
	const kept = [...reasons].map(([key, reason]) => ({
		why: reason,
		readers: cards.filter(({ reader }) => JSON.stringify(apart?.get(reader.habits.agent)) === key)
	}));
	for (const one of kept)
		if (one.readers.length > 0)
			found.push(finding('picture-apart', PLACE, from, { address, why: one.why, readers: names(one.readers) }));
	if (servedAs !== undefined)
		found.push(finding('picture-type', PLACE, from, { address, said: servedAs, is: type || 'picture' }));
	found.push(...judgeForm(from, address, facts, cards));
	return from === 'og:image' ? [...found, ...judgeSaid(address, facts, head)] : found;
}

/** Readers that pass it over for what it is: its weight, its form, its size, that it moves. */
function judgeForm(
	from: string,
	address: string,
	{ bytes = 0, width = 0, height = 0, type = '' }: Omit<Picture, 'src'>,
	cards: readonly Card[]
): Finding[] {
	const found: Finding[] = [];
	const passing = cards.filter(({ passedOver }) => passedOver.some((one) => one.address === address));
	const heavy = passing.filter(({ reader }) => bytes > (reader.frame?.maxBytes ?? Number.POSITIVE_INFINITY));
	if (heavy.length > 0) found.push(finding('served-heavy', PLACE, from, { bytes, readers: names(heavy) }));
	const form = type.replace('image/', '').replace('+xml', '');
	const still = passing.filter(({ passedOver }) =>
		passedOver.some((one) => one.address === address && one.because.is === 'moves')
	);
	if (still.length > 0) found.push(finding('picture-moves', PLACE, from, { readers: names(still) }));
	// One that gives way to another in a form that is read is as it should be.
	const unread = passing.filter(
		({ reader, picture }) => !picture && !(reader.frame!.takes as readonly string[]).includes(form)
	);
	if (unread.length > 0)
		found.push(finding('picture-form', PLACE, from, { form: form.toUpperCase(), readers: names(unread) }));
	if (Math.min(width, height) < LEAST_SIDE) found.push(finding('picture-mark', PLACE, from, { width, height }));
	else {
		const narrow = cards.filter(
			({ reader, picture }) => picture?.address === address && width < reader.frame!.minWidth
		);
		if (narrow.length > 0)
			found.push(
				finding('served-small', PLACE, from, {
					...{ width, height, readers: names(narrow) },
					needed: Math.max(...narrow.map(({ reader }) => reader.frame!.minWidth))
				})
			);
	}
	return found;
}

/** What the tags beside the first picture say of it, and is not so. */
function judgeSaid(
	address: string,
	{ width = 0, height = 0, type = '' }: Omit<Picture, 'src'>,
	head: ServedHead
): Finding[] {
	const said = (name: string) => head.tags.find((tag) => tag.name === name)?.value;
	const first = head.tags.find(({ name }) => name === 'og:image')?.value;
	const [w, h, t] = ['og:image:width', 'og:image:height', 'og:image:type'].map(said);
	// What stands beside the first is of the first.
	if (first === address && ((w && Number(w) !== width) || (h && Number(h) !== height) || (t && t !== type)))
		return [
			finding('picture-lies', PLACE, 'og:image', {
				said: [w && h ? `${w} × ${h}` : '', t].filter(Boolean).join(', '),
				is: `${width} × ${height}, ${type}`
			})
		];
	return [];
}
