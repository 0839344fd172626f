import { describe, expect, test } from 'vitest';
import { dateOf, joinDate, listOf, numberOf, whyNotLink, whyNotPicture } from './fieldValues';

describe('what is written into fields', () => {
	test.each([
		['12', 12],
		['1 200,5', 1200.5],
		['-3.25', -3.25],
		['1,000,000', undefined],
		['', undefined],
		['three', undefined]
	])('the number %j', (text, wanted) => expect(numberOf(text)).toBe(wanted));

	test('a list holds the lines that say something', () => {
		expect(listOf(' seals\n\n terns ')).toEqual(['seals', 'terns']);
		expect(listOf(' \n')).toBeUndefined();
	});

	test.each([
		['2026-05-03', { day: '2026-05-03', time: '' }],
		['2026-05-03T18:30', { day: '2026-05-03', time: '18:30' }],
		['2026-05-03T18:30:15+02:00', { day: '2026-05-03', time: '18:30', offset: '+02:00' }],
		['next week', { day: '', time: '' }]
	])('the date %j', (text, wanted) => expect(dateOf(text)).toEqual(wanted));

	test('a date keeps the offset it came with, and is gone without its day', () => {
		expect(joinDate('2026-05-03', '09:00', '+02:00')).toBe('2026-05-03T09:00+02:00');
		expect(joinDate('2026-05-03', '', '+02:00')).toBe('2026-05-03');
		expect(joinDate('', '09:00', undefined)).toBeUndefined();
	});

	test.each(['/visit', 'https://a.example/x', 'http://a.example'])('%s is an address', (text) =>
		expect(whyNotLink(text)).toBeUndefined()
	);
	test.each(['javascript:alert(1)', 'a.example', 'mailto:a@b.example'])('%s is told to be none', (text) =>
		expect(whyNotLink(text)).toMatch(/is no/)
	);

	test.each(['/pictures/a.jpg', 'a.jpg', '../a b.jpg', 'https://a.example/x', '//cdn.example/x.png', ''])(
		'%s may be a picture',
		(text) => expect(whyNotPicture(text)).toBeUndefined()
	);
	test.each(['javascript:alert(1)', 'data:image/gif;base64,R0lGOD', 'http://', 'file:///a.jpg'])(
		'%s is told to be no picture',
		(text) => expect(whyNotPicture(text)).toMatch(/is no/)
	);
});
