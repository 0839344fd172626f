import { refuse } from '../errors';

/**
 * A record that a request holds as JSON, with the file that comes after its line: its bytes are passed on unread. What
 * is sent as JSON has no file. Throws a `UserError`.
 */
export async function readWithFile(
	request: Request
): Promise<{ readonly record: Record<string, unknown>; readonly file?: Uint8Array<ArrayBuffer> }> {
	if (request.headers.get('content-type') !== 'application/octet-stream') return { record: await readRecord(request) };
	const all = new Uint8Array(await request.arrayBuffer());
	const end = all.indexOf(10);
	const line = new TextDecoder().decode(all.subarray(0, end < 0 ? all.length : end));
	return { record: recordOf(JSON.parse(line)), file: all.subarray(end < 0 ? all.length : end + 1) };
}

/**
 * The record that a request holds as JSON. Throws a `UserError` for anything else JSON can be, and for what did not come
 * whole or has no body: nothing is taken to be meant that was not said.
 */
export async function readRecord(request: Request): Promise<Record<string, unknown>> {
	const text = await request.text().catch(() => {
		throw refuse('body-broken-off');
	});
	if (text.trim() === '') throw refuse('body-missing');
	return recordOf(JSON.parse(text));
}

function recordOf(data: unknown): Record<string, unknown> {
	if (typeof data === 'object' && data !== null && !Array.isArray(data)) return data as Record<string, unknown>;
	throw refuse('body-no-record', {
		what: data === null ? 'null' : Array.isArray(data) ? 'a list' : `a ${typeof data}`
	});
}
