import { json } from '@sveltejs/kit';
import { runJob } from '$server/jobs/run';
import { answering } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** The pages that would be shared worst as the site is now. */
export const GET: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const store = openStore();
		store.site(params.site);
		return json(await runJob('worst', { db: store.file, site: params.site }, { signal: request.signal }));
	});
