import { error } from '@sveltejs/kit';
import { UserError } from '$server/errors';
import { readBenchData } from '$server/web/benchData';
import { standInFor } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** The bench at a page, `?page=`. What of it is in view, the browser reads in the address itself. A page that has moved is found by its old path. */
export const load: PageServerLoad = ({ locals, params, url }) => {
	try {
		const store = locals.store;
		const wanted = url.searchParams.get('page');
		let data = readBenchData(store, params.site, wanted);
		const moved =
			!data.page && wanted !== null
				? store.working.redirects.of(store.working.sites.named(params.site).id, wanted)
				: undefined;
		if (moved !== undefined) data = readBenchData(store, params.site, moved);
		if (!data.page)
			error(404, {
				message:
					data.path === undefined
						? `The site "${params.site}" has no pages yet. Read some in with its set-up, or with kephalon import.`
						: `The site "${params.site}" has no page ${data.path}.`,
				site: params.site,
				isEmpty: data.path === undefined
			});
		return {
			...data,
			standIn: standInFor(locals.store, params.site) ?? null
		};
	} catch (problem) {
		if (problem instanceof UserError) error(404, problem.message);
		throw problem;
	}
};
