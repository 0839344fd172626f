import { json } from '@sveltejs/kit';
import { runJob } from '$server/jobs/run';
import { answering } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** The pages that are hardest on templates, of a type with `?type=`, or of the whole site. */
export const GET: RequestHandler = ({ locals, params, url, request }) =>
	answering(async () => {
		const store = locals.store;
		store.working.sites.named(params.site);
		const type = url.searchParams.get('type') ?? undefined;
		const input = { db: store.file, site: params.site, ...(type !== undefined && { type }) };
		return json(await runJob('hard', input, { signal: request.signal }));
	});
