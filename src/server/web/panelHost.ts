import { hostOf } from '../people/panel';
import type { Store } from '../store/store';

/** Where a page of the panel says whose page it stands in. */
const HOST_PARAMETER = 'host';

interface Opened {
	readonly route: { readonly id: string | null };
	readonly params: Partial<Record<string, string>>;
	readonly url: URL;
	readonly locals: { readonly store: Store };
}

/** The origin of the page that a panel stands in, where the site lets it; undefined for every other page, and every other origin. */
export function panelHostOf({ route, params, url, locals }: Opened): string | undefined {
	if (route.id !== '/panel/[site]' || params.site === undefined) return undefined;
	return hostOf(locals.store, params.site, url.searchParams.get(HOST_PARAMETER));
}
