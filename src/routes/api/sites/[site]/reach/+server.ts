import { json } from '@sveltejs/kit';
import { runJob } from '$server/jobs/run';
import { readEdit } from '$server/web/edits';
import { answering } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Which pages an edit would change, before it is kept. */
export const POST: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const edit = readEdit(await request.json());
		const store = openStore();
		store.site(params.site);
		return json(await runJob('reach', { db: store.file, site: params.site, edit }, { signal: request.signal }));
	});
