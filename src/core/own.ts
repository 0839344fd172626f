/**
 * What a record says under a name that came from outside: only its own properties count, never what every object has,
 * such as `constructor`. Undefined for none.
 */
export const ownOf = <T>(record: Readonly<Record<string, T>> | undefined, name: string): T | undefined =>
	record !== undefined && record !== null && Object.hasOwn(record, name) ? record[name] : undefined;
