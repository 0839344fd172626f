import type { Spoken } from '$core';

/** What a message may name. */
export type Said = string | number;
type Message = string | ((...said: never[]) => string);
/** The messages of a part of the interface, by their keys. */
export type Messages = Readonly<Record<string, Message>>;
/** The same messages in another language: none is missing, and none takes anything else. */
export type InOtherWords<T extends Messages> = { readonly [K in keyof T]: T[K] extends string ? string : T[K] };
/** All messages of a language but the first, by part. */
export type Tables = Readonly<Record<string, Messages>>;

const known = new Map<string, Tables>();
/** By its tag (BCP 47); tests speak others beside those of the interface. */
let language: string = 'en-GB' satisfies Spoken;
let tables: Tables | undefined;

/** Learns a language: on the server all of them, in a browser the one that its page is in. */
export const learn = (one: string, words: Tables): unknown => known.set(one, words);

/**
 * Speaks a language from now on: in a browser for as long as a page is open, on the server for one page that is drawn, which
 * is done without a pause. One that was not learned is spoken in the words of the first.
 */
export function speak(now: string): void {
	[language, tables] = [now, known.get(now)];
}
export const spoken = (): string => language;

const firsts = new WeakMap<object, Messages>();
/** The messages of a part in the first language, whichever is spoken. */
export const firstOf = <T extends Messages>(part: T): T => (firsts.get(part) ?? part) as T;

/** The messages of a part, as they are in the language that is spoken when one is asked for. */
export function section<T extends Messages>(name: string, first: T): T {
	const part = new Proxy(first, {
		get: (own, key) => {
			const other = tables && Object.hasOwn(tables, name) ? tables[name] : undefined;
			return Reflect.get(other && Object.hasOwn(other, key) ? other : own, key) as Message;
		}
	});
	firsts.set(part, first);
	return part;
}

/** A moment (ISO 8601, or milliseconds) as the language writes it, in the time zone of where it is read. */
export const momentInWords = (at: string | number, timeStyle: 'short' | 'medium' = 'short'): string =>
	new Date(at).toLocaleString(language, { dateStyle: 'medium', timeStyle });

/** A number as the language writes it. */
export const counted = (count: number): string => count.toLocaleString(language);
