import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { runJob } from '$server/jobs/run';
import { once } from '$server/web/once';
import { answerInLines } from '$server/web/lines';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/**
 * Makes the working copy what visitors see; with `"only"`, the pages at those paths alone. One that takes away more than
 * a fifth of the released pages is made with `"removes"`, the number of them. Sent again with the same `Idempotency-Key`,
 * it is made once. With `"lines": true` it answers in lines: `{ "done": 400, "all": 9000 }` while it works, then the
 * release; going away stops it, and nothing is released.
 */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const store = locals.store;
		const { note, only, removes, lines } = await readRecord(request);
		if (only !== undefined && !(Array.isArray(only) && only.every((path) => typeof path === 'string')))
			throw refuse('release-only-broken');
		if (note !== undefined && typeof note !== 'string') throw refuse('release-note-broken');
		if (removes !== undefined && !Number.isInteger(removes)) throw refuse('release-removes-broken');
		store.working.sites.named(params.site);
		const input = {
			...{ db: store.file, site: params.site },
			...(note && note.trim() !== '' && { note: note.trim() }),
			...(only && { only: only }),
			...(removes !== undefined && { removes: removes as number })
		};
		const make = async (signal?: AbortSignal, progress?: (done: number, all?: number) => void) => {
			await runJob('gather', { db: store.file, site: params.site });
			return runJob('release', input, { ...(signal && { signal }), ...(progress && { progress }) });
		};
		const key = request.headers.get('idempotency-key');
		const made = (work: () => ReturnType<typeof make>) =>
			key === null ? work() : once(store, params.site, key, input, work);
		if (lines !== true) return json(await made(() => make()));
		return answerInLines(request, (say, signal) => made(() => make(signal, (done, all) => say({ done, all }))));
	});
