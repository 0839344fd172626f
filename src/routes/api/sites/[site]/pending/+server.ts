import { json } from '@sveltejs/kit';
import { runJob } from '$server/jobs/run';
import { answering } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** What of the working copy differs from the newest release. */
export const GET: RequestHandler = ({ params }) =>
	answering(async () => {
		const store = openStore();
		store.site(params.site);
		return json(await runJob('pending', { db: store.file, site: params.site }));
	});
