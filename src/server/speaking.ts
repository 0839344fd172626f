import { AsyncLocalStorage } from 'node:async_hooks';
import { ownOf, speakBy, type Spoken } from '$core';
import { learnFrench } from '../core/french';
import type { UserError } from './errors';
import { FRENCH_REFUSALS } from './refusals/fr';

/** What is said while a request is answered is said in its language; in none, as by the command, in English. */
const asked = new AsyncLocalStorage<Spoken>();
learnFrench();
speakBy(() => asked.getStore() ?? 'en-GB');

/** Answers a request in a language. */
export const answeredIn = <T>(language: Spoken, answer: () => T): T => asked.run(language, answer);

/** Whether what is said now is said in French. */
export const isFrench = (): boolean => asked.getStore() === 'fr';

/** A refusal in a sentence, in the language of whoever asked; the command’s, and what is said in no answer, in English. */
export function saidOf({ code, data, message }: Pick<UserError, 'code' | 'data' | 'message'>): string {
	const says = isFrench() ? (ownOf(FRENCH_REFUSALS, code) as ((data: unknown) => string) | undefined) : undefined;
	return says?.(data) ?? message;
}
