import { json } from '@sveltejs/kit';
import { editMeant, isLarge, takeBack, type WhichEdit } from '$server/edits/takeBack';
import { refuse } from '$server/errors';
import { runJob } from '$server/jobs/run';
import { answerInLines } from '$server/web/lines';
import { patiently } from '$server/store/opening/patiently';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** At most so many edits are listed at a time. */
const MOST = 200;

/** The record of edits, the newest first; `?before=` goes on after the last one seen. */
export const GET: RequestHandler = ({ locals, params, url }) =>
	answering(() => {
		const store = locals.store;
		const { id, revision } = store.working.sites.named(params.site);
		const before = Number(url.searchParams.get('before') ?? NaN);
		const asked = Number(url.searchParams.get('limit') ?? NaN);
		const limit = Number.isInteger(asked) && asked > 0 ? Math.min(MOST, asked) : 50;
		const edits = store.record.list(id, Number.isInteger(before) ? before : undefined, limit);
		return json({ revision, edits, next: store.record.next(id) });
	});

/**
 * Takes an edit back, by its number; the last one with `"last"`; does the one taken back last again with `"again"`. One by
 * which much of the site goes is taken back with `"removes"`, the number of those pages. With `"lines": true` it answers in
 * lines: `{ "done": 400, "all": 9000 }` while it works, then what it came to; going away stops it, and all stays.
 */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { takeBack: which, removes, lines } = await readRecord(request);
		const sure = Number.isInteger(removes) ? (removes as number) : undefined;
		if (which !== 'last' && which !== 'again' && !Number.isInteger(which)) throw refuse('take-back-what');
		const { store } = locals;
		const meant = editMeant(store, params.site, which as WhichEdit);
		const inThread = meant !== undefined && isLarge(store, meant);
		const work = async (how: Parameters<typeof runJob>[2] = {}) => {
			const input = { db: store.file, site: params.site, ...(sure !== undefined && { removes: sure }) };
			const { result, revision, edit } = await patiently(() =>
				inThread
					? runJob('takeBack', { ...input, edit: meant }, how)
					: takeBack(store, params.site, which as WhichEdit, 'bench', sure)
			);
			return { revision, edit, ...result };
		};
		// Without lines, who leaves meanwhile has asked for it all the same.
		if (lines !== true) return json(await work());
		return answerInLines(request, (say, signal) =>
			work({ signal, progress: (done, all) => say({ done, all: all ?? done }) })
		);
	});
