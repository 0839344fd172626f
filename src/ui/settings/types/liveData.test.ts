import { expect, test } from 'vitest';
import { linesIn, sourceOf, withMapped } from './liveData';

test('what is typed is a source when it is whole, and none when it is empty', () => {
	const whole = { path: '/boats/{id}', address: 'https://data.example/{id}' };
	expect(sourceOf(whole, undefined)).toEqual(whole);
	expect(sourceOf(whole, ['/boats/1'])).toEqual({ ...whole, samples: ['/boats/1'] });
	expect(sourceOf({ path: '', address: '' }, ['/boats/1'])).toBeNull();
	for (const half of [
		{ path: '/boats/{id}', address: '' },
		{ path: '', address: whole.address },
		{ ...whole, path: '/boats' }
	])
		expect(sourceOf(half, undefined)).toBeUndefined();
});

test('samples are paths, each once, ten at the most', () => {
	expect(linesIn(' /a\n\n/b\nc\n/a ')).toEqual(['/a', '/b']);
	expect(linesIn(Array.from({ length: 20 }, (_, at) => `/${at}`).join('\n'))).toHaveLength(10);
	expect(linesIn('')).toEqual([]);
});

test('a field is given a place, another one, or none', () => {
	expect(withMapped({}, 'title', '/name')).toEqual({ title: '/name' });
	expect(withMapped({ title: '/name', short: '/s' }, 'title', '$.n')).toEqual({ short: '/s', title: '$.n' });
	expect(withMapped({ title: '/name', short: '/s' }, 'title', '')).toEqual({ short: '/s' });
	expect(withMapped({ title: '/name' }, 'title', '')).toBeNull();
});
