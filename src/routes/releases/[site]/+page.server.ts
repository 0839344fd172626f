import { found } from '$server/web/roomData';
import type { PageServerLoad } from './$types';

/** The releases of a site, the newest first. */
export const load: PageServerLoad = ({ locals, params }) =>
	found(() => {
		const store = locals.store;
		const { id, site } = store.working.sites.named(params.site);
		return { site: { name: site.name }, history: store.releases.history(id, 100) };
	});
