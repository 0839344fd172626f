import { redirect } from '@sveltejs/kit';
import { openStore } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** One site: straight to its bench. */
export const load: PageServerLoad = () => {
	const sites = openStore()
		.siteNames()
		.map(({ name, base }) => ({ name, base }));
	if (sites.length === 1) redirect(307, `/bench/${encodeURIComponent(sites[0]!.name)}`);
	return { sites };
};
