import { json } from '@sveltejs/kit';
import { runJob } from '$server/jobs/run';
import { answering } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Makes the working copy what visitors see. */
export const POST: RequestHandler = ({ params }) =>
	answering(async () => {
		const store = openStore();
		store.site(params.site);
		await runJob('gather', { db: store.file, site: params.site });
		return json(await runJob('release', { db: store.file, site: params.site }));
	});
