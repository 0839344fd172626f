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
	const [year, month, day, hour, minute, second] = found.slice(1, 7).map<number>((part) => Number(part ?? 0));
	const wall = new Date(Date.UTC(2000, month! - 1, day, hour, minute, second));
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

/**
 * The offset of a time zone at a time on its clock. In an hour that the clock skips, and in one that it shows twice, the
 * offset before the change.
 */
function offsetIn(timeZone: string | undefined, wall: Date): string {
	if (timeZone === undefined || !isTimeZone(timeZone)) return '+00:00';
	return keep(`offset ${timeZone} ${wall.getTime()}`, () => {
		const [before, after] = [-DAY, DAY].map((away) => minutesAhead(timeZone, wall.getTime() + away)) as [
			number,
			number
		];
		const isRight = (minutes: number) => minutesAhead(timeZone, wall.getTime() - minutes * 60_000) === minutes;
		return inWords(isRight(before) || !isRight(after) ? before : after);
	});
}

/** Longer than any clock is away from UTC: the offsets before and after a change nearby. */
export const DAY = 24 * 60 * 60_000;

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

/** A part of a date by its name in the language; the key names all that it depends on. */
const weekday = (date: Date, language: string, width: Width) =>
	keep(
		`weekday ${width} ${language} ${date.getUTCDay()}`,
		() => partOf(date, language, { weekday: width }, 'weekday') ?? ''
	);
const dayPeriod = (date: Date, language: string) =>
	keep(
		`period ${language} ${date.getUTCHours()}`,
		() => partOf(date, language, { hour: 'numeric', hourCycle: 'h12' }, 'dayPeriod') ?? ''
	);

type Width = 'short' | 'long';

const partOf = (date: Date, language: string, options: Intl.DateTimeFormatOptions, part: string) =>
	dateFormat(language, options)
		.formatToParts(date)
		.find((one) => one.type === part)?.value;

/**
 * A month's name: beside a day as the language writes it there ("3 maja"), else as it stands alone ("maj"). Languages
 * that write a number there have the name that stands alone; those without a short name have the long one.
 */
function monthName(date: Date, language: string, width: Width, besideDay: boolean): string {
	return keep(`month ${width} ${besideDay} ${language} ${date.getUTCMonth()}`, () => {
		for (const one of width === 'short' ? (['short', 'long'] as const) : (['long'] as const)) {
			const beside = besideDay ? partOf(date, language, { month: one, day: 'numeric' }, 'month') : undefined;
			const name = [beside, dateFormat(language, { month: one }).format(date)].find((text) => text && !isNumber(text));
			if (name) return name;
		}
		return dateFormat(language, { month: 'long' }).format(date);
	});
}

const isNumber = (text: string) => /^\d+\.?$/.test(text);

/** The pattern letters of the locale data markup standard (UTS #35, Date Field Symbol Table) that we know. */
const LETTERS: Readonly<Record<string, (date: Date, language: string, besideDay: boolean) => string>> = {
	y: (d) => String(d.getUTCFullYear()),
	yy: (d) => two(d.getUTCFullYear() % 100),
	yyyy: (d) => String(d.getUTCFullYear()).padStart(4, '0'),
	M: (d) => String(d.getUTCMonth() + 1),
	MM: (d) => two(d.getUTCMonth() + 1),
	MMM: (d, language, besideDay) => monthName(d, language, 'short', besideDay),
	MMMM: (d, language, besideDay) => monthName(d, language, 'long', besideDay),
	d: (d) => String(d.getUTCDate()),
	dd: (d) => two(d.getUTCDate()),
	EEE: (d, language) => weekday(d, language, 'short'),
	EEEE: (d, language) => weekday(d, language, 'long'),
	H: (d) => String(d.getUTCHours()),
	HH: (d) => two(d.getUTCHours()),
	h: (d) => String(d.getUTCHours() % 12 || 12),
	mm: (d) => two(d.getUTCMinutes()),
	ss: (d) => two(d.getUTCSeconds()),
	a: dayPeriod
};

/** The pieces of a pattern: quoted text, runs of one letter, anything else. */
const PIECES = /'((?:[^']|'')*)'|([a-zA-Z])\2*|[^a-zA-Z']+|'/g;

/** The first letters in the pattern that mean nothing to us, or undefined when all is known. */
export function unknownDateLetters(pattern: string): string | undefined {
	for (const [piece, quoted, letter] of pattern.matchAll(PIECES))
		if (quoted === undefined && letter && !Object.hasOwn(LETTERS, piece)) return piece;
	return undefined;
}

/** Whether a day of the month stands in a pattern. */
const hasDay = (pattern: string) =>
	keep(`day in ${pattern}`, () => ({
		is: [...pattern.matchAll(PIECES)].some(([, quoted, letter]) => quoted === undefined && letter === 'd')
	})).is;

/** Writes a date by a pattern such as `d MMMM y`; text in single quotation marks stands for itself, `''` for one. */
export function formatDate(date: DateFields, pattern: string, language: string): string {
	const besideDay = hasDay(pattern);
	return pattern.replace(PIECES, (piece: string, quoted: string | undefined) => {
		if (quoted !== undefined) return quoted === '' ? "'" : quoted.replaceAll("''", "'");
		return Object.hasOwn(LETTERS, piece) ? LETTERS[piece]!(date.wall, language, besideDay) : piece;
	});
}
