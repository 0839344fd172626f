import { runJob } from '$server/jobs/run';
import { UserError } from '$server/errors';
import { readEdit } from '$server/web/edits';
import { readSettingsEdit } from '$server/web/settings';
import { answering } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/**
 * Which pages an edit would change, before it is kept. Answers in lines of JSON: `{ "seen": 500, "all": 10000 }` while
 * it counts, then `{ "reach": … }`, or `{ "refused": "…" }`. Going away stops it.
 */
export const POST: RequestHandler = ({ params, request }) =>
	answering(async () => {
		const data = (await request.json()) as object;
		const edit = 'changes' in data ? readSettingsEdit(data) : readEdit(data);
		const store = openStore();
		const all = store.countPages(store.site(params.site).id).all;
		const stop = new AbortController();
		request.signal.addEventListener('abort', () => stop.abort(), { once: true });
		const lines = new ReadableStream<string>({
			async start(stream) {
				const say = (line: unknown) => stream.enqueue(`${JSON.stringify(line)}\n`);
				try {
					const input = { db: store.file, site: params.site, edit };
					const progress = (seen: number) => say({ seen, all });
					say({ reach: await runJob('reach', input, { signal: stop.signal, progress }) });
				} catch (error) {
					if (stop.signal.aborted) return;
					if (!(error instanceof UserError)) return stream.error(error);
					say({ refused: error.message });
				}
				stream.close();
			},
			cancel: () => stop.abort()
		});
		return new Response(lines.pipeThrough(new TextEncoderStream()), {
			headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' }
		});
	});
