import { sitemapsOf } from '$server/exports/sitemap';
import { notFound } from '$server/errors';
import { answering } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** A sitemap of what is released, by its name: `sitemap.xml` without one. */
export const GET: RequestHandler = ({ locals, params, url }) =>
	answering(() => {
		const wanted = url.searchParams.get('name') ?? 'sitemap.xml';
		for (const { name, text } of sitemapsOf(locals.store, params.site))
			if (name === wanted)
				return new Response(text, {
					headers: { 'content-type': 'application/xml; charset=utf-8', 'x-content-type-options': 'nosniff' }
				});
		throw notFound(`There is no sitemap "${wanted}" of this site.`);
	});
