import { parseUrl } from '$core';
import { UserError } from '../errors';
import type { Via } from './trace';

/** A machine that stands in for the site at a public address, as the one at the keyboard names it. Throws a `UserError`. */
export function readVia(text: string, site: string): Via {
	const [at, origin] = [parseUrl(text), parseUrl(site)];
	if (!at || !/^https?:$/.test(at.protocol) || at.pathname !== '/' || at.search)
		throw new UserError(`“${text}” is no machine to fetch from. Write it as http://127.0.0.1:5173, without a path.`, 2);
	if (!origin || !/^https?:$/.test(origin.protocol))
		throw new UserError(`“${site}” is no public address that it could stand in for.`, 2);
	return { origin: origin.origin, at: at.origin };
}
