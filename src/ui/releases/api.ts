import type { Release } from '$server/store/releases/releases';
import type { PageDifference } from '$server/releases/releases';
import type { Sheet, SheetPage } from '$server/web/sheet';
import { ask, at, sending, watched, type Watching } from '../api';

export type { Release, PageDifference, Sheet, SheetPage };

export const sheet = (site: string, offset: number, q: string) =>
	ask<Sheet>(at(site, `sheet?${new URLSearchParams({ offset: String(offset), q })}`));
export const history = (site: string) => ask<Release[]>(at(site, 'releases'));
export const between = (site: string, from: number, to: number) =>
	ask<{ count: number; pages: PageDifference[] }>(at(site, `releases?from=${from}&to=${to}`));
export const goBack = (
	site: string,
	wanted: { readonly backTo: number; readonly note: string; readonly removes?: number | undefined },
	watching: Watching
) =>
	watched<Release>(at(site, 'releases'), sending('POST', { ...wanted, lines: true }), watching, {
		stopped: 'Stopped: nothing is released.'
	});
