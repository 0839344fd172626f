/** Something the user can mend. The message says what, where and what to do; no stack is shown. */
export class UserError extends Error {
	/** The exit code of the command: 1 refused, 2 wrong use. */
	constructor(
		message: string,
		readonly exitCode: 1 | 2 = 1
	) {
		super(message);
		this.name = 'UserError';
	}
}
