import { found } from '$server/web/roomData';
import { openStore } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** The releases of a site, the newest first. */
export const load: PageServerLoad = ({ params }) =>
	found(() => {
		const store = openStore();
		const { id, site } = store.site(params.site);
		return { site: { name: site.name }, history: store.releases.history(id, 100) };
	});
