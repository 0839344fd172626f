import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { inTimeZone, isTimeZone, parseDate, toIsoDate } from './dates';

describe('a date without an offset is meant in the site’s time zone', () => {
	test.each([
		['2026-05-03', 'Europe/Paris', '2026-05-03T00:00:00+02:00'],
		['2026-01-03T10:30', 'Europe/Paris', '2026-01-03T10:30:00+01:00'],
		['2026-07-03T10:30', 'America/New_York', '2026-07-03T10:30:00-04:00'],
		['2026-07-03T10:30', 'Asia/Kathmandu', '2026-07-03T10:30:00+05:45'],
		// One that names an offset keeps it.
		['2026-07-03T10:30Z', 'Europe/Paris', '2026-07-03T10:30:00+00:00'],
		['2026-07-03T10:30+09:00', 'Europe/Paris', '2026-07-03T10:30:00+09:00'],
		// The hour that spring leaves out, and the hour that autumn has twice.
		['2026-03-29T02:30', 'Europe/Paris', '2026-03-29T02:30:00+01:00'],
		['2026-10-25T02:30', 'Europe/Paris', '2026-10-25T02:30:00+02:00'],
		['2026-07-03', 'No/Where', '2026-07-03T00:00:00+00:00'],
		['2026-07-03', undefined, '2026-07-03T00:00:00+00:00']
	])('%s in %s', (text, zone, wanted) => expect(toIsoDate(text, zone)).toBe(wanted));
});

test.each([
	['2026-02-28', true],
	['2026-02-29', false],
	['2028-02-29', true],
	['2026-02-30', false],
	['2026-04-31', false],
	['2026-12-31', true],
	['2026-12-32', false],
	['2026-05-00', false],
	['2026-01-00', false],
	['2026-00-10', false],
	['2026-13-01', false],
	['2026-05-03T23:59:59', true],
	['2026-05-03T24:00:00', false],
	['2026-05-03T23:60:00', false],
	['2026-05-03T23:59:60', false],
	['0050-05-03T00:00:00Z', true]
])('%s is a date: %s', (text, is) => expect(parseDate(text) !== undefined).toBe(is));

test.each([
	['2026-07-03T22:30:00.000Z', 'Europe/Paris', '2026-07-04T00:30:00+02:00'],
	['2026-07-03T22:30:00.000Z', undefined, '2026-07-03T22:30:00.000Z'],
	['2026-07-03T22:30:00.000Z', 'No/Where', '2026-07-03T22:30:00.000Z'],
	['no moment', 'Europe/Paris', 'no moment']
])('the moment %s by the clock of %s', (moment, zone, wanted) => expect(inTimeZone(moment, zone)).toBe(wanted));

test('a name is a time zone when the database knows it, whatever it is', () => {
	expect(['Europe/Paris', 'UTC', 'No/Where', '', '+01:00', '__proto__'].map(isTimeZone)).toEqual([
		...[true, true, false, false, false, false]
	]);
});

test('a clock and its offset name the same moment', () => {
	const zones = ['Europe/Paris', 'America/St_Johns', 'Asia/Tokyo', 'Australia/Lord_Howe', 'UTC'];
	const moments = fc.date({ min: new Date('1971-01-01'), max: new Date('2099-12-31'), noInvalidDate: true });
	fc.assert(
		fc.property(moments, fc.constantFrom(...zones), (date, zone) => {
			const moment = `${date.toISOString().slice(0, 19)}Z`;
			expect(new Date(inTimeZone(moment, zone)).getTime()).toBe(new Date(moment).getTime());
		})
	);
});

test('any text and any zone give a date or nothing, and never throw', () => {
	fc.assert(
		fc.property(fc.string(), fc.string(), (text, zone) => void [toIsoDate(text, zone), inTimeZone(text, zone)])
	);
});
