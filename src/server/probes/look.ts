import {
	describeFinding,
	headToJson,
	normaliseBase,
	parseUrl,
	type Card,
	type Finding,
	type HeadJson,
	type ServedTag
} from '$core';
import { refuse } from '../errors';
import { TracingFetcher, type Via } from '../fetching/trace';
import { workingResolver } from '../heads/heads';
import { looker } from '../people/note';
import { patiently } from '../store/opening/patiently';
import type { Store } from '../store/store';
import { probe, type Probe } from './probe';

/** One tag in three places that are called the same: as written, as released, as served. */
export interface ThreeWay {
	readonly tag: string;
	readonly written: string;
	readonly released: string;
	readonly served: string;
	/** Lines of the page that it is served in. */
	readonly lines: readonly number[];
	readonly is: 'same' | 'not-released' | 'differs' | 'missing' | 'doubled' | 'unknown';
}

/** An address as it was looked at now, and what changed since the last look. */
export interface ProbeLook {
	readonly probe: Probe;
	/** The page of the site that stands there; undefined for none. */
	readonly path: string | undefined;
	readonly threeWay: readonly ThreeWay[];
	/** When it was looked at before, by whom where there are people, and what came and went of its findings and tags since. */
	readonly before: readonly { readonly made: string; readonly findings: number; readonly by?: string }[];
	/** Findings, and tags as `name: value`; findings of a look that an older version kept are sentences. */
	readonly came: readonly (Finding | string)[];
	readonly went: readonly (Finding | string)[];
	/** Cards that were another at the last look, as they were then. */
	readonly cardsBefore: readonly CardBefore[];
}

/** What a reader showed at an earlier look; without `shows` it had no card. */
interface CardBefore {
	readonly reader: string;
	readonly shows?: { readonly title: string; readonly description: string; readonly picture: string };
}
const shownOf = ({ title, description, picture }: Card) => ({
	title: title.shown.slice(0, LONGEST_KEPT),
	description: description.shown.slice(0, LONGEST_KEPT),
	picture: (picture?.address ?? '').slice(0, LONGEST_KEPT)
});

/** An address as it was pasted, as the web has it: a host that ends in a dot is the same without. Undefined for none. */
function publicOf(pasted: string): string | undefined {
	const url = /^https?:\/\//i.test(pasted) ? parseUrl(pasted) : undefined;
	if (!url) return undefined;
	if (url.hostname.endsWith('.')) url.hostname = url.hostname.slice(0, -1);
	url.hash = '';
	return url.href;
}

/** What is written behind a link on its way, to count by. */
const PASSED_ON = /^utm_\w+$/i;

/**
 * The page of the site that an address means: the one at that address, else without what was written behind it on its way,
 * else without anything behind it. Undefined for an address of another site; for one that has no page, its path as it is.
 */
function pathUnder(base: string, address: string, isPage: (path: string) => boolean): string | undefined {
	const [site, url] = [parseUrl(base)!, parseUrl(address)!];
	const folder = site.pathname;
	if (url.origin !== site.origin || !url.pathname.startsWith(folder)) return undefined;
	const path = `/${url.pathname.slice(folder.length)}`;
	const shorter = new URLSearchParams([...url.searchParams].filter(([name]) => !PASSED_ON.test(name))).toString();
	const forms = [path + url.search, path + (shorter === '' ? '' : `?${shorter}`), path];
	return [...forms, ...forms.map(readable)].find(isPage) ?? path + url.search;
}
/** A path as it is written where letters beyond ASCII are. */
function readable(path: string): string {
	try {
		return decodeURI(path);
	} catch {
		return path;
	}
}

/** Looks at an address, or at a page of the site by its path; keeps what was seen. Throws a `UserError`. */
export async function lookAt(store: Store, name: string, wanted: string, via: Via | undefined): Promise<ProbeLook> {
	const stored = store.working.sites.named(name);
	const base = normaliseBase(stored.site.base);
	if (!base) throw refuse('probe-needs-base');
	const address = wanted.startsWith('/') ? base + wanted.slice(1) : publicOf(wanted.trim());
	if (address === undefined) throw refuse('probe-address-broken', { address: wanted });
	const path = pathUnder(base, address, (one) => store.working.pages.has(stored.id, one));
	if (wanted.startsWith('/') && !store.working.pages.has(stored.id, wanted))
		throw refuse('page-missing', { path: wanted });
	const { origin } = parseUrl(base)!;
	const fetcher = new TracingFetcher(new Set(), via && parseUrl(address)?.origin === origin ? { ...via, origin } : []);
	try {
		const seen = await probe(fetcher, address);
		const earlier = store.state.looks.of<Kept>(stored.id, address);
		const kept: Kept = {
			findings: seen.findings.slice(0, MOST_KEPT),
			tags: seen.tags.slice(0, MOST_KEPT).map(({ name: tag, value }) => `${tag}: ${value}`.slice(0, LONGEST_KEPT)),
			cards: seen.readers.map(({ reader, card }) => ({ reader, ...(card && { shows: shownOf(card) }) })),
			...looker()
		};
		await patiently(() => store.transaction(() => store.state.looks.add(stored.id, address, seen.made, kept)));
		const last = earlier[0]?.result;
		const [now, then] = [sayingsOf(kept), sayingsOf(last)];
		return {
			...{ probe: seen, path: path !== undefined && store.working.pages.has(stored.id, path) ? path : undefined },
			threeWay: path === undefined ? [] : compare(store, name, path, seen.tags),
			before: earlier.map(({ made, result: { findings, by } }) => ({
				made,
				findings: findings.length,
				...(by && { by })
			})),
			came: last ? [...now].flatMap(([says, one]) => (then.has(says) ? [] : one)) : [],
			went: last ? [...then].flatMap(([says, one]) => (now.has(says) ? [] : one)) : [],
			cardsBefore: (last?.cards ?? []).filter(({ reader, shows }) => {
				const now = kept.cards?.find((one) => one.reader === reader);
				return JSON.stringify(shows) !== JSON.stringify(now?.shows);
			})
		};
	} finally {
		await fetcher.close();
	}
}

/** So many findings and tags of a look are kept, each so long (UTF-16 code units): what changed is told from them. */
const MOST_KEPT = 300;
const LONGEST_KEPT = 500;

interface Kept {
	/** An older version kept sentences. */
	readonly findings: readonly (Finding | string)[];
	readonly tags: readonly string[];
	/** An earlier version kept none. */
	readonly cards?: readonly CardBefore[];
	/** Who looked, where there are people. */
	readonly by?: string;
}

/** What a look found and read, by its sentence, as older versions kept it. */
const sayingsOf = ({ findings, tags }: Pick<Kept, 'findings' | 'tags'> = { findings: [], tags: [] }) =>
	new Map(
		[...findings, ...tags].map((one) => [
			typeof one === 'string' ? one : describeFinding(one).slice(0, LONGEST_KEPT),
			one
		])
	);

function compare(store: Store, name: string, path: string, served: readonly ServedTag[]): ThreeWay[] {
	const stored = store.working.sites.named(name);
	const page = store.working.pages.at(stored.id, path);
	const written = page
		? valuesOf(headToJson(workingResolver(store, stored).resolveHead(page)))
		: new Map<string, string>();
	const released = store.releases.head(stored.id, { path });
	const before = released ? valuesOf(JSON.parse(released.json) as HeadJson) : new Map<string, string>();
	const found = new Map<string, ServedTag[]>();
	for (const one of served) found.set(one.name, [...(found.get(one.name) ?? []), one]);
	return [...new Set([...written.keys(), ...before.keys(), ...found.keys()])].map((tag): ThreeWay => {
		const [mine, out, there] = [written.get(tag) ?? '', before.get(tag) ?? '', found.get(tag) ?? []];
		const values = there.map(({ value }) => value).join(' · ');
		return {
			...{ tag, written: mine, released: out, served: values, lines: there.map(({ line }) => line) },
			is: judge(mine, out, there, written.has(tag) || before.has(tag))
		};
	});
}

function judge(written: string, released: string, there: readonly ServedTag[], isOurs: boolean): ThreeWay['is'] {
	if (!isOurs) return 'unknown';
	const values = there.map(({ value }) => value).join(' · ');
	if (there.length === 0) return released === '' ? (written === '' ? 'same' : 'not-released') : 'missing';
	if (values === released) return written === released ? 'same' : 'not-released';
	const [first] = there;
	if (there.length > 1 && first?.tag && !first.tag.repeated && first.tag.parent === undefined) return 'doubled';
	return 'differs';
}

/** Each tag of a head with its value; those of one that is repeated joined. */
function valuesOf({ tags }: HeadJson): Map<string, string> {
	const values = new Map<string, string>();
	for (const { tag, value } of tags) values.set(tag, values.has(tag) ? `${values.get(tag)} · ${value}` : value);
	return values;
}
