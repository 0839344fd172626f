import type { Page } from '$core';
import { notFound, UserError } from '../errors';
import type { Store, StoredSite } from '../store/store';
import { makeEdit, type Made, type Origin } from './edit';

/** What can be done to whole pages. */
export type PageAction =
	| { readonly do: 'add'; readonly path: string; readonly type: string; readonly title: string }
	/** With its rules and fields, as a draft. */
	| { readonly do: 'copy'; readonly path: string; readonly to: string }
	| { readonly do: 'remove'; readonly path: string }
	/** Changes places with the page at `/`. */
	| { readonly do: 'home'; readonly path: string };

const ACTIONS = ['add', 'copy', 'remove', 'home'];

/** An action as a request gives it. Throws a `UserError`. */
export function readPageAction(data: unknown): PageAction {
	const action = data as Record<string, unknown> | null;
	if (!action || !ACTIONS.includes(String(action.do)))
		throw new UserError(`The action cannot be read: "do" is one of ${ACTIONS.join(', ')}.`);
	const wanted = action.do === 'add' ? ['path', 'type', 'title'] : action.do === 'copy' ? ['path', 'to'] : ['path'];
	for (const key of wanted)
		if (typeof action[key] !== 'string' || action[key] === '')
			throw new UserError(`The action cannot be read: "${key}" is missing.`);
	for (const key of ['path', 'to'])
		if (typeof action[key] === 'string' && !action[key].startsWith('/'))
			throw new UserError(`The path "${action[key]}" does not begin with a slash.`);
	return data as PageAction;
}

/** Does it; gives the path of the page to look at then. */
export function actOnPage(store: Store, name: string, action: PageAction, origin: Origin): Made<string> {
	return makeEdit(store, name, { origin, kind: 'page', what: action }, ({ id, types }) => {
		switch (action.do) {
			case 'add': {
				refuseTaken(store, id, action.path);
				if (!types.some((type) => type.name === action.type))
					throw notFound(`There is no type "${action.type}" in this site.`);
				const { path, type, title } = action;
				store.savePage(id, { path, type, state: 'draft', fields: { title }, rules: [] });
				return path;
			}
			case 'copy':
				refuseTaken(store, id, action.to);
				store.savePage(id, { ...pageAt(store, id, action.path), path: action.to, state: 'draft' });
				return action.to;
			case 'remove':
				store.removePage(id, action.path);
				return '/';
			case 'home':
				return makeHome(store, { id, types }, pageAt(store, id, action.path));
		}
	});
}

function pageAt(store: Store, site: number, path: string): Page {
	const page = store.page(site, path);
	if (page) return page;
	throw notFound(`There is no page "${path}" in this site.`);
}

function refuseTaken(store: Store, site: number, path: string) {
	if (store.page(site, path)) throw new UserError(`There is a page at ${path} already. Choose another path.`);
}

/** The page comes to stand at `/`, as the type for the home page where the site has one; what was there takes its place. */
function makeHome(store: Store, { id, types }: Pick<StoredSite, 'id' | 'types'>, page: Page): string {
	if (page.path === '/') return '/';
	const before = store.page(id, '/');
	const home = types.find((type) => type.special === 'home')?.name ?? page.type;
	store.removePage(id, page.path);
	if (before) {
		store.removePage(id, '/');
		store.savePage(id, { ...before, path: page.path, type: page.type });
	}
	store.savePage(id, { ...page, path: '/', type: home });
	if (!before) store.saveRedirects(id, { ...store.redirects(id), [page.path]: '/' });
	return '/';
}
