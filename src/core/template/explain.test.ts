import { expect, test } from 'vitest';
import { Chance } from '../../../conformance/chance';
import { templateBy } from '../../../conformance/templates';
import { explainTemplate, knownVariables } from '../index';

const known = knownVariables({
	fields: [
		{ name: 'region', kind: 'text', label: 'Region' },
		{ name: 'price', kind: 'number', label: 'Price in pounds' },
		{ name: 'free', kind: 'flag' }
	],
	tagNames: ['og:title'],
	words: ['book'],
	pieces: new Map([['call', 'x']])
});

test.each([
	['{page.title}[[ in {page.region}]]', 'The title, then where there is the region: (‘ in ’, then the region).'],
	[
		'{page.title} {separator} {site.name}',
		'The title, then ‘ ’, then the separator, where something stands on both sides, then ‘ ’, then the name of the site.'
	],
	[
		'{page.summary ?? site.description | clip 155}',
		'The summary, or else the one-line description of the site (clip 155).'
	],
	['[[{page.free?}Free entry]]', 'Where there is the free: (‘Free entry’).'],
	[
		'[[{page.price | under 6?}only {page.price}]] {or} [[{words.book}]]',
		'The first of these that says something: where the price in pounds is under 6 and there is the price in pounds: (‘only ’, then the price in pounds); or where there is the words “book”: (the words “book”).'
	],
	[
		'{fit 60}{page.title}[[{goes 1}, {piece.call}]]',
		'In at most 60 characters, as much of it as fits: the title, then where there is the piece “call”: (‘, ’, then the piece “call”) (to go first where there is no room).'
	],
	['{page.free | not?}{head.og:title}', 'Only where the free is not there or not so: what og:title comes to.'],
	['{page.price | money page.region "short"}', 'The price in pounds (money the region ‘short’).']
])('%s', (template, told) => {
	expect(explainTemplate(template, known)).toBe(told);
});

test('words alone, and what cannot be read, are not explained; nothing else fails to be', () => {
	expect(explainTemplate('Just words', known)).toBeUndefined();
	expect(explainTemplate('{page.title', known)).toBeUndefined();
	const chance = new Chance(5);
	for (let at = 0; at < 1000; at++) {
		const told = explainTemplate(templateBy(chance), known);
		if (told !== undefined) expect(told).toMatch(/^[^a-z].*\.$/su);
	}
});
