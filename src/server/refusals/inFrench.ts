import type { RefusalKind } from './refusal';

/** The sentences of some refusals in another language. */
export type InFrench<T extends Readonly<Record<string, RefusalKind<never>>>> = {
	readonly [C in keyof T]: T[C]['says'];
};
