import { randomUUID } from 'node:crypto';
import { UserError } from '../errors';
import { log } from '../log';
import { namedIn, sentenceOf } from './problem';

/** How a long work is told on its way: as lines of JSON, or as events (Server-Sent Events, HTML 9.2). */
export type ToldAs = 'lines' | 'events';

/** What an asker that is told something on its way accepts; undefined for one that waits for the end. */
export function toldAs(headers: Headers): ToldAs | undefined {
	const accept = headers.get('accept') ?? '';
	if (/\bapplication\/x-ndjson\b/.test(accept)) return 'lines';
	return /\btext\/event-stream\b/.test(accept) ? 'events' : undefined;
}

type Kind = 'progress' | 'result' | 'problem';

const AS: Readonly<Record<ToldAs, { readonly type: string; readonly write: (kind: Kind, told: object) => string }>> = {
	lines: { type: 'application/x-ndjson', write: (_, told) => `${JSON.stringify(told)}\n` },
	events: { type: 'text/event-stream', write: (kind, told) => `event: ${kind}\ndata: ${JSON.stringify(told)}\n\n` }
};
/** Something is said at least so often (milliseconds): what stands between takes silence for the end. */
const BEAT = 15_000;

/**
 * Answers a request as its work goes on: what the work says on its way, then what it comes to, or `{ "refused": "…" }`; of a failure
 * of ours, `{ "failed": "…" }` with the number under which the log tells more. When the asker goes away, the signal stops the work.
 */
export function answerOnItsWay(
	request: Request,
	as: ToldAs,
	work: (say: (line: object) => void, signal: AbortSignal) => Promise<unknown>
): Response {
	const stop = new AbortController();
	const { type, write } = AS[as];
	request.signal.addEventListener('abort', () => stop.abort(), { once: true });
	const lines = new ReadableStream<string>({
		async start(stream) {
			const say = (kind: Kind, told: object) => {
				if (!stop.signal.aborted) stream.enqueue(write(kind, told));
			};
			const beat =
				as === 'events' ? setInterval(() => stop.signal.aborted || stream.enqueue(':\n\n'), BEAT) : undefined;
			try {
				const came = await work((line) => say('progress', line), stop.signal);
				say('result', came as object);
			} catch (error) {
				if (!stop.signal.aborted) say('problem', refusedAs(error));
			} finally {
				clearInterval(beat);
			}
			if (!stop.signal.aborted) stream.close();
		},
		cancel: () => stop.abort()
	});
	return new Response(lines.pipeThrough(new TextEncoderStream()), {
		headers: { 'content-type': type, 'cache-control': 'no-store' }
	});
}

/** Why a work came to nothing, as data. */
export function refusedAs(error: unknown): object {
	if (error instanceof UserError) return { ...namedIn(error), code: error.code, refused: sentenceOf(error) };
	const failed = randomUUID().slice(0, 8);
	log.error(error, `A work failed (${failed})`);
	return { failed };
}
