import { json } from '@sveltejs/kit';
import { answering } from '$server/web/problem';
import { readWorst } from '$server/web/worst';
import type { RequestHandler } from './$types';

/** The pages that would be shared worst as the site is now. */
export const GET: RequestHandler = ({ locals, params }) =>
	answering(async () => json(await readWorst(locals.store, params.site)));
