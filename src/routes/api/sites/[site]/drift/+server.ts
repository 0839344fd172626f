import { json } from '@sveltejs/kit';
import { lookForDrift, readDrift, setSchedule } from '$server/probes/drift';
import { answerInLines } from '$server/web/lines';
import { answering, readRecord } from '$server/web/problem';
import { openStore, viaFor } from '$server/web/working';
import type { RequestHandler } from './$types';

/** What is served of the site against what was released, as it was last looked at. */
export const GET: RequestHandler = ({ params }) => answering(() => json(readDrift(openStore(), params.site)));

/** Looks now. Answers in lines: how far it is, then `{ "drift": … }`. Going away stops it; asked again, it goes on. */
export const POST: RequestHandler = ({ params, request }) =>
	answering(() => {
		const store = openStore();
		const { site } = store.site(params.site);
		return answerInLines(request, async (say, signal) => ({
			drift: await lookForDrift(store, params.site, viaFor(site.base), {
				signal,
				progress: (done, all) => say({ done, all })
			})
		}));
	});

/** Sets how often it looks by itself: `"every"` is off, hour or night. */
export const PUT: RequestHandler = ({ params, request }) =>
	answering(async () => json(await setSchedule(openStore(), params.site, (await readRecord(request)).every)));
