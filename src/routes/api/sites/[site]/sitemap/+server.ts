import { gunzipSync } from 'node:zlib';
import { refuse } from '$server/errors';
import { answering } from '$server/web/problem';
import { readSitemap } from '$server/web/sitemaps';
import type { RequestHandler } from './$types';

/** A sitemap of what is released, by its name: `sitemap.xml` without one. */
export const GET: RequestHandler = ({ locals, params, url, request }) =>
	answering(async () => {
		const wanted = url.searchParams.get('name') ?? 'sitemap.xml';
		const found = await readSitemap(locals.store, params.site, wanted);
		if (!found) throw refuse('sitemap-missing', { name: wanted });
		const { gzip, etag } = found;
		const headers = { etag, 'cache-control': 'no-cache', vary: 'accept-encoding', 'x-content-type-options': 'nosniff' };
		if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers });
		const isTaken = /\bgzip\b/.test(request.headers.get('accept-encoding') ?? '');
		return new Response((isTaken ? gzip : gunzipSync(gzip)) as Uint8Array<ArrayBuffer>, {
			headers: {
				...{ ...headers, 'content-type': 'application/xml; charset=utf-8' },
				...(isTaken && { 'content-encoding': 'gzip' })
			}
		});
	});
