import type { HeadJson } from '$core';
import type { Progress } from '../progress';
import { note as noteTrail } from '../people/note';
import { announce } from '../hooks/announce';
import { authorName } from '../edits/edit';
import { isMuch, refuse } from '../errors';
import type { Release, ReleaseStore } from '../store/releases/releases';
import type { Store } from '../store/store';

/** What differs between two releases on one page: lines of markup, one tag each. */
export interface PageDifference {
	readonly path: string;
	readonly kind: 'changed' | 'added' | 'removed';
	/** Lines that stand only in the first, and only in the second. */
	readonly gone: readonly string[];
	readonly come: readonly string[];
	/** The head in the first and in the second. */
	readonly before: HeadJson | null;
	readonly after: HeadJson | null;
}

/** The pages that differ between two releases, either of which may be the older, and what differs on each, worked out when it is asked for. */
export function differencesBetween(
	store: Store,
	site: number,
	[from, to]: readonly [number, number],
	only?: string
): { readonly count: number; readonly pages: Iterable<PageDifference> } {
	const all = store.releases.between(site, Math.min(from, to), Math.max(from, to));
	const meant = only === undefined ? all : all.filter(({ path }) => path === only);
	const isBack = from > to;
	const pages = function* () {
		for (const { path, before, after } of meant)
			yield isBack
				? differenceOf(store.releases, path, after, before)
				: differenceOf(store.releases, path, before, after);
	};
	return { count: meant.length, pages: pages() };
}

function differenceOf(
	releases: ReleaseStore,
	path: string,
	before: string | null,
	after: string | null
): PageDifference {
	const [first, second] = [headAt(releases, before), headAt(releases, after)];
	const [was, is] = [linesOf(first), linesOf(second)];
	return {
		path,
		kind: before === null ? 'added' : after === null ? 'removed' : 'changed',
		gone: was.filter((line) => !is.includes(line)),
		come: is.filter((line) => !was.includes(line)),
		before: jsonOf(first),
		after: jsonOf(second)
	};
}

type KeptHead = { readonly html: string; readonly json: string } | undefined;
const headAt = (releases: ReleaseStore, hash: string | null): KeptHead =>
	hash === null ? undefined : releases.byHash(hash);
const linesOf = (head: KeptHead): string[] => (head?.html ?? '').split('\n').filter(Boolean);
const jsonOf = (head: KeptHead): HeadJson | null => (head ? (JSON.parse(head.json) as HeadJson) : null);

/** Throws a `UserError` that says which releases there are, when one of these is none. */
export function refuseReleases(store: Store, site: number, numbers: readonly number[]) {
	const all = new Set(store.releases.history(site, Number.MAX_SAFE_INTEGER).map(({ number }) => number));
	const wrong = numbers.find((number) => !all.has(number));
	if (wrong === undefined) return;
	const known = [...all].sort((a, b) => a - b);
	throw refuse('release-missing', { release: wrong, first: known[0], last: known.at(-1) });
}

/** Makes a release of an old one's heads: what visitors see is as it was then, and the working copy stays as it is. */
export function goBack(
	store: Store,
	name: string,
	to: number,
	{
		note,
		removes,
		progress
	}: {
		readonly note?: string | undefined;
		readonly removes?: number | undefined;
		readonly progress?: Progress;
	} = {}
): Release {
	const { id, revision, site } = store.working.sites.named(name);
	const latest = store.releases.latest(id);
	const gone = latest
		? store.releases.between(id, to, latest.number).filter(({ before }) => before === null).length
		: 0;
	if (latest && isMuch(gone, latest.pages) && removes !== gone)
		throw refuse('going-back-removes', { removes: gone, all: latest.pages });
	const created = new Date().toISOString();
	const author = authorName();
	const made = store.releases.goBack(
		{
			...{ site: id, revision, created, author, note: note ?? `Back to release ${to}` },
			kept: (release) => {
				noteTrail(store, 'rolled-back', { number: release.number, to }, site.name);
				announce(store, { id, name }, 'release.made', {
					number: release.number,
					pages: release.pages,
					by: author,
					backTo: to
				});
				store.releases.ruledAs(release.id, id, to);
			}
		},
		to,
		progress
	);
	if (site.keepReleases !== undefined) store.releases.prune(id, site.keepReleases);
	return made;
}
