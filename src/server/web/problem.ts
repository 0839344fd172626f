import { codeOf, UserError } from '../errors';
import { explain } from '../store/opening/database';
import { withoutPaths } from './paths';

/** A refusal as JSON problem details (RFC 9457). `detail` says what was wrong and what to do, `code` the same to programs. */
export function problem(status: number, title: string, detail: string, more: Record<string, unknown> = {}): Response {
	return new Response(
		JSON.stringify({ type: 'about:blank', title, status, code: codeOf(status, title), detail, ...more }),
		{
			status,
			headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' }
		}
	);
}

/** Runs the work of a request; what the user can mend comes back as problem details. */
export async function answering(work: () => Response | Promise<Response>): Promise<Response> {
	try {
		return await work();
	} catch (error) {
		if (error instanceof SyntaxError)
			return problem(400, 'Bad request', `What was sent is not JSON: ${error.message}.`);
		if (isOverLimit(error)) return problem(413, TITLES[413], 'What was sent is too large to be taken.');
		const told = explain(error, 'in use');
		if (!(told instanceof UserError)) throw error;
		return problem(told.status, TITLES[told.status], withoutPaths(told.message), told.data);
	}
}

const TITLES = {
	404: 'Not found',
	409: 'Conflict',
	413: 'Too large',
	502: 'No answer from elsewhere',
	503: 'Not now',
	422: 'Refused'
} as const;

/** What the web server throws where a body is longer than it takes. */
const isOverLimit = (error: unknown) =>
	typeof error === 'object' &&
	error !== null &&
	'status' in error &&
	error.status === 413 &&
	!(error instanceof UserError);

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
		throw new UserError('What was sent did not come whole. Send it again.');
	});
	if (text.trim() === '')
		throw new UserError('Nothing was sent; an object with names and values is expected, at least {}.');
	return recordOf(JSON.parse(text));
}

function recordOf(data: unknown): Record<string, unknown> {
	if (typeof data === 'object' && data !== null && !Array.isArray(data)) return data as Record<string, unknown>;
	throw new UserError(
		`What was sent is ${data === null ? 'null' : Array.isArray(data) ? 'a list' : `a ${typeof data}`}; an object with names and values is expected.`
	);
}
