import { json } from '@sveltejs/kit';
import { runJob } from '$server/jobs/run';
import { readDrift, setSchedule } from '$server/probes/drift';
import { answerInLines } from '$server/web/lines';
import { answering, readRecord } from '$server/web/problem';
import { viaFor } from '$server/web/working';
import type { RequestHandler } from './$types';

/** What is served of the site against what was released, as it was last looked at. */
export const GET: RequestHandler = ({ locals, params }) => answering(() => json(readDrift(locals.store, params.site)));

/** Looks now. Answers in lines: how far it is, then `{ "drift": … }`. Going away stops it; asked again, it goes on. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(() => {
		const store = locals.store;
		const { site } = store.working.sites.named(params.site);
		return answerInLines(request, async (say, signal) => ({
			drift: await runJob(
				'drift',
				{ db: store.file, site: params.site, via: viaFor(site.base) },
				{ signal, progress: (done, all) => say({ done, all }) }
			)
		}));
	});

/** Sets how often it looks by itself: `"every"` is off, hour or night. */
export const PUT: RequestHandler = ({ locals, params, request }) =>
	answering(async () => json(await setSchedule(locals.store, params.site, (await readRecord(request)).every)));
