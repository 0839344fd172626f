import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { actOnPage, actOnPages, readPageAction } from '$server/edits/pages';
import { runJob } from '$server/jobs/run';
import { readBenchData, readWhatLeads } from '$server/web/benchData';
import { patiently } from '$server/store/opening/patiently';
import { answering, problem, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Adds a page, copies one, takes one away, or makes one the home page. Gives the path to look at then. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const data = await readRecord(request);
		// Several done as one edit come from the room of findings.
		const actions = Array.isArray(data.actions) ? data.actions.slice(0, MOST_ACTIONS).map(readPageAction) : undefined;
		const { result, revision, edit } = await patiently(() =>
			actions
				? actOnPages(locals.store, params.site, actions, 'findings')
				: actOnPage(locals.store, params.site, readPageAction(data), 'bench')
		);
		return json({ path: result, revision, edit });
	});

/** At most so many actions are done as one edit. */
const MOST_ACTIONS = 1000;
/** At most so many pages are found at a time. */
const MOST = 40;

/**
 * A page, `?path=`, with the pictures that it and its layers name; pages found by `?find=` and words of theirs; or what
 * leads to the page `?about=`, and whose texts link to `?linking=`, which goes over all texts.
 */
export const GET: RequestHandler = ({ locals, params, url, request }) =>
	answering(async () => {
		const store = locals.store;
		const text = url.searchParams.get('find');
		if (text !== null)
			return json({ pages: store.table.listing.find(store.working.sites.named(params.site).id, text, MOST) });
		const about = url.searchParams.get('about');
		if (about !== null) return json(readWhatLeads(store, params.site, about));
		const path = url.searchParams.get('linking');
		if (path !== null) {
			store.working.sites.named(params.site);
			const input = { db: store.file, site: params.site, path };
			return json(await runJob('linking', input, { signal: request.signal }));
		}
		const data = readBenchData(store, params.site, url.searchParams.get('path'));
		if (!data.page) return problem(refuse('page-not-there'));
		return json({ page: data.page, pictures: data.pictures });
	});
