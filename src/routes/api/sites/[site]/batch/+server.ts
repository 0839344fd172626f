import { json } from '@sveltejs/kit';
import { readBatch } from '$server/edits/batch';
import { freshen } from '$server/jobs/freshen';
import { runJob } from '$server/jobs/run';
import { log } from '$server/log';
import { answering, readRecord } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Changes many pages as one edit; with `"try": true` it only says what that would do. */
export const POST: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const data = await readRecord(request);
		const { pages, action } = readBatch(data);
		const store = openStore();
		const input = { db: store.file, site: params.site, pages, action };
		store.site(params.site);
		if (data.try === true) return json(await runJob('sample', input, { signal: request.signal }));
		const done = await runJob('batch', input, { signal: request.signal });
		freshen(store, params.site).catch((error: unknown) => log.error(error));
		return json(done);
	});
