import { error } from '@sveltejs/kit';
import { UserError } from '$server/errors';
import { readBenchData } from '$server/web/benchData';
import { contentFolders } from '$server/web/contentFolders';
import { standInFor } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** The set-up of a new site, or with `?site=` of one that is there. */
export const load: PageServerLoad = ({ locals, url }) => {
	const name = url.searchParams.get('site');
	const folders = contentFolders();
	if (name === null) return { bench: null, standIn: null, folders };
	try {
		const data = readBenchData(locals.store, name, null);
		return { bench: data.page ? data : null, standIn: standInFor(locals.store, name) ?? null, folders };
	} catch (problem) {
		if (problem instanceof UserError) error(404, problem.message);
		throw problem;
	}
};
