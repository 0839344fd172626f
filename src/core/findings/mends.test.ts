import { describe, expect, test } from 'vitest';
import { parseTemplate } from '../template/parse';
import { addSection, clipFirst, dropSiteName, withSite, withTitle, wrapGaps } from './mends';

describe('a gap', () => {
	test.each([
		['{page.title} in {page.region}', ['page.region'], '{page.title}[[ in {page.region}]]'],
		['{page.title} in {page.region} · {site.name}', ['page.region'], '{page.title}[[ in {page.region}]] · {site.name}'],
		['{page.region}: {page.title}', ['page.region'], '[[{page.region}: ]]{page.title}'],
		['In {page.region}: {page.title}', ['page.region'], '[[In {page.region}: ]]{page.title}'],
		['{page.summary} Near {page.place}.', ['page.place'], '{page.summary}[[ Near {page.place}]].'],
		['{page.a}. It is {page.b}', ['page.b'], '{page.a}.[[ It is {page.b}]]'],
		['{page.a}, {page.b}, {page.c}', ['page.b', 'page.c'], '{page.a}[[, {page.b}]][[, {page.c}]]']
	])('%s', (template, variables, wanted) => {
		expect(wrapGaps(template, variables)).toBe(wanted);
		expect(parseTemplate(wanted).issues).toEqual([]);
	});
	test('that is wrapped already, or not there, has no such way', () => {
		expect(wrapGaps('{page.title}[[ in {page.region}]]', ['page.region'])).toBeUndefined();
		expect(wrapGaps('{page.title', ['page.title'])).toBeUndefined();
	});
});

test.each([
	['{page.title} {separator} {site.name}', '{page.title}'],
	['{page.title} | {site.name}', '{page.title}'],
	['{site.name}: {page.title}', '{page.title}'],
	['{site.name}', undefined],
	['{page.title', undefined],
	['{page.title} on {site.name} {page.short}', '{page.title} {page.short}'],
	['{page.title} in the {site.name}', '{page.title} in the'],
	['{page.title}', undefined]
])('the site’s name goes out of %s', (template, wanted) => expect(dropSiteName(template)).toBe(wanted));

test.each([
	['{page.title} {separator} {site.name}', '{page.title | clip 50} {separator} {site.name}'],
	['[[{page.summary ?? page.title}]]', '[[{page.summary ?? page.title | clip 50}]]'],
	['{page.summary | plain}', '{page.summary | plain | clip 50}'],
	['{page.summary | clip 155}', undefined],
	['{page.summary | words 20}', undefined],
	['{page.summary | case "upper"}', '{page.summary | case "upper" | clip 50}'],
	['{page.headings}', undefined],
	['{site.body} {page.body }', '{site.body} {page.body | clip 50}'],
	['{page.summary | clip 155} {page.short}', '{page.summary | clip 155} {page.short | clip 50}'],
	['{page.title', undefined],
	['{site.name}', undefined]
])('%s is clipped', (template, wanted) => {
	expect(clipFirst(template, 50)).toBe(wanted);
	if (wanted) expect(parseTemplate(wanted).issues).toEqual([]);
});

test('a template is not clipped to next to nothing', () => {
	expect(clipFirst('{page.title}', 9)).toBeUndefined();
	expect(clipFirst('{page.title}', 10)).toBe('{page.title | clip 10}');
});

test('what sets pages apart stands behind their title', () => {
	expect(addSection('{page.title} {separator} {site.name}')).toBe(
		'{page.title}[[, {page.section}]] {separator} {site.name}'
	);
	expect(addSection('{page.title}[[, {page.section}]]')).toBeUndefined();
	expect(addSection('{site.name}')).toBeUndefined();
});

test.each([
	['{page.title}', '{page.title} {separator} {site.name}', '{page.title}[[ {site.description}]]'],
	['{page.title} at { site.name}', undefined, undefined],
	['{page.title', undefined, undefined]
])('the site’s words go behind %s', (template, name, description) => {
	expect(withSite(template, false)).toBe(name);
	expect(withSite(template, true)).toBe(description);
});

test.each([
	['{page.summary}', '[[{page.title}: ]]{page.summary}'],
	['{page.title} in {page.region}', undefined],
	['{page.summary', undefined]
])('the page’s title goes before %s', (template, wanted) => expect(withTitle(template)).toBe(wanted));

test('a gap that a piece leaves is wrapped where the piece is used', () => {
	const pieces = new Map([
		['price', '{page.price | money "GBP"}'],
		['call', 'for {piece.price}']
	]);
	expect(wrapGaps('{page.summary} For {piece.price}', ['page.price'], pieces)).toBe(
		'{page.summary}[[ For {piece.price}]]'
	);
	expect(wrapGaps('{page.summary}, {piece.call}', ['page.price'], pieces)).toBe('{page.summary}[[, {piece.call}]]');
	expect(wrapGaps('{page.summary}, {piece.call}', ['page.other'], pieces)).toBeUndefined();
	expect(wrapGaps('{page.price?}{page.summary}', ['page.price'], pieces)).toBeUndefined();
});
