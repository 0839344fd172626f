import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { runJob } from '$server/jobs/run';
import { refuseReleases } from '$server/releases/releases';
import { patiently } from '$server/store/opening/patiently';
import { answerInLines } from '$server/web/lines';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** So many releases, and pages that differ, are told at a time. */
const MOST = 100;

/** The history of releases; with `?from=` and `?to=` what differs between two; with `?path=` a page through all of them. */
export const GET: RequestHandler = ({ locals, params, url, request }) =>
	answering(async () => {
		const store = locals.store;
		const { id } = store.working.sites.named(params.site);
		const [from, to, path] = ['from', 'to', 'path'].map((name) => url.searchParams.get(name));
		if (from !== null && to !== null && from !== undefined && to !== undefined) {
			const between = [Number(from), Number(to)] as const;
			refuseReleases(store, id, between);
			const input = { db: store.file, site: params.site, between, most: MOST, ...(path && { path }) };
			return json(await runJob('compareReleases', input, { signal: request.signal }));
		}
		if (path) return json(store.releases.ofPage(id, path));
		return json(store.releases.history(id, MOST));
	});

/**
 * Goes back: a new release of an old one's heads. With `"lines": true` it answers in lines: `{ "done": 400, "all": 9000 }`
 * while it works, then the release; going away stops it, and nothing is released.
 */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { backTo, note, removes, lines } = await readRecord(request);
		if (!Number.isInteger(backTo)) throw refuse('release-which');
		const store = locals.store;
		refuseReleases(store, store.working.sites.named(params.site).id, [backTo as number]);
		const said = typeof note === 'string' && note !== '' ? { note } : {};
		const sure = Number.isInteger(removes) ? { removes: removes as number } : {};
		const input = { db: store.file, site: params.site, to: backTo as number, ...said, ...sure };
		const work = (how: Parameters<typeof runJob>[2] = {}) => patiently(() => runJob('goBack', input, how));
		if (lines !== true) return json(await work());
		return answerInLines(request, (say, signal) =>
			work({ signal, progress: (done, all) => say({ done, all: all ?? done }) })
		);
	});
