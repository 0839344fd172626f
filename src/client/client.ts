import createClient, { type Client } from 'openapi-fetch';
import type { paths } from '../../bin/api';
import type { ClientOptions } from '../../bin/client';

/** Asks every route of Kephalon, typed by its description. */
export function kephalon({ server, key, fetch }: ClientOptions): Client<paths> {
	return createClient<paths>({
		baseUrl: `${server.replace(/\/$/, '')}/api/v1`,
		pathSerializer: addressOf,
		...(key !== undefined && { headers: { authorization: `Bearer ${key}` } }),
		...(fetch && { fetch: (request: Request) => fetch(request) })
	});
}

/** The path of a page stands in the address as it stands in its own: with its slashes, and encoded once. */
function addressOf(route: string, named: Readonly<Record<string, unknown>>): string {
	const inPath = (path: string) =>
		encodeURI(path)
			.replace(/%25([0-9a-f]{2})/gi, '%$1')
			.replace(/[?#]/g, encodeURIComponent);
	return route
		.replace('{site}', () => encodeURIComponent(String(named.site)))
		.replace('{path}', () => inPath(String(named.path).replace(/^\//, '')));
}
