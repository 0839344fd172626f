import { parseUrl, reasonWords, type DriftWhy, type Habits, type HeadJson, type ServedTag } from '$core';
import type { TracedFetch } from '../fetching/trace';
import { endedAs, isComplete, otherThanPage } from './looked';
import type { ReadOnce } from './readOnce';
import { keptOut, keptOutBy } from './served';

/** How what is served of a page compares with what was released, the worse further on. */
export const DRIFTS = [
	'same',
	'old',
	'doubled',
	'other',
	'missing',
	/** A picture of its card is not where it was released to be. */
	'picture',
	/** Search is told not to list it, though the released head does not say so. */
	'noindex',
	/** It is no page: its type is another, or it is to be downloaded. */
	'no-page',
	/** Its server answers with an error, or leads nowhere, whatever stands in the body. */
	'error',
	'shut-out',
	'unreachable'
] as const;
export type Drift = (typeof DRIFTS)[number];

/** A page as it is told. */
export interface DriftOfPage {
	readonly path: string;
	readonly is: Drift;
	/** The tags that differ, or why it could not be read, in words. */
	readonly more: string;
}

/** The same as data, so that it is told in any language. */
export interface PageDrift {
	readonly path: string;
	readonly is: Drift;
	readonly why?: DriftWhy;
	/** The reader that sees it so, where another does not. */
	readonly by?: string;
	/** What an earlier version kept, in its own words. */
	readonly more?: string;
}

/** In the words of the language that is spoken now. */
export const driftInWords = ({ path, is, why, by, more = '' }: PageDrift): DriftOfPage => ({
	...{ path, is },
	more: why ? reasonWords().drift(why, by) : more
});

/** What one reader, or all, saw of a page. */
export interface DriftSeen extends Omit<PageDrift, 'path'> {
	/** By what its head was written into it on its way, where that said so. */
	readonly way?: HeadWay;
}

/** What writes heads into pages on their way, and says so in `Kephalon-Head`. */
const HEAD_WAYS = ['front', 'middleware'] as const;
export type HeadWay = (typeof HEAD_WAYS)[number];
/** By what a head was written in, as an answer says. */
export const wayIn = (said: string | undefined): HeadWay | undefined => HEAD_WAYS.find((way) => way === said);

/** A head that was released before, and from which release on. */
interface EarlierHead {
	readonly since: number;
	readonly head: HeadJson;
}

interface Comparing {
	readonly read: ReadOnce;
	readonly habits: Habits;
	readonly head: HeadJson | undefined;
	readonly isMissing: boolean;
	readonly earlier: () => readonly EarlierHead[];
}

/** How an answer differs from the head that was released. */
export function driftIn(got: TracedFetch, { read, habits, head, isMissing, earlier }: Comparing): DriftSeen {
	const hop = got.hops.at(-1);
	if (!hop || hop.status === 0) return { is: 'unreachable', why: { is: 'page', why: endedAs(got) } };
	if (!(hop.status >= 200 && hop.status < 300) && !(hop.status === 404 && isMissing))
		return { is: 'error', why: { is: 'page', why: { is: 'answers', status: hop.status } } };
	if (!isComplete(got)) return { is: 'unreachable', why: { is: 'page', why: endedAs(got) } };
	const other = otherThanPage(got);
	if (other !== undefined) return { is: 'no-page', why: { is: 'page', why: { is: 'other', what: other } } };
	const { tags, base } = read(got.body, hop.headers['content-type']).head;
	const under = (base !== undefined && parseUrl(base, hop.address)?.href) || hop.address;
	const taken = tags.flatMap((tag) => takenBy(habits, tag, under) ?? []);
	const drift = compare(head, taken, earlier);
	const hidden = isMissing ? undefined : hiddenFromSearch(head, taken, hop.headers['x-robots-tag'] ?? '');
	return hidden !== undefined && DRIFTS.indexOf(drift.is) < DRIFTS.indexOf('noindex')
		? { is: 'noindex', why: { is: 'says', said: hidden } }
		: drift;
}

/** So much is told of what a page says (UTF-16 code units). */
export const LONGEST_TOLD = 200;

/** What tells search not to list a page whose released head does not say so. */
function hiddenFromSearch(head: HeadJson | undefined, taken: readonly ServedTag[], header: string): string | undefined {
	const isMeant = (head?.tags ?? []).some(({ tag, value }) => tag === 'robots' && keptOut(value));
	if (isMeant) return undefined;
	const inMarkup = taken.find(({ name, value }) => name === 'robots' && keptOut(value));
	if (inMarkup) return `robots: ${inMarkup.value.slice(0, LONGEST_TOLD)}`;
	return keptOutBy(header) ? `X-Robots-Tag: ${header.slice(0, LONGEST_TOLD)}` : undefined;
}

/** A tag as a reader takes it: undefined for one that it does not look at. */
function takenBy({ readsBody, relative }: Habits, served: ServedTag, base: string): ServedTag | undefined {
	if (served.isBelow && !readsBody) return undefined;
	const isAddress = served.tag?.kind === 'address' || served.tag?.kind === 'picture';
	if (!isAddress || /^[a-z][a-z0-9+.-]*:/i.test(served.value)) return served;
	return relative === 'drops' ? undefined : { ...served, value: parseUrl(served.value, base)?.href ?? served.value };
}

/** Values by the names of their tags. */
function byName(tags: readonly { readonly name: string; readonly value: string }[]): Map<string, string[]> {
	const all = new Map<string, string[]>();
	for (const { name, value } of tags) all.set(name, [...(all.get(name) ?? []), value]);
	return all;
}

const namesIn = (head: HeadJson | undefined) =>
	byName((head?.tags ?? []).map(({ tag: name, value }) => ({ name, value })));
const isEqual = (one: readonly string[] = [], other: readonly string[] = []) =>
	one.length === other.length && one.every((value, at) => value === other[at]);

/** By the values of each tag that was released; what else stands in the head is another's business. */
function compare(
	head: HeadJson | undefined,
	served: readonly ServedTag[],
	earlier: () => readonly EarlierHead[]
): DriftSeen {
	const [wanted, there] = [namesIn(head), byName(served)];
	const names = [...wanted.keys()];
	const missing = names.filter((name) => !there.has(name));
	if (names.length > 0 && missing.length === names.length) return { is: 'missing', why: { is: 'none' } };
	const differ = names.filter((name) => !isEqual(there.get(name), wanted.get(name)));
	if (differ.length === 0) return { is: 'same' };
	const old = earlier().find(({ head: before }) => {
		const had = namesIn(before);
		return names.every((name) => isEqual(there.get(name), had.get(name)));
	});
	const told = (is: Drift, names: readonly string[]): DriftSeen => ({ is, why: { is: 'tags', tags: names } });
	if (old) return { is: 'old', why: { is: 'tags', tags: differ, since: old.since } };
	const doubled = differ.filter((name) => (there.get(name)?.length ?? 0) > wanted.get(name)!.length);
	if (doubled.length > 0) return told('doubled', doubled);
	const other = differ.filter((name) => there.has(name));
	return told(missing.length > other.length ? 'missing' : 'other', [...missing, ...other]);
}
