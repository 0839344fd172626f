import { trimSpace } from '../../text/text';
import { isEmpty, isList, toText, type Value } from '../values';

/** What a filter takes and gives, for the static check. */
export type ValueKind = 'any' | 'text' | 'rich' | 'number' | 'date' | 'list' | 'flag';

/** An argument as a filter gets it; `value` is whatever a variable gave. */
export type ArgumentValue = string | number | Value;

export interface ParameterSpec {
	readonly name: string;
	/** `value`: a number, a text or whatever a variable gives, as it is. */
	readonly kind: 'number' | 'text' | 'value';
	readonly optional?: boolean;
	/** May be given any number of times; only the last parameter. */
	readonly many?: boolean;
	/** Says what is wrong with a value, or nothing. */
	readonly refuse?: (value: string | number) => string | undefined;
}

/** What a filter may ask of the page beside its value. */
export interface FilterContext {
	readonly language: string;
	/** What the clock shows, ISO 8601. Whoever asks comes to something else at another moment. */
	readonly now: string;
	/** Told when what was asked of the clock comes to something else: the moment, in milliseconds. */
	changesAt(moment: number): void;
	/** Where dates without an offset are meant; UTC without one. */
	readonly timeZone: string | undefined;
	/**
	 * A field of another page that is public, by its path. With a name, only where that field of the page holds pages.
	 */
	partOfPage(field: string | undefined, path: string, part: string): Value;
}

export interface FilterSpec {
	readonly takes: readonly ValueKind[];
	readonly gives: ValueKind;
	readonly parameters: readonly ParameterSpec[];
	/** One sentence for people: what it makes of what goes in. */
	readonly purpose: string;
	/** A record's value with the filter behind it, as one would write it, and what comes out in English. */
	readonly example: readonly [value: Value, call: string, gives: string];
	/** Arguments that it is offered with; without, those of the example. */
	readonly offered?: string;
	/** It works on the value itself, not on the words that its field has for it. */
	readonly isRaw?: true;
	/** It has something to say of nothing, too. */
	readonly takesNothing?: true;
	/** What it gives depends on the moment. */
	readonly isTimed?: true;
	readonly run: (value: Value, args: readonly ArgumentValue[], context: FilterContext) => Value;
}

/** The items of a value that are not empty; one value is a list of itself. */
export const listOf = (value: Value): readonly Value[] =>
	isList(value) ? value.filter((one) => !isEmpty(one)) : isEmpty(value) ? [] : [value];

const NUMBER = /^[+-]?(\d+(?:\.\d*)?|\.\d+)(e[+-]?\d+)?$/i;

/** A number, or a text that is one with a decimal point; else NaN. */
export function asNumber(value: ArgumentValue): number {
	if (typeof value === 'number') return value;
	const text = trimSpace(toText(value));
	return NUMBER.test(text) ? Number(text) : NaN;
}

export const limit: ParameterSpec = {
	name: 'limit',
	kind: 'number',
	refuse: (n) => (Number(n) < 1 ? 'a number of 1 or more' : undefined)
};

export const text = (name: string, more: Partial<ParameterSpec> = {}): ParameterSpec => ({
	name,
	kind: 'text',
	...more
});
export const number = (name: string, more: Partial<ParameterSpec> = {}): ParameterSpec => ({
	name,
	kind: 'number',
	...more
});
export const value = (name: string, more: Partial<ParameterSpec> = {}): ParameterSpec => ({
	name,
	kind: 'value',
	...more
});
