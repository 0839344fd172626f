import { parseUrl } from '$core';
import { refuse } from '../errors';
import type { Via } from './trace';

/**
 * Machines that stand in for public addresses, as the one at the keyboard names them: `http://127.0.0.1:8080` for the
 * site itself, `https://media.site.example=http://127.0.0.1:8081` for another host. Throws a `UserError`.
 */
export function readVia(texts: readonly string[], site: string): Via[] {
	return texts.map((text) => {
		const [named, stands] = text.includes('=') ? (text.split('=', 2) as [string, string]) : [site, text];
		const [at, origin] = [parseUrl(stands), parseUrl(named)];
		if (!at || !/^https?:$/.test(at.protocol) || at.pathname !== '/' || at.search) throw refuse('via-broken', { text });
		if (!origin || !/^https?:$/.test(origin.protocol)) throw refuse('via-address-broken', { site: named });
		return { origin: origin.origin, at: at.origin };
	});
}
