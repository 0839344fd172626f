import { mayDo, ownsAny } from '$core';
import type { Visitor } from './visitor';

/** What a page asks of whoever opens it; those of a site ask for the right to look at it. */
type PageAsks = 'everyone' | 'someone' | 'owning' | 'site' | 'route';

/** By the route of the page. One that is not here is open to nobody. */
const PAGE_ASKS: ReadonlyMap<string, PageAsks> = new Map<string, PageAsks>([
	['/', 'someone'],
	['/sign-in', 'everyone'],
	['/invited', 'everyone'],
	['/account', 'someone'],
	['/people', 'owning'],
	['/programs', 'someone'],
	// It holds nothing by itself: all it shows is asked for below /api.
	['/panel/[site]', 'everyone'],
	['/panel/[site]/open', 'site'],
	['/panel.js', 'everyone'],
	// While it is developed and tested; else there is none.
	['/parts', 'everyone'],
	['/sites', 'someone'],
	['/setup', 'someone'],
	['/overview/[site]', 'site'],
	['/pages/[site]', 'site'],
	['/bench/[site]', 'site'],
	['/findings/[site]', 'site'],
	['/readers/[site]', 'site'],
	['/library/[site]', 'site'],
	['/releases/[site]', 'site'],
	['/folder/[site]/[...path]', 'site'],
	// Each route below it asks by itself: see `rights.ts`.
	['/api/[...path]', 'route']
]);

interface Opened {
	readonly route: { readonly id: string | null };
	readonly params: Partial<Record<string, string>>;
	readonly url: URL;
	readonly locals: Visitor;
}

/** Where someone is sent who may not see a page: to sign in, or to be told; undefined for who may. */
export function turnedAway({ route: { id }, params, url, locals }: Opened): string | undefined {
	// What is not there is told as that.
	if (id === null) return undefined;
	const asks = PAGE_ASKS.get(id);
	if (asks === 'everyone' || asks === 'route') return undefined;
	const { who } = locals;
	if (who.kind === 'alone') return undefined;
	if (who.kind === 'nobody') return `/sign-in?to=${encodeURIComponent(url.pathname + url.search)}`;
	if (asks === 'someone') return undefined;
	if (asks === 'owning' && ownsAny(who)) return undefined;
	if (asks === 'site' && mayDo(who, 'read', params.site ?? '')) return undefined;
	// Of a site that one may not look at no more is told than of one that is not there.
	return '/sites?none=1';
}
