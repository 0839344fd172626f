import { error, redirect } from '@sveltejs/kit';
import type { Store } from '$server/store/store';
import { refuse, UserError } from '$server/errors';
import { sentenceOf } from '$server/http/problem';
import { readBenchData } from '$server/web/benchData';
import { standInFor } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** The bench at a page, `?page=`, or, by `?type=`, at the first of a type. What of it is in view, the browser reads in the address itself. A page that has moved is found by its old path. */
export const load: PageServerLoad = ({ locals, params, url }) => {
	try {
		const store = locals.store;
		const wanted = url.searchParams.get('page');
		const type = url.searchParams.get('type');
		if (wanted === null && type !== null) redirect(307, atFirstOf(store, params.site, type, url));
		let data = readBenchData(store, params.site, wanted);
		const moved =
			!data.page && wanted !== null
				? store.working.redirects.of(store.working.sites.named(params.site).id, wanted)
				: undefined;
		if (moved !== undefined) data = readBenchData(store, params.site, moved);
		if (!data.page)
			error(404, {
				message: sentenceOf(
					data.path === undefined
						? refuse('site-empty', { site: params.site })
						: refuse('page-missing', { path: data.path })
				),
				site: params.site,
				isEmpty: data.path === undefined
			});
		return {
			...data,
			standIn: standInFor(locals.store, params.site) ?? null
		};
	} catch (problem) {
		if (problem instanceof UserError) error(404, sentenceOf(problem));
		throw problem;
	}
};

/** The same place at the first page of a type; at the first of all where it has none. */
function atFirstOf(store: Store, name: string, type: string, { pathname, searchParams }: URL): string {
	const { id, site } = store.working.sites.named(name);
	const page = store.table.listing.firstOf(id, type, site.languages[0] ?? '') ?? store.table.listing.first(id);
	const query = new URLSearchParams(searchParams);
	query.delete('type');
	if (page !== undefined) query.set('page', page);
	return `${pathname}?${query}`;
}
