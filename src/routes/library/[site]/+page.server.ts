import { error } from '@sveltejs/kit';
import { refuse, UserError } from '$server/errors';
import { sentenceOf } from '$server/http/problem';
import { readBenchData } from '$server/web/benchData';
import { standInFor } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** The library of a site, with a picture chosen by `?picture=`. */
export const load: PageServerLoad = ({ locals, params, url }) => {
	try {
		const store = locals.store;
		const data = readBenchData(store, params.site, null);
		if (!data.page) throw refuse('site-empty', { site: params.site });
		const pictures = store.pictures.all(store.working.sites.named(params.site).id);
		return {
			...data,
			pictures,
			chosen: url.searchParams.get('picture'),
			standIn: standInFor(locals.store, params.site) ?? null
		};
	} catch (problem) {
		if (problem instanceof UserError) error(404, sentenceOf(problem));
		throw problem;
	}
};
