import { inArea, isWhole, mayDo, roleAt, rolesWith, type Actor, type PageArea, type Right } from '$core';
import { refuse } from '../errors';
import type { NotedRow } from '../store/record/record';
import type { Store, StoredSite } from '../store/store';
import { actor } from './acting';

/** So many of those who may are named. */
const NAMED = 5;

/** Who has a right at a site, in a sentence. */
function whoMay(store: Store, site: string, right: Right): string {
	const stored = store.working.sites.find(site);
	const roles: readonly string[] = rolesWith(right, stored?.site.editorsRelease);
	const at = stored ? store.people.rolesAt(stored.id) : [];
	const owners = store.people.all().filter(({ isOwner, isLocked }) => isOwner && !isLocked);
	const people = [
		...owners.map(({ name }) => `${name} (owner)`),
		...at
			.filter(
				({ role, isLocked, name }) => roles.includes(role) && !isLocked && !owners.some((one) => one.name === name)
			)
			.map(({ name, role }) => `${name} (${role})`)
	];
	if (people.length === 0) return 'Nobody may at the moment.';
	const more = people.length > NAMED ? ` and ${people.length - NAMED} more` : '';
	return `${people.slice(0, NAMED).join(', ')}${more} may.`;
}

const DOES: Readonly<Record<Right, string>> = {
	read: 'look',
	edit: 'change pages',
	build: 'change the site, types and templates',
	probe: 'look as readers do',
	release: 'release',
	own: 'see to people and keys'
};

/** Refuses who has no right at a site. Throws a `UserError`. */
export function refuseWithout(store: Store, who: Actor, right: Right, site: StoredSite) {
	if (mayDo(who, right, site.site.name, site.site.editorsRelease)) return;
	if (who.kind === 'nobody') throw refuse('not-signed-in');
	throw refuse('not-allowed', { what: DOES[right], site: site.site.name, who: whoMay(store, site.site.name, right) });
}

/** What someone may change at a site: everything, pages in an area, or nothing. */
interface Reach {
	readonly area: PageArea;
	readonly mayBuild: boolean;
}
function reachOf(who: Actor, site: string): Reach | undefined {
	if (who.kind === 'key') return mayDo(who, 'edit', site) ? { area: {}, mayBuild: false } : undefined;
	const at = roleAt(who, site);
	if (!at || !mayDo(who, 'edit', site)) return undefined;
	return { area: at.area, mayBuild: mayDo(who, 'build', site) && isWhole(at.area) };
}

/**
 * Looks at the rows that an edit changed, after one of them, and refuses what whoever made it may not: pages outside of their
 * area, and the site, its types and their rules. Gives the last row that was looked at. It is asked by every edit, whichever way
 * it comes: in its transaction, before anybody sees it.
 */
export function refuseBeyond(store: Store, { site }: StoredSite, edit: number, after = 0): number {
	const who = actor();
	const reach = reachOf(who, site.name);
	// Most may change all there is.
	if (reach?.mayBuild) return after;
	const first = site.languages[0] ?? 'und';
	const outside = new Set<string>();
	let last = after;
	for (const row of store.record.noted(edit, after)) {
		last = row.id;
		if (!reach) throw refuse('beyond-role', { what: 'this site', who: whoMay(store, site.name, 'edit') });
		if (!row.isOfPage && BUILT.has(row.place))
			throw refuse('beyond-role', { what: BUILT.get(row.place) as string, who: whoMay(store, site.name, 'build') });
		for (const page of pagesOf(row)) if (!inArea(reach.area, page, first)) outside.add(page.path);
	}
	const [one] = outside;
	if (one !== undefined)
		throw refuse('beyond-area', { pages: outside.size, first: one, who: whoMay(store, site.name, 'build') });
	return last;
}

/** How many of some pages whoever asks may not change: what they are told before they try. */
export function countBeyond(store: Store, { id, site }: StoredSite, paths: readonly string[]): number {
	const reach = reachOf(actor(), site.name);
	if (!reach) return paths.length;
	const { area } = reach;
	if (isWhole(area)) return 0;
	const first = site.languages[0] ?? 'und';
	let count = 0;
	for (const page of store.working.pages.placesOf(id, paths)) if (!inArea(area, page, first)) count++;
	return count;
}

/** Refuses a release that goes beyond an area: who has one releases pages that lie in it, by their paths. */
export function refuseReleaseBeyond(store: Store, { id, site }: StoredSite, only: readonly string[] | undefined) {
	const at = roleAt(actor(), site.name);
	if (!at || isWhole(at.area)) return;
	const first = site.languages[0] ?? 'und';
	const all = only ?? store.state.differing(id, 1).paths;
	const outside = all.filter((path) => {
		const page = store.working.pages.at(id, path);
		return only === undefined || !page || !inArea(at.area, page, first);
	});
	const [one] = outside;
	if (one !== undefined || only === undefined)
		throw refuse('release-beyond-area', { first: one ?? '/', who: whoMay(store, site.name, 'build') });
}

/** What only builders change, in words. */
const BUILT: ReadonlyMap<string, string> = new Map([
	['site', 'what is set for the whole site'],
	['content_type', 'a content type'],
	['rule', 'a template of a type or the site']
]);

/** The page of a row as it stands and as it was: neither may lie outside. */
function pagesOf({ path, type, language, beforePath, beforeType, beforeLanguage, place }: NotedRow) {
	const page = (at: string | null, its: string | null, own: string | null) =>
		at === null || its === null ? [] : [{ path: at, type: its, ...(own !== null && { language: own }) }];
	return [...page(path, type, language), ...(place === 'page' ? page(beforePath, beforeType, beforeLanguage) : [])];
}
