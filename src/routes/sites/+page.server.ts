import type { PageServerLoad } from './$types';

/** The sites there are. */
export const load: PageServerLoad = ({ locals }) => {
	const store = locals.store;
	return {
		sites: store.working.sites.names().map(({ id, name, base }) => ({
			...{ name, base },
			pages: store.working.pages.count(id).all,
			release: store.releases.latest(id)?.number
		}))
	};
};
