import { redirect } from '@sveltejs/kit';
import { ownsAll } from '$core';
import { sitesFor } from '$server/http/visitor';
import type { PageServerLoad } from './$types';

/** No site yet: to the set-up. One: straight to its overview. More: to their list. */
export const load: PageServerLoad = ({ locals }) => {
	const sites = sitesFor(locals);
	if (sites.length === 0) redirect(307, ownsAll(locals.who) ? '/setup' : '/sites');
	redirect(307, sites.length === 1 ? `/overview/${encodeURIComponent(sites[0]!.name)}` : '/sites');
};
