import {
	cardOf,
	ALL_READERS,
	parseUrl,
	type Finding,
	type RobotsFailed,
	type Card,
	type Habits,
	type ReaderProfile,
	type ServedHead,
	type ServedTag
} from '$core';
import type { Hop, TracedFetch, TracingFetcher } from '../fetching/trace';
import type { Robots } from '../imports/web/robots';
import { readOnce, type ReadOnce } from './readOnce';
import {
	bytesRead,
	fetchKey,
	fetchPage,
	headFor,
	isPage,
	moreFor,
	robotsFor,
	type Fetched,
	type Looked
} from './looked';
import { seenOf, picturesShut, fetchPictures, SHUT, type FetchedPicture } from './pictures';
import { facesOf, judge, keyOfHead } from './judge';
import { isShell, needsScripts } from './served';

/** What one reader made of an address. */
interface ReaderProbe {
	readonly reader: string;
	/** It did not ask at all: robots.txt shuts it out, or could not be read since its server fails. */
	readonly isShutOut: boolean;
	/** How robots.txt failed, where that is why it did not ask. */
	readonly robotsFail?: RobotsFailed;
	readonly hops: readonly Hop[];
	/** Bytes that it read, and why it stopped. */
	readonly bytes: number;
	readonly end: TracedFetch['end'];
	readonly took: number;
	readonly encoding: string;
	readonly card: Card | undefined;
	/** Pictures that it might take, where it takes one by chance. */
	readonly byChance: readonly string[];
	/** What the card is kept under, and for how many hours it is kept, or that there was none. */
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
	/** So many pictures stand on cards at the word of their tags: nobody fetched them. */
	readonly unseen: number;
	/** The first picture that a reader asked for, as it was fetched. */
	readonly picture: FetchedPicture | undefined;
	readonly findings: readonly Finding[];
}

/** Markup that is shown of a head (UTF-16 code units); tags and findings that are told, and how long a value of one is. */
const MOST_HEAD = 60_000;
const MOST_TOLD = 500;
const LONGEST_VALUE = 5000;

const shortened = (tag: ServedTag): ServedTag =>
	tag.value.length <= LONGEST_VALUE ? tag : { ...tag, value: `${tag.value.slice(0, LONGEST_VALUE)}…` };

const NONE: ReadonlyMap<string, string> = new Map();

/** Fetches an address as the readers would, each fetch once for all that send the same, and judges what is served. */
export async function probe(
	fetcher: TracingFetcher,
	address: string,
	which: readonly ReaderProfile[] = ALL_READERS
): Promise<Probe> {
	const origin = parseUrl(address)?.origin ?? '';
	const robots = await robotsFor(fetcher, origin);
	const fetches = new Map<string, Promise<Fetched>>();
	const read = readOnce();
	const fetchFor = (habits: Habits) => {
		const key = fetchKey(habits);
		const fetched = fetches.get(key) ?? fetchPage(fetcher, address, habits, read);
		fetches.set(key, fetched);
		return fetched;
	};
	const all = await Promise.all(
		which.map(async (reader) => {
			const { habits } = reader;
			const shut = habits.obeysRobots ? robots.shuts(address, habits.name) : undefined;
			const isShutOut = shut !== undefined;
			const fetched = isShutOut ? undefined : await fetchFor(habits);
			const looked = { reader, habits, shut, isShutOut, fetched, reads: await bytesRead(habits, fetched), more: NONE };
			return isPage(looked) ? { ...looked, more: await moreFor(fetcher, reader, fetched) } : looked;
		})
	);
	const whole = [...all]
		.filter(({ fetched }) => fetched !== undefined)
		.sort(
			(a, b) => Number(isPage(b)) - Number(isPage(a)) || b.fetched!.page.body.length - a.fetched!.page.body.length
		)[0]?.fetched;
	const pictures = await fetchPictures(fetcher, all);
	const readers = await Promise.all(all.map((one) => readerProbe(one, address, robots, pictures, fetcher)));
	const cards = readers.flatMap(({ card }) => card ?? []);
	const sameAt = whole && (await sameHeadAt(fetcher, whole, read));
	const apart = await givenAnother(fetcher, address, all, read);
	const findings = judge(address, all, whole, robots, pictures, cards, sameAt, apart);
	const [picture] = pictures.values();
	const shown = new Set(cards.flatMap((card) => card.pictures.map((one) => one.address)));
	const unseen = [...shown].filter((src) => !pictures.has(src)).length;
	const last = (whole?.head.tags ?? []).reduce((most, { end, isBelow }) => (isBelow ? most : Math.max(most, end)), 0);
	return {
		...{ address, made: new Date().toISOString(), readers, picture, unseen },
		tags: (whole?.head.tags ?? []).slice(0, MOST_TOLD).map(shortened),
		head: whole?.text.slice(0, Math.min(last, MOST_HEAD)) ?? '',
		findings: findings.sort((a, b) => b.weight - a.weight).slice(0, MOST_TOLD)
	};
}

/**
 * Readers that are given another page than others: asked for once more, a page that is another each time it is fetched is
 * told for nobody.
 */
async function givenAnother(
	fetcher: TracingFetcher,
	address: string,
	all: readonly Looked[],
	read: ReadOnce
): Promise<readonly Looked[]> {
	const [most, ...others] = facesOf(all);
	if (!most || others.length === 0) return [];
	const keyOf = ([one]: readonly Looked[]) => keyOfHead(one!.fetched!.head);
	const isSteady = async (group: readonly Looked[]) =>
		keyOfHead((await fetchPage(fetcher, address, group[0]!.habits, read)).head) === keyOf(group);
	const [isUsual, ...steady] = await Promise.all([most, ...others].map(isSteady));
	return isUsual ? others.filter((_, at) => steady[at]).flat() : [];
}

/** What a card is made of, where no page has a head of its own. */
const SHARED = ['title', 'og:title', 'og:image', 'description', 'og:description'];
const sharedOf = ({ tags }: ServedHead) =>
	SHARED.map((name) => tags.find((tag) => tag.name === name && !tag.isBelow)?.value ?? '').join('\n');

/** Another address of the host at which a page that scripts write shares as the same: its home, or one that is no page. */
async function sameHeadAt(fetcher: TracingFetcher, { head, at }: Fetched, read: ReadOnce): Promise<string | undefined> {
	const [asked, home] = [parseUrl(at), parseUrl('/', at)?.href];
	if (!isShell(head) || needsScripts(head) || !asked || home === undefined) return undefined;
	const other = asked.pathname === '/' ? `${home}a-page-that-is-not-there` : home;
	const { habits } = ALL_READERS.find(({ id }) => id === 'porthole')!;
	const fetched = await fetchPage(fetcher, other, habits, read);
	const isThere = fetched.page.hops.at(-1)?.status === 200 && fetched.at !== at;
	return isThere && sharedOf(fetched.head) === sharedOf(head) ? other : undefined;
}

async function readerProbe(
	looked: Looked,
	address: string,
	robots: Robots,
	fetchedPictures: ReadonlyMap<string, FetchedPicture>,
	fetcher: TracingFetcher
): Promise<ReaderProbe> {
	const { reader, habits, isShutOut, fetched, reads, more } = looked;
	const head = headFor(looked);
	const shut = await picturesShut(fetcher, habits, fetchedPictures);
	const seen = (src: string) => (shut.has(src) ? SHUT : seenOf(fetchedPictures.get(src), habits));
	const card = isPage(looked) ? cardOf(reader, head, seen, more) : undefined;
	const { under = 'address', hours = 0, failed = 0 } = habits.keeps ?? {};
	const said = under === 'address' ? '' : (head.tags.find(({ tag }) => tag.name === under)?.value ?? '');
	const byChance =
		card && !card.picture && reader.frame?.otherwise === 'chance' && fetched
			? fetched.head.pictures.flatMap((src) => parseUrl(src, fetched.base)?.href ?? [])
			: [];
	return {
		...{ reader: reader.id, isShutOut },
		...(looked.shut === 'failing' && robots.failed && { robotsFail: robots.failed }),
		hops: fetched?.page.hops ?? [],
		bytes: Math.min(fetched?.page.body.length ?? 0, reads),
		end: fetched && fetched.page.body.length > reads ? 'cut' : (fetched?.page.end ?? 'whole'),
		took: fetched?.page.took ?? 0,
		encoding: fetched?.encoding.encoding ?? '',
		card,
		byChance,
		key: said || address,
		keeps: card ? hours : failed
	};
}
