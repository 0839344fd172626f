import { refuse } from '$server/errors';
import { composeAll } from '$server/jobs/composeAll';
import { answering, readRecord } from '$server/web/problem';
import { answerInLines } from '$server/web/lines';
import type { RequestHandler } from './$types';

/**
 * Draws the share pictures of a type, or of one page. Answers in lines of JSON: `{ "done": 40, "all": 2000 }` while it
 * draws, then `{ "composed": … }`, or `{ "refused": "…" }`. Going away stops it; asking again goes on where it stopped.
 */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { type, path } = readWanted(await readRecord(request));
		const store = locals.store;
		store.working.sites.named(params.site);
		return answerInLines(request, async (say, signal) => {
			const progress = (done: number, all: number) => say({ done, all });
			return { composed: await composeAll(store, { site: params.site, type, path, progress, signal }) };
		});
	});

function readWanted(data: unknown): { readonly type: string | undefined; readonly path: string | undefined } {
	const { type, path } = (data ?? {}) as Record<string, unknown>;
	const isText = (value: unknown) => value === undefined || typeof value === 'string';
	if (!isText(type) || !isText(path)) throw refuse('compose-what');
	return { type: type, path: path };
}
