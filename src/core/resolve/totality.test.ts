import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
	FILTERS,
	findInRules,
	PageRenderer,
	Resolver,
	type ContentType,
	type Page,
	type Rule,
	type Site
} from '../index';

const NOW = '2026-05-03T10:00:00Z';
const site: Site = {
	name: 'Site',
	base: 'https://site.example/',
	languages: ['en'],
	separator: '·',
	fields: {},
	rules: [{ tag: 'og:video', kind: 'template', template: '{page.v}' }]
};

test('page n of a run comes to what page n comes to alone, for addresses of every kind of text', () => {
	const kinds = [
		(at: number) => `https://bücher.example/ä<i>${at}`,
		(at: number) => `https://書.example/頁/${at}`,
		(at: number) => `https://plain.example/x/../${at}`,
		(at: number) => `//other.example/é ${at}`
	];
	const page = (at: number): Page => ({
		path: `/ä/${at}/../${at % 7}é`,
		type: 't',
		state: 'live',
		fields: { title: `P${at}`, v: kinds[at % kinds.length]!(at) },
		rules: []
	});
	const run = new PageRenderer(new Resolver({ site, types: [], pictures: [] }, NOW));
	for (let at = 0; at < 60_000; at++) {
		const url = new URL(`.${page(at).path}`, site.base);
		const written = run.render(page(at));
		const video = new URL(kinds[at % kinds.length]!(at), url).href;
		if (!written.includes(`<meta property="og:video" content="${video}">`))
			expect(written, `page ${at}`).toContain(video);
		if (at % 500 !== 0) continue;
		const alone = new PageRenderer(new Resolver({ site, types: [], pictures: [] }, NOW));
		expect(alone.render(page(at))).toBe(written);
	}
});

/** Data that no check has seen: anything JSON can hold, where a rule, a field or a setting is expected. */
const anything = fc.jsonValue({ maxDepth: 3 });
const argument = fc.oneof(
	fc.constantFrom('', '""', '"x"', '0', '1', '30', '99999999999999999999', '"EUR"', '"EURO"', '"d QQ"', '"upper"'),
	fc.constantFrom('page.x', 'page.title', 'now', 'site.name', '"long"', '"Europe/Paris"', '"kilometer"', '"country"'),
	fc.string({ maxLength: 5 }).map((text) => JSON.stringify(text))
);
const call = fc
	.tuple(fc.constantFrom(...Object.keys(FILTERS), 'none'), fc.array(argument, { maxLength: 3 }))
	.map(([name, args]) => `{page.x | ${name} ${args.join(' ')}}`);
const wildRule = fc.oneof(
	call.map((template) => ({ tag: 'description', kind: 'template', template })),
	fc.record({
		tag: fc.constantFrom('title', 'og:image', 'robots'),
		kind: fc.constantFrom('template', 'borrow', 'pictures', 'what'),
		template: anything,
		from: anything,
		sources: anything,
		shapes: anything
	})
) as fc.Arbitrary<Rule>;

test('no rule, argument, field or setting ends a run: each costs no more than its own tag', () => {
	const value = fc.oneof(anything, fc.constantFrom('5', -0, 1e300, '2026-05-03', ['a', null, ['b']]));
	const wild = fc.record({
		rules: fc.array(wildRule, { maxLength: 4 }),
		fields: fc.dictionary(
			fc.constantFrom('x', 'title', 'picture', 'pictures', 'author', 'tags', 'body', 'summary'),
			value
		),
		more: fc.record(
			{
				alternates: fc.dictionary(fc.string({ maxLength: 6 }), anything),
				found: fc.array(fc.record({ name: anything, value: anything })),
				listing: anything,
				foundPolicy: anything,
				language: anything
			},
			{ requiredKeys: [] }
		)
	});
	fc.assert(
		fc.property(wild, ({ rules, fields, more }) => {
			const types = [{ name: 't', fields: [], rules }] as ContentType[];
			const page = { path: '/p', type: 't', state: 'live', fields, rules: [], ...more } as unknown as Page;
			const resolver = new Resolver({ site, types, pictures: [] }, NOW);
			const { head, traces } = resolver.resolveWithTrace(page);
			expect(head.tags.some(({ tag, value }) => tag.name === 'canonical' && value === 'https://site.example/p')).toBe(
				true
			);
			expect(JSON.stringify(traces)).not.toContain('undefined');
			expect(resolver.resolveHead(page)).toEqual(head);
			for (const { value } of head.tags) expect(value).not.toContain('undefined');
		}),
		{ numRuns: 1500 }
	);
});

test('a check over a site with any number of bad rules ends, and names them', () => {
	const bad = (template: string, at: number): Rule => ({
		tag: at % 2 ? 'title' : 'description',
		kind: 'template',
		template
	});
	const pages = Array.from({ length: 300 }, (_, at): Page => ({
		...{ path: `/${at}`, type: 't', state: 'live', fields: { n: at } },
		rules: [bad(['{page.n | money "EURO"}', '{page.n | number 30}', '{page', '{page.n | date}'][at % 4]!, at)]
	}));
	const renderer = new PageRenderer(new Resolver({ site, types: [], pictures: [] }, NOW));
	for (const page of pages) expect(renderer.render(page)).toContain('<title>');
	const found = findInRules(site, [], pages).filter(({ weight }) => weight > 5);
	expect(found.length).toBeGreaterThanOrEqual(pages.length);
});
