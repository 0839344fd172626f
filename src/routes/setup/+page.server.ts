import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { error } from '@sveltejs/kit';
import { mayDo, ownsAll } from '$core';
import { refuse, UserError } from '$server/errors';
import { sentenceOf } from '$server/http/problem';
import { readBenchData } from '$server/web/benchData';
import { sitesFor } from '$server/http/visitor';
import { contentFolders } from '$server/web/contentFolders';
import { standInFor } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** The made-up site lies beside the other programs in a checkout, and in no package. */
const isDemoThere = () => existsSync(join(dirname(process.env.KEPHALON_THREAD ?? ''), 'demo.js'));

/** The set-up of a new site, or with `?site=` of one that is there. */
export const load: PageServerLoad = ({ locals, url }) => {
	const name = url.searchParams.get('site');
	const folders = contentFolders();
	// A new site is made by who owns all of them; one that is there is read anew by who builds it.
	if (name === null ? !ownsAll(locals.who) : !mayDo(locals.who, 'build', name))
		error(403, sentenceOf(refuse('setup-of-others')));
	if (name === null)
		return { bench: null, standIn: null, folders, isFirst: sitesFor(locals).length === 0, hasDemo: isDemoThere() };
	try {
		const data = readBenchData(locals.store, name, null);
		return {
			bench: data.page ? data : null,
			standIn: standInFor(locals.store, name) ?? null,
			folders,
			isFirst: false,
			hasDemo: false
		};
	} catch (problem) {
		if (problem instanceof UserError) error(404, sentenceOf(problem));
		throw problem;
	}
};
