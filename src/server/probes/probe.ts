import {
	cardOf,
	charsetIn,
	describeFinding,
	describeMend,
	finding,
	hidesFromSearch,
	HABITS,
	LEAST_SIDE,
	parseUrl,
	READERS,
	readRefresh,
	type Card,
	type Finding,
	type Habits,
	type Head,
	type Picture,
	type PictureSeen,
	type ReaderProfile,
	type ServedHead,
	type ServedTag,
	ownOf
} from '$core';
import { decodeServed, labelled } from '../fetching/charset';
import type { Hop, TracedFetch, TracingFetcher } from '../fetching/trace';
import { readRobots, type Robots } from '../imports/web/robots';
import { readPictureFacts } from '../files/pictureFacts';
import { readOnce } from './readOnce';
import { directivesForAll, findInServedHead } from './served';

/** What one reader made of an address. */
interface ReaderProbe {
	readonly reader: string;
	/** It did not ask at all: robots.txt shuts it out, or could not be read since its server fails. */
	readonly isShutOut: boolean;
	/** What robots.txt answered, where that is why it did not ask. */
	readonly robotsFail?: number;
	readonly hops: readonly Hop[];
	/** Bytes that it read, and why it stopped. */
	readonly bytes: number;
	readonly end: TracedFetch['end'];
	readonly took: number;
	readonly encoding: string;
	readonly card: Card | undefined;
	/** Pictures that it might take, where it takes one by chance. */
	readonly byChance: readonly string[];
	/** What the card is kept under, and for how many hours. */
	readonly key: string;
	readonly keeps: number;
}

/** An address as all readers see it. */
export interface Probe {
	readonly address: string;
	/** ISO 8601. */
	readonly made: string;
	readonly readers: readonly ReaderProbe[];
	/** The head as served, as the most patient reader got it, and its text up to the end of the last tag. */
	readonly tags: readonly ServedTag[];
	readonly head: string;
	/** The first picture that a reader asked for, as it was fetched. */
	readonly picture: FetchedPicture | undefined;
	readonly findings: readonly {
		readonly code: string;
		readonly tag?: string;
		readonly weight: number;
		readonly says: string;
		readonly mend: string;
		readonly line?: number;
	}[];
}

/** A picture as it was fetched: what it is, or why it is none, in words that follow its address. */
interface FetchedPicture {
	readonly address: string;
	/** The tag that named it first. */
	readonly from: string;
	readonly facts: Omit<Picture, 'src'> | null;
	readonly why?: string;
	/** It answers, with something that is no picture. */
	readonly is?: string;
}

/** So many pictures of a page are fetched. */
const MOST_PICTURES = 8;
const PICTURE_BYTES = 20_000_000;
/** Markup that is shown of a head (UTF-16 code units); tags and findings that are told, and how long a value of one is. */
const MOST_HEAD = 60_000;
const MOST_TOLD = 500;
const LONGEST_VALUE = 5000;

const shortened = (tag: ServedTag): ServedTag =>
	tag.value.length <= LONGEST_VALUE ? tag : { ...tag, value: `${tag.value.slice(0, LONGEST_VALUE)}…` };

/** Fetches an address as the readers would, each fetch once for all that send the same, and judges what is served. */
export async function probe(
	fetcher: TracingFetcher,
	address: string,
	which: readonly ReaderProfile[] = READERS
): Promise<Probe> {
	const origin = parseUrl(address)?.origin ?? '';
	const robots = await robotsFor(fetcher, origin);
	const fetches = new Map<string, Promise<Fetched>>();
	const headOf = readOnce();
	const fetchFor = (habits: Habits) => {
		const { agent, accepts, redirects, otherHosts, patience, refreshes } = habits;
		const key = JSON.stringify([agent, accepts, redirects, otherHosts, patience, refreshes]);
		const fetched = fetches.get(key) ?? fetchPage(fetcher, address, habits, headOf);
		fetches.set(key, fetched);
		return fetched;
	};
	const all = await Promise.all(
		which.map(async (reader) => {
			const habits = ownOf(HABITS, reader.id) as Habits;
			const shut = habits.obeysRobots ? robots.shuts(address, habits.name) : undefined;
			const isShutOut = shut !== undefined;
			return { reader, habits, shut, isShutOut, fetched: isShutOut ? undefined : await fetchFor(habits) };
		})
	);
	const whole = [...all]
		.filter(({ fetched }) => fetched !== undefined)
		.sort(
			(a, b) => Number(isPage(b)) - Number(isPage(a)) || b.fetched!.page.body.length - a.fetched!.page.body.length
		)[0]?.fetched;
	const pictures = await fetchPictures(fetcher, all);
	const readers = await Promise.all(all.map((one) => readerProbe(one, address, robots, pictures, fetcher)));
	const findings = judge(address, all, whole, robots, pictures);
	const [picture] = pictures.values();
	const last = (whole?.head.tags ?? []).reduce((most, { end, isBelow }) => (isBelow ? most : Math.max(most, end)), 0);
	return {
		...{ address, made: new Date().toISOString(), readers, picture },
		tags: (whole?.head.tags ?? []).slice(0, MOST_TOLD).map(shortened),
		head: whole?.text.slice(0, Math.min(last, MOST_HEAD)) ?? '',
		findings: findings
			.sort((a, b) => b.weight - a.weight)
			.slice(0, MOST_TOLD)
			.map((one) => ({
				...{ code: one.code, weight: one.weight, says: describeFinding(one), mend: describeMend(one) },
				...(one.tag && { tag: one.tag }),
				...('line' in one.data && typeof one.data.line === 'number' && { line: one.data.line })
			}))
	};
}

const known = new WeakMap<TracingFetcher, Map<string, Promise<Robots>>>();

/** What an origin says to robots, asked for once in a run. */
function robotsFor(fetcher: TracingFetcher, origin: string): Promise<Robots> {
	const ofRun = known.get(fetcher) ?? new Map<string, Promise<Robots>>();
	known.set(fetcher, ofRun);
	const robots = ofRun.get(origin) ?? readRobots(fetcher, origin);
	ofRun.set(origin, robots);
	return robots;
}

interface Fetched {
	readonly page: TracedFetch;
	/** Where it ended. */
	readonly at: string;
	readonly text: string;
	readonly encoding: ReturnType<typeof decodeServed>;
	readonly head: ServedHead;
}

/** A page as a reader comes to it: also by a refresh in the page or beside it, where the reader follows those. */
async function fetchPage(
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

/** A refresh after more seconds is for people who look at the page. */
const SOON = 15;

/** Where a page leads on to at once, by a refresh in its markup or in its header. */
function leadsOn({ page, head, at }: Fetched): string | undefined {
	const hop = page.hops.at(-1);
	if (!hop || hop.status < 200 || hop.status >= 300) return undefined;
	const refresh = readRefresh(hop.headers.refresh) ?? head.refresh;
	const to = refresh && refresh.seconds <= SOON ? parseUrl(refresh.to, at)?.href : undefined;
	return to !== undefined && /^https?:/i.test(to) && to !== at ? to : undefined;
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
	return { page, at: hop?.address ?? address, text: encoding.text, encoding, head: headOf(encoding.text) };
}

/** Read once for all readers: what each would read of it is worked out from its limit. */
const MOST_BYTES = 5_000_000;

interface Looked {
	readonly reader: ReaderProfile;
	readonly habits: Habits;
	readonly shut: ReturnType<Robots['shuts']>;
	readonly isShutOut: boolean;
	readonly fetched: Fetched | undefined;
}

/** The tags that a reader takes: those within what it reads, above its limit of places, doubled ones as it does. */
function tagsFor({ habits, fetched }: Looked): ServedTag[] {
	if (!fetched) return [];
	const seen = fetched.head.tags.filter(({ end, isBelow }) => end <= habits.bytes && (habits.readsBody || !isBelow));
	if (habits.doubled === 'first') return seen;
	const last = new Map(seen.map((one) => [one.name, one]));
	return seen.filter((one) => one.tag?.repeated || last.get(one.name) === one);
}

function headFor(looked: Looked): Head {
	const { habits, fetched } = looked;
	const tags = tagsFor(looked).flatMap(({ tag, value, attributes }) => {
		if (!tag || value === '') return [];
		const isAddress = tag.kind === 'address' || tag.kind === 'picture';
		if (isAddress && !/^https?:/i.test(value)) {
			// One of another scheme is what it is: nobody resolves it.
			const isOther = /^[a-z][a-z0-9+.-]*:/i.test(value);
			const whole = isOther ? value : habits.relative === 'resolves' ? parseUrl(value, fetched?.at)?.href : undefined;
			return whole ? [{ tag, value: whole, attributes }] : [];
		}
		return [{ tag, value, attributes }];
	});
	return { html: { lang: '' }, tags, before: [], after: [] };
}

/** Whether what a reader got is a page to make a card of. */
function isPage({ fetched }: Looked): boolean {
	const status = fetched?.page.hops.at(-1)?.status ?? 0;
	return fetched !== undefined && status >= 200 && status < 300 && otherThanPage(fetched.page) === undefined;
}

async function readerProbe(
	looked: Looked,
	address: string,
	robots: Robots,
	fetchedPictures: ReadonlyMap<string, FetchedPicture>,
	fetcher: TracingFetcher
): Promise<ReaderProbe> {
	const { reader, habits, isShutOut, fetched } = looked;
	const head = headFor(looked);
	const shut = await picturesShut(fetcher, habits, fetchedPictures);
	const seen = (src: string) =>
		habits.judges === 'tags' ? undefined : shut.has(src) ? SHUT : seenOf(fetchedPictures.get(src));
	const card = isPage(looked) ? cardOf(reader, head, seen) : undefined;
	const said = habits.key === 'address' ? '' : (head.tags.find(({ tag }) => tag.name === habits.key)?.value ?? '');
	const pictures =
		!card?.picture && reader.frame && fetched
			? fetched.head.pictures.flatMap((src) => parseUrl(src, fetched.at)?.href ?? [])
			: [];
	return {
		...{ reader: reader.id, isShutOut },
		...(looked.shut === 'failing' && { robotsFail: robots.status }),
		hops: fetched?.page.hops ?? [],
		bytes: Math.min(fetched?.page.body.length ?? 0, habits.bytes),
		end: fetched && fetched.page.body.length > habits.bytes ? 'cut' : (fetched?.page.end ?? 'whole'),
		took: fetched?.page.took ?? 0,
		encoding: fetched?.encoding.encoding ?? '',
		card,
		byChance:
			habits.withoutPicture === 'none' ? [] : habits.withoutPicture === 'first' ? pictures.slice(0, 1) : pictures,
		key: said || address,
		keeps: habits.keeps
	};
}

const SHUT: PictureSeen = { why: 'is shut by the robots.txt of its host' };

function seenOf(picture: FetchedPicture | undefined): PictureSeen | undefined {
	if (!picture) return undefined;
	const { width, height, bytes, type } = picture.facts ?? {};
	if (width === undefined || height === undefined || bytes === undefined || type === undefined)
		return { why: picture.why ?? 'is no picture' };
	return { width, height, bytes, type };
}

/** The pictures that a reader may not fetch. */
async function picturesShut(
	fetcher: TracingFetcher,
	{ obeysRobots, name }: Habits,
	pictures: ReadonlyMap<string, FetchedPicture>
): Promise<ReadonlySet<string>> {
	const shut = new Set<string>();
	for (const address of obeysRobots ? pictures.keys() : []) {
		const origin = /^https?:/i.test(address) ? parseUrl(address)?.origin : undefined;
		if (origin !== undefined && (await robotsFor(fetcher, origin)).shuts(address, name)) shut.add(address);
	}
	return shut;
}

/** Every picture that some reader may take, each fetched once, by its address. */
async function fetchPictures(
	fetcher: TracingFetcher,
	all: readonly Looked[]
): Promise<ReadonlyMap<string, FetchedPicture>> {
	const wanted = new Map<string, string>();
	for (const looked of all)
		for (const { tag, value } of isPage(looked) ? headFor(looked).tags : [])
			if (looked.reader.picture.includes(tag.name) && !wanted.has(value)) wanted.set(value, tag.name);
	const pictures = new Map<string, FetchedPicture>();
	// One after the other: each may be large.
	for (const [address, from] of [...wanted].slice(0, MOST_PICTURES))
		pictures.set(address, await fetchPicture(fetcher, address, from));
	return pictures;
}

async function fetchPicture(fetcher: TracingFetcher, address: string, from: string): Promise<FetchedPicture> {
	const scheme = /^([a-z][a-z0-9+.-]*):/i.exec(address)?.[1]?.toLowerCase() ?? '';
	if (scheme !== 'http' && scheme !== 'https')
		return {
			address: address.slice(0, LONGEST_VALUE),
			from,
			facts: null,
			why: `is an address of ${scheme}:, which nobody fetches`
		};
	const got = await fetcher.fetch(address, {
		...{ maxBytes: PICTURE_BYTES, timeout: 10_000, redirects: 5 },
		headers: { 'user-agent': HABITS.gangway!.agent, accept: 'image/*' }
	});
	const hop = got.hops.at(-1);
	const status = hop?.status ?? 0;
	if (status === 0 || got.end !== 'whole')
		return { address, from, facts: null, why: `cannot be fetched: ${WHY[got.end] ?? got.why ?? got.end}` };
	if (status < 200 || status >= 300)
		return { address, from, facts: null, why: `cannot be fetched: its server answers with ${status}` };
	if (got.body.length === 0) return { address, from, facts: null, why: 'is empty', is: 'empty' };
	const facts = await readPictureFacts(got.body);
	if (facts) return { address, from, facts };
	const is = hop?.headers['content-type'] ?? 'no picture';
	return { address, from, facts: null, why: `is no picture but ${is}`, is };
}

const nameOf = ({ reader }: Looked) => reader.name;
const PLACE = { of: 'site' } as const;

/** What is wrong with what is served, and what it costs. */
function judge(
	address: string,
	all: readonly Looked[],
	whole: Fetched | undefined,
	robots: Robots,
	pictures: ReadonlyMap<string, FetchedPicture>
): Finding[] {
	const shut = all.filter((one) => one.shut === 'forbidden');
	const failing = all.filter((one) => one.shut === 'failing');
	const blocked: Finding[] =
		shut.length === 0
			? []
			: [
					finding('blocked-by-robots', PLACE, undefined, {
						readers: shut.map(nameOf),
						line: robots.lineOf(address, shut[0]!.habits.name)
					})
				];
	if (failing.length > 0)
		blocked.push(finding('robots-failing', PLACE, undefined, { readers: failing.map(nameOf), status: robots.status }));
	if (!whole) return blocked;
	const found: Finding[] = [];
	const { page, head } = whole;
	const stopped = all.filter(({ fetched }) => fetched?.page.end === 'other-host');
	if (stopped.length > 0)
		found.push(
			finding('redirected-elsewhere', PLACE, undefined, {
				to: stopped[0]!.fetched!.page.why ?? '',
				readers: stopped.map(nameOf)
			})
		);
	const status = page.hops.at(-1)?.status ?? 0;
	if (status === 0 || ['refused', 'unknown-name', 'reset'].includes(page.end)) {
		found.push(
			finding('unreachable', PLACE, undefined, {
				address,
				why: WHY[page.end] ? `${WHY[page.end]}${page.why ? ` (${page.why})` : ''}` : (page.why ?? page.end)
			})
		);
		return found;
	}
	found.push(...blocked);
	if (['timeout', 'short', 'bad-compression', 'loop', 'too-many-redirects'].includes(page.end))
		found.push(
			finding('broken', PLACE, undefined, { how: `${WHY[page.end] ?? page.end}${page.why ? ` (${page.why})` : ''}` })
		);
	if (status >= 300 && status < 400) {
		if (page.end === 'whole') found.push(finding('leads-nowhere', PLACE, undefined, { status }));
		return found;
	}
	if (status >= 400) {
		found.push(finding('error-page', PLACE, undefined, { status }));
		return found;
	}
	const other = otherThanPage(page);
	if (other !== undefined) {
		found.push(finding('no-page', PLACE, undefined, { is: other }));
		return found;
	}
	found.push(...failingFor(all, whole), ...judgeHeaders(page), ...judgeRefresh(all));
	if (head.asksToSignIn && head.tags.every(({ name }) => !name.startsWith('og:')))
		found.push(finding('sign-in-page', PLACE, undefined, {}));
	const title = head.tags.find(({ name }) => name === 'title')?.value ?? '';
	if (status === 200 && NOT_FOUND.test(title)) found.push(finding('not-found-served', PLACE, 'title', { title }));
	found.push(
		...judgeText(all, whole),
		...findInServedHead(
			head,
			all.map(({ reader }) => reader),
			PLACE
		),
		...judgePictures(pictures, all, head),
		...judgeHome(address, head)
	);
	const byHead = new Map<string, Looked[]>();
	for (const one of all)
		if (one.fetched && isPage(one)) {
			const key = keyOfHead(one.fetched.head);
			byHead.set(key, [...(byHead.get(key) ?? []), one]);
		}
	const groups = [...byHead.values()].sort((a, b) => a.length - b.length);
	if (groups.length > 1 && stopped.length === 0)
		found.push(finding('differs-by-reader', PLACE, undefined, { readers: groups[0]!.map(nameOf) }));
	return found;
}

/** What an answer is, where it is no page: its type, or that it is to be downloaded. */
function otherThanPage({ hops }: TracedFetch): string | undefined {
	const { headers = {} } = hops.at(-1) ?? {};
	const type = headers['content-type'] ?? '';
	if (type !== '' && !/^\s*(text\/html|application\/xhtml\+xml)\b/i.test(type)) return type;
	return /^\s*attachment\b/i.test(headers['content-disposition'] ?? '') ? 'a download' : undefined;
}

/** Readers that got no page where others did, by how it came out. */
function failingFor(all: readonly Looked[], whole: Fetched): Finding[] {
	const by = new Map<string, string[]>();
	for (const one of all) {
		if (!one.fetched || one.fetched === whole || isPage(one) || one.fetched.page.end === 'other-host') continue;
		const { page } = one.fetched;
		const { status = 0 } = page.hops.at(-1) ?? {};
		const how =
			page.end !== 'whole' && page.end !== 'cut'
				? (WHY[page.end] ?? page.end)
				: (otherThanPage(page) ?? `its server answers with ${status}`);
		by.set(how, [...(by.get(how) ?? []), one.reader.name]);
	}
	return [...by].map(([how, readers]) => finding('fails-for', PLACE, undefined, { readers, how }));
}

/** Readers that stay where a refresh leads on. */
function judgeRefresh(all: readonly Looked[]): Finding[] {
	const staying = all.filter(({ habits, fetched }) => !habits.refreshes && fetched && leadsOn(fetched) !== undefined);
	const [first] = staying;
	if (!first) return [];
	return [finding('leads-on', PLACE, undefined, { to: leadsOn(first.fetched!)!, readers: staying.map(nameOf) })];
}

/** What the headers of a page say to search. */
function judgeHeaders({ hops }: TracedFetch): Finding[] {
	const header = hops.at(-1)?.headers['x-robots-tag'] ?? '';
	return hidesFromSearch(directivesForAll(header))
		? [finding('noindex-served', PLACE, 'robots', { value: `X-Robots-Tag: ${header.slice(0, 200)}` })]
		: [];
}

/** Tags by which a page says that it is the home page of its host, and is not. */
function judgeHome(address: string, { tags }: ServedHead): Finding[] {
	const own = parseUrl(address);
	if (!own || own.pathname === '/') return [];
	return tags.flatMap(({ name, value, line, isBelow }) => {
		if (isBelow || (name !== 'canonical' && name !== 'og:url')) return [];
		const named = parseUrl(value, address);
		const isHome = named?.host === own.host && named.pathname === '/' && named.search === '';
		return isHome ? [finding('names-home', PLACE, name, { tag: name, line })] : [];
	});
}

/** What a head says, as one text; made once for each head that was read. */
const keysOfHeads = new WeakMap<ServedHead, string>();
function keyOfHead(head: ServedHead): string {
	const key = keysOfHeads.get(head) ?? head.tags.map(({ name, value }) => `${name}=${value}`).join('\n');
	keysOfHeads.set(head, key);
	return key;
}

/** Titles of pages that stand in for what is not there, in the languages that they are seen in most. */
const NOT_FOUND =
	/^\W*(404\b|error 404|(the )?page (was )?(not|cannot be) found|not found\b|seite nicht gefunden|page introuvable|página no encontrada)|[|·–—-]\s*(404|(page )?not found)\W*$|\b(could|can)(not| not|n[’']t) find (that|the|this) page\b/i;

const WHY: Readonly<Partial<Record<TracedFetch['end'], string>>> = {
	refused: 'it may not be fetched',
	'unknown-name': 'there is no such host',
	reset: 'the connection was broken off',
	timeout: 'it does not answer in time',
	short: 'it ends in the middle',
	'bad-compression': 'it is not packed as it says',
	loop: 'its redirects go round in a circle',
	'too-many-redirects': 'it redirects too often'
};

/** The encoding that a label means (Encoding standard, section 4.2): `utf8` is `utf-8`; a label that is none, itself. */
const encodingOf = (label: string) => labelled(label) ?? label.toLowerCase();

function judgeText(all: readonly Looked[], { page, head, encoding }: Fetched): Finding[] {
	const found: Finding[] = [];
	const said = charsetIn(page.hops.at(-1)?.headers['content-type'] ?? '');
	const inMarkup = head.charset;
	if (said && inMarkup && encodingOf(said) !== encodingOf(inMarkup))
		found.push(finding('wrong-charset', PLACE, undefined, { header: said, markup: inMarkup }));
	if (!said && encoding.from === 'bytes' && inMarkup === undefined && page.body.some((byte) => byte > 127))
		found.push(finding('no-charset', PLACE, undefined, {}));
	for (const { name, value, line, isBelow } of head.tags)
		if (!isBelow && value.includes('\uFFFD'))
			found.push(finding('broken-characters', PLACE, name, { tag: name, line, value: value.slice(0, 60) }));
	if (!said && encoding.from !== 'byte-order-mark' && (head.charsetAt ?? 0) > 1024)
		found.push(finding('late-charset', PLACE, undefined, {}));
	const hasCard = head.tags.some(({ name }) => /^(og:|twitter:|description$)/.test(name));
	if (!hasCard && head.scripts > 0 && head.words < 40) found.push(finding('needs-scripts', PLACE, undefined, {}));
	const far = all.filter(
		({ habits, fetched }) => fetched && fetched.head.tags.some(({ end, isBelow }) => !isBelow && end > habits.bytes)
	);
	if (far.length > 0) {
		const least = Math.min(...far.map(({ habits }) => habits.bytes));
		const beyond = head.tags.filter(({ end, isBelow }) => !isBelow && end > least).map(({ name }) => name);
		found.push(
			finding('beyond-reading', PLACE, beyond[0], {
				tags: [...new Set(beyond)].slice(0, 5),
				readers: far.map(nameOf),
				bytes: least
			})
		);
	}
	return found;
}

function judgePictures(
	pictures: ReadonlyMap<string, FetchedPicture>,
	all: readonly Looked[],
	head: ServedHead
): Finding[] {
	return [...pictures.values()].flatMap((one) => judgePicture(one, all, head));
}

function judgePicture(
	{ address, from, facts, why = '', is }: FetchedPicture,
	all: readonly Looked[],
	head: ServedHead
): Finding[] {
	if (!facts && !/^https?:/i.test(address)) return [];
	if (!facts)
		return is !== undefined
			? [finding('picture-unreadable', PLACE, from, { address, type: is })]
			: [finding('picture-missing', PLACE, from, { address, why })];
	const found: Finding[] = [];
	const { bytes = 0, width = 0, height = 0, type = '' } = facts;
	const asking = all
		.filter(({ reader, habits }) => reader.frame && habits.judges === 'fetch')
		.map(({ reader }) => reader);
	const heavy = asking.filter(({ frame }) => frame?.maxBytes !== undefined && bytes > frame.maxBytes);
	if (heavy.length > 0)
		found.push(finding('served-heavy', PLACE, from, { bytes, readers: heavy.map(({ name }) => name) }));
	const form = type.replace('image/', '').replace('+xml', '');
	const unread = asking.filter(({ frame }) => !(frame!.takes as readonly string[]).includes(form));
	if (unread.length > 0)
		found.push(
			finding('picture-form', PLACE, from, { form: form.toUpperCase(), readers: unread.map(({ name }) => name) })
		);
	if (Math.min(width, height) < LEAST_SIDE) found.push(finding('picture-mark', PLACE, from, { width, height }));
	else {
		const narrow = asking.filter(({ frame }) => width < frame!.minWidth);
		if (narrow.length > 0)
			found.push(
				finding('served-small', PLACE, from, {
					...{ width, height, readers: narrow.map(({ name }) => name) },
					needed: Math.max(...narrow.map(({ frame }) => frame!.minWidth))
				})
			);
	}
	if (from !== 'og:image') return found;
	const said = (name: string) => head.tags.find((tag) => tag.name === name)?.value;
	const first = head.tags.find(({ name }) => name === 'og:image')?.value;
	const [w, h, t] = ['og:image:width', 'og:image:height', 'og:image:type'].map(said);
	// What stands beside the first is of the first.
	if (first === address && ((w && Number(w) !== width) || (h && Number(h) !== height) || (t && t !== type)))
		found.push(
			finding('picture-lies', PLACE, from, {
				said: [w && h ? `${w} × ${h}` : '', t].filter(Boolean).join(', '),
				is: `${width} × ${height}, ${type}`
			})
		);
	return found;
}
