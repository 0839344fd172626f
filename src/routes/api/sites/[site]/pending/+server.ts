import { json } from '@sveltejs/kit';
import { readPending } from '$server/web/pending';
import { answering } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** What of the working copy differs from the newest release. */
export const GET: RequestHandler = ({ locals, params }) =>
	answering(async () => json(await readPending(locals.store, params.site)));
