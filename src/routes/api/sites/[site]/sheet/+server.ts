import { json } from '@sveltejs/kit';
import { freshenAwhile } from '$server/jobs/freshen';
import { answering } from '$server/web/problem';
import { readSheet } from '$server/web/sheet';
import type { RequestHandler } from './$types';

/** What a release would send out now, a few pages at a time. */
export const GET: RequestHandler = ({ locals, params, url }) =>
	answering(async () => {
		const store = locals.store;
		await freshenAwhile(store, params.site);
		const offset = Math.max(0, Math.trunc(Number(url.searchParams.get('offset') ?? 0)) || 0);
		return json(readSheet(store, params.site, { offset, limit: 30, q: url.searchParams.get('q') ?? '' }));
	});
