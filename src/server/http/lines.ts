import { randomUUID } from 'node:crypto';
import { UserError } from '../errors';
import { log } from '../log';
import { withoutPaths } from './paths';
import { namedIn } from './problem';

/**
 * Answers a request with lines of JSON: those that the work says on its way, then what it comes to, or
 * `{ "refused": "…" }`; of a failure of ours, `{ "failed": "…" }` with the number under which the log tells more. When the asker goes away, the signal stops the work.
 */
export function answerInLines(
	request: Request,
	work: (say: (line: object) => void, signal: AbortSignal) => Promise<unknown>
): Response {
	const stop = new AbortController();
	request.signal.addEventListener('abort', () => stop.abort(), { once: true });
	const lines = new ReadableStream<string>({
		async start(stream) {
			const say = (line: unknown) => {
				if (!stop.signal.aborted) stream.enqueue(`${JSON.stringify(line)}\n`);
			};
			try {
				say(await work(say, stop.signal));
			} catch (error) {
				if (stop.signal.aborted) return;
				if (error instanceof UserError)
					say({ ...namedIn(error), code: error.code, refused: withoutPaths(error.message) });
				else {
					const failed = randomUUID().slice(0, 8);
					log.error(error, `A streamed answer failed (${failed})`);
					say({ failed });
				}
			}
			if (!stop.signal.aborted) stream.close();
		},
		cancel: () => stop.abort()
	});
	return new Response(lines.pipeThrough(new TextEncoderStream()), {
		headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' }
	});
}
