import { trimSpace } from '../../text/text';
import { parseDate, toIsoDate } from '../dates';
import { Range, isEmpty, toText, type Value } from '../values';
import { isComing, isPast, isToday } from './moments';
import { asNumber, listOf, value, type ArgumentValue, type FilterContext, type FilterSpec } from './spec';

/** What is so is `true`, what is not is nothing: it is asked with `?`, or stands in for a flag. */
const so = (is: boolean): Value => (is ? true : undefined);

/** Filters that ask something of a value. */
export const QUESTIONS = {
	is: {
		takes: ['any'],
		gives: 'flag',
		isRaw: true,
		parameters: [value('one', { many: true })],
		purpose: 'Whether it is one of these.',
		example: ['sold-out', 'is "sold-out"', 'yes'],
		run: (given, others) => so(others.some((other) => isSame(given, other)))
	},
	has: {
		takes: ['list', 'text'],
		gives: 'flag',
		isRaw: true,
		parameters: [value('item', { many: true })],
		purpose: 'Whether a list has one of these.',
		example: [['sea', 'sand'], 'has "sea"', 'yes'],
		run: (given, others) => so(listOf(given).some((item) => others.some((other) => isSame(item, other))))
	},
	over: {
		takes: ['number', 'date', 'text'],
		gives: 'flag',
		isRaw: true,
		parameters: [value('other')],
		purpose: 'Whether it is more, or later.',
		example: [7, 'over 5', 'yes'],
		run: (given, [other], context) => so(compare(given, other, context) > 0)
	},
	under: {
		takes: ['number', 'date', 'text'],
		gives: 'flag',
		isRaw: true,
		parameters: [value('other')],
		purpose: 'Whether it is less, or earlier.',
		example: [3, 'under 5', 'yes'],
		run: (given, [other], context) => so(compare(given, other, context) < 0)
	},
	past: {
		takes: ['date', 'text'],
		gives: 'flag',
		isRaw: true,
		isTimed: true,
		parameters: [],
		purpose: 'Whether a date is past.',
		example: ['2026-04-30', 'past', 'yes'],
		run: (given, _, context) => so(isPast(given, context))
	},
	coming: {
		takes: ['date', 'text'],
		gives: 'flag',
		isRaw: true,
		isTimed: true,
		parameters: [],
		purpose: 'Whether a date is yet to come.',
		example: ['2026-05-03', 'coming', 'yes'],
		run: (given, _, context) => so(isComing(given, context))
	},
	today: {
		takes: ['date', 'text'],
		gives: 'flag',
		isRaw: true,
		isTimed: true,
		parameters: [],
		purpose: 'Whether it is today, or today lies between two dates.',
		example: ['2026-05-01', 'today', 'yes'],
		run: (given, _, context) => so(isToday(given, context))
	},
	not: {
		takes: ['any'],
		gives: 'flag',
		isRaw: true,
		takesNothing: true,
		parameters: [],
		purpose: 'Whether there is nothing, or it is not so.',
		example: ['', 'not', 'yes'],
		run: (given) => so(isEmpty(given))
	}
} satisfies Record<string, FilterSpec>;

/** Two numbers of one size, or two texts that read alike but for capitals. */
function isSame(one: Value, other: ArgumentValue): boolean {
	if (one instanceof Range || other instanceof Range) return false;
	const [a, b] = [asNumber(one), asNumber(other)];
	if (Number.isFinite(a) && Number.isFinite(b)) return a === b;
	const [x, y] = [one, other].map((said) => trimSpace(toText(said)).toLowerCase());
	return x === y && x !== '';
}

/** Less than 0, 0 or more than 0; NaN for what cannot be compared. Dates are moments on the site's clock. */
function compare(one: Value, other: ArgumentValue, { timeZone }: FilterContext): number {
	const [a, b] = [asNumber(one), asNumber(other)];
	if (Number.isFinite(a) && Number.isFinite(b)) return a - b;
	const [x, y] = [one, other].map((said) => {
		const text = toText(said);
		return parseDate(text) ? new Date(toIsoDate(text, timeZone) ?? '').getTime() : NaN;
	}) as [number, number];
	return x - y;
}
