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
		const values = readerOf(where)(record).flatMap(valuesIn).slice(0, MOST_VALUES);
		const [first] = values;
		if (first !== undefined)
			fields.push([name, values.length === 1 ? first : (values as readonly (string | number)[])]);
	}
	return Object.fromEntries(fields);
}

type Single = Exclude<FieldValue, readonly unknown[] | null>;

/** What a value of a record is as that of a field; one of another shape is the text of its JSON's words: a name, an address. */
function valuesIn(value: unknown): Single[] {
	if (value === null || value === undefined) return [];
	if (Array.isArray(value)) return value.flatMap(valuesIn);
	if (typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean') return [value];
	const { src, url, name, alt } = value as Readonly<Record<string, unknown>>;
	const address = typeof src === 'string' ? src : typeof url === 'string' ? url : undefined;
	if (typeof name === 'string') return [{ name, ...(address !== undefined && { address }) }];
	return address === undefined ? [] : [{ src: address, ...(typeof alt === 'string' && { alt }) }];
}
