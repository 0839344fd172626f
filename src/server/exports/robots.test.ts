import { describe, expect, test } from 'vitest';
import robotsParser from 'robots-parser';
import type { Site } from '$core';
import { robotsOf } from './robots';

const site = (robots: Site['robots'], base = 'https://s.example/'): Site => ({
	...{ name: 'S', base, languages: ['en'], separator: '·', fields: {}, rules: [] },
	...(robots && { robots })
});
const read = (robots: Site['robots'], base?: string) =>
	robotsParser('https://s.example/robots.txt', robotsOf(site(robots, base)));

describe('what a robot reads in it', () => {
	test('nothing is closed where nothing is said, and the sitemap is named', () => {
		expect(read(undefined).isAllowed('https://s.example/any', 'one')).toBe(true);
		expect(read([]).getSitemaps()).toEqual(['https://s.example/sitemap.xml']);
	});

	test('paths for all are closed to all, those for one to that one too', () => {
		const robots = read([{ path: '/drafts' }, { path: '/archive', robot: 'fathom' }]);
		expect(robots.isAllowed('https://s.example/drafts/x', 'anyone')).toBe(false);
		expect(robots.isAllowed('https://s.example/archive', 'anyone')).toBe(true);
		expect(robots.isAllowed('https://s.example/archive', 'fathom')).toBe(false);
		expect(robots.isAllowed('https://s.example/drafts', 'fathom')).toBe(false);
		expect(robots.isAllowed('https://s.example/other', 'fathom')).toBe(true);
	});

	test('paths stand under the path of the base address, and any letter is written by its bytes', () => {
		const robots = read([{ path: '/entwürfe' }], 'https://s.example/docs/');
		expect(robots.isAllowed('https://s.example/docs/entw%C3%BCrfe/1', 'one')).toBe(false);
		expect(robots.isAllowed('https://s.example/entw%C3%BCrfe', 'one')).toBe(true);
		expect(robots.getSitemaps()).toEqual(['https://s.example/docs/sitemap.xml']);
	});

	test('a line end or a comment sign in a path makes no rule of its own', () => {
		const text = robotsOf(site([{ path: '/a\nDisallow: /' }, { path: '/b#c' }]));
		expect(text.split('\n').filter((line) => line.startsWith('Disallow'))).toEqual([
			'Disallow: /a%0ADisallow:%20/',
			'Disallow: /b%23c'
		]);
	});
});
