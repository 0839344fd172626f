import { ownsAll, ownsAny } from '$core';
import { sitesFor } from '$server/http/visitor';
import { nameOf } from '$server/people/note';
import type { PageServerLoad } from './$types';

/** The sites there are. */
export const load: PageServerLoad = ({ locals, url }) => {
	const store = locals.store;
	return {
		who: nameOf(locals.who, ''),
		mayMake: ownsAll(locals.who),
		mayOwn: ownsAny(locals.who),
		isNone: url.searchParams.has('none'),
		sites: sitesFor(locals).map(({ id, name, base }) => ({
			...{ name, base },
			pages: store.working.pages.count(id).all,
			release: store.releases.latest(id)?.number
		}))
	};
};
