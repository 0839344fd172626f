import { readOverview } from '$server/web/overview';
import { found } from '$server/web/roomData';
import { openStore } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** The first thing one sees of a site: can this be shared? */
export const load: PageServerLoad = ({ params }) => found(() => readOverview(openStore(), params.site));
