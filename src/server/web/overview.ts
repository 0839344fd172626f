import { cardOf, isLocalAddress, ownOf, publicIn, READERS, type Card } from '$core';
import { readCounted, stampOf } from '../findings/counted';
import { workingResolver } from '../heads/heads';
import type { RecordedEdit } from '../store/record/record';
import { readDrift } from '../probes/drift';
import { countGrid } from '../store/table/grid';
import type { Release } from '../store/releases/releases';
import type { Store, StoredSite } from '../store/store';
import { launchWords } from './launchWords';
import { standInFor } from './working';

/** Key pages whose cards are shown, and edits that are told. */
const CARDS = 6;
const EDITS = 8;

/** One thing that a careful builder checks before a site goes public. */
interface Check {
	readonly id: string;
	readonly says: string;
	/** Undefined: only a person can tell, and ticks it. 'unknown': not every page was looked at. */
	readonly isDone?: boolean | 'unknown';
	/** What is missing instead, in a sentence, and the pages it is about. */
	readonly missing?: string;
	readonly filter?: Readonly<Record<string, string>>;
}

/** What the overview of a site tells; all of it from the kept state. */
export interface Overview {
	readonly site: { readonly name: string; readonly base: string; readonly isPrivate: boolean };
	readonly standIn: { readonly base: string; readonly origin: string } | null;
	readonly live: number;
	readonly drafts: number;
	readonly unseen: number;
	readonly release: Release | null;
	readonly differing: { readonly changed: number; readonly added: number; readonly removed: number };
	readonly cards: readonly { readonly path: string; readonly card: Card }[];
	readonly edits: readonly RecordedEdit[];
	readonly checks: readonly Check[];
	/** What was ticked by hand. */
	readonly ticked: readonly string[];
}

export function readOverview(store: Store, name: string): Overview {
	const stored = store.working.sites.named(name);
	const { id, site } = stored;
	const counts = store.working.pages.count(id);
	const resolver = workingResolver(store, stored);
	const reader = READERS[0]!;
	const keys = store.db
		.prepare<unknown[], string>(
			`SELECT path FROM page_state WHERE site_id = @id AND is_key = 1 AND head IS NOT NULL
			UNION SELECT path FROM page_state WHERE site_id = @id AND path = '/' AND head IS NOT NULL ORDER BY path LIMIT @most`
		)
		.pluck()
		.all({ id, most: CARDS });
	const { changed, added, removed } = store.state.differing(id, 0);
	return {
		site: { name: site.name, base: site.base, isPrivate: site.private === true },
		standIn: standInFor(store, name) ?? null,
		...{ live: counts.live, drafts: counts.all - counts.live, unseen: store.state.countStale(id) },
		release: store.releases.latest(id) ?? null,
		differing: { changed, added, removed },
		cards: keys.flatMap((path) => {
			const page = store.working.pages.at(id, path);
			return page ? [{ path, card: cardOf(reader, resolver.resolveHead(page)) }] : [];
		}),
		edits: store.record.list(id, undefined, EDITS),
		checks: checksOf(store, stored),
		ticked: store.working.sources.settings<string[]>(id, 'launch') ?? []
	};
}

/** The list for a launch: each found by the program where it can be. */
function checksOf(store: Store, { id, site, types, revision }: StoredSite): Check[] {
	const { name } = site;
	const words = launchWords();
	const count = (filter: Readonly<Record<string, string>>) => countGrid(store.db, id, filter);
	const counted = readCounted(store, id);
	const { all, live } = store.working.pages.count(id);
	// What is said of all pages holds when all were looked at, and counted as they stand now.
	const isNow = counted?.stamp === stampOf(store, id, revision) && store.state.countStale(id) === 0;
	const none = (code: string, says: string, missing: (pages: number, all: number) => string): Check => {
		const filter = { finding: code, state: 'live' };
		const pages = isNow ? (ownOf(counted.kinds, code) ?? 0) : undefined;
		return {
			...{ id: code, says },
			isDone: pages === undefined ? 'unknown' : pages === 0 && live > 0,
			...(live === 0 && { missing: words.noPage }),
			...(pages !== undefined && pages > 0 && { missing: missing(pages, live), filter })
		};
	};
	const home = store.working.pages.at(id, '/');
	// A page without a language has the site's first.
	const ofUnknown = { language: site.languages[0] === 'und' ? '-' : 'und', state: 'live' };
	const unspoken = count(ofUnknown);
	const isSpoken = unspoken === 0;
	return [
		{
			id: 'base',
			says: words.base,
			isDone: !isLocalAddress(site.base),
			missing: words.localBase(site.base)
		},
		{
			...{ id: 'home', says: words.home },
			isDone: home !== undefined && publicIn(types)(home)
		},
		{
			id: 'picture',
			says: words.picture,
			isDone: Boolean(site.fields.picture)
		},
		{ id: 'icon', says: words.icon, isDone: Boolean(site.fields.icon ?? site.fields.logo) },
		none('no-picture', words.pictures, words.noPicture),
		none('no-title', words.titles, words.noTitle),
		none('no-description', words.descriptions, words.noDescription),
		none('gap', words.gaps, words.gap),
		none('local-address', words.public, words.local),
		{
			...{ id: 'languages', says: words.languages },
			isDone: isSpoken && all > 0,
			...(!isSpoken && {
				missing: words.unknown(unspoken, live),
				filter: ofUnknown
			})
		},
		{ id: 'keys', says: words.keys, isDone: count({ key: 'yes' }) > 0 },
		inTheSite(store, id, name),
		{ id: 'pasted', says: words.pasted },
		{ id: 'words', says: words.read }
	];
}

/** Whether the heads are in the site, and by which way, as it was looked at last; what was not looked at is not told. */
function inTheSite(store: Store, id: number, name: string): Check {
	const words = launchWords();
	const { made, pages, counts, waiting, ways = {} } = readDrift(store, name);
	const own = { id: 'written', says: words.written };
	if (made === null || pages === 0)
		return {
			...own,
			isDone: false,
			missing: words.nobodyLooked
		};
	if (made < (store.releases.latest(id)?.created ?? ''))
		return {
			...own,
			isDone: false,
			missing: words.releasedSince
		};
	const same = counts.same ?? 0;
	const onWay = Object.entries(ways).map(([way, count]) => words.byWay(way, count));
	const itself = pages - Object.values(ways).reduce((sum, count) => sum + count, 0);
	const how = [...onWay, ...(itself > 0 ? [words.itself(itself)] : [])].join(', ');
	if (same === pages && waiting === 0) return { ...own, says: words.writtenHow(pages, how), isDone: true };
	const rest = [
		...(same < pages ? [words.otherwise(pages - same, pages)] : []),
		...(waiting > 0 ? [words.waiting(waiting)] : [])
	];
	return { ...own, isDone: false, missing: words.whether(rest.join(', ')) };
}
