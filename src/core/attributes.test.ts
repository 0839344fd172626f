import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { findTag } from './catalogue/catalogue';
import { carriesAttributes, droppedAttributes, legalAttributes } from './resolve/attributes';
import { findOnPage, readServedHead, renderHead, Resolver, type FoundTag, type Page } from './index';

const site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
const tagOf = (name: string) => findTag(name)!;
const page = (found: FoundTag[]): Page => ({
	...{ path: '/p', type: '', state: 'live', rules: [], fields: { title: 'T' } },
	found
});
const head = (found: FoundTag[]) => new Resolver({ site, types: [], pictures: [] }, '').resolveHead(page(found));

describe('what a link may say beside where it leads', () => {
	test.each<[string, string, string, string | undefined]>([
		['alternate', 'hreflang', 'EN-gb', 'en-GB'],
		['alternate', 'hreflang', 'X-Default', 'x-default'],
		['alternate', 'hreflang', 'not a tag', undefined],
		['icon', 'type', 'IMAGE/PNG', 'image/png'],
		['icon', 'type', 'image/png; charset=x', undefined],
		['icon', 'sizes', '16x16 32X32', '16x16 32x32'],
		['icon', 'sizes', '16', undefined],
		['icon', 'sizes', 'any', 'any'],
		['icon', 'media', ' print ', 'print'],
		['icon', 'title', '\u0000', undefined],
		['manifest', 'crossorigin', '', ''],
		['manifest', 'crossorigin', 'Use-Credentials', 'use-credentials'],
		['manifest', 'crossorigin', 'yes', undefined],
		['icon', 'onload', 'x()', undefined],
		['feed:atom', 'type', 'text/plain', undefined],
		['canonical', 'hreflang', 'fr', undefined],
		['og:url', 'hreflang', 'fr', undefined]
	])('%s: %s="%s" is %s', (tag, name, value, legal) => {
		expect(legalAttributes(tagOf(tag), { [name]: value })?.[name]).toBe(legal);
	});
	test('only links carry any, and not the one that names the page', () => {
		const names = ['alternate', 'icon', 'feed:rss', 'canonical', 'og:image', 'description'];
		expect(names.map((name) => carriesAttributes(tagOf(name)))).toEqual([true, true, true, false, false, false]);
	});
	test('no name and no value can end its attribute', () => {
		const name = fc.oneof(
			fc.constantFrom('hreflang', 'type', 'title', 'sizes', '__proto__', 'constructor'),
			fc.string()
		);
		fc.assert(
			fc.property(
				fc.constantFrom('alternate', 'icon', 'feed:rss', 'manifest', 'og:image', 'canonical'),
				fc.dictionary(name, fc.string()),
				(tag, attributes) => {
					const markup = renderHead(head([{ name: tag, value: '/x', attributes }]));
					const read = readServedHead(`<!doctype html><head>${markup}</head>`).tags;
					// A parser finds as many tags as were written, and nothing below the head.
					expect(read.length).toBe(markup.split('\n').length - 1);
					expect(read.every(({ isBelow }) => !isBelow)).toBe(true);
				}
			),
			{ numRuns: 400 }
		);
	});
	test('what is not carried on is told as a finding', () => {
		const found = [{ name: 'icon', value: '/i.png', attributes: { 'x><script>': '1', sizes: 'any' } }];
		const resolver = new Resolver({ site, types: [], pictures: [] }, '');
		const evaluation = resolver.evaluate(page(found));
		const all = findOnPage(page(found), resolver.headOf(evaluation), evaluation);
		expect(all.find(({ code }) => code === 'dropped-attribute')?.data).toEqual({ tag: 'icon', names: ['x><script>'] });
		expect(droppedAttributes(tagOf('icon'), { sizes: 'any' })).toEqual([]);
	});
});

describe('names that every object has are names like any other', () => {
	const NAMES = Object.getOwnPropertyNames(Object.prototype);
	test.each(NAMES)('%s as a tag of a served page, of a file, and as a field', (name) => {
		const html = `<!doctype html><title>A</title><meta name="${name}" content="x"><meta property="${name}" content="y">`;
		expect(readServedHead(html).tags.map((tag) => tag.name.replace('meta:', ''))).toContain(name);
		expect(() => head([{ name, value: 'x', attributes: { [name]: 'y' } }])).not.toThrow();
		const written = renderHead(
			new Resolver(
				{
					site: { ...site, rules: [{ tag: 'description', kind: 'template', template: `a{page.${name}}` }] },
					types: [],
					pictures: []
				},
				''
			).resolveHead(page([]))
		);
		expect(written).toContain('<meta name="description" content="a">');
	});
});
