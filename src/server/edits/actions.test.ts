import { describe, expect, test } from 'vitest';
import type { Page } from '$core';
import { readPageAction, refusalOfVersion } from './pages';

/** What a request says is to be done with pages, and why it cannot be read. */

describe('an action as a request gives it', () => {
	test.each([
		{ do: 'copy', path: '/a', to: '/b' },
		{ do: 'remove', path: '/a' },
		{ do: 'remove', path: '/a', to: '/b' },
		{ do: 'home', path: '/a' },
		{ do: 'link', path: '/a', to: '/b', language: 'pt-BR' }
	])('%j', (action) => {
		expect(readPageAction(action)).toEqual(action);
	});
	test.each([
		[null, /"do" is one of .*copy/],
		[{}, /"do" is one of/],
		[{ do: 'burn', path: '/a' }, /"do" is one of/],
		[{ do: 'constructor', path: '/a' }, /"do" is one of/],
		[{ do: 'copy', path: '/a' }, /"to" is missing/],
		[{ do: 'copy' }, /"path" is missing/],
		[{ do: 'copy', path: '' }, /"path" is missing/],
		[{ do: 'copy', path: 5 }, /"path" is missing/],
		[{ do: 'home', path: 'a' }, /“a” is no path/],
		[{ do: 'home', path: '/a b' }, /“\/a b” is no path/],
		[{ do: 'home', path: '/a?b' }, /is no path/],
		[{ do: 'home', path: '/a#b' }, /is no path/],
		[{ do: 'remove', path: '/a', to: 'https://other.example/' }, /is no path/],
		[{ do: 'remove', path: '/a', to: 7 }, /“7” is no path/],
		[{ do: 'link', path: '/a', to: '/b', language: 'not a tag' }, /“not a tag” is no language tag/]
	])('%j is refused', (action, why) => {
		expect(() => readPageAction(action)).toThrow(why);
	});
});

describe('why a page cannot be named as a version', () => {
	const types = [
		{ name: 'p', fields: [], rules: [] },
		{ name: 'o', off: true, fields: [], rules: [] }
	];
	const page = (path: string, state: Page['state'] = 'live'): Page => ({
		path,
		type: 'p',
		state,
		fields: {},
		rules: []
	});
	test.each([
		['/a', page('/a'), 'this page itself'],
		['/b', undefined, 'There is no page /b'],
		['/b', page('/b', 'draft'), '/b is a draft'],
		['/b', page('/b', 'private'), '/b is private'],
		['/b', { ...page('/b'), type: 'o' }, 'The type “o” of /b is switched off']
	])('%s', (path, other, why) => {
		expect(refusalOfVersion(page('/a'), other, path, types)?.message).toContain(why);
	});
	test('one that is public can', () => {
		expect(refusalOfVersion(page('/a'), page('/b'), '/b', types)).toBeUndefined();
	});
});
