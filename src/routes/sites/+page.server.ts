import type { PageServerLoad } from './$types';

/** The sites there are. */
export const load: PageServerLoad = ({ locals }) => {
	const store = locals.store;
	return {
		sites: store.siteNames().map(({ id, name, base }) => ({
			...{ name, base },
			pages: store.countPages(id).all,
			release: store.releases.latest(id)?.number
		}))
	};
};
