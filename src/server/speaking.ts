import { AsyncLocalStorage } from 'node:async_hooks';
import { speakBy, type Spoken } from '$core';
import { learnFrench } from '../core/french';

/** What is said while a request is answered is said in its language; in none, as by the command, in English. */
const asked = new AsyncLocalStorage<Spoken>();
learnFrench();
speakBy(() => asked.getStore() ?? 'en-GB');

/** Answers a request in a language. */
export const answeredIn = <T>(language: Spoken, answer: () => T): T => asked.run(language, answer);

/** Whether what is said now is said in French. */
export const isFrench = (): boolean => asked.getStore() === 'fr';
