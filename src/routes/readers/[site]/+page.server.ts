import { found } from '$server/web/roomData';
import { insideOrigins } from '$server/sources/sources';
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
			vias: insideOrigins(),
			via: url.searchParams.get('via') ?? '',
			standIn: standInFor(store, params.site) ?? null
		};
	});
