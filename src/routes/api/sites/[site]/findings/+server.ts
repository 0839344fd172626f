import { json } from '@sveltejs/kit';
import { authorName, makeEdit } from '$server/edits/edit';
import { UserError } from '$server/errors';
import { freshen } from '$server/jobs/freshen';
import { runJob } from '$server/jobs/run';
import { patiently } from '$server/store/patiently';
import { MATRIX_TAGS, WIDTH_STEP } from '$ui/findings/matrix';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** All that is wrong or weak on a site, by kind, and what was set aside. */
export const GET: RequestHandler = ({ locals, params }) =>
	answering(async () => {
		const store = locals.store;
		await freshen(store, params.site);
		const input = { db: store.file, site: params.site };
		const [groups, spread] = await Promise.all([
			runJob('findings', input),
			runJob('spread', { ...input, tags: MATRIX_TAGS, step: WIDTH_STEP })
		]);
		return json({ groups, aside: store.asides.all(store.site(params.site).id), spread });
	});

/** Sets a kind of finding aside with a reason, on one page or on all; with `"takeUp": true` it is told again. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { code, tag = '', path = '', reason = '', takeUp } = await readRecord(request);
		const texts = [code, tag, path, reason];
		if (texts.some((text) => typeof text !== 'string') || code === '')
			throw new UserError('Say which finding is meant: its code, and the tag and path where they matter.');
		if (takeUp !== true && String(reason).trim() === '')
			throw new UserError('Say why it is set aside: others will ask.');
		const store = locals.store;
		const one = { code, tag, path } as { code: string; tag: string; path: string };
		const what = { ...one, reason, do: takeUp === true ? 'take-up' : 'set-aside' };
		const made = await patiently(() =>
			makeEdit(store, params.site, { origin: 'findings', kind: 'aside', what }, ({ id }) => {
				if (takeUp === true) return store.asides.takeUp(id, one);
				store.asides.add(id, { ...one, reason: String(reason), author: authorName(), made: new Date().toISOString() });
			})
		);
		return json({ edit: made.edit, revision: made.revision });
	});
