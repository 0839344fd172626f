import { parseUrl } from '$core';
import { openStore } from '$server/web/working';
import { answering, problem } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** The released head of a page, by `?path=` or `?address=`; as HTML, or as JSON with `?format=json` or by Accept. */
export const GET: RequestHandler = ({ params, url, request }) =>
	answering(() => {
		const store = openStore();
		const [path, address] = [url.searchParams.get('path'), url.searchParams.get('address')];
		if ((path === null) === (address === null))
			return problem(400, 'Bad request', 'Name the page by ?path=/x or by ?address=https://…, one of the two.');
		const site = store.site(params.site);
		const release = store.releases.latest(site.id);
		if (!release)
			return problem(404, 'Not found', `Nothing of the site "${params.site}" is released yet. Release it first.`);
		const head = store.releases.head(
			release.id,
			path !== null ? { path } : { address: withoutFragment(address as string) }
		);
		const moved = !head && path !== null ? store.redirectOf(site.id, path) : undefined;
		if (moved !== undefined) {
			const query = new URLSearchParams(url.searchParams);
			query.set('path', moved);
			const headers = { location: `${url.pathname}?${query}`, 'kephalon-moved-to': encodeURI(moved) };
			return new Response(null, { status: 308, headers });
		}
		if (!head) return problem(404, 'Not found', `Release ${release.number} has no page at ${path ?? address}.`);
		const asJson =
			url.searchParams.get('format') === 'json' ||
			(!url.searchParams.has('format') && prefersJson(request.headers.get('accept') ?? ''));
		const etag = `"${head.hash}-${asJson ? 'json' : 'html'}"`;
		const headers = {
			etag,
			'cache-control': 'public, max-age=0, must-revalidate',
			vary: 'accept',
			'kephalon-release': String(release.number)
		};
		if (matches(request.headers.get('if-none-match'), etag)) return new Response(null, { status: 304, headers });
		return new Response(asJson ? head.json : head.html, {
			headers: { ...headers, 'content-type': asJson ? 'application/json' : 'text/html; charset=utf-8' }
		});
	});

const withoutFragment = (address: string) => {
	const url = parseUrl(address);
	if (!url) return address;
	url.hash = '';
	return url.href;
};

const prefersJson = (accept: string) => accept.includes('application/json') && !accept.includes('text/html');

/** RFC 9110, section 13.1.2: a list of tags, or `*`; weak comparison. */
const matches = (header: string | null, etag: string) =>
	header !== null && header.split(',').some((tag) => tag.trim() === '*' || tag.trim().replace(/^W\//, '') === etag);
