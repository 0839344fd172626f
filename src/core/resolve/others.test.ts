import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import suite from '../../../conformance/language/others.json';
import { describeFinding } from '../findings/finding';
import { findOnPage } from '../findings/pages';
import type { ContentType, Page, Rule, Site } from '../model';
import { headToJson } from '../render/render';
import { belowMark, MOST_BELOW, pagesIn } from './others';
import { Resolver } from './resolver';

const NOW = '2026-05-03T10:00:00Z';

interface Said {
	readonly rules?: readonly (readonly string[])[];
	readonly types: readonly {
		readonly name: string;
		readonly fields: unknown;
		readonly rules?: readonly (readonly string[])[];
	}[];
	readonly pages: readonly object[];
}
const rulesOf = (rules: readonly (readonly string[])[] = []): Rule[] =>
	rules.map(([tag = '', template = '']) => ({ tag, kind: 'template', template }));

function siteOf({ rules, types, pages }: Said) {
	const site: Site = {
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
		rules: rulesOf(rules)
	};
	const all = pages.map((page) => ({ state: 'live', rules: [], ...page }) as unknown as Page);
	const model = {
		site,
		types: types.map((type) => ({ ...type, rules: rulesOf(type.rules) }) as ContentType),
		pictures: [],
		others: pagesIn(all)
	};
	return { resolver: new Resolver(model, NOW), pages: all, model };
}
const valuesOf = (resolver: Resolver, page: Page, tags: readonly string[]) => {
	const head = headToJson(resolver.resolveHead(page));
	return Object.fromEntries(
		tags.flatMap((tag) => head.tags.filter((one) => one.tag === tag).map(({ value }) => [tag, value]))
	);
};

describe.each(suite.sites)('$name', (said) => {
	const { resolver, pages } = siteOf(said);
	const comes = Object.entries(said.comes as Record<string, Record<string, string>>);

	test.each(comes)('%s', (path, wanted) => {
		const page = pages.find((one) => one.path === path)!;
		expect(valuesOf(resolver, page, Object.keys(wanted))).toEqual(wanted);
		// With a trace, all the same.
		const { traces } = resolver.resolveWithTrace(page);
		for (const [tag, value] of Object.entries(wanted))
			expect(traces.find((one) => one.tag === tag)?.value).toEqual(value);
	});
});

test('a head is the same whoever asks, whatever circles lead through it', () => {
	const tags = ['title', 'description', 'author'];
	const paths = ['/a', '/b', '/c'];
	const reference = fc.oneof(
		fc.constantFrom(...tags).map((tag) => `{head.${tag}}`),
		fc
			.tuple(fc.constantFrom(...paths), fc.constantFrom(...tags))
			.map(([path, tag]) => `{page.to${path.slice(1)}.head.${tag}}`)
	);
	const template = fc.array(
		fc.oneof({ weight: 3, arbitrary: reference }, fc.constantFrom('x', '[[y {head.title}]]', '{words.none}')),
		{
			...{ minLength: 1, maxLength: 3 }
		}
	);
	const page = fc.tuple(template, template, template);
	fc.assert(
		fc.property(fc.tuple(page, page, page), (all) => {
			const to = { toa: '/a', tob: '/b', toc: '/c' };
			const fields = Object.keys(to).map((name) => ({ name, kind: 'page' }));
			const said = {
				rules: tags.map((tag) => [tag, `own ${tag}`]),
				types: paths.flatMap((path, at) => [
					{ name: path, fields, rules: tags.map((tag, index) => [tag, all[at]![index]!.join('')]) },
					{
						name: `asks ${path}`,
						fields: [{ name: 'to', kind: 'page' }],
						rules: tags.map((tag) => [tag, `{page.to.head.${tag}}`])
					}
				]),
				pages: paths.flatMap((path) => [
					{ path, type: path, fields: to },
					{ path: `/asks${path}`, type: `asks ${path}`, fields: { to: path } }
				])
			};
			const { resolver, pages } = siteOf(said);
			for (const one of pages.filter(({ type }) => type.startsWith('asks')))
				expect(valuesOf(resolver, one, tags)).toEqual(
					valuesOf(
						resolver,
						pages.find(({ path }) => path === one.fields.to)!,
						tags
					)
				);
		})
	);
});

test('where circles close, the trace says between which pages', () => {
	const { resolver, pages } = siteOf(suite.sites[1]!);
	const trace = resolver.resolveWithTrace(pages[0]!).traces.find(({ tag }) => tag === 'title')!;
	expect(trace.steps[0]!.outcome).toEqual({
		kind: 'loop',
		tags: ['title of /a', 'title of /b', 'title of /c', 'title of /a']
	});
});

test('who stands on a circle through other pages is told, and nobody else', () => {
	const { resolver, pages } = siteOf(suite.sites[1]!);
	const told = pages.map((page) => {
		const look = resolver.evaluate(page);
		const head = resolver.headOf(look);
		return findOnPage(page, head, look)
			.filter(({ code }) => code === 'heads-circle')
			.map(describeFinding);
	});
	expect(told).toEqual([
		[
			'What title says leads round in a circle through the heads of other pages, so it is left: title of /a → title of /b → title of /c → title of /a'
		],
		[
			'What title says leads round in a circle through the heads of other pages, so it is left: title of /b → title of /c → title of /a → title of /b'
		],
		[
			'What title says leads round in a circle through the heads of other pages, so it is left: title of /c → title of /a → title of /b → title of /c'
		],
		[],
		[]
	]);
});

test('what was read is known, and of what the head', () => {
	const { resolver, pages } = siteOf(suite.sites[0]!);
	const look = resolver.evaluate(pages[0]!);
	resolver.headOf(look);
	expect([...look.reads].sort()).toEqual(['/ada', '/co']);
	expect([...look.headsRead]).toEqual(['/ada']);
});

test('a head that names the moment makes the one that reads it name it too', () => {
	const said = {
		types: [
			{ name: 'a', fields: [{ name: 'to', kind: 'page' }], rules: [['title', '{page.to.head.title}']] },
			{ name: 'b', fields: [], rules: [['title', '{now | date "y"}']] }
		],
		pages: [
			{ path: '/a', type: 'a', fields: { to: '/b' } },
			{ path: '/b', type: 'b', fields: {} },
			{ path: '/c', type: 'a', fields: {} }
		]
	};
	const { resolver, pages } = siteOf(said);
	const timed = pages.map((page) => {
		const look = resolver.evaluate(page);
		resolver.headOf(look);
		return look.isTimed;
	});
	expect(timed).toEqual([true, true, false]);
});

test('below a page are the first hundred, and its folder is what is read', () => {
	const pages = Array.from({ length: 130 }, (_, at) => ({
		path: `/list/${String(at).padStart(3, '0')}`,
		type: 'p',
		fields: { title: String(at) }
	}));
	const said = {
		rules: [['description', '{page.below | count} {page.below | last}']],
		types: [{ name: 'p', fields: [] }],
		pages: [{ path: '/list', type: 'p', fields: {} }, ...pages]
	};
	const site = siteOf(said);
	expect(valuesOf(site.resolver, site.pages[0]!, ['description'])).toEqual({ description: '100 /list/099' });
	const look = site.resolver.evaluate(site.pages[0]!);
	look.pageValue('below');
	expect(look.reads).toContain(belowMark('/list/'));
	expect(look.reads.size).toBe(MOST_BELOW + 1);
});

test('folders list paths in the order of their characters, whatever the characters', () => {
	const at = (path: string) => ({ path, type: 'p', state: 'live', rules: [], fields: {} }) as Page;
	const { below } = pagesIn(['/x/😀', '/x/ﬀ', '/x/b', '/x/a/', '/x/a/b', '/x/', '/y'].map(at));
	expect(below('/x/', 9)).toEqual(['/x/a/', '/x/b', '/x/ﬀ', '/x/😀']);
	expect(below('/', 9)).toEqual(['/x/', '/y']);
});

test('data that no check has seen harms nothing', () => {
	const odd = [
		{ path: '/a', type: 'walk', fields: { guide: { toString: 1 } } },
		{ path: '/b', type: 'walk', fields: { guide: ['/a'] } },
		{ path: '/c', type: 'walk', fields: { guide: '/__proto__', author: [null] } },
		{ path: '/d', type: 'nothing', fields: { guide: '/a' }, alternates: { en: 5 } },
		{ path: '', type: 'walk', fields: { guide: '/d' }, language: 'fr' }
	];
	const { resolver, pages } = siteOf({
		rules: [
			['title', '{page.guide.head.title}{page.guide.x.y}{page.profile.title}{page.way | count}{page.below | count}']
		],
		types: [{ name: 'walk', fields: [{ name: 'guide', kind: 'page' }] }],
		pages: odd
	});
	for (const page of pages) expect(() => resolver.resolveWithTrace(page)).not.toThrow();
});

test('a layout that reads other heads, in circles too, ends', () => {
	const { model, pages } = siteOf({
		types: [
			{
				name: 'p',
				fields: [{ name: 'to', kind: 'page' }],
				rules: [['title', '{page.title} {page.to.head.og:image}']]
			}
		],
		pages: [
			{ path: '/a', type: 'p', fields: { title: 'A', to: '/b' } },
			{ path: '/b', type: 'p', fields: { title: 'B', to: '/a' } }
		]
	});
	const layout = { arrangement: 'below', title: { template: '{page.to.head.title}' } } as never;
	const resolver = new Resolver({ ...model, types: model.types.map((type) => ({ ...type, layout })) }, NOW);
	for (const page of pages) expect(resolver.resolveHead(page).tags.length).toBeGreaterThan(3);
});
