import { json } from '@sveltejs/kit';
import { actOnPage, readPageAction } from '$server/edits/pages';
import { readBenchData, readWhatLeads } from '$server/web/benchData';
import { patiently } from '$server/store/patiently';
import { answering, problem, readRecord } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Adds a page, copies one, takes one away, or makes one the home page. Gives the path to look at then. */
export const POST: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const action = readPageAction(await readRecord(request));
		const { result, revision } = await patiently(() => actOnPage(openStore(), params.site, action, 'bench'));
		return json({ path: result, revision });
	});

/** At most so many pages are found at a time. */
const MOST = 40;

/**
 * A page, `?path=`, with the pictures that it and its layers name; pages found by `?find=` and words of theirs; or what
 * leads to the page `?about=`.
 */
export const GET: RequestHandler = ({ params, url }) =>
	answering(() => {
		const store = openStore();
		const text = url.searchParams.get('find');
		if (text !== null) return json({ pages: store.findPages(store.site(params.site).id, text, MOST) });
		const about = url.searchParams.get('about');
		if (about !== null) return json(readWhatLeads(store, params.site, about));
		const data = readBenchData(store, params.site, url.searchParams.get('path'));
		if (!data.page) return problem(404, 'Not found', 'There is no such page in this site.');
		return json({ page: data.page, pictures: data.pictures });
	});
