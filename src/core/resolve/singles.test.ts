import { describe, expect, test } from 'vitest';
import {
	AddressBook,
	cardOf,
	editPage,
	headToJson,
	knownVariables,
	READERS,
	readPage,
	Resolver,
	type Page,
	type Rule,
	type Site
} from '../index';
import { recipeOf, STARTING_LAYOUTS } from '../index';
import { compileTemplate } from '../template/compile';
import { readServedHead } from '../markup/served';
import { textOfValue } from './value';

/** Single cases, each the least that tells two ways apart. */

const site: Site = {
	name: 'Marl',
	base: 'https://marl.example/',
	languages: ['en'],
	separator: '·',
	fields: {},
	rules: []
};
const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{ path, type: 'isle', state: 'live', fields: { title: path }, rules: [] },
	...more
});
const type = { name: 'isle', fields: [], rules: [] as Rule[] };
const resolver = (more: Partial<Site> = {}, rules: readonly Rule[] = [], pictures: object[] = []) =>
	new Resolver({ site: { ...site, ...more }, types: [{ ...type, rules }], pictures: pictures as never }, 'now');
const valueOf = (made: Resolver, of: Page, tag: string) =>
	headToJson(made.resolveHead(of)).tags.find((one) => one.tag === tag)?.value;

describe('addresses of pictures', () => {
	test('a relative one is each page’s own, a whole one is not', () => {
		const book = new AddressBook('https://marl.example/');
		const at = (src: string, from: string) => book.ofPicture(src, `https://marl.example${from}`);
		for (const src of ['boat.jpg', 'boats/'])
			expect([at(src, '/a/'), at(src, '/b/')]).toEqual([
				`https://marl.example/a/${src}`,
				`https://marl.example/b/${src}`
			]);
		expect(at('my-https:boat.jpg', '/a/')).toBeUndefined();
		expect([at('/boat.jpg', '/a/'), at('/boat.jpg', '/b/')]).toEqual(Array(2).fill('https://marl.example/boat.jpg'));
	});
	test('alt texts of a mention are its page’s own', () => {
		const made = resolver();
		const withAlt = (path: string, alt: string) =>
			page(path, { fields: { title: path, picture: { src: '/p.jpg', alt } } });
		expect(valueOf(made, withAlt('/a', 'First'), 'og:image:alt')).toBe('First');
		expect(valueOf(made, withAlt('/b', 'Second'), 'og:image:alt')).toBe('Second');
	});
	test('a source that is no address is named in the trace', () => {
		const { traces } = resolver().resolveWithTrace(
			page('/a', { fields: { title: 'A', picture: 'ftp://x.example/a.jpg' } })
		);
		const steps = traces.find(({ tag }) => tag === 'og:image')!.steps;
		expect(JSON.stringify(steps)).toContain('ftp://x.example/a.jpg');
	});
	test('a page of no known type has what the site gives', () => {
		const made = resolver({ fields: { picture: '/site.jpg' } });
		expect(valueOf(made, page('/a', { type: 'none' }), 'og:image')).toBe('https://marl.example/site.jpg');
	});
});

describe('versions', () => {
	test('a page that names no language but its own has none', () => {
		const own = page('/a', { language: 'en', alternates: { en: '/a' } });
		expect(headToJson(resolver().resolveHead(own)).tags.filter(({ tag }) => tag === 'alternate')).toEqual([]);
		const two = page('/a', { language: 'en', alternates: { fr: '/b' } });
		expect(headToJson(resolver().resolveHead(two)).tags.filter(({ tag }) => tag === 'alternate')).toHaveLength(3);
	});
});

test('an edit of a page changes no other', () => {
	const edit = {
		place: { layer: 'page', path: '/a' },
		tag: 'title',
		body: { kind: 'template', template: 'New' }
	} as const;
	expect(editPage(page('/a'), edit).rules).toHaveLength(1);
	expect(editPage(page('/b'), edit)).toEqual(page('/b'));
	const ofType = { ...edit, place: { layer: 'type', name: 'isle' } } as const;
	expect(editPage(page('/a'), ofType)).toEqual(page('/a'));
});

describe('reading pages', () => {
	test('a heading of a lower rank does where there is no first one', () => {
		expect(readPage('<h2>Tides</h2><p>Text.</p>').heading).toBe('Tides');
		expect(readPage('<p>Text.</p>').heading).toBe('');
	});
	test('links to versions without the spaces round them', () => {
		const html = '<link rel="alternate" hreflang=" fr " href=" /fr ">';
		expect(readPage(html).versions).toMatchObject({ fr: '/fr' });
	});
	test('names of tags are read however they are written', () => {
		const { tags } = readServedHead('<head><META NAME="Description" CONTENT="Tides"></head>');
		expect(tags.map(({ name, value }) => [name, value])).toEqual([['description', 'Tides']]);
	});
});

test('of two tags of a name the first one is shown', () => {
	const rules: Rule[] = [{ tag: 'meta:description', kind: 'template', template: 'x' }];
	const head = resolver({}, rules).resolveHead(page('/a', { fields: { title: 'A', summary: 'S' } }));
	const first = head.tags.find(({ tag }) => tag.name === 'og:title')!;
	const doubled = { ...head, tags: [...head.tags, { ...first, value: 'Second' }] };
	for (const reader of READERS) expect(cardOf(reader, doubled).title.shown).not.toBe('Second');
});

test('a gradient stays one in a recipe', () => {
	const { layout } = STARTING_LAYOUTS[0]!;
	const parts = { title: 'T', line: '', language: 'en', picture: undefined, logo: undefined, play: false };
	const background = { kind: 'gradient', from: '#FFFFFF', to: 'ink', angle: 30 } as const;
	expect(recipeOf({ ...layout, background }, undefined, parts).background).toEqual({
		...{ kind: 'gradient', from: '#ffffff', to: '#16302d', angle: 30 }
	});
});

test('why a tag is not written is told on every page, when its text is the same on all', () => {
	const made = resolver({ rules: [{ tag: 'twitter:image:alt', kind: 'template', template: 'A boat' }] });
	for (const path of ['/a', '/b']) {
		const trace = made.resolveWithTrace(page(path)).traces.find(({ tag }) => tag === 'twitter:image:alt');
		expect(trace?.withheld).toBeDefined();
	}
});

test('values as one text', () => {
	expect(textOfValue(undefined)).toBe('');
	expect(textOfValue('one')).toBe('one');
	expect(textOfValue([])).toBe('');
	expect(textOfValue(['first', 'second'])).toBe('first');
	expect(textOfValue([{ kind: 'link', address: 'https://a.example/', attributes: {} }])).toBe('https://a.example/');
});

describe('templates', () => {
	test('fields of the site that it has of itself are offered once', () => {
		const known = knownVariables({ fields: [], siteFields: ['name', 'harbour'], tagNames: [] }).map(({ name }) => name);
		expect(known.filter((name) => name === 'site.name')).toHaveLength(1);
		expect(known).toContain('site.harbour');
	});
	test('words in the place of a variable change nothing from page to page', () => {
		expect(compileTemplate('{site.tagline ?? "Isles"}').isConstant).toBe(true);
		expect(compileTemplate('{page.title ?? "Isles"}').isConstant).toBe(false);
	});
	test('a broken one reads nothing', () => {
		const broken = compileTemplate('{head.title | nothing}');
		expect([broken.reads, broken.fault !== undefined]).toEqual([[], true]);
	});
});
