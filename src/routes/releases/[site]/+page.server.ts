import { standInFor } from '$server/web/working';
import { found } from '$server/web/roomData';
import type { PageServerLoad } from './$types';

/** The releases of a site, the newest first. */
export const load: PageServerLoad = ({ locals, params }) =>
	found(() => {
		const store = locals.store;
		const { id, site } = store.working.sites.named(params.site);
		return {
			site: { name: site.name, base: site.base },
			standIn: standInFor(store, params.site) ?? null,
			history: store.releases.history(id, 100)
		};
	});
