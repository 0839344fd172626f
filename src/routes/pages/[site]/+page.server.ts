import { standInFor } from '$server/web/working';
import { found } from '$server/web/roomData';
import type { PageServerLoad } from './$types';

/** What the table of all pages stands among; its rows are asked for by the room. */
export const load: PageServerLoad = ({ locals, params }) =>
	found(() => {
		const store = locals.store;
		const { id, site, types } = store.working.sites.named(params.site);
		return {
			site: { name: site.name, base: site.base, languages: site.languages },
			types: types.map(({ name, label }) => ({ name, label: label ?? name })),
			filters: store.table.filters.all(id),
			findings: store.state.codes(id),
			standIn: standInFor(store, params.site) ?? null
		};
	});
