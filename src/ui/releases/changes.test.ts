import { expect, test } from 'vitest';
import { READERS, type HeadJson } from '$core';
import { cardBy, changesOf, looksAlike, stretchesOf } from './changes';

type Said = readonly [tag: string, value: string, attributes?: Readonly<Record<string, string>>];
const head = (...tags: Said[]): HeadJson => ({
	html: { lang: 'en' },
	tags: tags.map(([tag, value, attributes]) => ({
		...{ tag, value, element: tag === 'title' ? 'title' : 'meta' },
		attributes: attributes ?? (tag === 'title' ? {} : { name: tag, content: value })
	}))
});
const told = (before: HeadJson | null, after: HeadJson | null) =>
	changesOf(before, after).map(
		({ tag, kind, stretches }) =>
			`${kind} ${tag}: ${stretches.map(({ text, is }) => (is === 'same' ? text : is === 'gone' ? `[-${text}]` : `[+${text}]`)).join('')}`
	);

test('inside a text it is told which words went and came', () => {
	expect(told(head(['title', 'A walk by the sea']), head(['title', 'A long walk by the shore']))).toEqual([
		'changed title: A [+long ]walk by the [-sea][+shore]'
	]);
});

test('tags are new, gone, or as they were; a page that is new or goes says so of each', () => {
	const [was, is] = [head(['title', 'A'], ['keywords', 'sea']), head(['title', 'A'], ['robots', 'noindex'])];
	expect(told(was, is)).toEqual(['new robots: [+noindex]', 'gone keywords: [-sea]']);
	expect(told(null, head(['title', 'A']))).toEqual(['new title: [+A]']);
	expect(told(head(['title', 'A']), null)).toEqual(['gone title: [-A]']);
	expect(told(was, was)).toEqual([]);
	expect(told(null, null)).toEqual([]);
});

test('what may stand several times is told apart by what it says beside, else by its place', () => {
	const version = (lang: string, href: string): Said => ['alternate', href, { rel: 'alternate', hreflang: lang, href }];
	expect(
		told(head(version('fr', '/fr'), version('de', '/de')), head(version('fr', '/f'), version('de', '/de')))
	).toEqual(['changed alternate hreflang fr: [-/fr][+/f]'].map((line) => expect.stringContaining(line.slice(0, 30))));
	expect(told(head(['author', 'A'], ['author', 'B']), head(['author', 'A'], ['author', 'C']))).toEqual([
		'changed author (2): [-B][+C]'
	]);
});

test('the same tags in another order have moved; what is new in the midst moves nothing', () => {
	const [a, b, c]: Said[] = [
		['title', 'A'],
		['description', 'B'],
		['robots', 'all']
	];
	expect(told(head(a!, b!, c!), head(a!, c!, b!))).toEqual(['moved robots: ']);
	expect(told(head(a!, c!), head(a!, b!, c!))).toEqual(['new description: [+B]']);
});

test('markup of one’s own is told, too', () => {
	const own = (text: string) => ({ ...head(['title', 'A']), after: [text] });
	expect(told(own('<meta name=x content=1>'), own('<meta name=x content=2>'))).toHaveLength(1);
});

test('long texts, and such as have nothing in common, are told as a whole and at once', () => {
	const words = (seed: number) => Array.from({ length: 900 }, (_, at) => (at * seed) % 977).join(' ');
	expect(stretchesOf(words(7), words(13)).map(({ is }) => is)).toEqual(['gone', 'come']);
	expect(stretchesOf('Plan a visit · Merrow', 'Boats, buses, boots and dogs').map(({ is }) => is)).toEqual([
		'gone',
		'come'
	]);
	expect(stretchesOf('', 'x')).toEqual([{ text: 'x', is: 'come' }]);
});

test('cards look alike when what a reader draws is the same, whatever else differs', () => {
	const [reader] = READERS;
	const card = (...tags: Said[]) => cardBy(reader!, head(...tags));
	const [title, other]: Said[] = [
		['og:title', 'A walk'],
		['og:title', 'A stroll']
	];
	expect(looksAlike(card(title!), card(title!, ['keywords', 'sea']))).toBe(true);
	expect(looksAlike(card(title!), card(other!))).toBe(false);
	expect(looksAlike(card(title!), cardBy(reader!, null))).toBe(false);
	expect(looksAlike(undefined, undefined)).toBe(true);
});
