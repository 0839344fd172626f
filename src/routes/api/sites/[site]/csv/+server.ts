import { setImmediate } from 'node:timers/promises';
import { writeCsv } from '$server/exports/csv';
import { freshen } from '$server/jobs/freshen';
import { runJob } from '$server/jobs/run';
import { log } from '$server/log';
import { SORTS, type Sort } from '$server/store/table/grid';
import { filterOf } from '$server/web/grid';
import { answerInLines } from '$server/web/lines';
import { answering } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** The table of pages as CSV, by its filter, order and columns; `?mark=1` begins it with a byte order mark. */
export const GET: RequestHandler = ({ locals, params, url }) =>
	answering(() => {
		const store = locals.store;
		store.working.sites.named(params.site);
		const sort = url.searchParams.get('sort') ?? 'path';
		const lines = writeCsv(store, params.site, filterOf(url.searchParams), {
			columns: (url.searchParams.get('columns') ?? 'path,title,description').split(','),
			sort: Object.hasOwn(SORTS, sort) ? (sort as Sort) : 'path',
			down: url.searchParams.get('down') === '1',
			mark: url.searchParams.get('mark') === '1'
		});
		const encoder = new TextEncoder();
		// A chunk each time the reader asks: nothing piles up, and others are answered between.
		const body = new ReadableStream<Uint8Array>({
			async pull(controller) {
				await setImmediate();
				const next = lines.next();
				if (next.done) controller.close();
				else controller.enqueue(encoder.encode(next.value));
			}
		});
		const file = `${params.site.replace(/[^\p{L}\p{N}]+/gu, '-')}-pages.csv`;
		return new Response(body, {
			headers: {
				'content-type': 'text/csv; charset=utf-8; header=present',
				'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file)}`
			}
		});
	});

/**
 * Reads a table back that was put out and changed; with `?try=1` it only says what that would do. It answers in lines of
 * JSON: `{ "done": 400 }` while it works, then what it came to. Going away stops it, and nothing is changed.
 */
export const POST: RequestHandler = ({ locals, params, request, url }) =>
	answering(async () => {
		const store = locals.store;
		store.working.sites.named(params.site);
		const file = new Uint8Array(await request.arrayBuffer());
		const input = { db: store.file, site: params.site, file };
		const isTrial = url.searchParams.get('try') === '1';
		return answerInLines(request, async (say, signal) => {
			const how = { signal, gives: [file.buffer], progress: (done: number) => say({ done }) };
			if (isTrial) return runJob('compareCsv', input, how);
			const done = await runJob('csvBack', input, how);
			freshen(store, params.site).catch((error: unknown) => log.error(error));
			return done;
		});
	});
