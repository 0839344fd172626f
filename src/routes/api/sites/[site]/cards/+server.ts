import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { runJob } from '$server/jobs/run';
import { lookAtCards, tellReaders } from '$server/readers/cards';
import { readersClient } from '$server/readers/service';
import { answerInLines } from '$server/web/lines';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** What readers last showed of the site's pages, held against what is released. */
export const GET: RequestHandler = ({ locals, params }) =>
	answering(async () => {
		const store = locals.store;
		store.working.sites.named(params.site);
		const hasReaders = readersClient() !== undefined;
		return json(await runJob('cards', { db: store.file, site: params.site, hasReaders }));
	});

/**
 * Asks the readers for their cards (`"do": "look"`), or tells those with old ones to fetch again (`"do": "tell"`). Answers
 * in lines: how far it is with what was answered last, then `{ "asked": … }`, or `{ "refused": "…" }`. Going away stops it.
 */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { do: does } = await readRecord(request);
		if (does !== 'look' && does !== 'tell') throw refuse('cards-what');
		const client = readersClient();
		if (!client) throw refuse('no-readers');
		const store = locals.store;
		store.working.sites.named(params.site);
		return answerInLines(request, async (say, signal) => {
			const work = does === 'look' ? lookAtCards : tellReaders;
			return { asked: await work(store, client, params.site, { say, signal }) };
		});
	});
