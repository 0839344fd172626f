import { ALL_READERS, cardOf, findTag, normaliseBase, readsHeadAlone, type Head, type HeadJson, ownOf } from '$core';
import { refuse } from '../errors';
import { patiently } from '../store/opening/patiently';
import type { SeenCard, ShownCard } from '../store/state/looks';
import type { Store } from '../store/store';
import type { KeptCard, ReadersClient } from './service';
import { clock } from '../waiting';

/** How the card that a reader shows stands to what is released. */
type Standing = 'current' | 'old' | 'lapsed' | 'none' | 'shut-out';

/** Readers whose card a head alone makes: only of those is it known without asking whether what they show is old. */
export const ASKED = ALL_READERS.filter(readsHeadAlone);

/** What one reader last showed of a page. */
interface CardOfPage {
	readonly path: string;
	readonly reader: string;
	readonly is: Standing;
	/** What differs: of what is shown and of what is released, the first that does. */
	readonly shows?: string;
	readonly released?: string;
	readonly until: string | null;
	readonly seen: string;
	/** What came of telling it last. */
	readonly told: string | null;
}

export interface CardsTold {
	/** Whether readers were named that can be spoken to. */
	readonly hasReaders: boolean;
	/** Pages that readers were asked about, and released ones that they were not yet. */
	readonly pages: number;
	readonly notAsked: number;
	readonly counts: Readonly<Record<string, Readonly<Record<Standing, number>>>>;
	readonly old: readonly CardOfPage[];
}

/** Pages that readers are asked about at one time: asking again goes on with the next. */
const MOST_PAGES = 200;
/** Old cards that are listed. */
const MOST_LISTED = 200;
/** Asks that are on their way at one time. */
const AT_ONCE = 4;
/** A reader that was asked too often is waited for at most so long (milliseconds). */
const LONGEST_WAIT = 65_000;
/** So often for one card. */
const MOST_WAITS = 3;

/** What readers last showed, held against what is released now; from what was noted, nobody is asked. */
export function readCards(store: Store, name: string, hasReaders: boolean): CardsTold {
	const { id } = store.working.sites.named(name);
	const counts: Record<string, Record<Standing, number>> = Object.fromEntries(
		ASKED.map(({ id: reader }) => [reader, { current: 0, old: 0, lapsed: 0, none: 0, 'shut-out': 0 }])
	);
	const old: CardOfPage[] = [];
	const heads = new Map<string, Head | undefined>();
	const paths = new Set<string>();
	for (const seen of store.state.looks.cards(id)) {
		paths.add(seen.path);
		const card = standingOf(seen, headOf(store, id, seen.path, heads));
		const ofReader = ownOf(counts, card.reader);
		// A reader of another version.
		if (!ofReader) continue;
		ofReader[card.is]++;
		if (card.is === 'old' && old.length < MOST_LISTED) old.push(card);
	}
	const released = store.releases.latest(id)?.pages ?? 0;
	return { hasReaders, pages: paths.size, notAsked: Math.max(0, released - askedOf(paths, heads)), counts, old };
}

/** How many of the pages that were asked about are released. */
const askedOf = (paths: ReadonlySet<string>, heads: ReadonlyMap<string, Head | undefined>) =>
	[...paths].filter((path) => heads.get(path)).length;

function headOf(store: Store, site: number, path: string, known: Map<string, Head | undefined>): Head | undefined {
	if (!known.has(path)) {
		const released = store.releases.head(site, { path });
		known.set(path, released && toHead(JSON.parse(released.json) as HeadJson));
	}
	return known.get(path);
}

/** A released head for those who draw cards. */
function toHead({ tags }: HeadJson): Head {
	const known = tags.flatMap(({ tag, value }) => {
		const definition = findTag(tag);
		return definition ? [{ tag: definition, value }] : [];
	});
	return { html: { lang: '' }, tags: known, before: [], after: [] } as unknown as Head;
}

const PARTS = ['title', 'description', 'picture'] as const;

function standingOf(seen: SeenCard, head: Head | undefined): CardOfPage {
	const { path, reader, until, shown, told } = seen;
	const card = { path, reader, until, seen: seen.seen, told };
	if (seen.isShutOut) return { ...card, is: 'shut-out' };
	if (!shown || !head) return { ...card, is: 'none' };
	const profile = ASKED.find(({ id }) => id === reader);
	if (!profile) return { ...card, is: 'none' };
	const { title, description, picture } = cardOf(profile, head);
	const now: Pick<ShownCard, (typeof PARTS)[number]> = {
		title: title.shown + title.cut,
		description: description.shown + description.cut,
		picture: picture?.address ?? ''
	};
	const differs = PARTS.find((part) => now[part] !== shown[part]);
	if (!differs) return { ...card, is: 'current' };
	// One past its time is fetched anew when it is asked for next; so is one that was never kept.
	if (until === null || Date.parse(until) <= clock.now()) return { ...card, is: 'lapsed' };
	return { ...card, is: 'old', shows: shown[differs], released: now[differs] };
}

export interface TellOptions {
	readonly signal: AbortSignal;
	readonly say: (line: { readonly done: number; readonly all: number; readonly last?: string }) => void;
}

/** Asks every reader for its card of the pages that matter, and notes what it shows. Gives how many were asked for. */
export async function lookAtCards(
	store: Store,
	client: ReadersClient,
	name: string,
	options: TellOptions
): Promise<number> {
	const { id, site } = store.working.sites.named(name);
	const base = baseOf(site.base);
	const wanted = store.state.looks
		.pagesToAsk(id, MOST_PAGES)
		.flatMap((path) => ASKED.map(({ id: reader }) => ({ path, reader })));
	await each(wanted, options, async ({ path, reader }) => {
		const kept = await client.card(reader, base + path.slice(1), options.signal);
		await note(store, id, path, reader, kept, null);
		return undefined;
	});
	return wanted.length;
}

/** Tells every reader that shows an old card to fetch again, in its own way, key pages first; notes what each answers. */
export async function tellReaders(
	store: Store,
	client: ReadersClient,
	name: string,
	options: TellOptions
): Promise<number> {
	const { id, site } = store.working.sites.named(name);
	const base = baseOf(site.base);
	const keys = new Set(store.state.looks.pagesToAsk(id, MOST_PAGES));
	const order = [...keys];
	const { old } = readCards(store, name, true);
	const wanted = [...old].sort((a, b) => order.indexOf(a.path) - order.indexOf(b.path));
	await each(wanted, options, async ({ path, reader }) => {
		const address = base + path.slice(1);
		let answer = await client.again(reader, address, options.signal);
		if (answer.is === 'ask-again') answer = await client.again(reader, address, options.signal);
		for (let waited = 0; answer.is === 'limit'; waited++) {
			// One that never listens again is waited for no longer: what was told until then is kept.
			if (waited === MOST_WAITS) throw refuse('readers-busy', { reader });
			await clock.sleep(Math.min(answer.wait * 1000, LONGEST_WAIT), options.signal);
			answer = await client.again(reader, address, options.signal);
		}
		const told = ANSWERS[answer.is];
		const kept = answer.is === 'fetched' ? answer.card : await client.card(reader, address, options.signal);
		await note(store, id, path, reader, kept, told);
		return `${reader}, ${path}: ${told}`;
	});
	return wanted.length;
}

const ANSWERS = {
	fetched: 'it fetched again',
	'ask-again': 'it wants to be asked again',
	wait: 'nothing makes it fetch before its time',
	'new-address': 'only another address makes it fetch again',
	never: 'what was sent stays as it was',
	limit: 'it was asked too often'
} as const;

function baseOf(base: string): string {
	const whole = normaliseBase(base);
	if (whole) return whole;
	throw refuse('readers-need-base');
}

const note = (store: Store, site: number, path: string, reader: string, kept: KeptCard, told: string | null) =>
	patiently(() =>
		store.transaction(() =>
			store.state.looks.saveCard(site, {
				...{ path, reader, isShutOut: kept.isShutOut, shown: kept.card },
				...{ seen: kept.fetched, until: kept.until, told }
			})
		)
	);

/** The work for each, a few at a time, in order; ends early when it is stopped. */
async function each<T>(
	items: readonly T[],
	{ signal, say }: TellOptions,
	work: (item: T) => Promise<string | undefined>
) {
	let [next, done] = [0, 0];
	const run = async () => {
		while (next < items.length && !signal.aborted) {
			const item = items[next++] as T;
			const last = await work(item);
			say({ done: ++done, all: items.length, ...(last !== undefined && { last }) });
		}
	};
	await Promise.all(Array.from({ length: AT_ONCE }, run));
}
