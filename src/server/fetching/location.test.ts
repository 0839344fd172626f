import { expect, test } from 'vitest';
import { leadsTo } from './location';

/** Where redirects lead. */
const bytes = (text: string) => Buffer.from(text).toString('latin1');
test.each([
	['/to', 'https://s.example/to'],
	['?x', 'https://s.example/a?x'],
	[bytes('/ö/鸭'), 'https://s.example/%C3%B6/%E9%B8%AD'],
	// What is no UTF-8 is taken unit by unit.
	['/\u00f6', 'https://s.example/%C3%B6'],
	['https://', undefined],
	['', undefined],
	[undefined, undefined]
])('%j', (field, to) => expect(leadsTo(field, 'https://s.example/a')?.href).toBe(to));
