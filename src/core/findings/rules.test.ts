import { describe, expect, test } from 'vitest';
import {
	CATALOGUE,
	checkRule,
	describeFinding,
	findInRules,
	findTag,
	loopThrough,
	type ContentType,
	type Page,
	type Rule,
	type Site
} from '../index';

const site: Site = {
	name: 'S',
	base: 'https://s.example/',
	languages: ['en'],
	separator: '',
	fields: { motto: 'x' },
	rules: []
};
const messages = (rule: Rule, more: Partial<Site> = {}) =>
	findInRules(
		{ ...site, ...more, rules: [rule] },
		[{ name: 't', fields: [{ name: 'shot', kind: 'picture' }], rules: [] }],
		[]
	).map(describeFinding);
const template = (tag: string, text: string, language?: string): Rule => ({
	tag,
	kind: 'template',
	template: text,
	...(language && { language })
});

describe('a rule by itself', () => {
	test.each<[Rule, string]>([
		[template('og:titel', 'x'), 'Unknown tag "og:titel". Did you mean "og:title"?'],
		[
			template('shore:tide', 'x'),
			'The prefix of "shore:tide" is not declared. Declare "shore" with its namespace at the site.'
		],
		[
			template('meta:description', 'x'),
			'"meta:description" would put a second tag beside the real one. Set "description" instead.'
		],
		[
			template('robots:ROBOTS', 'noindex'),
			'"robots:ROBOTS" would put a second tag beside the real one. Set "robots" instead.'
		],
		[template('nonsense', 'x'), 'Unknown tag "nonsense". Use a name from the catalogue, or declare its prefix.'],
		[
			template('og:image:height', '5'),
			'"og:image:height" travels with its picture and takes no rule. Set "og:image" instead.'
		],
		[
			template('title', 'x', 'english language'),
			'"english language" is no language tag. Write one such as "en", "en-GB" or "pt-BR".'
		],
		[
			template('robots', 'noindx'),
			'"noindx" is not a list of robots directives such as "noindex, max-snippet:50". Did you mean "noindex"?'
		],
		[
			template('twitter:card', 'sumary'),
			'"sumary" is not one of summary, summary_large_image, player, app. Did you mean "summary"?'
		],
		[template('og:url', 'www.s.example'), '"www.s.example" is not an http or https address.'],
		[
			template('article:published_time', 'May 2026'),
			'"May 2026" is not a date such as 2026-05-03 or 2026-05-03T18:30:00+02:00.'
		],
		[template('video:duration', 'long'), '"long" is not a whole number.'],
		[template('og:locale', 'english'), '"english" is not a locale such as "en_GB".'],
		[template('twitter:site', 'two words'), '"two words" is not an account name such as "@merrowcoast".'],
		[template('theme-color', '#12'), '"#12" is not a CSS colour.'],
		[{ tag: 'og:title', kind: 'borrow', from: 'titel' }, 'Unknown tag "titel". Did you mean "title"?'],
		[
			{ tag: 'title', kind: 'pictures', sources: [] },
			'"title" holds no picture, so it takes no list of picture sources. Write a template instead.'
		],
		[
			{ tag: 'og:image', kind: 'pictures', sources: [{ from: 'field', name: 'shto' }] },
			'Unknown field "shto" in a picture source. Did you mean "shot"?'
		],
		[template('title', '{site.moto}'), 'Unknown variable "site.moto" at 1:2. Did you mean "site.motto"?']
	])('%j', (rule, told) => {
		expect(messages(rule)).toContain(told);
	});
	test.each<[Rule, Partial<Site>?]>([
		[template('title', '{page.title} {site.motto}')],
		[template('robots:examplebot', 'noarchive')],
		[template('meta:site-proof', 'abc')],
		[template('shore:tide', 'x'), { prefixes: { shore: 'https://shore.example/#' } }],
		[template('og:url', '/x')],
		[template('og:type', 'shore:walk')],
		[template('twitter:site', 'merrow')],
		[{ tag: 'og:image', kind: 'pictures', sources: [{ from: 'field', name: 'shot' }, { from: 'lead' }] }],
		[template('title', 'x', 'pt-BR')]
	])('nothing is wrong with %j', (rule, more) => {
		expect(messages(rule, more)).toEqual([]);
	});
});

describe('a whole site', () => {
	const types: ContentType[] = [
		{
			name: 't',
			fields: [{ name: 'region', kind: 'text' }],
			rules: [template('title', '{page.regoin}')],
			extra: { after: '<p>x</p>' }
		}
	];
	const page: Page = {
		path: '/p',
		type: 't',
		state: 'live',
		fields: {},
		rules: [template('title', '{page.titel}', 'fr')]
	};
	test('every place is named', () => {
		expect(
			findInRules(site, types, [page]).map(({ target, tag, data }) => [
				target,
				tag ?? 'part' in data,
				'language' in data
			])
		).toEqual([
			[{ of: 'type', name: 't' }, 'title', false],
			[{ of: 'type', name: 't' }, true, false],
			[{ of: 'page', path: '/p' }, 'title', true]
		]);
	});
	test('a circle through two layers is told once', () => {
		const looping: ContentType[] = [
			{ name: 't', fields: [], rules: [{ tag: 'title', kind: 'borrow', from: 'description' }] }
		];
		const found = findInRules({ ...site, rules: [template('description', '{head.title}')] }, looping, []);
		expect(found.map((one) => [one.target.of, describeFinding(one)])).toEqual([
			['type', 'These tags borrow in a circle: title → description → title. Give one of them a template of its own.']
		]);
	});
	test('two rules for one language, however it is written, are told', () => {
		const rules = [template('title', 'a', 'fr-CA'), template('title', 'b', 'fr-ca'), template('title', 'c', 'fr')];
		expect(findInRules({ ...site, rules }, [], []).map(describeFinding)).toEqual([
			'There are two rules for "title" in fr-ca; only the first is used. Take one of them away.'
		]);
	});
	test('fields of any type may be named at the site, only its own at a type', () => {
		const at = (fields: ContentType['fields']) =>
			checkRule(template('title', '{page.region}'), { site, fields }).length;
		expect(at(types[0]!.fields)).toBe(0);
		expect(at([])).toBe(1);
	});
	test('loops', () => {
		const borrow = (tag: string, from: string): Rule => ({ tag, kind: 'borrow', from });
		expect(loopThrough('a', [borrow('a', 'b'), borrow('b', 'c'), borrow('c', 'a')])).toEqual(['a', 'b', 'c', 'a']);
		expect(loopThrough('a', [borrow('a', 'b'), borrow('b', 'c')])).toBeUndefined();
		expect(loopThrough('x', [borrow('a', 'a')])).toBeUndefined();
	});
});

describe('the catalogue', () => {
	const names = CATALOGUE.map((tag) => tag.name);
	test('names stand once; parents and twins are there, and children directly behind their parents', () => {
		expect(new Set(names).size).toBe(names.length);
		for (const tag of CATALOGUE) {
			if (tag.twin) expect(names, tag.name).toContain(tag.twin);
			if (!tag.parent) continue;
			const between = CATALOGUE.slice(names.indexOf(tag.parent) + 1, names.indexOf(tag.name));
			expect(
				between.every((one) => one.parent !== undefined),
				tag.name
			).toBe(true);
		}
	});
	test('every tag says what it is for in one plain sentence, and legacy ones why', () => {
		for (const tag of CATALOGUE) expect(tag.purpose, tag.name).toMatch(/^[A-Z].{10,160}\.$/);
		expect(CATALOGUE.filter((tag) => tag.legacy).map((tag) => tag.name)).toEqual(['keywords', 'abstract']);
	});
	test('Open Graph stands in property, Twitter card and plain metadata in name', () => {
		for (const { place, family, name } of CATALOGUE)
			expect(place, name).toBe(
				family === 'og'
					? 'property'
					: family === 'twitter'
						? 'name'
						: name === 'title'
							? 'title'
							: place === 'rel'
								? 'rel'
								: 'name'
			);
	});
	test.each([
		['robots:', undefined],
		['robots:a b', undefined],
		['meta:"><x', undefined],
		['__proto__:x', undefined],
		['constructor:x', undefined],
		['meta:description', undefined],
		['meta:Description', undefined],
		['meta:title', undefined],
		['meta:robots', undefined],
		['robots:robots', undefined],
		['robots:theme-color', undefined],
		['OG:title', undefined],
		['article:teg', undefined]
	])('%s is no tag', (name, definition) => {
		expect(findTag(name, { shore: 'https://x.example', og: 'https://x.example', article: 'https://x.example' })).toBe(
			definition
		);
	});
});
