import { withData } from '../../text/text';
import {
	DAY,
	formatDate,
	inTimeZone,
	isTimeZone,
	parseDate,
	toIsoDate,
	unknownDateLetters,
	type DateFields
} from '../dates';
import { dateFormat, keep, safeLanguage } from '../formatters';
import { Range, toText, type Value } from '../values';
import { text, type FilterContext, type FilterSpec } from './spec';

const STYLES = ['short', 'medium', 'long', 'full'] as const;
type Style = (typeof STYLES)[number];
const isStyle = (pattern: string): pattern is Style => (STYLES as readonly string[]).includes(pattern);
const styles = STYLES.map((style) => `"${style}"`).join(', ');

/** Filters that write dates, and tell how far away they are. */
export const DATE_FILTERS = {
	date: {
		takes: ['date', 'text'],
		gives: 'text',
		isRaw: true,
		parameters: [
			text('pattern', {
				refuse: (pattern) => {
					const letters = isStyle(toText(pattern)) ? undefined : unknownDateLetters(toText(pattern));
					return letters && `${styles}, or a pattern such as "d MMMM y" ("${letters}" means nothing in it)`;
				}
			})
		],
		purpose: 'A date in the order of the page’s language, or by a pattern such as "d MMMM y".',
		example: ['2026-05-03', 'date "long"', 'May 3, 2026'],
		run: (given, [pattern], { language }) =>
			ofDates(given, (from, to) => writeDate(from, to, toText(pattern), safeLanguage(language)))
	},
	time: {
		takes: ['date', 'text'],
		gives: 'text',
		isRaw: true,
		parameters: [],
		purpose: 'The time of day, where the date has one.',
		example: ['2026-05-03T14:30', 'time', '2:30 PM'],
		run: (given, _, { language }) =>
			ofDates(given, (from, to) => {
				if (!from.hasTime) return undefined;
				const format = dateFormat(safeLanguage(language), { timeStyle: 'short' });
				return to?.hasTime ? inWordSpaces(format.formatRange(from.wall, to.wall)) : format.format(from.wall);
			})
	},
	zone: {
		takes: ['date', 'text'],
		gives: 'date',
		isRaw: true,
		parameters: [
			text('zone', {
				refuse: (zone) => (isTimeZone(toText(zone)) ? undefined : 'a time zone such as "Europe/Paris"')
			})
		],
		purpose: 'A time as the clocks of another zone show it.',
		example: ['2026-05-03T14:30+02:00', 'zone "Europe/London" | date "HH:mm"', '13:30'],
		run: (given, [zone], { timeZone }) =>
			given instanceof Range
				? new Range(moved(given.from, toText(zone), timeZone), moved(given.to, toText(zone), timeZone))
				: moved(given, toText(zone), timeZone)
	},
	days: {
		takes: ['date', 'text'],
		gives: 'number',
		isRaw: true,
		isTimed: true,
		parameters: [],
		purpose: 'How many days until a date: 0 today, less than 0 where it is past.',
		example: ['2026-05-03', 'days', '2'],
		run: (given, _, context) => daysUntil(startOf(given), context)
	},
	away: {
		takes: ['date', 'text'],
		gives: 'text',
		isRaw: true,
		isTimed: true,
		parameters: [],
		purpose: 'How far away a date is, in words: today, in 3 days, last month.',
		example: ['2026-05-03', 'away', 'in 2 days'],
		run(given, _, context) {
			const days = daysUntil(startOf(given), context);
			return days === undefined ? undefined : inWords(days, safeLanguage(context.language));
		}
	}
} satisfies Record<string, FilterSpec>;

const startOf = (given: Value): Value => (given instanceof Range ? given.from : given);
const endOf = (given: Value): Value => (given instanceof Range ? given.to : given);

/** Dates and what is done with them; nothing for what is none. A range whose end is none is its beginning. */
function ofDates(given: Value, write: (from: DateFields, to: DateFields | undefined) => Value): Value {
	const from = parseDate(toText(startOf(given)));
	if (!from) return undefined;
	return write(from, given instanceof Range ? parseDate(toText(given.to)) : undefined);
}

function writeDate(from: DateFields, to: DateFields | undefined, pattern: string, language: string): string {
	if (isStyle(pattern)) {
		const format = dateFormat(language, { dateStyle: pattern });
		return to ? inWordSpaces(format.formatRange(from.wall, to.wall)) : format.format(from.wall);
	}
	const [start, end] = [formatDate(from, pattern, language), to && formatDate(to, pattern, language)];
	return end === undefined || end === start ? start : `${start} – ${end}`;
}

/**
 * Engines set thin spaces round the dash of a range. Between two days of a month there are none (“3–5 May”), else they are
 * those between words (“30 April – 2 May”): a thin one is shown as a box by some readers.
 */
const inWordSpaces = (range: string) =>
	range.replace(/(?<=(?:^|\s)\d{1,2})\u2009–\u2009(?=\d{1,2}(?:[\s,]|$))/g, '–').replaceAll('\u2009', ' ');

/** A date and time on the clock of another zone; a day alone is the same everywhere. */
function moved(given: Value, zone: string, own: string | undefined): string {
	const said = toText(given);
	if (!parseDate(said)?.hasTime) return said;
	return inTimeZone(toIsoDate(said, own) ?? said, zone);
}

/** A date's day on the clock of the site; a time with an offset is moved there. In days since 1970. */
function dayOf(said: string, timeZone: string | undefined): number | undefined {
	const date = parseDate(said);
	if (!date) return undefined;
	const here = date.offset ? parseDate(inTimeZone(toIsoDate(said) ?? said, timeZone ?? 'UTC')) : date;
	return here && Math.floor(here.wall.getTime() / DAY);
}

function daysUntil(given: Value, context: FilterContext): number | undefined {
	const { now, timeZone } = context;
	const [day, today] = [dayOf(toText(given), timeZone), dayOf(now, timeZone)];
	if (day === undefined || today === undefined) return undefined;
	context.changesAt(beginOf(today + 1, timeZone));
	return day - today;
}

/** The moment (milliseconds) at which a day begins on the clock of the site. */
const beginOf = (day: number, timeZone: string | undefined): number =>
	new Date(toIsoDate(new Date(day * DAY).toISOString().slice(0, 10), timeZone) ?? '').getTime();

/** Up to so many days are told in days, up to so many in weeks, then in months and years. */
const IN_DAYS = 13;
const IN_WEEKS = 60;
const IN_MONTHS = 548;

function inWords(days: number, language: string): string {
	const format = keep(
		`away ${language}`,
		() => new Intl.RelativeTimeFormat(withData(Intl.RelativeTimeFormat, language), { numeric: 'auto' })
	);
	const far = Math.abs(days);
	if (far <= IN_DAYS) return format.format(days, 'day');
	if (far <= IN_WEEKS) return format.format(Math.round(days / 7), 'week');
	if (far <= IN_MONTHS) return format.format(Math.round(days / 30.44), 'month');
	return format.format(Math.round(days / 365.25), 'year');
}

/** The moment (milliseconds) at which a date begins or ends; a day alone ends with its last. */
function momentOf(given: Value, edge: 'begins' | 'ends', timeZone: string | undefined): number | undefined {
	const said = toText(given);
	const date = parseDate(said);
	const iso = date && toIsoDate(said, timeZone);
	if (!iso) return undefined;
	return new Date(iso).getTime() + (edge === 'ends' && !date.hasTime ? DAY : 0);
}

/** Whether a date, or all of a range, is past. */
export function isPast(given: Value, context: FilterContext): boolean {
	return isReached(momentOf(endOf(given), 'ends', context.timeZone), context);
}

/** Whether a moment has come; where it has not, things change when it does. */
function isReached(moment: number | undefined, context: FilterContext): boolean {
	if (moment === undefined) return false;
	if (moment <= new Date(context.now).getTime()) return true;
	context.changesAt(moment);
	return false;
}

/** Whether a date, or the beginning of a range, is yet to come. */
export function isComing(given: Value, context: FilterContext): boolean {
	const start = momentOf(startOf(given), 'begins', context.timeZone);
	return start !== undefined && !isReached(start, context);
}

/** Whether a date is today, or today lies in a range. */
export function isToday(given: Value, context: FilterContext): boolean {
	const { now, timeZone } = context;
	const [first, last, today] = [startOf(given), endOf(given), now].map((one) => dayOf(toText(one), timeZone));
	if (first === undefined || today === undefined || today > (last ?? first)) return false;
	context.changesAt(beginOf(Math.max(first, today < first ? first : (last ?? first) + 1), timeZone));
	return first <= today;
}
