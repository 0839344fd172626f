/**
 * The status of an answer over HTTP, with its title: 401 where nobody is signed in, 403 where one may not, 404 where nothing is there, 405 where a method does nothing, 409 where someone else was first or more
 * must be said, 413 for what is too large, 502 where others do not answer, 503 while another writes, 429 where one has to wait, 422 for all else.
 */
export const TITLES = {
	400: 'Bad request',
	401: 'Not signed in',
	403: 'Forbidden',
	404: 'Not found',
	405: 'Method not allowed',
	409: 'Conflict',
	412: 'Not as it was',
	413: 'Too large',
	415: 'Unsupported media type',
	422: 'Refused',
	429: 'Too often',
	500: 'Failed',
	502: 'No answer from elsewhere',
	503: 'Not now'
} as const;
export type RefusalStatus = keyof typeof TITLES;

/** One way to be refused. */
export interface RefusalKind<D extends readonly unknown[]> {
	readonly status: RefusalStatus;
	/** The exit code of the command: 1 refused, 2 wrong use. */
	readonly exitCode: 1 | 2;
	/** In English: what, where and what to do. */
	readonly says: (...data: D) => string;
}

/** Values that a sentence names. */
export type Data<N extends string> = Readonly<Record<N, string | number>>;
export type Lists<N extends string> = Readonly<Record<N, readonly string[]>>;
/** Values that may be missing. */
export type Maybe<N extends string> = Readonly<Record<N, string | number | undefined>>;

/** A refusal by its sentence, of a status other than 422 where one is given. */
export function refusal<D extends readonly unknown[]>(says: (...data: D) => string): RefusalKind<D>;
export function refusal<D extends readonly unknown[]>(
	status: RefusalStatus,
	says: (...data: D) => string
): RefusalKind<D>;
export function refusal<D extends readonly unknown[]>(
	first: RefusalStatus | ((...data: D) => string),
	then?: (...data: D) => string
): RefusalKind<D> {
	return typeof first === 'function'
		? { status: 422, exitCode: 1, says: first }
		: { status: first, exitCode: 1, says: then! };
}

/** The command was not used as it can be. */
export const misuse = <D extends readonly unknown[]>(says: (...data: D) => string): RefusalKind<D> => ({
	...{ status: 422, exitCode: 2, says }
});
