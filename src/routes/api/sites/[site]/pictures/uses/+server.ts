import { json } from '@sveltejs/kit';
import { usesOf } from '$server/web/pictures';
import { answering } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Where each picture of a site is used, by its source. */
export const GET: RequestHandler = ({ locals, params }) =>
	answering(async () => json(await usesOf(locals.store, params.site)));
