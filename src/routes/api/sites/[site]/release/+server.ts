import { json } from '@sveltejs/kit';
import { UserError } from '$server/errors';
import { runJob } from '$server/jobs/run';
import { answering } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Makes the working copy what visitors see; with `"only"`, the pages at those paths alone. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const store = locals.store;
		store.site(params.site);
		await runJob('gather', { db: store.file, site: params.site });
		const { note, only } = (await request.json().catch(() => ({}))) as { note?: unknown; only?: unknown };
		if (only !== undefined && !(Array.isArray(only) && only.every((path) => typeof path === 'string')))
			throw new UserError('The release cannot be read: "only" is a list of paths.');
		const said = typeof note === 'string' && note.trim() !== '' ? { note: note.trim() } : {};
		return json(await runJob('release', { db: store.file, site: params.site, ...said, ...(only && { only }) }));
	});
