import { json } from '@sveltejs/kit';
import { readCells } from '$server/edits/cells';
import { freshen } from '$server/jobs/freshen';
import { runJob } from '$server/jobs/run';
import { log } from '$server/log';
import { patiently } from '$server/store/opening/patiently';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** Writes cells of the table of pages, all of them as one edit or none. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const cells = readCells(await readRecord(request));
		const store = locals.store;
		store.working.sites.named(params.site);
		const input = { db: store.file, site: params.site, cells };
		// Who leaves right after writing has written.
		const done = await patiently(() => runJob('cells', input));
		freshen(store, params.site).catch((error: unknown) => log.error(error));
		return json(done);
	});
