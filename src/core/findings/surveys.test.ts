import { describe, expect, test } from 'vitest';
import {
	checkBase,
	describeFinding,
	describeMend,
	findHard,
	findInTag,
	findOnPage,
	missingOf,
	Resolver,
	strangeness,
	STARTING_SETS,
	checkRule,
	type Page,
	type Rule,
	type SiteModel
} from '../index';

const model: SiteModel = {
	site: {
		name: 'Ferran Isles',
		base: 'https://ferran.example/',
		languages: ['en'],
		separator: '·',
		fields: {},
		rules: []
	},
	types: [{ name: 'isle', fields: [{ name: 'pier', kind: 'text' }], rules: [] }],
	pictures: [
		{ src: '/wide.jpg', width: 1200, height: 630 },
		{ src: '/small.jpg', width: 300, height: 200 },
		{ src: '/logo.png', width: 1200, height: 630, kept: { file: `${'a'.repeat(24)}.png`, width: 1200, height: 630 } },
		{ src: '/drawn.png', width: 600, height: 600, plain: true }
	]
};
const page = (path: string, fields: Page['fields'], more: Partial<Page> = {}): Page => ({
	path,
	type: 'isle',
	state: 'live',
	fields,
	rules: [],
	...more
});
const good = {
	title: 'Marl',
	summary: 'A long low island with a pier and a great many terns in summer.',
	picture: '/wide.jpg'
};
function findingsOf(one: Page, site = model.site) {
	const resolver = new Resolver({ ...model, site }, '');
	const evaluated = resolver.evaluate(one);
	return findOnPage(one, resolver.headOf(evaluated), evaluated);
}
const codes = (one: Page, site = model.site) => findingsOf(one, site).map(({ code, tag }) => `${code} ${tag}`);
const rule = (tag: string, template: string): Rule => ({ tag, kind: 'template', template });
const leaveOut = (tag: string): Rule => ({ tag, kind: 'leaveOut' });

describe('the findings on a page', () => {
	test.each<[string, Page, string[]]>([
		['nothing wrong', page('/a', good), []],
		['no picture', page('/a', { ...good, picture: null }), ['no-picture og:image']],
		['a small one', page('/a', { ...good, picture: '/small.jpg' }), ['small-picture og:image']],
		['a logo', page('/a', { ...good, picture: '/logo.png' }), ['logo-picture og:image']],
		['one by its looks', page('/a', { ...good, picture: '/drawn.png' }), ['logo-picture og:image']],
		[
			'a logo that is cut',
			page(
				'/a',
				{ ...good, picture: '/logo.png' },
				{
					rules: [{ tag: 'og:image', kind: 'pictures', sources: [{ from: 'lead' }], shapes: ['wide'] }]
				}
			),
			['logo-picture og:image']
		],
		['no description', page('/a', { ...good, summary: '' }), ['no-description description']],
		['a short one', page('/a', { ...good, summary: 'Short.' }), ['short description']],
		['one that is just long enough', page('/a', { ...good, summary: 'x'.repeat(40) }), []],
		['a long one', page('/a', { ...good, summary: 'word '.repeat(60) }), ['cut description']],
		['a bare home page', page('/', { ...good, title: 'Home' }), ['bare-title title']],
		['another page of that name', page('/home', { ...good, title: 'Home' }), []],
		['the name twice', page('/a', { ...good, title: 'Ferran Isles: Ferran Isles' }), ['name-twice title']],
		['signs that only look like a gap', page('/a', { ...good, title: 'stat(), Marl, , “. and” (see) ;;' }), []],
		[
			'a gap that a template leaves',
			page('/a', good, { rules: [rule('title', 'Marl, {page.pier}, north')] }),
			['gap title']
		],
		['a long title', page('/a', { ...good, title: 'Marl and '.repeat(9) }), ['cut title']],
		['a title that the widest listing still shows', page('/a', { ...good, title: 'i'.repeat(150) }), []],
		[
			'a card title by itself',
			page('/a', good, { rules: [rule('twitter:title', 'Marl '.repeat(20))] }),
			['cut twitter:title']
		],
		['no title is told by the path', page('/a', { ...good, title: '' }), []],
		[
			'a more specific value that was passed over',
			page('/a', good, { rules: [rule('og:title', 'Mine')] }),
			['passed-over twitter:title']
		]
	])('%s', (name, one, expected) => {
		const site = name.includes('passed over') ? { ...model.site, rules: [rule('twitter:title', 'All')] } : model.site;
		expect(codes(one, site)).toEqual(expected);
	});
	test('a tag that came to nothing, each in its own words', () => {
		const bare = page('/a', {}, { rules: ['title', 'description', 'twitter:image', 'og:title'].map(leaveOut) });
		const resolver = new Resolver(model, '');
		const evaluated = resolver.evaluate(bare);
		const of = (tag: string) =>
			findInTag(tag, bare, resolver.headOf(evaluated), evaluated).map(({ code, target, data }) => ({
				code,
				target,
				data
			}));
		const target = { of: 'page', path: '/a' };
		expect(of('title')).toEqual([{ code: 'no-title', target, data: {} }]);
		expect(of('description')).toEqual([{ code: 'no-description', target, data: {} }]);
		expect(of('og:image')).toEqual([{ code: 'no-picture', target, data: {} }]);
		expect(of('twitter:image')).toEqual([{ code: 'empty', target, data: { tag: 'twitter:image' } }]);
		expect(of('og:title')).toEqual([{ code: 'empty', target, data: { tag: 'og:title' } }]);
		expect(of('og:type')).toEqual([]);
	});
	test('no reader asks first for a tag of its own, so that it is never too long', () => {
		const rules = [rule('robots', 'noindex'), rule('author', 'Marl '.repeat(60))];
		expect(codes(page('/a', good, { rules }))).toEqual([]);
		const one = page('/a', good, { rules });
		const resolver = new Resolver(model, '');
		const evaluated = resolver.evaluate(one);
		expect(findInTag('author', one, resolver.headOf(evaluated), evaluated)).toEqual([]);
	});
	test('an address that no reader can follow', () => {
		expect(codes(page('/a', good), { ...model.site, base: 'http://localhost:3000/' })).toContain(
			'local-address canonical'
		);
	});
	test('each says what is wrong and how to mend it, with its page, tag and weight', () => {
		const [cut] = findingsOf(page('/a', { ...good, title: 'Marl and '.repeat(9) }));
		expect(cut).toMatchObject({ target: { of: 'page', path: '/a' }, tag: 'title', weight: 2 });
		expect(describeFinding(cut!)).toBe(
			'The title has 80 characters and is cut in Fathom line, Fathom line, narrow, and Porthole'
		);
		expect(describeMend(cut!)).toMatch(/^Shorten it at the page, or write a rule/);
		const [byRule] = findingsOf(page('/a', good, { rules: [rule('title', 'Marl and '.repeat(9))] }));
		expect(describeMend(byRule!)).toBe('Shorten it, or clip in the template what is long in it.');
	});
	test('no mend on a site without rules speaks of a template that nobody wrote', () => {
		const pages = [
			page('/', { title: 'Home' }),
			page('/a', { title: 'Ferran Isles: Ferran Isles '.repeat(5), summary: 'x' }),
			page('/b', { ...good, picture: '/small.jpg', summary: 'word '.repeat(60) })
		];
		const all = pages.flatMap((one) => findingsOf(one));
		expect(all.length).toBeGreaterThan(6);
		for (const one of all) expect(describeMend(one)).not.toMatch(/out of the template|in the template/);
	});
	test('what the built-in makes of a body is never too long and ends at a word or a sentence', () => {
		const bodies = [
			'Word after word '.repeat(60),
			'WIDE CAPITALS '.repeat(40),
			'海岸の保護区'.repeat(60),
			'One sentence. '.repeat(40)
		];
		for (const body of bodies) {
			const [found] = findingsOf(page('/a', { title: 'Marl', picture: '/wide.jpg', body }));
			expect(found, body).toBeUndefined();
		}
	});
});

describe('surveys over all pages', () => {
	test('for each kind of hardness its hardest page', () => {
		const hard = findHard(
			model,
			[
				page('/short', { title: 'I', summary: good.summary, picture: '/wide.jpg', pier: 'yes' }),
				page('/long', { title: 'Long '.repeat(60), ...{ summary: good.summary, picture: '/wide.jpg', pier: 'yes' } }),
				page('/bare', { title: 'Bare bones' }),
				page('/strange', { ...good, title: '漢字 “&” ☂', pier: 'no' })
			],
			''
		);
		expect(Object.fromEntries(hard.map(({ kind, path }) => [kind, path]))).toEqual({
			longest: '/long',
			shortest: '/short',
			missing: '/bare',
			strange: '/strange',
			cut: '/long'
		});
	});
	test('of a page whose type is not declared no field is missing', () => {
		const [one] = findHard(model, [{ ...page('/a', good), type: 'nobody’s' }], '').filter(
			({ kind }) => kind === 'missing'
		);
		expect(one).toBeUndefined();
	});
	test('also of pages without a title the longest and the shortest are told, and nothing else that is nought', () => {
		const rules = [{ tag: 'title', kind: 'leaveOut' as const }];
		const hard = findHard(
			{ ...model, site: { ...model.site, rules: [...model.site.rules, ...rules] } },
			[page('/a', { ...good, title: '', summary: 'An isle.', pier: 'yes' })],
			''
		);
		expect(hard.map(({ kind, measure }) => [kind, measure])).toEqual([
			['longest', 0],
			['shortest', 0]
		]);
	});
	test.each([
		[{}, 3],
		[{ summary: 'x' }, 2],
		[{ picture: '/a.jpg' }, 2],
		[{ pier: 0 }, 2],
		[{ pier: '', summary: ' ', picture: null }, 3],
		[{ pier: 'x', summary: 'x', picture: { src: '/a.jpg' } }, 0]
	])('%j leaves so many of its fields empty', (fields, wanted) => {
		expect(missingOf(page('/a', fields), ['pier'])).toBe(wanted);
	});
	test.each([
		['', 0],
		['Plain words, “quoted”: (1) – 2?', 6],
		['漢字', 100],
		['ab漢', 33]
	])('in %j so many in a hundred are strange', (text, wanted) => expect(strangeness(text)).toBe(wanted));
	test('what is cut counts in title and description alike, and only what is there counts', () => {
		const cutPage = (path: string, title: number, summary: number) =>
			page(path, { ...good, title: 'Long '.repeat(title), summary: 'More '.repeat(summary) });
		const hard = findHard(model, [cutPage('/title', 30, 10), cutPage('/both', 29, 60), page('/none', good)], '');
		expect(hard.find(({ kind }) => kind === 'cut')?.path).toBe('/both');
		expect(
			findHard(model, [page('/none', { ...good, summary: 'An isle.', pier: 'yes' })], '').map(({ kind }) => kind)
		).toEqual(['longest', 'shortest']);
	});
});

describe('a base address as it is typed', () => {
	test.each<[string, string | undefined, RegExp[]]>([
		['https://site.example', 'https://site.example/', []],
		['http://site.example/', 'http://site.example/', [/not https/]],
		['https://site.example:8443/', 'https://site.example:8443/', [/port 8443/]],
		['https://site.example/docs', 'https://site.example/docs/', [/path \/docs\//]],
		['https://localhost/', 'https://localhost/', [/no reader of links/]],
		['https://192.168.1.4/', 'https://192.168.1.4/', [/no reader of links/]],
		['https://site.example/?x=1', 'https://site.example/', [/dropped/]],
		['site.example', undefined, []],
		['ftp://site.example', undefined, []],
		['', undefined, []]
	])('%s', (typed, base, asks) => {
		const checked = checkBase(typed);
		expect(checked.base).toBe(base);
		expect(checked.asks).toHaveLength(asks.length);
		asks.forEach((ask, at) => expect(checked.asks[at]).toMatch(ask));
		expect(checked.refused === undefined).toBe(base !== undefined);
	});
	test('what was probably meant', () => {
		expect(checkBase('site.example/x').guess).toBe('https://site.example/x');
		expect(checkBase('http://site.example').guess).toBe('https://site.example/');
		expect(checkBase('what?').guess).toBeUndefined();
	});
});

test.each(STARTING_SETS)('the starting set “$name” has no errors of its own', ({ rules, fields }) => {
	for (const rule of rules)
		expect(checkRule(rule, { site: model.site, fields }).filter(({ severity }) => severity === 'error')).toEqual([]);
});
