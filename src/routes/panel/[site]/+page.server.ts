import { panelHostOf } from '$server/web/panelHost';
import type { PageServerLoad } from './$types';

/** The panel in a page of others: where it stands, and whether somebody is in already. What it shows it asks for by itself. */
export const load: PageServerLoad = (event) => {
	const { who } = event.locals;
	return { site: event.params.site, host: panelHostOf(event) ?? null, isIn: who.kind !== 'nobody' };
};
