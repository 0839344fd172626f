import { mayDo } from '$core';
import { openApi } from '$server/http/openApi';
import type { Description } from '$ui/programs/described';
import type { PageServerLoad } from './$types';

/** The description of all routes, to be read and tried; the first site that one may look at stands in the fields. */
export const load: PageServerLoad = ({ locals: { store, who }, url }) => ({
	description: openApi() as unknown as Description,
	site: store.working.sites.names().find(({ name }) => mayDo(who, 'read', name))?.name ?? '',
	asked: url.searchParams.get('route') ?? ''
});
