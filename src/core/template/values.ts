import type { FieldValue } from '../model';
import { isBlank } from '../text/text';

/** What an expression can come to. Undefined, null, false, a blank text and a list of such are empty; 0 is not. */
export type Value = FieldValue | Range | undefined;

/** From one number or date to another; only filters make one, and only filters for numbers and dates write one. */
export class Range {
	constructor(
		readonly from: FieldValue,
		readonly to: FieldValue
	) {}
}

/** The longest text that passes between filters; what is longer is cut here, so that no chain of them can grow. */
export const MAX_TEXT = 100_000;

export function isEmpty(value: Value): boolean {
	if (value === undefined || value === null || value === false) return true;
	if (typeof value === 'string') return isBlank(value);
	if (Array.isArray(value)) return value.every(isEmpty);
	if (value instanceof Range) return false;
	return typeof value === 'object' && isBlank(toText(value));
}

/** Whether a value is a list. */
export const isList = (value: Value): value is Extract<Value, readonly unknown[]> => Array.isArray(value);

/** A value as plain text: a list joined by commas, a person by name, a picture by address. */
export function toText(value: Value): string {
	if (typeof value === 'string') return value;
	if (value === undefined || value === null || value === false) return '';
	if (typeof value !== 'object') return String(value);
	if (isList(value))
		return value
			.filter((item) => !isEmpty(item))
			.map(toText)
			.join(', ');
	if (value instanceof Range) return `${toText(value.from)}–${toText(value.to)}`;
	const text = 'name' in value ? value.name : 'src' in value ? value.src : '';
	return typeof text === 'string' ? text : '';
}

/** A named part of a record, such as the handle of a person. Only own properties count: the record is from outside. */
export function partOf(value: Value, name: string): Value {
	if (typeof value !== 'object' || value === null || Array.isArray(value) || value instanceof Range) return undefined;
	return ownValue(value, name);
}

/**
 * An own property of a record from outside. All that plain records inherit are functions and `__proto__`, so that only
 * these need a closer look.
 */
export function ownValue(record: object, name: string): Value {
	// eslint-disable-next-line kephalon/no-open-lookup -- This is the look itself; what it inherits is left out below.
	const value = (record as Record<string, Value>)[name];
	if (typeof value !== 'function' && name !== '__proto__') return value;
	return Object.hasOwn(record, name) ? value : undefined;
}
