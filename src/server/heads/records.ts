import { compile, JSONPointer, type JSONPathQuery } from 'json-p3';
import type { Fields, FieldValue } from '$core';
import { refuse } from '../errors';

/** Fields out of records of live data, by the mapping of a type. */

/** Where a field stands in a record: a JSON Pointer (RFC 6901), or a JSONPath (RFC 9535), which may give several values. */
export type RecordMapping = Readonly<Record<string, string>>;

/** So many values of one field are taken. */
const MOST_VALUES = 100;
/** Read mappings are kept: a type's is asked for with every record. */
const MOST_KEPT = 1000;
const READ = new Map<string, (record: unknown) => readonly unknown[]>();

/** Functions that compare with expressions of a kind that can take for ever on some texts. */
const SLOW = /\b(?:match|search)\s*\(/;

/** Throws a `UserError` for what is neither. */
export function readerOf(where: string): (record: unknown) => readonly unknown[] {
	const known = READ.get(where);
	if (known) return known;
	if (READ.size >= MOST_KEPT) READ.clear();
	const reader = where.startsWith('$') ? byPath(where) : byPointer(where);
	READ.set(where, reader);
	return reader;
}

function byPath(where: string): (record: unknown) => readonly unknown[] {
	if (SLOW.test(where)) throw refuse('mapping-broken', { where, why: 'match() and search() are not taken' });
	// Each goes over all that stands below: one in another takes as long as the record is large, times itself.
	if (where.split('..').length > 2) throw refuse('mapping-broken', { where, why: '.. stands in it more than once' });
	let query: JSONPathQuery;
	try {
		query = compile(where);
	} catch (error) {
		throw refuse('mapping-broken', { where, why: (error as Error).message });
	}
	return (record) => {
		const values: unknown[] = [];
		for (const node of query.lazyQuery(record as never)) if (values.push(node.value) >= MOST_VALUES) break;
		return values;
	};
}

function byPointer(where: string): (record: unknown) => readonly unknown[] {
	if (where !== '' && !where.startsWith('/'))
		throw refuse('mapping-broken', { where, why: 'a pointer begins with /, and a path with $' });
	// RFC 6901, section 3.
	if (/~(?![01])/.test(where)) throw refuse('mapping-broken', { where, why: '~ stands in it as ~0, and / as ~1' });
	let pointer: JSONPointer;
	try {
		pointer = new JSONPointer(where);
	} catch (error) {
		throw refuse('mapping-broken', { where, why: (error as Error).message });
	}
	return (record) => (pointer.exists(record as never) ? [pointer.resolve(record as never)] : []);
}

/** The fields that a record has by a mapping. What is not there, or is null, is no field. Throws a `UserError` for a broken mapping. */
export function fieldsOfRecord(mapping: RecordMapping, record: unknown): Fields {
	const fields: [string, FieldValue][] = [];
	for (const [name, where] of Object.entries(mapping)) {
		const values = valuesAt(where, record);
		const [first] = values;
		if (first !== undefined)
			fields.push([name, values.length === 1 ? first : (values as readonly (string | number)[])]);
	}
	return Object.fromEntries(fields);
}

function valuesAt(where: string, record: unknown): Single[] {
	const reader = readerOf(where);
	try {
		return [reader(record)].flat(DEEPEST).flatMap(valueIn).slice(0, MOST_VALUES);
	} catch (error) {
		// Records are whatever others have: one that is nested too deep is one that cannot be read.
		throw refuse('mapping-broken', { where, why: (error as Error).message });
	}
}

/** Lists in lists are one, so deep. */
const DEEPEST = 8;

type Single = Exclude<FieldValue, readonly unknown[] | null>;

/** What a value of a record is as that of a field: a text, a number, a flag; by what it has, a picture or a person. */
function valueIn(value: unknown): Single[] {
	if (value === null || value === undefined || Array.isArray(value)) return [];
	if (typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean') return [value];
	const { src, url, name, alt } = value as Readonly<Record<string, unknown>>;
	const address = typeof src === 'string' ? src : typeof url === 'string' ? url : undefined;
	if (typeof name === 'string') return [{ name, ...(address !== undefined && { address }) }];
	return address === undefined ? [] : [{ src: address, ...(typeof alt === 'string' && { alt }) }];
}
