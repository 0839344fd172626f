import { expect, test } from 'vitest';
import { checkRule, ROBOTS_DIRECTIVES, type Site } from '$core';
import { closedInLines, DIRECTIVES, readClosed, readDirectives, withDirective } from './robots';

const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
};

test('every directive that says something is a choice, and each choice is one that the head may carry', () => {
	const names = DIRECTIVES.map(({ name }) => name);
	const silent = ['all', 'index', 'follow', 'none'];
	expect([...names, ...silent].sort()).toEqual([...ROBOTS_DIRECTIVES].sort());
	for (const { name, choices, asks } of DIRECTIVES) {
		const value = choices?.[0] ?? (asks === undefined ? '' : asks.startsWith('a date') ? '2026-12-31' : '50');
		const rule = { tag: 'robots', kind: 'template', template: withDirective('', name, value) } as const;
		expect(checkRule(rule, { site, fields: [] })).toEqual([]);
	}
});

test('one is set and taken out, and the others stay as they are', () => {
	expect(withDirective('max-snippet:50, noindex', 'nofollow', '')).toBe('max-snippet:50, noindex, nofollow');
	expect(withDirective('max-snippet:50, noindex', 'max-snippet', '20')).toBe('max-snippet:20, noindex');
	expect(withDirective('max-snippet:50, noindex', 'noindex', undefined)).toBe('max-snippet:50');
	expect(withDirective('index, follow', 'noindex', '')).toBe('follow, noindex');
	expect(withDirective('', 'unavailable_after', '2026-12-31')).toBe('unavailable_after: 2026-12-31');
});

test('what was written by hand is read', () => {
	expect([...readDirectives('NOINDEX , max-snippet: 5,, unavailable_after: 2026-01-01T10:00')]).toEqual([
		['noindex', ''],
		['max-snippet', '5'],
		['unavailable_after', '2026-01-01T10:00']
	]);
});

test('closed paths are written a line each, for all or for one robot', () => {
	const closed = [{ path: '/drafts' }, { robot: 'fathom', path: '/archive' }];
	expect(readClosed(closedInLines(closed))).toEqual({ closed });
	expect(readClosed(' /a \n\n* /b')).toEqual({ closed: [{ path: '/a' }, { path: '/b' }] });
	expect(readClosed('/a\ndrafts')).toEqual({ wrong: 'drafts' });
});
