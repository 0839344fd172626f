import { COMMAND } from './refusals/command';
import { EDITING } from './refusals/editing';
import { GROUND } from './refusals/ground';
import { PEOPLE } from './refusals/people';
import { READING } from './refusals/reading';
import type { RefusalStatus } from './refusals/refusal';

/**
 * Every way in which Kephalon refuses, by its code: its status, and its sentence in English. Programs tell refusals apart
 * by the code; sentences may change, codes do not.
 */
export const REFUSALS = { ...COMMAND, ...EDITING, ...GROUND, ...PEOPLE, ...READING };
export type RefusalCode = keyof typeof REFUSALS;
/** What a refusal names: one record, or nothing. */
export type RefusalData<C extends RefusalCode> = Parameters<(typeof REFUSALS)[C]['says']>;

/** Something the user can mend. The message says what, where and what to do; no stack is shown. */
export class UserError extends Error {
	readonly status: RefusalStatus;
	readonly exitCode: 1 | 2;

	constructor(
		readonly code: RefusalCode,
		/** What the sentence names, for programs. */
		readonly data: Readonly<Record<string, unknown>> = {}
	) {
		const { says, status, exitCode } = REFUSALS[code] as {
			says: (data: unknown) => string;
			status: RefusalStatus;
			exitCode: 1 | 2;
		};
		super(says(data));
		this.name = 'UserError';
		this.status = status;
		this.exitCode = exitCode;
	}
}

/** A refusal, to be thrown, with what its sentence names. */
export const refuse = <C extends RefusalCode>(code: C, ...[data]: RefusalData<C>): UserError =>
	new UserError(code, data);

/** From so many pages on, and from this share of all, what goes is much: it is done when whoever asks says how many go. */
const MUCH_LEAST = 3;
const MUCH_SHARE = 0.2;
export const isMuch = (going: number, all: number) => going >= MUCH_LEAST && going > all * MUCH_SHARE;
