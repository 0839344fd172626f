/** What kind of refusal a status stands for, for programs: sentences may change, these do not. */
const ERROR_CODES = {
	404: 'not-found',
	409: 'conflict',
	413: 'too-large',
	422: 'refused',
	502: 'no-answer',
	503: 'busy'
} as const;
export type ErrorStatus = keyof typeof ERROR_CODES;

/** Something the user can mend. The message says what, where and what to do; no stack is shown. */
export class UserError extends Error {
	constructor(
		message: string,
		/** The exit code of the command: 1 refused, 2 wrong use. */
		readonly exitCode: 1 | 2 = 1,
		/** The status of an answer over HTTP: 404 where nothing is there, 409 where someone else was first, 413 for what is too large, 503 while another writes, 422 for all else. */
		readonly status: ErrorStatus = 422,
		/** What programs need to go on, beside the sentence: it goes into the answer as it is. */
		readonly data: Readonly<Record<string, unknown>> = {}
	) {
		super(message);
		this.name = 'UserError';
	}

	get code() {
		return ERROR_CODES[this.status];
	}
}

/** The code of an answer: of a status that no `UserError` has, by its title. */
export const codeOf = (status: number, title: string): string =>
	Object.hasOwn(ERROR_CODES, status) ? ERROR_CODES[status as ErrorStatus] : title.toLowerCase().replaceAll(' ', '-');

/**
 * Work that takes much of a site away is stopped until whoever asks for it says how many pages go: `removes` is that
 * number.
 */
export const mustSayRemoved = (sentence: string, removes: number) => new UserError(sentence, 1, 409, { removes });

/** From so many pages on, and from this share of all, what goes is much. */
const MUCH_LEAST = 3;
const MUCH_SHARE = 0.2;
export const isMuch = (going: number, all: number) => going >= MUCH_LEAST && going > all * MUCH_SHARE;

/** What was sent is too large. */
export const tooLarge = (message: string) => new UserError(message, 1, 413);

/** What was asked for is not there. */
export const notFound = (message: string) => new UserError(message, 1, 404);
