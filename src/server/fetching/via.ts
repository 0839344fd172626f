import { parseUrl } from '$core';
import { refuse } from '../errors';
import type { Via } from './trace';

/** A machine that stands in for the site at a public address, as the one at the keyboard names it. Throws a `UserError`. */
export function readVia(text: string, site: string): Via {
	const [at, origin] = [parseUrl(text), parseUrl(site)];
	if (!at || !/^https?:$/.test(at.protocol) || at.pathname !== '/' || at.search) throw refuse('via-broken', { text });
	if (!origin || !/^https?:$/.test(origin.protocol)) throw refuse('via-address-broken', { site });
	return { origin: origin.origin, at: at.origin };
}
