import { readFileSync } from 'node:fs';
import { runJob } from '$server/jobs/run';
import { answering, readRecord } from '$server/web/problem';
import { readRecipe } from '$server/web/recipes';
import type { RequestHandler } from './$types';

/** Draws a share picture as it would be, from its recipe: for looking at it before anything is kept. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const store = locals.store;
		store.working.sites.named(params.site);
		const recipe = readRecipe(await readRecord(request));
		const file = await runJob('draw', { db: store.file, recipe });
		return new Response(readFileSync(file), { headers: { 'content-type': 'image/jpeg', 'cache-control': 'no-store' } });
	});
