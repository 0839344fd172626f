import { countUnder, reachOf } from '$server/jobs/reach';
import { readEdit } from '$server/edits/rules';
import { editOfSet } from '$server/edits/types';
import { answerInLines } from '$server/web/lines';
import { readSettingsEdit } from '$server/edits/settings';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/**
 * Which pages an edit would change, before it is kept. Answers in lines of JSON: `{ "seen": 500, "all": 10000 }` while
 * it counts, then `{ "reach": … }`, or `{ "refused": "…" }`. Going away stops it.
 */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const data = (await readRecord(request)) as object;
		const store = locals.store;
		const edit =
			'set' in data ? editOfSet(store, params.site, data) : 'changes' in data ? readSettingsEdit(data) : readEdit(data);
		const all = countUnder(store, params.site, edit);
		return answerInLines(request, async (say, signal) => {
			return { reach: await reachOf(store, params.site, edit, { signal, progress: (seen) => say({ seen, all }) }) };
		});
	});
