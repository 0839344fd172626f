import { json } from '@sveltejs/kit';
import { actOnPage, readPageAction } from '$server/web/pages';
import { answering } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Adds a page, copies one, takes one away, or makes one the home page. Gives the path to look at then. */
export const POST: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const action = readPageAction(await request.json());
		const store = openStore();
		return json({ path: actOnPage(store, store.site(params.site), action) });
	});
