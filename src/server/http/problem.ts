import { refuse, UserError } from '../errors';
import { explain } from '../store/opening/database';
import { TITLES } from '../refusals/refusal';
import { saidOf } from '../speaking';
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
			...{ type: 'about:blank', title: TITLES[status], status, code, detail: sentenceOf(error) }
		}),
		{
			status,
			headers: {
				...{ 'content-type': 'application/problem+json', 'cache-control': 'no-store' },
				...(status === 405 && { allow: (error.data.methods as readonly string[]).join(', ') })
			}
		}
	);
}

/** A refusal in a sentence, as it goes out over the web: without the paths of this machine. */
export const sentenceOf = (error: UserError): string => withoutPaths(saidOf(error));

/** What a refusal names, for programs elsewhere: without the paths of this machine. */
export const namedIn = ({ data }: UserError): Record<string, unknown> =>
	Object.fromEntries(Object.entries(data).map(([name, value]) => [name, withoutPathsIn(value)]));

const withoutPathsIn = (value: unknown): unknown =>
	typeof value === 'string' ? withoutPaths(value) : Array.isArray(value) ? value.map(withoutPathsIn) : value;

/** What the user can mend, as problem details; all else is thrown on. */
export function refusalOf(error: unknown): Response {
	if (error instanceof SyntaxError) return problem(refuse('body-not-json', { why: error.message }));
	if (isOverLimit(error)) return problem(refuse('body-too-large'));
	const told = explain(error, 'in use');
	if (!(told instanceof UserError)) throw error;
	return problem(told);
}

/** What the web server throws where a body is longer than it takes. */
export const isOverLimit = (error: unknown) =>
	typeof error === 'object' &&
	error !== null &&
	'status' in error &&
	error.status === 413 &&
	!(error instanceof UserError);
