import { redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

/** No site yet: to the set-up. One: straight to its overview. More: to their list. */
export const load: PageServerLoad = ({ locals }) => {
	const sites = locals.store.working.sites.names();
	if (sites.length === 0) redirect(307, '/setup');
	redirect(307, sites.length === 1 ? `/overview/${encodeURIComponent(sites[0]!.name)}` : '/sites');
};
