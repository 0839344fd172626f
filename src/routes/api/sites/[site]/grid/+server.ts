import { json } from '@sveltejs/kit';
import { freshen } from '$server/jobs/freshen';
import { log } from '$server/log';
import { readGrid } from '$server/web/grid';
import { answering } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Rows of the table of pages, by filter and order; `?count=1` also says how many there are. Never waits for a job. */
export const GET: RequestHandler = ({ locals, params, url }) =>
	answering(() => {
		const store = locals.store;
		const answer = readGrid(store, params.site, url.searchParams);
		if (answer.unseen > 0) freshen(store, params.site).catch((error: unknown) => log.error(error));
		return json(answer);
	});
