import { describe, expect, test } from 'vitest';
import { cardOf } from '../readers/card';
import { READERS } from '../readers/profiles';
import { measureCut, readCutName, sizeAsSent } from '../pictures/shapes';
import { STARTING_LAYOUTS } from '../pictures/layouts';
import type { ContentType, Page, Picture, Rule, Site } from '../model';
import { headToJson, renderHead } from '../render/render';
import { Resolver } from './resolver';
import { measureReach } from '../edits/reach';

const HASH = (letter: string) => letter.repeat(24);
const kept = (letter: string, width = 1600, height = 900) => ({ file: `${HASH(letter)}.jpg`, width, height });
const PICTURES: readonly Picture[] = [
	{
		src: '/boat.jpg',
		width: 1600,
		height: 900,
		type: 'image/jpeg',
		alt: 'A boat',
		focus: [0.25, 0.5],
		kept: kept('a')
	},
	{ src: '/far.jpg', width: 1600, height: 900, alts: { fr: 'Un phare', 'pt-BR': 'Um farol' }, kept: kept('b') },
	{ src: '/own.jpg', width: 1600, height: 900 },
	{ src: '/icon.png', width: 512, height: 512, kept: { file: `${HASH('c')}.png`, width: 512, height: 512 } },
	{ src: `/media/${HASH('d')}.jpg`, width: 1200, height: 1200 }
];
const site: Site = {
	...{ name: 'Marl', base: 'https://marl.example/', languages: ['en'], separator: '·' },
	fields: {},
	rules: []
};
const LAYOUT = STARTING_LAYOUTS[0]!.layout;

interface Given {
	readonly rules?: readonly Rule[];
	readonly type?: Partial<ContentType>;
	readonly page?: Partial<Page>;
	readonly site?: Partial<Site>;
	readonly pictures?: readonly Picture[];
}
const picked = (src: string): Partial<Page> => ({ fields: { title: 'The pier', picture: src } });
function resolve({ rules = [], type = {}, page = {}, site: more = {}, pictures = PICTURES }: Given) {
	const model = {
		site: { ...site, rules, ...more },
		types: [{ name: 'isle', label: 'Isle', fields: [], rules: [], ...type }],
		pictures
	};
	const whole: Page = { path: '/a', type: 'isle', state: 'live', fields: { title: 'The pier' }, rules: [], ...page };
	const resolver = new Resolver(model, '2026-01-01T00:00:00Z');
	const head = resolver.resolveHead(whole);
	const all = (name: string) =>
		headToJson(head)
			.tags.filter(({ tag }) => tag === name)
			.map(({ value }) => value.replace('https://marl.example/media/', ''));
	return { head, all, model, page: whole, evaluated: resolver.evaluate(whole) };
}
const cutTo = (...shapes: ('wide' | 'double' | 'square' | 'tall')[]): Rule => ({
	...{ tag: 'og:image', kind: 'pictures', shapes },
	sources: [{ from: 'lead' }, { from: 'type' }]
});

describe('pictures in shapes', () => {
	test.each<[string, Given, string[]]>([
		['whole without any', { page: picked('/boat.jpg') }, ['https://marl.example/boat.jpg']],
		['one, round its focus', { rules: [cutTo('wide')], page: picked('/boat.jpg') }, [`${HASH('a')}-wide-250-500.jpg`]],
		[
			'two: those after the first go to readers that take every one, which take a lighter form',
			{ rules: [cutTo('wide', 'tall')], page: picked('/boat.jpg') },
			[`${HASH('a')}-wide-250-500.jpg`, `${HASH('a')}-tall-250-500.webp`]
		],
		[
			'one of the library itself',
			{ rules: [cutTo('square')], page: picked(`/media/${HASH('d')}.jpg`) },
			[`${HASH('d')}-square-500-500.jpg`]
		],
		[
			'one that the library does not hold stays whole, once',
			{ rules: [cutTo('wide', 'tall')], page: picked('/own.jpg') },
			['https://marl.example/own.jpg']
		]
	])('%s', (_, given, wanted) => expect(resolve(given).all('og:image')).toEqual(wanted));

	test('have the size and the form of the cut, and the words of the picture', () => {
		const { head } = resolve({ rules: [cutTo('tall')], page: picked('/boat.jpg') });
		const html = renderHead(head);
		expect(html).toContain('<meta property="og:image:type" content="image/jpeg">');
		expect(html).toContain('<meta property="og:image:width" content="600">');
		expect(html).toContain('<meta property="og:image:height" content="900">');
		expect(html).toContain('<meta property="og:image:alt" content="A boat">');
	});
	test('are borrowed in another shape, cut from the whole again', () => {
		const borrowed: Rule = { tag: 'twitter:image', kind: 'borrow', from: 'og:image', shapes: ['double'] };
		const { all } = resolve({ rules: [cutTo('wide', 'tall'), borrowed], page: picked('/boat.jpg') });
		expect(all('twitter:image')).toEqual([`${HASH('a')}-double-250-500.webp`]);
		expect(all('twitter:card')).toEqual(['summary_large_image']);
	});
	test('limits are for the picture, not for what is cut from it', () => {
		const rule = { ...cutTo('tall'), limits: { minWidth: 1000 } } as Rule;
		expect(resolve({ rules: [rule], page: picked('/boat.jpg') }).all('og:image')).toHaveLength(1);
	});
	test('a reader passes over a picture in a form that it cannot read', () => {
		const rules: Rule[] = [{ tag: 'og:image', kind: 'leaveOut' }, { ...cutTo('double'), tag: 'twitter:image' } as Rule];
		const { head } = resolve({ rules, page: picked('/boat.jpg') });
		const shows = READERS.filter((reader) => cardOf(reader, head).picture).map(({ id }) => id);
		expect(shows).toEqual(['gangway', 'headland', 'galley', 'wrack']);
	});
});

describe('a picture of the library that is more than readers use', () => {
	const own = (more: object): Picture => ({
		src: `/media/${HASHED}.jpg`,
		width: 4000,
		height: 2667,
		bytes: 3e6,
		...more
	});
	const HASHED = 'c'.repeat(24);
	const sent = (picture: Picture, rules: Rule[] = []) => {
		const head = resolve({ rules, page: picked(picture.src), pictures: [picture] });
		return ['og:image', 'og:image:width', 'og:image:height', 'twitter:image'].map((tag) => head.all(tag)[0]);
	};
	test('goes out at the size that they use, and light enough; cut it is cut from the whole', () => {
		const at = `${HASHED}-whole-v2.jpg`;
		expect(sent(own({}))).toEqual([at, '2400', '1600', at]);
		expect(sent(own({}), [cutTo('wide')])[0]).toContain(`${HASHED}-wide-500-500`);
		expect(sent(own({ width: 1800, height: 900, bytes: 900_000 }))[0]).toBe(`${HASHED}-whole.jpg`);
		expect(measureCut(readCutName(`${HASHED}-whole-v2.jpg`)!, { width: 10, height: 4000 })).toMatchObject({
			...{ width: 6, height: 2400 }
		});
		// As it was written before, it stays.
		expect(measureCut(readCutName(`${HASHED}-whole-play.jpg`)!, { width: 4000, height: 2667 })).toMatchObject({
			...{ width: 4000, height: 2667 }
		});
	});
	test('one that is not, and one that stands at an address of its own, go as they are', () => {
		expect(sent(own({ width: 2400, height: 1600, bytes: 500_000 }))[0]).toBe(`${HASHED}.jpg`);
		expect(sent(own({ width: 2400, height: 1600, alpha: true }))[0]).toBe(`${HASHED}.jpg`);
		const elsewhere = {
			...own({}),
			src: '/boat-large.jpg',
			kept: { file: `${HASHED}.jpg`, width: 4000, height: 2667 }
		};
		expect(sent(elsewhere)[0]).toBe('https://marl.example/boat-large.jpg');
		expect([sizeAsSent(own({})), sizeAsSent(elsewhere)]).toEqual([{ width: 2400, height: 1600 }, undefined]);
	});
});

describe('the mark for video', () => {
	test('is laid over the picture of a type, cut or whole, unless the page says otherwise', () => {
		const type = { playMark: true };
		const page = picked('/boat.jpg');
		expect(resolve({ type, page }).all('og:image')).toEqual([`${HASH('a')}-whole-play.jpg`]);
		expect(resolve({ type, page, rules: [cutTo('wide')] }).all('og:image')).toEqual([
			`${HASH('a')}-wide-250-500-play.jpg`
		]);
		expect(resolve({ type, page: { ...page, playMark: false } }).all('og:image')).toEqual([
			'https://marl.example/boat.jpg'
		]);
		expect(resolve({ page: { ...page, playMark: true } }).all('og:image')).toEqual([`${HASH('a')}-whole-play.jpg`]);
	});
	test('is not laid over icons, nor over what the library does not hold', () => {
		const all = resolve({
			...{ type: { playMark: true }, page: picked('/own.jpg') },
			site: { fields: { icon: '/icon.png' } }
		}).all;
		expect(all('og:image')).toEqual(['https://marl.example/own.jpg']);
		expect([...all('icon'), ...all('apple-touch-icon')].join()).not.toContain('play');
	});
});

describe('alt text', () => {
	test.each([
		['fr', 'Un phare'],
		['fr-CA', 'Un phare'],
		['pt-BR', 'Um farol'],
		['pt', undefined],
		['en', undefined]
	])('for a page in %s is %s', (language, alt) => {
		const { all } = resolve({ page: { ...picked('/far.jpg'), language } });
		expect(all('og:image:alt')).toEqual(alt === undefined ? [] : [alt]);
	});
	test('of the mention goes before that of the picture', () => {
		const page = { fields: { picture: { src: '/far.jpg', alt: 'Here' } }, language: 'fr' };
		expect(resolve({ page }).all('og:image:alt')).toEqual(['Here']);
	});
	test('does not come from a page in another language that was evaluated at before', () => {
		const { model, page } = resolve({});
		const resolver = new Resolver(model, '');
		const altIn = (language: string) =>
			resolver.evaluate({ ...page, ...picked('/far.jpg'), language }).textOf('og:image:alt');
		expect([altIn('fr'), altIn('en'), altIn('fr')]).toEqual(['Un phare', '', 'Un phare']);
	});
});

describe('the default of a type', () => {
	const type: Partial<ContentType> = {
		picture: { src: '/boat.jpg' },
		pictureBy: { field: 'habitat', pictures: { heath: { src: '/far.jpg' } } }
	};
	test.each([
		['heath', '/far.jpg'],
		['marsh', '/boat.jpg'],
		['__proto__', '/boat.jpg'],
		['constructor', '/boat.jpg']
	])('by a field that says %s is %s', (habitat, src) => {
		const { all } = resolve({ type, page: { fields: { habitat } } });
		expect(all('og:image')).toEqual([`https://marl.example${src}`]);
	});
	test('by what a listing lists', () => {
		const by = { field: 'listing', pictures: { Walks: { src: '/far.jpg' } } };
		const { all } = resolve({ type: { pictureBy: by }, page: { listing: { title: 'Walks' } } });
		expect(all('og:image')).toEqual(['https://marl.example/far.jpg']);
	});
});

describe('icons', () => {
	const icons = (icon: string) => resolve({ site: { fields: { icon } } }).all;
	test('come in all sizes from one square source, with the manifest', () => {
		const all = icons('/icon.png');
		expect(all('icon')).toEqual([16, 32, 48, 96, 192].map((size) => `${HASH('c')}-icon-${size}.png`));
		expect(all('apple-touch-icon')).toEqual([`${HASH('c')}-icon-180-solid.png`]);
		const { model, page } = resolve({ site: { fields: { icon: '/icon.png' } } });
		const { tags } = new Resolver(model, '').resolveHead(page);
		expect(tags.filter(({ tag }) => tag.name === 'icon').map(({ attributes }) => attributes)).toEqual(
			[16, 32, 48, 96, 192].map((size) => ({ type: 'image/png', sizes: `${size}x${size}` }))
		);
		expect(all('manifest')).toEqual(['https://marl.example/manifest.webmanifest']);
	});
	test('of what is not square, or not held, is what is given', () => {
		expect(icons('/boat.jpg')('icon')).toEqual(['https://marl.example/boat.jpg']);
		expect(icons('/other.png')('icon')).toEqual(['https://marl.example/other.png']);
		expect(icons('/boat.jpg')('manifest')).toEqual([]);
	});
});

describe('the share picture', () => {
	const rule: Rule = {
		tag: 'og:image',
		kind: 'pictures',
		sources: [{ from: 'composed' }, { from: 'lead' }],
		shapes: ['wide']
	};
	const type = { layout: LAYOUT, rules: [rule] };
	test('is named by all that goes into it, has its size, and its title as its words', () => {
		const { all, evaluated } = resolve({ type, page: picked('/boat.jpg') });
		expect(all('og:image')[0]).toMatch(/^share-[0-9a-f]{24}\.jpg$/);
		expect([all('og:image:width'), all('og:image:height'), all('og:image:alt')]).toEqual([
			['1200'],
			['630'],
			['The pier']
		]);
		const { recipe } = evaluated.sharePicture()!;
		expect(recipe!.texts.map(({ text }) => text)).toEqual(['The pier', 'Isle']);
		expect(recipe!.picture).toMatchObject({ file: `${HASH('a')}.jpg`, focus: [0.25, 0.5] });
		expect(all('twitter:image')).toEqual(all('og:image'));
	});
	test('without a layout gives way to the next source, and says so', () => {
		const { model, page } = resolve({ type: { rules: [rule] }, page: picked('/boat.jpg') });
		const { traces } = new Resolver(model, '').resolveWithTrace(page);
		const { outcome } = traces.find(({ tag }) => tag === 'og:image')!.steps[0]!;
		expect(outcome).toEqual({ kind: 'won', skipped: [{ source: 'composed', why: 'no-layout' }] });
	});
	test('that asks what its own tag came to finds nothing there, and ends', () => {
		const layout = { ...LAYOUT, title: { ...LAYOUT.title, template: '{head.og:image ?? "none"}' } };
		const { evaluated } = resolve({ type: { ...type, layout }, page: picked('/boat.jpg') });
		evaluated.valueOf('og:image');
		expect(evaluated.sharePicture()!.recipe!.texts[0]!.text).not.toContain('share-');
	});
	test('a change of a picture reaches the pages that show it, and those drawn with it', () => {
		const { model, page } = resolve({ type, page: picked('/boat.jpg') });
		const pages: Page[] = [
			page,
			{ ...page, path: '/b', ...picked('/own.jpg') },
			{ ...page, path: '/c', type: 'x', ...picked('/boat.jpg') }
		];
		const reachOf = (changes: object) =>
			measureReach(model, pages, { place: { layer: 'picture', src: '/boat.jpg' }, changes }, '');
		expect(reachOf({ focus: [0.9, 0.5] })).toMatchObject({ under: 3, changed: 1, worst: [{ path: '/a' }] });
		expect(reachOf({ alt: 'A small boat' })).toMatchObject({ changed: 1, worst: [{ path: '/c' }] });
		expect(reachOf({ name: 'x.jpg' })).toMatchObject({ changed: 0 });
		// Of no picture but that one.
		const other = [{ ...page, path: '/d', type: 'x', ...picked('/own.jpg') }];
		const edit = { place: { layer: 'picture', src: '/boat.jpg' }, changes: { alt: 'A small boat' } } as const;
		expect(measureReach(model, other, edit, '')).toMatchObject({ under: 1, changed: 0 });
	});
});
