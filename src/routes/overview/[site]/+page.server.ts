import { readOverview } from '$server/web/overview';
import { found } from '$server/web/roomData';
import type { PageServerLoad } from './$types';

/** The first thing one sees of a site: can this be shared? */
export const load: PageServerLoad = ({ locals, params }) => found(() => readOverview(locals.store, params.site));
