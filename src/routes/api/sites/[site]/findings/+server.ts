import { json } from '@sveltejs/kit';
import { authorName, makeEdit } from '$server/edits/edit';
import { refuse } from '$server/errors';
import { patiently } from '$server/store/opening/patiently';
import { readFindingsRoom } from '$server/web/findings';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/**
 * All that is wrong or weak on a site, by kind, and what was set aside: as it was counted last, at once. With `?wait=1` the
 * answer waits a moment for the count that goes on.
 */
export const GET: RequestHandler = ({ locals, params, url }) =>
	answering(async () => json(await readFindingsRoom(locals.store, params.site, url.searchParams.get('wait') === '1')));

/** Sets a kind of finding aside with a reason, on one page or on all; with `"takeUp": true` it is told again. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { code, tag = '', path = '', reason = '', takeUp } = await readRecord(request);
		const texts = [code, tag, path, reason];
		if (texts.some((text) => typeof text !== 'string') || code === '') throw refuse('finding-what');
		if (takeUp !== true && String(reason).trim() === '') throw refuse('suppression-needs-reason');
		const store = locals.store;
		const one = { code, tag, path } as { code: string; tag: string; path: string };
		const what = { ...one, reason, do: takeUp === true ? 'take-up' : 'set-aside' };
		const made = await patiently(() =>
			makeEdit(store, params.site, { origin: 'findings', kind: 'aside', what }, ({ id }) => {
				if (takeUp === true) return store.state.suppressions.takeUp(id, one);
				store.state.suppressions.add(id, {
					...one,
					reason: String(reason),
					author: authorName(),
					made: new Date().toISOString()
				});
			})
		);
		return json({ edit: made.edit, revision: made.revision });
	});
