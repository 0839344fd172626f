import { tagMatrix, widths } from '$server/store/grid';
import { found } from '$server/web/roomData';
import { MATRIX_TAGS } from '$ui/findings/matrix';
import type { PageServerLoad } from './$types';

/** Thousandths of an em in one step of the picture of widths. */
const STEP = 2000;
/** The last so many releases are shown. */
const RELEASES = 20;

/** What the room of findings shows beside the findings themselves, which come when all pages were looked at. */
export const load: PageServerLoad = ({ locals, params }) =>
	found(() => {
		const store = locals.store;
		const { id, site } = store.site(params.site);
		return {
			site: { name: site.name },
			matrix: tagMatrix(store.db, id, MATRIX_TAGS),
			step: STEP / 1000,
			widths: widths(store.db, id, 'title_width', STEP),
			releases: store.releases.findingsOver(id, RELEASES)
		};
	});
