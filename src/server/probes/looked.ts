import {
	parseUrl,
	readRefresh,
	type Habits,
	type Head,
	type ReaderProfile,
	type ServedHead,
	type ServedTag
} from '$core';
import { bytesOf } from '../files/encoding';
import { decodeServed } from '../fetching/charset';
import type { TracedFetch, TracingFetcher } from '../fetching/trace';
import { readRobots, type Robots } from '../imports/web/robots';

/** What one reader got of an address, and what it takes of it. */
export interface Fetched {
	readonly page: TracedFetch;
	/** Where it ended. */
	readonly at: string;
	readonly text: string;
	readonly encoding: ReturnType<typeof decodeServed>;
	readonly head: ServedHead;
	/** Bytes of the page, unpacked, up to the end of a tag. */
	readonly bytesTo: (tag: ServedTag) => number;
	/** What relative addresses in it stand under. */
	readonly base: string;
}

export interface Looked {
	readonly reader: ReaderProfile;
	readonly habits: Habits;
	readonly shut: ReturnType<Robots['shuts']>;
	readonly isShutOut: boolean;
	readonly fetched: Fetched | undefined;
}

/** A page as a reader comes to it: also by a refresh in the page or beside it, where the reader follows those. */
export async function fetchPage(
	fetcher: TracingFetcher,
	address: string,
	habits: Habits,
	headOf: (text: string) => ServedHead
): Promise<Fetched> {
	let fetched = await fetchOne(fetcher, address, habits, headOf);
	let { hops } = fetched.page;
	const been = new Set([address, fetched.at]);
	const ending = (end: TracedFetch['end']) => ({ ...fetched, page: { ...fetched.page, hops, end } });
	for (let to = leadsOn(fetched); habits.refreshes && to !== undefined; to = leadsOn(fetched)) {
		if (been.has(to)) return ending('loop');
		if (hops.length > habits.redirects) return ending('too-many-redirects');
		been.add(to);
		fetched = await fetchOne(fetcher, to, habits, headOf);
		hops = [...hops, ...fetched.page.hops];
	}
	return ending(fetched.page.end);
}

/** An address of more characters is taken for none. */
const LONGEST_ADDRESS = 8000;
/** So much of an address of another scheme is told: a picture written into one may have megabytes. */
const LONGEST_OTHER = 200;

/** A refresh after more seconds is for people who look at the page. */
const SOON = 15;

/** Where a page leads on to at once, by a refresh in its markup or in its header. */
export function leadsOn({ page, head, at, base }: Fetched): string | undefined {
	const hop = page.hops.at(-1);
	if (!hop || hop.status < 200 || hop.status >= 300) return undefined;
	const header = readRefresh(hop.headers.refresh);
	const refresh = header ?? head.refresh;
	const to = refresh && refresh.seconds <= SOON ? parseUrl(refresh.to, header ? at : base)?.href : undefined;
	return to !== undefined && to.length <= LONGEST_ADDRESS && /^https?:/i.test(to) && to !== at ? to : undefined;
}

async function fetchOne(
	fetcher: TracingFetcher,
	address: string,
	habits: Habits,
	headOf: (text: string) => ServedHead
): Promise<Fetched> {
	const page = await fetcher.fetch(address, {
		...{ maxBytes: MOST_BYTES, timeout: habits.patience, redirects: habits.redirects, otherHosts: habits.otherHosts },
		headers: { 'user-agent': habits.agent, accept: habits.accepts, 'accept-encoding': 'gzip, br' }
	});
	const hop = page.hops.at(-1);
	const encoding = decodeServed(page.body, hop?.headers['content-type']);
	const [at, head] = [hop?.address ?? address, headOf(encoding.text)];
	const base = (head.base !== undefined && parseUrl(head.base, at)?.href) || at;
	return { page, at, base, text: encoding.text, encoding, head, bytesTo: byteCounter(page.body, encoding, head.tags) };
}

/** Counts bytes up to the ends of tags: as many as characters where each is one byte. What lies between two ends is counted once. */
function byteCounter(
	body: Buffer,
	{ text, encoding }: ReturnType<typeof decodeServed>,
	tags: readonly ServedTag[]
): Fetched['bytesTo'] {
	if (body.length === text.length) return ({ end }) => end;
	const counts = new Map<number, number>();
	let [last, bytes] = [0, 0];
	// Markup may put tags in another order than they stand in.
	for (const end of tags.map((tag) => tag.end).sort((one, other) => one - other)) {
		bytes += bytesOf(text.slice(last, end), encoding);
		last = end;
		counts.set(end, bytes);
	}
	return ({ end }) => counts.get(end) ?? end;
}

/** Read once for all readers: what each would read of it is worked out from its limit. */
const MOST_BYTES = 5_000_000;

/** The tags that a reader takes: those within what it reads, above its limit of places, doubled ones as it does. */
function tagsFor({ habits, fetched }: Looked): ServedTag[] {
	if (!fetched) return [];
	const seen = fetched.head.tags.filter(
		(tag) => fetched.bytesTo(tag) <= habits.bytes && (habits.readsBody || !tag.isBelow)
	);
	if (habits.doubled === 'first') return seen;
	const last = new Map(seen.map((one) => [one.name, one]));
	return seen.filter((one) => one.tag?.repeated || last.get(one.name) === one);
}

export function headFor(looked: Looked): Head {
	const { habits, fetched } = looked;
	const tags = tagsFor(looked).flatMap(({ tag, value, attributes }) => {
		if (!tag || value === '') return [];
		const isAddress = tag.kind === 'address' || tag.kind === 'picture';
		if (isAddress && !/^https?:/i.test(value)) {
			// A picture of another scheme is what it is; an address of one is none.
			const isOther = /^[a-z][a-z0-9+.-]*:/i.test(value);
			if (isOther) return tag.kind === 'picture' ? [{ tag, value: value.slice(0, LONGEST_OTHER), attributes }] : [];
			const whole = habits.relative === 'resolves' ? parseUrl(value, fetched?.base)?.href : undefined;
			return whole && whole.length <= LONGEST_ADDRESS ? [{ tag, value: whole, attributes }] : [];
		}
		if (isAddress && value.length > LONGEST_ADDRESS) return [];
		return [{ tag, value, attributes }];
	});
	return { html: { lang: '' }, tags, before: [], after: [] };
}

/** Whether what a reader got is a page to make a card of. */
export function isPage({ fetched }: Looked): boolean {
	const status = fetched?.page.hops.at(-1)?.status ?? 0;
	return fetched !== undefined && status >= 200 && status < 300 && otherThanPage(fetched.page) === undefined;
}

/** What an answer is, where it is no page: its type, or that it is to be downloaded. */
export function otherThanPage({ hops }: TracedFetch): string | undefined {
	const { headers = {} } = hops.at(-1) ?? {};
	const type = headers['content-type'] ?? '';
	if (type !== '' && !/^\s*(text\/html|application\/xhtml\+xml)\b/i.test(type)) return type.slice(0, 100);
	return /^\s*attachment\b/i.test(headers['content-disposition'] ?? '') ? 'a download' : undefined;
}

const known = new WeakMap<TracingFetcher, Map<string, Promise<Robots>>>();

/** What an origin says to robots, asked for once in a run. */
export function robotsFor(fetcher: TracingFetcher, origin: string): Promise<Robots> {
	const ofRun = known.get(fetcher) ?? new Map<string, Promise<Robots>>();
	known.set(fetcher, ofRun);
	const robots = ofRun.get(origin) ?? readRobots(fetcher, origin);
	ofRun.set(origin, robots);
	return robots;
}

export const WHY: Readonly<Partial<Record<TracedFetch['end'], string>>> = {
	refused: 'it may not be fetched',
	'unknown-name': 'there is no such host',
	reset: 'the connection was broken off',
	timeout: 'it does not answer in time',
	short: 'it ends in the middle',
	'bad-compression': 'it is not packed as it says',
	loop: 'its redirects go round in a circle',
	'too-many-redirects': 'it redirects too often'
};

export const nameOf = ({ reader }: Looked) => reader.name;
export const PLACE = { of: 'site' } as const;
