import {
	parseUrl,
	readRefresh,
	type Habits,
	type Head,
	type MoreOfPage,
	type ReaderProfile,
	type ServedHead,
	type ServedTag
} from '$core';
import { unpack } from '../fetching/unpack';
import type { TracedFetch, TracingFetcher } from '../fetching/trace';
import type { PageRead, ReadOnce } from './readOnce';
import { readRobots, type Robots } from '../imports/web/robots';

/** What one reader got of an address, and what it takes of it. */
export interface Fetched extends Omit<PageRead, 'body'> {
	readonly page: TracedFetch;
	/** Where it ended. */
	readonly at: string;
	/** What relative addresses in it stand under. */
	readonly base: string;
	/** What its oEmbed says, once a reader asked for it. */
	oembed?: Promise<ReadonlyMap<string, string>>;
}

export interface Looked {
	readonly reader: ReaderProfile;
	readonly habits: Habits;
	/** Bytes of the page, unpacked, that it reads. */
	readonly reads: number;
	/** What it takes of the page beside tags. */
	readonly more: MoreOfPage;
	readonly shut: ReturnType<Robots['shuts']>;
	readonly isShutOut: boolean;
	readonly fetched: Fetched | undefined;
}

/** A page as a reader comes to it: also by a refresh in the page or beside it, where the reader follows those. */
export async function fetchPage(
	fetcher: TracingFetcher,
	address: string,
	habits: Habits,
	read: ReadOnce
): Promise<Fetched> {
	let fetched = await fetchOne(fetcher, address, habits, read);
	let { hops } = fetched.page;
	const been = new Set([address, fetched.at]);
	const ending = (end: TracedFetch['end'], why = fetched.page.why) => ({
		...fetched,
		page: { ...fetched.page, hops, end, ...(why !== undefined && { why }) }
	});
	for (let to = leadsOn(fetched); habits.refreshes && to !== undefined; to = leadsOn(fetched)) {
		if (been.has(to)) return ending('loop', to);
		if (hops.length > habits.redirects) return ending('too-many-redirects', to);
		if (!habits.otherHosts && parseUrl(to)?.host !== parseUrl(fetched.at)?.host) return ending('other-host', to);
		if (!(await mayRead(fetcher, habits, to))) return ending('shut', to);
		been.add(to);
		fetched = await fetchOne(fetcher, to, habits, read);
		hops = [...hops, ...fetched.page.hops];
	}
	// What leads nowhere is as it was fetched.
	return hops === fetched.page.hops ? fetched : ending(fetched.page.end);
}

/** Whether the robots.txt of its host lets a reader have an address. */
export async function mayRead(fetcher: TracingFetcher, { obeysRobots, name }: Habits, address: string) {
	const origin = obeysRobots && /^https?:/i.test(address) ? parseUrl(address)?.origin : undefined;
	return origin === undefined || (await robotsFor(fetcher, origin)).shuts(address, name) === undefined;
}

const keysOf = new WeakMap<Habits, string>();

/** All that a reader sends and follows: those to whom it is the same share a fetch. */
export function fetchKey(habits: Habits): string {
	const known = keysOf.get(habits) ?? keyOfFetch(habits);
	keysOf.set(habits, known);
	return known;
}

function keyOfFetch(habits: Habits): string {
	const { agent, accepts, languages, redirects, follows, otherHosts, refreshes, cookies, patience } = habits;
	const sent = [agent, accepts, languages, redirects, follows, otherHosts, refreshes, cookies, patience];
	return JSON.stringify([...sent, habits.obeysRobots && habits.name]);
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

async function fetchOne(fetcher: TracingFetcher, address: string, habits: Habits, read: ReadOnce): Promise<Fetched> {
	const page = await fetcher.fetch(address, {
		...{ maxBytes: MOST_BYTES, timeout: habits.patience, redirects: habits.redirects, otherHosts: habits.otherHosts },
		...{ follows: habits.follows, cookies: habits.cookies },
		mayFollow: (to) => mayRead(fetcher, habits, to),
		headers: headersOf(habits)
	});
	const hop = page.hops.at(-1);
	const { body, text, encoding, head, bytesTo } = read(page.body, hop?.headers['content-type']);
	const at = hop?.address ?? address;
	const base = (head.base !== undefined && parseUrl(head.base, at)?.href) || at;
	return { text, encoding, head, bytesTo, page: body === page.body ? page : { ...page, body }, at, base };
}

/** What a reader sends. */
export const headersOf = ({ agent, accepts, languages }: Habits): Record<string, string> => ({
	...{ 'user-agent': agent, accept: accepts, 'accept-encoding': 'gzip, br' },
	...(languages !== '' && { 'accept-language': languages })
});

/** Bytes of a page, unpacked, that a reader gets to: of one that counts them packed, as many as come out of those. */
export async function bytesRead({ bytes, counts }: Habits, fetched: Fetched | undefined): Promise<number> {
	const { packed, hops } = fetched?.page ?? {};
	if (counts === 'unpacked' || !packed) return bytes;
	if (packed.length <= bytes) return MOST_BYTES;
	const encoding = hops?.at(-1)?.headers['content-encoding'] ?? '';
	const part = await unpack(packed.subarray(0, bytes), encoding, MOST_BYTES, true);
	return 'body' in part ? part.body.length : 0;
}

/** Read once for all readers: what each would read of it is worked out from its limit. */
const MOST_BYTES = 5_000_000;

/** The tags that a reader takes: those within what it reads, above its limit of places, doubled ones as it does. */
function tagsFor({ habits, fetched, reads }: Looked): ServedTag[] {
	if (!fetched) return [];
	const seen = fetched.head.tags.filter((tag) => fetched.bytesTo(tag) <= reads && (habits.readsBody || !tag.isBelow));
	if (habits.doubled === 'first') return seen;
	const last = new Map(seen.map((one) => [one.name, one]));
	return seen.filter((one) => one.tag?.repeated || last.get(one.name) === one);
}

/** Heads as readers take them, of each head that was read: many take the same. */
const headsTaken = new WeakMap<ServedHead, Map<string, Head>>();

export function headFor(looked: Looked): Head {
	const { habits, fetched, reads } = looked;
	if (!fetched) return takeHead(looked);
	const taken = headsTaken.get(fetched.head) ?? new Map<string, Head>();
	headsTaken.set(fetched.head, taken);
	const isWhole = fetched.page.body.length <= reads;
	const key = `${isWhole ? 'whole' : reads} ${habits.readsBody} ${habits.doubled} ${habits.relative} ${fetched.base}`;
	const head = taken.get(key) ?? takeHead(looked);
	taken.set(key, head);
	return head;
}

function takeHead(looked: Looked): Head {
	const { habits, fetched } = looked;
	const tags = tagsFor(looked).flatMap(({ tag, value, attributes }) => {
		if (!tag || value === '') return [];
		const isAddress = tag.kind === 'address' || tag.kind === 'picture';
		if (isAddress) {
			const whole = addressAs(habits, value, fetched?.base);
			// A picture of another scheme is what it is; an address of one is none.
			const isOther = whole !== undefined && !/^https?:/i.test(whole);
			return whole === undefined || (isOther && tag.kind !== 'picture') ? [] : [{ tag, value: whole, attributes }];
		}
		return [{ tag, value, attributes }];
	});
	return { html: { lang: '' }, tags, before: [], after: [] };
}

/** What a reader takes of a page beside its tags: addresses worked out as it does. */
export async function moreFor(
	fetcher: TracingFetcher,
	{ title, description, picture, icon, frame, habits }: ReaderProfile,
	fetched: Fetched | undefined
): Promise<MoreOfPage> {
	const wanted = [...title, ...description, ...picture, ...(frame?.otherwise === 'first' ? ['img'] : [])];
	const more = new Map<string, string>();
	if (!fetched) return more;
	const asksOembed = wanted.some((one) => one.startsWith('oembed:'));
	const said = new Map([
		...fetched.head.more,
		...(asksOembed ? await (fetched.oembed ??= fetchOembed(fetcher, fetched, habits)) : [])
	]);
	for (const name of wanted) {
		const value = said.get(name);
		if (!value) continue;
		const isAddress = picture.includes(name) || name === 'img';
		const whole = isAddress ? addressAs(habits, value, fetched.base) : value;
		if (whole !== undefined) more.set(name, whole);
	}
	// Where a tag names one, nobody looks for another; where none does, once for a host.
	if (icon === 'or-favicon' && !fetched.head.tags.some((tag) => tag.name === 'icon' && !tag.isBelow)) {
		const icons = iconsOf(fetcher);
		const host = parseUrl(fetched.at)?.origin ?? '';
		const looking = icons.get(host) ?? findFavicon(fetcher, fetched, habits);
		icons.set(host, looking);
		const found = await looking;
		if (found !== undefined) more.set('favicon', found);
	}
	return more;
}

/** An address of a page as a reader takes it: whole, worked out or none. */
function addressAs({ relative }: Habits, value: string, base: string | undefined): string | undefined {
	if (/^https?:/i.test(value)) return value.length <= LONGEST_ADDRESS ? value : undefined;
	if (/^[a-z][a-z0-9+.-]*:/i.test(value)) return value.slice(0, LONGEST_OTHER);
	const whole = relative === 'resolves' ? parseUrl(value, base)?.href : undefined;
	return whole && whole.length <= LONGEST_ADDRESS ? whole : undefined;
}

/** So much of an oEmbed answer is read (bytes), and of an icon. */
const MOST_OEMBED = 200_000;
const MOST_ICON = 200_000;
/** What of oEmbed is read (oEmbed 1.0, 2.3.4). */
const OEMBED = ['title', 'thumbnail_url'] as const;

/** What the oEmbed of a page says; nothing where there is none, or it cannot be read. */
async function fetchOembed(fetcher: TracingFetcher, { head, base }: Fetched, habits: Habits) {
	const said = new Map<string, string>();
	const address = head.oembed ? parseUrl(head.oembed, base)?.href : undefined;
	if (address === undefined || !(await mayRead(fetcher, habits, address))) return said;
	const { body, hops, end } = await fetcher.fetch(address, {
		...{ maxBytes: MOST_OEMBED, timeout: habits.patience, redirects: habits.redirects },
		headers: { ...headersOf(habits), accept: 'application/json' }
	});
	if (hops.at(-1)?.status !== 200 || end !== 'whole') return said;
	try {
		const answer = JSON.parse(body.toString('utf8')) as Partial<Record<string, unknown>> | null;
		for (const name of OEMBED) {
			const value = answer?.[name];
			if (typeof value === 'string') said.set(`oembed:${name}`, value.slice(0, LONGEST_ADDRESS));
		}
	} catch {
		// It says nothing.
	}
	return said;
}

/** The icon at the place where browsers look for one, if there is any. */
async function findFavicon(fetcher: TracingFetcher, { at }: Fetched, habits: Habits): Promise<string | undefined> {
	const address = parseUrl('/favicon.ico', at)?.href ?? '';
	if (!(await mayRead(fetcher, habits, address))) return undefined;
	const { body, hops, end } = await fetcher.fetch(address, {
		...{ maxBytes: MOST_ICON, timeout: habits.patience, redirects: habits.redirects },
		headers: { ...headersOf(habits), accept: 'image/*' }
	});
	const isIcon = body.subarray(0, 4).equals(ICO) || kindOfBytes(body)?.startsWith('image/') === true;
	return hops.at(-1)?.status === 200 && end === 'whole' && isIcon ? address : undefined;
}
const ICO = Buffer.from([0, 0, 1, 0]);

/** How a fetch that came to a page ended, where all that is read of it came. */
export const isComplete = ({ end }: Pick<TracedFetch, 'end'>) => end === 'whole' || end === 'cut';

/** Whether what a reader got is a page to make a card of. */
export function isPage({ fetched, habits }: Looked): boolean {
	if (!fetched) return false;
	const { page } = fetched;
	const status = page.hops.at(-1)?.status ?? 0;
	const isThere = isComplete(page) || (isBrokenOff(page) && habits.unfinished === 'card');
	return isThere && status >= 200 && status < 300 && otherThanPage(page) === undefined;
}

/** Something came, and not all of it. */
export const isBrokenOff = ({ end, body }: TracedFetch) => (end === 'short' || end === 'timeout') && body.length > 0;

/** What an answer is, where it is no page: its type, that it is to be downloaded, or what its bytes are (see `NoPage`). */
export function otherThanPage({ hops, body }: TracedFetch): string | undefined {
	const { headers = {} } = hops.at(-1) ?? {};
	const type = headers['content-type'] ?? '';
	if (type !== '' && !/^\s*(text\/html|application\/xhtml\+xml)\b/i.test(type)) return type.slice(0, 100);
	if (/^\s*attachment\b/i.test(headers['content-disposition'] ?? '')) return 'download';
	return kindOfBytes(body);
}

/** Beginnings of files that are no text (MIME Sniffing, 6), and what they are called. */
const BEGINNINGS: readonly (readonly [begins: string, is: string])[] = [
	...([
		['\x89PNG', 'image/png'],
		['\xff\xd8\xff', 'image/jpeg'],
		['GIF8', 'image/gif'],
		['%PDF-', 'application/pdf'],
		['PK\x03\x04', 'application/zip']
	] as const),
	['\x1f\x8b\x08', 'gzip-unannounced'],
	['\x28\xb5\x2f\xfd', 'zstd-unannounced']
];

/** What bytes are by how they begin; undefined where they may be a page. */
export function kindOfBytes(body: Buffer): string | undefined {
	const start = body.toString('latin1', 0, 16);
	if (start.startsWith('RIFF') && start.slice(8, 12) === 'WEBP') return 'image/webp';
	return BEGINNINGS.find(([begins]) => start.startsWith(begins))?.[1];
}

/** What is known within one run: all that one fetcher fetches. */
export function perRun<T>(make: () => T): (fetcher: TracingFetcher) => T {
	const all = new WeakMap<TracingFetcher, { readonly known: T }>();
	return (fetcher) => {
		const of = all.get(fetcher) ?? { known: make() };
		all.set(fetcher, of);
		return of.known;
	};
}

const iconsOf = perRun(() => new Map<string, Promise<string | undefined>>());
const robotsOf = perRun(() => new Map<string, Promise<Robots>>());

/** What an origin says to robots, asked for once in a run. */
export function robotsFor(fetcher: TracingFetcher, origin: string): Promise<Robots> {
	const known = robotsOf(fetcher);
	const robots = known.get(origin) ?? readRobots(fetcher, origin);
	known.set(origin, robots);
	return robots;
}

/** How a fetch ended, as it is told. */
export const endedAs = ({ end, why }: Pick<TracedFetch, 'end'> & { readonly why?: string | undefined }) =>
	({ is: 'ended', end, ...(why && { more: why }) }) as const;

export const nameOf = ({ reader }: Looked) => reader.name;
export const PLACE = { of: 'site' } as const;
