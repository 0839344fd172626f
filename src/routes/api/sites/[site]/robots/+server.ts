import { robotsOf } from '$server/exports/robots';
import { answering } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** The robots.txt of the site, to be served at the root of its host. */
export const GET: RequestHandler = ({ locals, params }) =>
	answering(
		() =>
			new Response(robotsOf(locals.store.working.sites.named(params.site).site), {
				headers: { 'content-type': 'text/plain; charset=utf-8', 'x-content-type-options': 'nosniff' }
			})
	);
