import { refuse, UserError } from '../errors';
import { TITLES } from '../refusals/refusal';
import { explain } from '../store/opening/database';
import { withoutPaths } from './paths';

/**
 * A refusal as JSON problem details (RFC 9457). `detail` says what was wrong and what to do; `code` says it to programs, and
 * what the sentence names stands beside it.
 */
export function problem(error: UserError): Response {
	const { status, code } = error;
	return new Response(
		JSON.stringify({
			...namedIn(error),
			...{ type: 'about:blank', title: TITLES[status], status, code, detail: withoutPaths(error.message) }
		}),
		{ status, headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' } }
	);
}

/** What a refusal names, for programs elsewhere: without the paths of this machine. */
export const namedIn = ({ data }: UserError): Record<string, unknown> =>
	Object.fromEntries(Object.entries(data).map(([name, value]) => [name, withoutPathsIn(value)]));

const withoutPathsIn = (value: unknown): unknown =>
	typeof value === 'string' ? withoutPaths(value) : Array.isArray(value) ? value.map(withoutPathsIn) : value;

/** Runs the work of a request; what the user can mend comes back as problem details. */
export async function answering(work: () => Response | Promise<Response>): Promise<Response> {
	try {
		return await work();
	} catch (error) {
		if (error instanceof SyntaxError) return problem(refuse('body-not-json', { why: error.message }));
		if (isOverLimit(error)) return problem(refuse('body-too-large'));
		const told = explain(error, 'in use');
		if (!(told instanceof UserError)) throw error;
		return problem(told);
	}
}

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
