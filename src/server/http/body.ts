import { refuse } from '../errors';
import { isOverLimit } from './problem';

/**
 * A record that a request holds as JSON, with the file that comes after its line: its bytes are passed on unread. What
 * is sent as JSON has no file. Throws a `UserError`.
 */
export async function readWithFile(
	request: Request
): Promise<{ readonly record: Record<string, unknown>; readonly file?: Uint8Array<ArrayBuffer> }> {
	if (request.headers.get('content-type') !== 'application/octet-stream') return { record: await readRecord(request) };
	const all = await readBytes(request);
	const end = all.indexOf(10);
	const line = new TextDecoder().decode(all.subarray(0, end < 0 ? all.length : end));
	return { record: recordOf(JSON.parse(line)), file: all.subarray(end < 0 ? all.length : end + 1) };
}

/**
 * The record that a request holds as JSON. Throws a `UserError` for anything else JSON can be, and for what did not come
 * whole or has no body: nothing is taken to be meant that was not said.
 */
export async function readRecord(request: Request): Promise<Record<string, unknown>> {
	return recordIn(new TextDecoder().decode(await readBytes(request)));
}

/** The record that a text is as JSON. Throws as `readRecord`, and a `SyntaxError` for what is no JSON. */
export function recordIn(text: string): Record<string, unknown> {
	if (text.trim() === '') throw refuse('body-missing');
	return recordOf(JSON.parse(text));
}

/** The bytes that a request holds. Throws a `UserError` for what did not come whole. */
export async function readBytes({ body, headers }: Request): Promise<Uint8Array<ArrayBuffer>> {
	if (Number(headers.get('content-length')) > MOST_HELD) throw refuse('body-too-large');
	const parts: Uint8Array[] = [];
	let size = 0;
	// What is too large is left unread: to end it would end the connection before the answer.
	const reader = body?.getReader();
	for (let next = await read(reader); !next.done; next = await read(reader)) {
		parts.push(next.value);
		if ((size += next.value.length) > MOST_HELD) throw refuse('body-too-large');
	}
	const whole = new Uint8Array(size);
	let at = 0;
	for (const part of parts) {
		whole.set(part, at);
		at += part.length;
	}
	return whole;
}

type Reader = ReadableStreamDefaultReader<Uint8Array>;
const NOTHING_MORE = { done: true, value: undefined } as const;
const read = async (reader: Reader | undefined) => (reader ? reader.read().catch(brokenOff) : NOTHING_MORE);

/** Bytes of a body that are held in memory; what is longer comes in lines, into a file. */
const MOST_HELD = 64 * 1024 * 1024;

/** What is longer than is taken is told as that. */
function brokenOff(error: unknown): never {
	throw isOverLimit(error) ? error : refuse('body-broken-off');
}

function recordOf(data: unknown): Record<string, unknown> {
	if (typeof data === 'object' && data !== null && !Array.isArray(data)) return data as Record<string, unknown>;
	throw refuse('body-no-record', {
		what: data === null ? 'null' : Array.isArray(data) ? 'a list' : `a ${typeof data}`
	});
}
