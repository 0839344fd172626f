import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { fieldsIn, saidBeside, withFields } from './conventions';

const person = { kind: 'person', id: 1, name: 'Ada', isOwner: false, roles: {} } as const;
const beside = (path: string, who: Parameters<typeof saidBeside>[1] = { kind: 'alone' }) =>
	Object.fromEntries(saidBeside(new URL(`http://k${path}`), who, () => '203.0.113.7'));

describe('what is said beside an answer', () => {
	test('an old address says since when, and which one is not', () => {
		expect(beside('/api/sites/S/pages?find=a%20b')).toEqual({
			deprecation: '@1796083200',
			link: '</api/v1/sites/S/pages?find=a%20b>; rel="successor-version"'
		});
		expect(beside('/api/v1/sites/S/pages')).toEqual({});
		expect(new Date(1_796_083_200_000).toISOString()).toBe('2026-12-01T00:00:00.000Z');
	});
	test('how much more may be asked at once', () => {
		expect(beside('/api/v1/sites', person)).toEqual({
			'ratelimit-policy': '"at-once";q=32;qu="concurrent-requests"',
			ratelimit: '"at-once";r=32'
		});
	});
});

describe('members that are wanted', () => {
	const only = (fields: string, answer: unknown) => withFields(answer, fieldsIn(new URLSearchParams({ fields }))!);
	test.each([
		['a', { a: 1, b: 2 }, { a: 1 }],
		['b, a', { a: 1, b: { c: 3 } }, { b: { c: 3 }, a: 1 }],
		['b.c', { a: 1, b: { c: 3, d: 4 } }, { b: { c: 3 } }],
		['b.c,b', { b: { c: 3, d: 4 } }, { b: { c: 3, d: 4 } }],
		[
			'pages.path,next',
			{ pages: [{ path: '/', title: 'x' }], next: '/', more: 1 },
			{ pages: [{ path: '/' }], next: '/' }
		],
		['path', [{ path: '/a', title: 'x' }, { title: 'y' }], [{ path: '/a' }, {}]],
		['none', { a: 1 }, {}],
		['constructor', { a: 1 }, {}],
		['a', 'text', 'text'],
		['a.b', { a: 'text' }, { a: 'text' }]
	])('%s', (fields, answer, wanted) => expect(only(fields, answer)).toEqual(wanted));
	test.each(['', ' ', ',', 'a,,b', 'a.', '.a', 'a..b', 'a b', 'a[0]', Array(60).fill('a').join(',')])(
		'“%s” is refused',
		(fields) => {
			expect(() => fieldsIn(new URLSearchParams({ fields }))).toThrow(/names no members/);
		}
	);
	test('they are no part of what else is asked', () => {
		const query = new URLSearchParams('find=x&fields=path');
		expect([fieldsIn(query), String(query)]).toEqual([[['path']], 'find=x']);
		expect(fieldsIn(new URLSearchParams('find=x'))).toBeUndefined();
	});
	test('nothing comes that was not there', () => {
		fc.assert(
			fc.property(fc.json(), fc.stringMatching(/^[a-c](?:\.[a-c])?(?:,[a-c])?$/), (json, fields) => {
				const answer = JSON.parse(json) as unknown;
				expect(JSON.stringify(only(fields, answer)).length).toBeLessThanOrEqual(JSON.stringify(answer).length);
			})
		);
	});
});
