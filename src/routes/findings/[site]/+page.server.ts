import { found } from '$server/web/roomData';
import type { PageServerLoad } from './$types';

/** The last so many releases are shown. */
const RELEASES = 20;

/** What the room of findings shows at once; what goes over all pages comes when they were looked at. */
export const load: PageServerLoad = ({ locals, params }) =>
	found(() => {
		const store = locals.store;
		const { id, site } = store.working.sites.named(params.site);
		return { site: { name: site.name }, releases: store.releases.findingsOver(id, RELEASES) };
	});
