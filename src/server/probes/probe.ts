import {
	cardOf,
	charsetIn,
	describeFinding,
	describeMend,
	finding,
	HABITS,
	parseUrl,
	READERS,
	type Card,
	type Finding,
	type Habits,
	type Head,
	type Picture,
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
import { findInServedHead } from './served';

/** What one reader made of an address. */
interface ReaderProbe {
	readonly reader: string;
	/** It did not ask at all: robots.txt shuts it out. */
	readonly isShutOut: boolean;
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
	/** The share picture as it was fetched. */
	readonly picture:
		{ readonly address: string; readonly facts: Omit<Picture, 'src'> | null; readonly why?: string } | undefined;
	readonly findings: readonly {
		readonly code: string;
		readonly tag?: string;
		readonly weight: number;
		readonly says: string;
		readonly mend: string;
		readonly line?: number;
	}[];
}

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
		const key = JSON.stringify([habits.agent, habits.accepts, habits.redirects, habits.otherHosts, habits.patience]);
		const fetched = fetches.get(key) ?? fetchPage(fetcher, address, habits, headOf);
		fetches.set(key, fetched);
		return fetched;
	};
	const all = await Promise.all(
		which.map(async (reader) => {
			const habits = ownOf(HABITS, reader.id) as Habits;
			const isShutOut = habits.obeysRobots && !robots.allows(address, habits.name);
			return { reader, habits, isShutOut, fetched: isShutOut ? undefined : await fetchFor(habits) };
		})
	);
	const readers = all.map((one) => readerProbe(one, address));
	const whole = [...all]
		.map(({ fetched }) => fetched)
		.filter((one) => one !== undefined)
		.sort((a, b) => b.page.body.length - a.page.body.length)[0];
	const share = whole?.head.tags.find(({ name }) => name === 'og:image' || name === 'twitter:image');
	const picture = share && whole ? await fetchPicture(fetcher, share.value, whole.at) : undefined;
	const findings = judge(address, all, whole, robots, picture);
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

async function fetchPage(
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
			const whole = habits.relative === 'resolves' ? parseUrl(value, fetched?.at)?.href : undefined;
			return whole ? [{ tag, value: whole, attributes }] : [];
		}
		return [{ tag, value, attributes }];
	});
	return { html: { lang: '' }, tags, before: [], after: [] };
}

function readerProbe(looked: Looked, address: string): ReaderProbe {
	const { reader, habits, isShutOut, fetched } = looked;
	const status = fetched?.page.hops.at(-1)?.status ?? 0;
	const isPage = status >= 200 && status < 300;
	const head = headFor(looked);
	const card = fetched && isPage ? cardOf(reader, head) : undefined;
	const said = habits.key === 'address' ? '' : (head.tags.find(({ tag }) => tag.name === habits.key)?.value ?? '');
	const pictures =
		!card?.picture && reader.frame && fetched
			? fetched.head.pictures.flatMap((src) => parseUrl(src, fetched.at)?.href ?? [])
			: [];
	return {
		...{ reader: reader.id, isShutOut },
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

async function fetchPicture(
	fetcher: TracingFetcher,
	value: string,
	from: string
): Promise<NonNullable<Probe['picture']>> {
	const address = parseUrl(value, from)?.href ?? value;
	const got = await fetcher.fetch(address, {
		...{ maxBytes: PICTURE_BYTES, timeout: 10_000, redirects: 5 },
		headers: { 'user-agent': HABITS.gangway!.agent, accept: 'image/*' }
	});
	const status = got.hops.at(-1)?.status ?? 0;
	if (got.end !== 'whole' || status < 200 || status >= 300)
		return {
			address,
			facts: null,
			why: got.end === 'whole' ? `its server answers with ${status}` : (got.why ?? got.end)
		};
	const facts = await readPictureFacts(got.body);
	return {
		address,
		facts: facts ?? null,
		...(!facts && { why: `is ${got.hops.at(-1)?.headers['content-type'] ?? 'no picture'}` })
	};
}

const nameOf = ({ reader }: Looked) => reader.name;
const PLACE = { of: 'site' } as const;

/** What is wrong with what is served, and what it costs. */
function judge(
	address: string,
	all: readonly Looked[],
	whole: Fetched | undefined,
	robots: Robots,
	picture: Probe['picture']
): Finding[] {
	const shut = all.filter(({ isShutOut }) => isShutOut);
	const blocked =
		shut.length === 0
			? []
			: [
					finding('blocked-by-robots', PLACE, undefined, {
						readers: shut.map(nameOf),
						line: robots.lineOf(address, shut[0]!.habits.name)
					})
				];
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
	if (status >= 300 && status < 400) return found;
	if (status >= 400) {
		found.push(finding('error-page', PLACE, undefined, { status }));
		return found;
	}
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
		...judgePicture(picture, head)
	);
	const byHead = new Map<string, Looked[]>();
	for (const one of all)
		if (one.fetched) {
			const key = keyOfHead(one.fetched.head);
			byHead.set(key, [...(byHead.get(key) ?? []), one]);
		}
	const groups = [...byHead.values()].sort((a, b) => a.length - b.length);
	if (groups.length > 1 && stopped.length === 0)
		found.push(finding('differs-by-reader', PLACE, undefined, { readers: groups[0]!.map(nameOf) }));
	return found;
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
	/^\W*(404\b|error 404|(the )?page (was )?(not|cannot be) found|not found\b|seite nicht gefunden|page introuvable|página no encontrada)/i;

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

function judgePicture(picture: Probe['picture'], head: ServedHead): Finding[] {
	if (!picture) return [];
	if (!picture.facts)
		return picture.why?.startsWith('is ')
			? [finding('picture-unreadable', PLACE, 'og:image', { address: picture.address, type: picture.why.slice(3) })]
			: [finding('picture-missing', PLACE, 'og:image', { address: picture.address, why: picture.why ?? '' })];
	const found: Finding[] = [];
	const { bytes = 0, width, height, type } = picture.facts;
	const heavy = READERS.filter(({ frame }) => frame?.maxBytes !== undefined && bytes > frame.maxBytes);
	if (heavy.length > 0)
		found.push(finding('served-heavy', PLACE, 'og:image', { bytes, readers: heavy.map(({ name }) => name) }));
	const said = (name: string) => head.tags.find((tag) => tag.name === name)?.value;
	const [w, h, t] = ['og:image:width', 'og:image:height', 'og:image:type'].map(said);
	if ((w && Number(w) !== width) || (h && Number(h) !== height) || (t && t !== type))
		found.push(
			finding('picture-lies', PLACE, 'og:image', {
				said: [w && h ? `${w} × ${h}` : '', t].filter(Boolean).join(', '),
				is: `${width} × ${height}, ${type}`
			})
		);
	return found;
}
