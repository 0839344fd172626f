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
	const text = await request.text().catch(brokenOff);
	if (text.trim() === '') throw refuse('body-missing');
	return recordOf(JSON.parse(text));
}

/** The bytes that a request holds. Throws a `UserError` for what did not come whole. */
export const readBytes = async (request: Request): Promise<Uint8Array<ArrayBuffer>> =>
	new Uint8Array(await request.arrayBuffer().catch(brokenOff));

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
