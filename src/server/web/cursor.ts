import { refuse } from '../errors';

/** What a list is sorted by, of one of its rows: texts, numbers, or nothing. */
export type Place = readonly (string | number | null)[];

/** A place in a list, as whoever goes on from there sends it back. */
export const cursorOf = (place: Place): string => Buffer.from(JSON.stringify(place)).toString('base64url');

/** The place that a cursor says, of so many parts, the first of them the list's name. Refuses what is none of that list. */
export function placeOf(cursor: string, list: string, parts: number): Place {
	let read: unknown;
	try {
		read = JSON.parse(Buffer.from(cursor, 'base64url').toString());
	} catch {
		throw refuse('cursor-broken');
	}
	const isPart = (part: unknown) => part === null || typeof part === 'string' || Number.isSafeInteger(part);
	if (!Array.isArray(read) || read.length !== parts + 1 || read[0] !== list || !read.every(isPart))
		throw refuse('cursor-broken');
	return read.slice(1) as Place;
}
