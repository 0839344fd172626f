import { json } from '@sveltejs/kit';
import { readBatch } from '$server/edits/batch';
import { freshen } from '$server/jobs/freshen';
import { runJob } from '$server/jobs/run';
import { log } from '$server/log';
import { patiently } from '$server/store/opening/patiently';
import { answerInLines } from '$server/web/lines';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/**
 * Changes many pages as one edit; with `"try": true` it only says what that would do. With `"lines": true` it answers in
 * lines of JSON: `{ "done": 400 }` while it works, then what it came to. Going away stops it, and nothing is changed.
 */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const data = await readRecord(request);
		const { pages, action } = readBatch(data);
		const store = locals.store;
		const input = { db: store.file, site: params.site, pages, action };
		store.working.sites.named(params.site);
		if (data.try === true) return json(await runJob('sample', input, { signal: request.signal }));
		const run = async (signal: AbortSignal, progress?: (done: number) => void) => {
			const done = await patiently(() => runJob('batch', input, { signal, ...(progress && { progress }) }));
			freshen(store, params.site).catch((error: unknown) => log.error(error));
			return done;
		};
		if (data.lines !== true) return json(await run(request.signal));
		return answerInLines(request, (say, signal) => run(signal, (done) => say({ done })));
	});
