import { cardOf, isLocalAddress, ownOf, publicIn, READERS, type Card } from '$core';
import { readCounted, stampOf } from '../findings/counted';
import { workingResolver } from '../heads/heads';
import type { RecordedEdit } from '../store/record/record';
import { readDrift } from '../probes/drift';
import { countGrid } from '../store/table/grid';
import type { Release } from '../store/releases/releases';
import type { Store, StoredSite } from '../store/store';
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
	const count = (filter: Readonly<Record<string, string>>) => countGrid(store.db, id, filter);
	const counted = readCounted(store, id);
	const { all, live } = store.working.pages.count(id);
	// What is said of all pages holds when all were looked at, and counted as they stand now.
	const isNow = counted?.stamp === stampOf(store, id, revision) && store.state.countStale(id) === 0;
	const none = (code: string, says: string, missing: (pages: string) => string): Check => {
		const filter = { finding: code, state: 'live' };
		const pages = isNow ? (ownOf(counted.kinds, code) ?? 0) : undefined;
		return {
			...{ id: code, says },
			isDone: pages === undefined ? 'unknown' : pages === 0 && live > 0,
			...(live === 0 && { missing: 'There is no public page yet' }),
			...(pages !== undefined && pages > 0 && { missing: missing(inWords(pages, live)), filter })
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
			says: 'The address is one that the public can reach',
			isDone: !isLocalAddress(site.base),
			missing: `${site.base} is one that only this machine or a network of its own can reach`
		},
		{
			...{ id: 'home', says: 'There is a home page, and it is live' },
			isDone: home !== undefined && publicIn(types)(home)
		},
		{
			id: 'picture',
			says: 'The site has a share picture for pages that have none',
			isDone: Boolean(site.fields.picture)
		},
		{ id: 'icon', says: 'The site has an icon', isDone: Boolean(site.fields.icon ?? site.fields.logo) },
		none('no-picture', 'Every page has a picture', (pages) => `${pages} no picture`),
		none('no-title', 'Every page has a title', (pages) => `${pages} no title`),
		none('no-description', 'Every page has a description', (pages) => `${pages} no description`),
		none(
			'gap',
			'No text has a gap where a variable was empty',
			(pages) => `${pages} a text with a gap where a variable was empty`
		),
		none(
			'local-address',
			'No page says that it stands at a local address',
			(pages) => `${pages} an address that only this machine or its network can reach`
		),
		{
			...{ id: 'languages', says: 'The language of every page is known' },
			isDone: isSpoken && all > 0,
			...(!isSpoken && {
				missing: `That of ${inWords(unspoken, live, '')} is not`,
				filter: ofUnknown
			})
		},
		{ id: 'keys', says: 'The pages that matter most are marked as key pages', isDone: count({ key: 'yes' }) > 0 },
		inTheSite(store, id, name),
		{ id: 'pasted', says: 'The most important addresses were pasted where they will be shared, and looked right' },
		{ id: 'words', says: 'Somebody else has read the titles and descriptions of the key pages' }
	];
}

/** Whether the heads are in the site, and by which way, as it was looked at last; what was not looked at is not told. */
function inTheSite(store: Store, id: number, name: string): Check {
	const { made, pages, counts, waiting, ways = {} } = readDrift(store, name);
	const own = { id: 'written', says: 'The heads are in the site' };
	if (made === null || pages === 0)
		return {
			...own,
			isDone: false,
			missing: 'Nobody has looked yet whether the heads are in the site: see “What is served” below'
		};
	if (made < (store.releases.latest(id)?.created ?? ''))
		return {
			...own,
			isDone: false,
			missing: 'Something was released since somebody looked whether the heads are in the site'
		};
	const same = counts.same ?? 0;
	const onWay = Object.entries(ways).map(([way, count]) => `by the ${way} on ${count.toLocaleString('en')}`);
	const itself = pages - Object.values(ways).reduce((sum, count) => sum + count, 0);
	const how = [...onWay, ...(itself > 0 ? [`in the page itself on ${itself.toLocaleString('en')}`] : [])].join(', ');
	const looked = `${pages.toLocaleString('en')} ${pages === 1 ? 'page' : 'pages'} looked at`;
	if (same === pages && waiting === 0)
		return { ...own, says: `The heads are in the site (${looked}: ${how})`, isDone: true };
	const rest = [
		...(same < pages ? [`${(pages - same).toLocaleString('en')} of ${looked} are not served as released`] : []),
		...(waiting > 0 ? [`${waiting.toLocaleString('en')} are yet to be looked at`] : [])
	];
	return { ...own, isDone: false, missing: `Whether the heads are in the site: ${rest.join(', ')}` };
}

/** So many of all pages, with a verb behind. */
function inWords(pages: number, all: number, verb?: string): string {
	const number =
		pages === all ? (all === 1 ? 'The one page' : `All ${all.toLocaleString('en')} pages`) : pages.toLocaleString('en');
	const have = verb ?? (pages === 1 ? ' has' : ' have');
	return pages === all ? number + have : `${number} of ${all.toLocaleString('en')} pages${have}`;
}
