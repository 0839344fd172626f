import { expect, test } from 'vitest';
import { conditionsOf, withCondition } from './conditions';

const site = {
	types: [
		{ name: 'walk', label: 'Walk' },
		{ name: '', label: 'no type' }
	],
	languages: ['en', 'fr'],
	findings: ['cut', 'no-picture']
};
const wordsOf = (key: string, filter = {}) =>
	conditionsOf(site, filter)
		.find((one) => one.key === key)
		?.choices.map(([value, words]) => `${value}: ${words}`);

test('what can be asked of a page is said in words that can stand in a sentence', () => {
	expect(wordsOf('type')).toEqual(['walk: of the type Walk', ': of the type no type']);
	expect(wordsOf('language')).toEqual(['en: in English', 'fr: in French', '-: in no known language']);
	expect(wordsOf('finding')).toEqual(['cut: with “cut”', 'no-picture: with “no picture”']);
	expect(wordsOf('from')).toContain('title:found: title as found');
	expect(wordsOf('from')).toContain('picture:built-in: picture from the built-in');
	expect(wordsOf('without')).toContain('og:image: without og:image');
	expect(conditionsOf(site, {}).map(({ key }) => key)).toEqual([
		'type',
		'language',
		'state',
		'finding',
		'differs',
		'from',
		'without',
		'key'
	]);
});

test('what another room asked for can be read and changed here, also where no page has it any more', () => {
	expect(wordsOf('finding', { finding: 'cut,no-title' })?.[0]).toBe('cut,no-title: with “cut” or “no title”');
	expect(wordsOf('finding', { finding: 'cut' })).toHaveLength(2);
	expect(wordsOf('picture', { picture: '/media/a/heath.jpg' })).toEqual(['/media/a/heath.jpg: showing heath.jpg']);
	expect(wordsOf('title', { title: 'Home' })).toEqual(['Home: titled “Home”']);
	expect(wordsOf('description', { description: 'x'.repeat(50) })).toEqual([
		`${'x'.repeat(50)}: described “${'x'.repeat(40)}”`
	]);
});

test('one condition changes and the others stay; which tag a finding is of goes with it', () => {
	const filter = { q: 'heath', finding: 'cut', of: 'title', type: 'walk' };
	expect(withCondition(filter, 'type', 'isle')).toEqual({ ...filter, type: 'isle' });
	expect(withCondition(filter, 'type', '')).toEqual({ q: 'heath', finding: 'cut', of: 'title' });
	expect(withCondition(filter, 'finding', 'no-title')).toEqual({ q: 'heath', finding: 'no-title', type: 'walk' });
});
