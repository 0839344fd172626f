import { trimSpace } from '../text/text';
import { dateFormat, keep } from './formatters';

/** Dates as content gives them: ISO 8601 texts. Shown in their own offset, never moved to the machine's zone. */

export interface DateFields {
	/** The wall-clock time that the text names, as if it were UTC. */
	readonly wall: Date;
	readonly hasTime: boolean;
	/** `Z`, `+02:00`, or undefined when the text does not say. */
	readonly offset?: string;
}

const ISO = /^(\d{4})-(\d{2})-(\d{2})(?:[T ](\d{2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*(Z|[+-]\d{2}:?\d{2})?)?$/i;

/** Reads a date or date-time in ISO 8601's calendar form. Undefined for anything else, such as a 31st of February. */
export function parseDate(text: string): DateFields | undefined {
	const found = ISO.exec(trimSpace(text));
	if (!found) return undefined;
	const [year, month, day, hour, minute, second] = found.slice(1, 7).map((part) => Number(part ?? 0)) as number[];
	const wall = new Date(Date.UTC(2000, month! - 1, day!, hour, minute, second));
	// By itself, so that the year 50 is not taken for 1950.
	wall.setUTCFullYear(year!, month! - 1, day);
	// A day that the month does not have is one of another month.
	if (wall.getUTCMonth() !== month! - 1 || hour! > 23 || minute! > 59 || second! > 59) return undefined;
	if (found[7] && !isOffset(found[7])) return undefined;
	const zone = found[7]?.toUpperCase();
	const offset = zone && zone !== 'Z' && !zone.includes(':') ? `${zone.slice(0, 3)}:${zone.slice(3)}` : zone;
	return { wall, hasTime: found[4] !== undefined, ...(offset && { offset }) };
}

/** `Z`, or hours to 23 and minutes to 59 (RFC 3339, section 5.6). */
const isOffset = (zone: string) => /^(z|[+-]([01]\d|2[0-3]):?[0-5]\d)$/i.test(zone);

/**
 * A date-time as ISO 8601 with an offset, as the article tags want it. One that names no offset is meant in the time
 * zone, UTC without one; a date alone is its midnight there.
 */
export function toIsoDate(text: string, timeZone?: string): string | undefined {
	const date = parseDate(text);
	if (!date) return undefined;
	const offset = date.offset ?? offsetIn(timeZone, date.wall);
	return `${date.wall.toISOString().slice(0, 19)}${offset === 'Z' ? '+00:00' : offset}`;
}

/** A moment (ISO 8601 in UTC) as the clock of a time zone shows it, with its offset. As it is, without a zone. */
export function inTimeZone(moment: string, timeZone: string | undefined): string {
	if (timeZone === undefined || !isTimeZone(timeZone)) return moment;
	const at = new Date(moment);
	if (Number.isNaN(at.getTime())) return moment;
	const minutes = minutesAhead(timeZone, at.getTime());
	return new Date(at.getTime() + minutes * 60_000).toISOString().slice(0, 19) + inWords(minutes);
}

/** Whether it is a name of the IANA time zone database that is known here. */
export const isTimeZone = (name: string): boolean =>
	/^[A-Za-z]/.test(name) && keep(`zone ${name}`, () => ({ is: makesFormat(name) })).is;

function makesFormat(timeZone: string): boolean {
	try {
		return new Intl.DateTimeFormat('en', { timeZone }) instanceof Intl.DateTimeFormat;
	} catch {
		return false;
	}
}

/** The offset of a time zone at a time on its clock. In the hour that is left out in spring, the one before it. */
function offsetIn(timeZone: string | undefined, wall: Date): string {
	if (timeZone === undefined || !isTimeZone(timeZone)) return '+00:00';
	return keep(`offset ${timeZone} ${wall.getTime()}`, () => {
		const first = minutesAhead(timeZone, wall.getTime());
		return inWords(minutesAhead(timeZone, wall.getTime() - first * 60_000));
	});
}

/** How many minutes the clock of a time zone is ahead of UTC at a moment (milliseconds). */
function minutesAhead(timeZone: string, moment: number): number {
	const format = keep(
		`clock ${timeZone}`,
		() =>
			new Intl.DateTimeFormat('en-GB', {
				timeZone,
				...{ calendar: 'gregory', numberingSystem: 'latn', hourCycle: 'h23', era: 'short' },
				...{ year: 'numeric', month: 'numeric', day: 'numeric', hour: 'numeric', minute: 'numeric', second: 'numeric' }
			})
	);
	const parts = new Map(format.formatToParts(moment).map(({ type, value }) => [type, value]));
	const [year, month, day, hour, minute, second] = ['year', 'month', 'day', 'hour', 'minute', 'second'].map((part) =>
		Number(parts.get(part as Intl.DateTimeFormatPartTypes))
	) as [number, number, number, number, number, number];
	const clock = new Date(0);
	clock.setUTCFullYear(parts.get('era') === 'BC' ? 1 - year : year, month - 1, day);
	clock.setUTCHours(hour, minute, second);
	return Math.round((clock.getTime() - Math.floor(moment / 1000) * 1000) / 60_000);
}

const inWords = (minutes: number) =>
	`${minutes < 0 ? '-' : '+'}${two(Math.floor(Math.abs(minutes) / 60))}:${two(Math.abs(minutes) % 60)}`;

const two = (value: number) => String(value).padStart(2, '0');

const PARTS = {
	// A day and month written together take the form that the language uses in a date.
	month: (width: 'short' | 'long') => ({ month: width, day: 'numeric' }),
	weekday: (width: 'short' | 'long') => ({ weekday: width }),
	dayPeriod: () => ({ hour: 'numeric', hourCycle: 'h12' })
} satisfies Record<string, (width: 'short' | 'long') => Intl.DateTimeFormatOptions>;

/** A part of a date by its name in the language. */
function namedPart(date: Date, language: string, part: keyof typeof PARTS, width: 'short' | 'long' = 'short'): string {
	return keep(`${part} ${width} ${language} ${NUMBERS[part](date)}`, () => {
		const parts = dateFormat(language, PARTS[part](width)).formatToParts(date);
		return parts.find((one) => one.type === part)?.value ?? '';
	});
}

/** What the name of a part depends on. */
const NUMBERS = {
	month: (date: Date) => date.getUTCMonth(),
	weekday: (date: Date) => date.getUTCDay(),
	dayPeriod: (date: Date) => date.getUTCHours()
};

/** The pattern letters of the locale data markup standard (UTS #35, Date Field Symbol Table) that we know. */
const LETTERS: Readonly<Record<string, (date: Date, language: string) => string>> = {
	y: (d) => String(d.getUTCFullYear()),
	yy: (d) => two(d.getUTCFullYear() % 100),
	yyyy: (d) => String(d.getUTCFullYear()).padStart(4, '0'),
	M: (d) => String(d.getUTCMonth() + 1),
	MM: (d) => two(d.getUTCMonth() + 1),
	MMM: (d, language) => namedPart(d, language, 'month', 'short'),
	MMMM: (d, language) => namedPart(d, language, 'month', 'long'),
	d: (d) => String(d.getUTCDate()),
	dd: (d) => two(d.getUTCDate()),
	EEE: (d, language) => namedPart(d, language, 'weekday', 'short'),
	EEEE: (d, language) => namedPart(d, language, 'weekday', 'long'),
	H: (d) => String(d.getUTCHours()),
	HH: (d) => two(d.getUTCHours()),
	h: (d) => String(d.getUTCHours() % 12 || 12),
	mm: (d) => two(d.getUTCMinutes()),
	ss: (d) => two(d.getUTCSeconds()),
	a: (d, language) => namedPart(d, language, 'dayPeriod')
};

/** The pieces of a pattern: quoted text, runs of one letter, anything else. */
const PIECES = /'((?:[^']|'')*)'|([a-zA-Z])\2*|[^a-zA-Z']+|'/g;

/** The first letters in the pattern that mean nothing to us, or undefined when all is known. */
export function unknownDateLetters(pattern: string): string | undefined {
	for (const [piece, quoted, letter] of pattern.matchAll(PIECES))
		if (quoted === undefined && letter && !Object.hasOwn(LETTERS, piece)) return piece;
	return undefined;
}

/** Writes a date by a pattern such as `d MMMM y`; text in single quotation marks stands for itself, `''` for one. */
export function formatDate(date: DateFields, pattern: string, language: string): string {
	return pattern.replace(PIECES, (piece: string, quoted: string | undefined) => {
		if (quoted !== undefined) return quoted === '' ? "'" : quoted.replaceAll("''", "'");
		return Object.hasOwn(LETTERS, piece) ? LETTERS[piece]!(date.wall, language) : piece;
	});
}
