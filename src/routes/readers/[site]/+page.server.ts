import { found } from '$server/web/roomData';
import { standInFor } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** What do readers really see? `?page=` names a page, `?address=` any address. */
export const load: PageServerLoad = ({ locals, params, url }) =>
	found(() => {
		const store = locals.store;
		const { site } = store.working.sites.named(params.site);
		return {
			site: { name: site.name, base: site.base },
			wanted: url.searchParams.get('page') ?? url.searchParams.get('address') ?? '',
			standIn: standInFor(store, params.site) ?? null
		};
	});
