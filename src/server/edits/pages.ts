import { isLanguageTag, type ContentType, type Page, ownOf, hiddenIn } from '$core';
import { refuse, type UserError } from '../errors';
import type { Store, StoredSite } from '../store/store';
import { makeEdit, type Made, type Origin } from './edit';

/** What can be done to whole pages. */
export type PageAction =
	/** A draft; as a version of another page in its language where `versionOf` names one. */
	| {
			readonly do: 'add';
			readonly path: string;
			readonly type: string;
			readonly title: string;
			readonly language?: string;
			readonly versionOf?: string;
	  }
	/** With its rules and fields, as a draft. */
	| { readonly do: 'copy'; readonly path: string; readonly to: string }
	/** What leads to it leads to `to` from then on, and so does its path; without `to` it leads nowhere. */
	| { readonly do: 'remove'; readonly path: string; readonly to?: string }
	/** The two name each other as versions in their languages; to one language of a page goes one version. */
	| { readonly do: 'link' | 'unlink'; readonly path: string; readonly to: string }
	/** What was at a path once leads nowhere from now on. */
	| { readonly do: 'forget'; readonly path: string }
	/** Changes places with the page at `/`. */
	| { readonly do: 'home'; readonly path: string };

const NEEDS: Readonly<Record<PageAction['do'], readonly string[]>> = {
	add: ['path', 'type', 'title'],
	copy: ['path', 'to'],
	remove: ['path'],
	link: ['path', 'to'],
	unlink: ['path', 'to'],
	forget: ['path'],
	home: ['path']
};
const PATHS = ['path', 'to', 'versionOf'] as const;

const asText = (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value));

/** An action as a request gives it. Throws a `UserError`. */
export function readPageAction(data: unknown): PageAction {
	const action = data as Record<string, unknown> | null;
	if (!action || !Object.hasOwn(NEEDS, String(action.do))) throw refuse('action-what', { known: Object.keys(NEEDS) });
	for (const key of NEEDS[action.do as PageAction['do']])
		if (typeof ownOf(action, key) !== 'string' || ownOf(action, key) === '') throw refuse('action-needs', { key });
	for (const key of PATHS)
		if (action[key] !== undefined && (typeof action[key] !== 'string' || !/^\/[^\s?#]*$/.test(action[key])))
			throw refuse('path-broken', { path: asText(action[key]) });
	if (action.language !== undefined && !isLanguageTag(asText(action.language)))
		throw refuse('language-broken', { language: asText(action.language) });
	return data as PageAction;
}

/** Does it; gives the path of the page to look at then. */
export const actOnPage = (store: Store, name: string, action: PageAction, origin: Origin): Made<string> =>
	makeEdit(store, name, { origin, kind: 'page', what: action }, (site) => perform(store, site, action));

/** Does several of them as one edit. */
export const actOnPages = (store: Store, name: string, actions: readonly PageAction[], origin: Origin): Made<string> =>
	makeEdit(store, name, { origin, kind: 'page', what: { do: 'many', count: actions.length } }, (site) => {
		for (const action of actions) perform(store, site, action);
		return actions[0]?.path ?? '/';
	});

function perform(store: Store, site: StoredSite, action: PageAction): string {
	const { id } = site;
	switch (action.do) {
		case 'add':
			return add(store, site, action);
		case 'copy': {
			refuseTaken(store, id, action.to);
			// A copy is a version of nothing: two pages of one language would answer for it.
			const { alternates: _versions, key: _key, ...page } = pageAt(store, id, action.path);
			store.working.pages.save(id, { ...page, path: action.to, state: 'draft' });
			return action.to;
		}
		case 'remove':
			return takeAway(store, site, action);
		case 'link':
		case 'unlink':
			return link(store, site, action);
		case 'forget':
			store.working.redirects.drop(id, action.path);
			return '/';
		case 'home':
			return makeHome(store, site, pageAt(store, id, action.path));
	}
}

function pageAt(store: Store, site: number, path: string): Page {
	const page = store.working.pages.at(site, path);
	if (page) return page;
	throw refuse('page-missing', { path });
}

function refuseTaken(store: Store, site: number, path: string) {
	if (store.working.pages.at(site, path)) throw refuse('path-taken', { path });
}

/** The refusal of a page that cannot stand at `/`, since nobody would see it there; undefined when it can. */
export function refusalOfHome({ path, ...page }: Pick<Page, 'path' | 'state' | 'type'>, types: readonly ContentType[]) {
	const hidden = hiddenIn(types)(page);
	return hidden && refuse('home-hidden', { path, hidden, contentType: page.type });
}

function add(store: Store, site: StoredSite, action: Extract<PageAction, { do: 'add' }>): string {
	const { path, type, title, language, versionOf } = action;
	refuseTaken(store, site.id, path);
	if (!site.types.some((one) => one.name === type)) throw refuse('type-missing', { contentType: type });
	const original = versionOf === undefined ? undefined : pageAt(store, site.id, versionOf);
	const own = language ?? site.site.languages[0] ?? 'und';
	if (original && languageOfPage(original, site) === own)
		throw refuse('version-language-same', { path: original.path, language: own });
	store.working.pages.save(site.id, {
		...{ path, type, state: 'draft', rules: [] },
		...(language && { language }),
		fields: { title, ...(original?.fields.picture !== undefined && { picture: original.fields.picture }) },
		held: ['title'],
		// The original names it once it is live: until then it would lead its readers nowhere.
		...(original && { alternates: { [languageOfPage(original, site)]: original.path } })
	});
	if (store.working.redirects.of(site.id, path) !== undefined) store.working.redirects.drop(site.id, path);
	return path;
}

const languageOfPage = (page: Pick<Page, 'language'>, { site }: Pick<StoredSite, 'site'>): string =>
	page.language ?? site.languages[0] ?? 'und';

/** Takes a page away; what leads to it leads to another from then on, where one is named. Gives the path to look at then. */
export function takeAway(
	store: Store,
	{ id }: StoredSite,
	{ path, to }: { readonly path: string; readonly to?: string }
): string {
	const page = pageAt(store, id, path);
	if (to === path) throw refuse('leads-to-itself');
	if (to !== undefined) pageAt(store, id, to);
	for (const other of store.working.pages.naming(id, path))
		if (other.path !== path) store.working.pages.save(id, withoutVersion(other, path));
	store.working.pages.remove(id, page.path);
	store.working.redirects.leadOn(id, path, to);
	return to ?? store.table.listing.first(id) ?? '/';
}

function withoutVersion(page: Page, path: string): Page {
	const { alternates, ...rest } = page;
	const others = Object.entries(alternates ?? {}).filter(([, one]) => one !== path);
	return others.length > 0 ? { ...rest, alternates: Object.fromEntries(others) } : rest;
}

/** The refusal of a page as a version of another; undefined when it can be one. */
export function refusalOfVersion(
	page: Page,
	other: Page | undefined,
	path: string,
	types: readonly ContentType[]
): UserError | undefined {
	if (path === page.path) return refuse('version-itself');
	if (!other) return refuse('version-missing', { path });
	const hidden = hiddenIn(types)(other);
	return hidden && refuse('version-hidden', { path, hidden, contentType: other.type });
}

function link(store: Store, site: StoredSite, action: Extract<PageAction, { do: 'link' | 'unlink' }>): string {
	const [page, other] = [pageAt(store, site.id, action.path), store.working.pages.at(site.id, action.to)];
	if (action.do === 'unlink') {
		store.working.pages.save(site.id, withoutVersion(page, action.to));
		if (other) store.working.pages.save(site.id, withoutVersion(other, action.path));
		return page.path;
	}
	const refusal = refusalOfVersion(page, other, action.to, site.types);
	if (refusal || !other) throw refusal ?? refuse('version-missing', { path: action.to });
	const [mine, its] = [languageOfPage(page, site), languageOfPage(other, site)];
	if (mine === its) throw refuse('versions-language-same', { language: mine });
	refuseSecond(page, its, other.path);
	refuseSecond(other, mine, page.path);
	store.working.pages.save(site.id, { ...page, alternates: { ...page.alternates, [its]: other.path } });
	store.working.pages.save(site.id, { ...other, alternates: { ...other.alternates, [mine]: page.path } });
	return page.path;
}

/** A page has one version in a language: another one is not put in its place unasked. */
function refuseSecond(page: Page, language: string, path: string) {
	const known = ownOf(page.alternates, language);
	if (known !== undefined && known !== path) throw refuse('version-taken', { path: page.path, other: known, language });
}

/** The page comes to stand at `/`, as the type for the home page where the site has one; what was there takes its place. */
function makeHome(store: Store, { id, types }: Pick<StoredSite, 'id' | 'types'>, page: Page): string {
	if (page.path === '/') return '/';
	const before = store.working.pages.at(id, '/');
	const home = types.find((type) => type.special === 'home')?.name ?? page.type;
	const refusal = refusalOfHome({ ...page, type: home }, types);
	if (refusal) throw refusal;
	store.working.pages.remove(id, page.path);
	if (before) {
		store.working.pages.remove(id, '/');
		store.working.pages.save(id, { ...before, path: page.path, type: page.type });
	}
	store.working.pages.save(id, { ...page, path: '/', type: home });
	if (!before) store.working.redirects.replace(id, { ...store.working.redirects.all(id), [page.path]: '/' });
	return '/';
}
