import { manifestOf } from '$server/pictures/manifest';
import { answering, problem } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** The site's web manifest, made of its name and its icon, for the site to serve at /manifest.webmanifest. */
export const GET: RequestHandler = ({ params }) =>
	answering(() => {
		const store = openStore();
		const manifest = manifestOf(store, store.site(params.site));
		if (!manifest)
			return problem(404, 'Not found', 'The site has no square icon in the library to make a manifest of.');
		return new Response(`${JSON.stringify(manifest.content, null, 2)}\n`, {
			headers: { 'content-type': 'application/manifest+json', 'cache-control': 'no-cache' }
		});
	});
