import type { Spoken } from './languages';

let asked: () => string = () => 'en-GB' satisfies Spoken;

/** Says how it is known in which language (BCP 47) something is said now. */
export const speakBy = (language: () => string): unknown => (asked = language);

/** Words of one subject in other languages than English, which is built in where they are said. */
export interface OtherWords<T> {
	/** Learns them in a language. */
	readonly learn: (language: Spoken, words: T) => unknown;
	/** Those of the language that is spoken now; undefined where that is English, or was not learned. */
	readonly now: () => T | undefined;
}

export function otherWords<T>(): OtherWords<T> {
	const known = new Map<string, T>();
	return { learn: (language, words) => known.set(language, words), now: () => known.get(asked()) };
}
