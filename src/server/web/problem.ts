import { UserError } from '../errors';
import { explain } from '../store/database';

/** A refusal as JSON problem details (RFC 9457). `detail` says what was wrong and what to do. */
export function problem(status: number, title: string, detail: string, more: Record<string, unknown> = {}): Response {
	return new Response(JSON.stringify({ type: 'about:blank', title, status, detail, ...more }), {
		status,
		headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' }
	});
}

/** Runs the work of a request; what the user can mend comes back as problem details. */
export async function answering(work: () => Response | Promise<Response>): Promise<Response> {
	try {
		return await work();
	} catch (error) {
		if (error instanceof SyntaxError)
			return problem(400, 'Bad request', `What was sent is not JSON: ${error.message}.`);
		const told = explain(error, 'in use');
		if (!(told instanceof UserError)) throw error;
		return problem(told.status, told.status === 404 ? 'Not found' : 'Refused', told.message);
	}
}
