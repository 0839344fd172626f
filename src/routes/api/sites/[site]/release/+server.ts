import { json } from '@sveltejs/kit';
import { runJob } from '$server/jobs/run';
import { answering } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Makes the working copy what visitors see. */
export const POST: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const store = openStore();
		store.site(params.site);
		await runJob('gather', { db: store.file, site: params.site });
		const { note } = (await request.json().catch(() => ({}))) as { note?: unknown };
		const said = typeof note === 'string' && note.trim() !== '' ? { note: note.trim() } : {};
		return json(await runJob('release', { db: store.file, site: params.site, ...said }));
	});
