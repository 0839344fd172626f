/** Something the user can mend. The message says what, where and what to do; no stack is shown. */
export class UserError extends Error {
	constructor(
		message: string,
		/** The exit code of the command: 1 refused, 2 wrong use. */
		readonly exitCode: 1 | 2 = 1,
		/** The status of an answer over HTTP: 404 where nothing is there, 409 where someone else was first, 413 for what is too large, 503 while another writes, 422 for all else. */
		readonly status: 404 | 409 | 413 | 422 | 502 | 503 = 422
	) {
		super(message);
		this.name = 'UserError';
	}
}

/** What was sent is too large. */
export const tooLarge = (message: string) => new UserError(message, 1, 413);

/** What was asked for is not there. */
export const notFound = (message: string) => new UserError(message, 1, 404);
