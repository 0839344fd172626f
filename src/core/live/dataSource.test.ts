import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { namedIn, recordAddress, whyNoSource } from './dataSource';

describe('which pages are of a source', () => {
	test.each([
		['/boats/{id}', '/boats/7', { id: '7' }],
		['/boats/{id}', '/boats/', undefined],
		['/boats/{id}', '/boats/7/more', undefined],
		['/boats/{id}', '/boat/7', undefined],
		['/boats/{id}', '/boats/a%20b', { id: 'a%20b' }],
		['/shop/{kind}/{slug}.html', '/shop/mugs/gannet.html', { kind: 'mugs', slug: 'gannet' }],
		['/shop/{kind}/{slug}.html', '/shop/mugs/gannet.html.html', { kind: 'mugs', slug: 'gannet.html' }],
		['/shop/{kind}/{slug}.html', '/shop/mugs/.html', undefined],
		['/shop/{kind}/{slug}.html', '/shop//x.html', undefined],
		['/{year}-{id}', '/2026-12-01', { year: '2026', id: '12-01' }],
		['/{a}/x/{b}/', '/1/x/2/', { a: '1', b: '2' }],
		['/{a}/x/{b}/', '/1/x/2', undefined],
		['/{__proto__}', '/x', { __proto__: 'x' }]
	])('%s in %s', (pattern, path, named) => {
		const found = namedIn(pattern, path);
		expect(found && [...found]).toEqual(
			named && Object.entries(named).length > 0 ? Object.entries(named) : named && [['__proto__', 'x']]
		);
	});
	test('whatever a pattern is filled with without a / or what follows, is found again', () => {
		const value = fc.stringMatching(/^[a-c]{1,5}$/);
		fc.assert(
			fc.property(
				value,
				value,
				fc.constantFrom('-', '/', '.', '/x/'),
				fc.constantFrom('', '.html', '/'),
				(a, b, between, end) => {
					const found = namedIn(`/p/{a}${between}{b}${end}`, `/p/${a}${between}${b}${end}`);
					expect(found && Object.fromEntries(found)).toEqual({ a, b });
				}
			)
		);
	});
	test('a long path takes no longer for many names', () => {
		const pattern = `/${Array.from({ length: 200 }, (_, at) => `{n${at}}-`).join('')}`;
		expect(namedIn(pattern, `/${'a-'.repeat(900)}`)?.size).toBe(200);
		expect(namedIn(pattern, `/${'a-'.repeat(199)}`)).toBeUndefined();
		expect(namedIn('/{a}', `/${'a'.repeat(3000)}`)).toBeUndefined();
	});
});

describe('where a record is', () => {
	const at = (path: string, address = 'https://data.example/b/{id}?full=1') =>
		recordAddress({ path: '/boats/{id}', address }, path);
	test.each([
		['/boats/7', 'https://data.example/b/7?full=1'],
		['/boats/a%20b', 'https://data.example/b/a%20b?full=1'],
		['/boats/é', 'https://data.example/b/%C3%A9?full=1'],
		['/boats/%C3%A9', 'https://data.example/b/%C3%A9?full=1'],
		['/boats/x?y', 'https://data.example/b/x%3Fy?full=1'],
		['/boats/a%2Fb', 'https://data.example/b/a%2Fb?full=1'],
		['/boats/..', 'https://data.example/b/%2E%2E?full=1'],
		['/boats/%2e%2e', 'https://data.example/b/%2E%2E?full=1'],
		['/boats/%', 'https://data.example/b/%25?full=1'],
		['/boats/a&full=0', 'https://data.example/b/a%26full%3D0?full=1'],
		['/other/7', undefined]
	])('of %s', (path, address) => {
		expect(at(path)).toBe(address);
	});
	test('nothing in a path leads to another host, another folder or another question', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }), (id) => {
				const address = at(`/boats/${id}`);
				if (address === undefined) return;
				const url = new URL(address);
				expect([url.origin, url.search, url.hash]).toEqual(['https://data.example', '?full=1', '']);
				expect(url.pathname.split('/')).toHaveLength(3);
				expect(url.pathname.startsWith('/b/')).toBe(true);
			})
		);
	});
});

describe('what is no source', () => {
	test.each([
		['/boats/{id}', 'https://data.example/{id}', undefined],
		['/boats/{id}', 'http://data.example:8080/b?id={id}', undefined],
		['/boats/{id}', 'https://data.example/all.json', undefined],
		['boats/{id}', 'https://data.example/{id}', 'begins with /'],
		['/boats', 'https://data.example/', 'says no {name}'],
		['/{id}/{id}', 'https://data.example/{id}', 'twice'],
		['/{a}{b}', 'https://data.example/{a}', 'side by side'],
		['/boats/{id', 'https://data.example/', 'says no {name}'],
		['/{id}/x}', 'https://data.example/', 'brace'],
		['/boats/{id}?x', 'https://data.example/{id}', 'no ?'],
		['/boats/{id}', 'https://data.example/{slug}', '{slug}'],
		['/boats/{id}', 'https://{id}.example/', 'host without'],
		['/boats/{id}', 'https://data.example{id}/', 'host without'],
		['/boats/{id}', 'ftp://data.example/{id}', 'http://'],
		['/boats/{id}', '/data/{id}', 'http://'],
		['/boats/{id}', 'https:///{id}', 'http://']
	])('%s from %s', (path, address, why) => {
		const told = whyNoSource({ path, address });
		if (why === undefined) expect(told).toBeUndefined();
		else expect(told).toContain(why);
	});
});
