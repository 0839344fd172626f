import { standInFor } from '$server/web/working';
import { found } from '$server/web/roomData';
import { readGrid } from '$server/web/grid';
import type { PageServerLoad } from './$types';

/** The table of all pages, with its first rows as the address asks for them. */
export const load: PageServerLoad = ({ locals, params, url }) =>
	found(() => {
		const store = locals.store;
		const { id, site, types } = store.site(params.site);
		const query = new URLSearchParams(url.searchParams);
		query.set('count', '1');
		query.set('limit', '60');
		return {
			site: { name: site.name, base: site.base, languages: site.languages },
			types: types.map(({ name, label }) => ({ name, label: label ?? name })),
			filters: store.filters.all(id),
			findings: store.state.codes(id),
			standIn: standInFor(store, params.site) ?? null,
			first: readGrid(store, params.site, query)
		};
	});
