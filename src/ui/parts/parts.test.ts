import { describe, expect, test } from 'vitest';
import { headToJson, Resolver, STARTING_LAYOUTS, type Page, type Picture } from '$core';
import { keyOf } from './keys';
import { groupOf, linesOf } from '$ui/parts/lines';
import { lookAt } from '$ui/cards/pictureLook';
import { inCanvas, resized, withPart } from '$ui/share/shareLayout';
import { everyInWords, factsInWords, findPictures, nameOfPicture } from './words';
import { snippetOf, SNIPPETS } from '$ui/parts/snippets';

const resolver = new Resolver(
	{
		site: { name: 'Marl', base: 'https://marl.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [],
		pictures: [{ src: '/a.jpg', width: 1200, height: 630, type: 'image/jpeg', alt: 'A pier' }]
	},
	''
);
const page: Page = { path: '/a', type: '', state: 'live', fields: { title: 'A & B', picture: '/a.jpg' }, rules: [] };

describe('the lines of a head', () => {
	const { head, traces } = resolver.resolveWithTrace(page);
	test('what differs from the release is marked, what only repeats is told so', () => {
		const before = headToJson(resolver.resolveHead({ ...page, fields: { title: 'Old' } }));
		const lines = new Map(linesOf(head, traces, before, ['description']).map((line) => [line.tag, line]));
		expect(lines.get('title')).toMatchObject({ value: 'A & B', released: 'Old', isChanged: true, sign: 'built-in' });
		expect(lines.get('canonical')).toMatchObject({ isChanged: false });
		expect(lines.get('og:image')).toMatchObject({ released: undefined, facts: '1200 × 630, jpeg, A pier' });
		expect(lines.get('twitter:title')).toMatchObject({ echoes: 'og:title' });
		expect(lines.get('description')).toMatchObject({ value: '' });
		expect(lines.has('author')).toBe(false);
	});
	test('without a release nothing differs', () => {
		expect(linesOf(head, traces, null, []).some((line) => line.isChanged)).toBe(false);
	});
	test.each([
		['title', 'search'],
		['robots', 'search'],
		['icon', 'more'],
		['og:title', 'og'],
		['twitter:card', 'twitter'],
		['meta:proof', 'more']
	])('%s belongs to %s', (tag, group) => {
		expect(groupOf(tag)).toBe(group);
	});
});

describe('snippets', () => {
	test.each(SNIPPETS)('$name: a place for each value, none of the values', ({ kind }) => {
		const snippet = snippetOf(kind, resolver.resolveHead(page));
		expect(snippet).toContain(`head['og:title']`);
		expect(snippet).not.toContain('A &');
		expect(snippet.match(/og:image"/g)).toHaveLength(1);
	});
	test('a repeated tag stands once', () => {
		const rules = [
			{ tag: 'og:image', kind: 'pictures', count: 2, sources: [{ from: 'lead' }, { from: 'file', src: '/b.jpg' }] }
		] as const;
		const snippet = snippetOf('curly', resolver.resolveHead({ ...page, rules: rules as never }));
		expect(snippet.split('\n').filter((line) => line.includes('"og:image"'))).toHaveLength(1);
	});
});

describe('keys', () => {
	const press = (code: string, more: Partial<KeyboardEvent> = {}) =>
		keyOf({
			code,
			key: code,
			altKey: false,
			ctrlKey: false,
			metaKey: false,
			shiftKey: false,
			target: null,
			...more
		} as KeyboardEvent);
	test.each([
		['ArrowRight', { altKey: true }, 'next'],
		['Digit2', { altKey: true, key: '²' }, 'type'],
		['KeyH', { altKey: true, key: '˙' }, 'hard'],
		['KeyK', { ctrlKey: true, key: 'k' }, 'palette'],
		['KeyK', { metaKey: true, key: 'k' }, 'palette'],
		['KeyZ', { ctrlKey: true, key: 'z' }, 'undo'],
		['KeyZ', { ctrlKey: true, shiftKey: true, key: 'Z' }, 'redo'],
		['KeyY', { ctrlKey: true, key: 'y' }, 'redo'],
		['Slash', { shiftKey: true, key: '?' }, 'keys'],
		['ArrowRight', {}, undefined],
		['KeyZ', { ctrlKey: true, altKey: true, key: 'z' }, undefined],
		['KeyX', { ctrlKey: true, key: 'x' }, undefined]
	])('%s with %j is %s', (code, more, id) => {
		expect(press(code, more)).toBe(id);
	});
});

describe('parts of a share picture', () => {
	const box = { x: 100, y: 100, width: 400, height: 200 };
	test.each([
		['moved beyond the right', { ...box, x: 5000 }, { x: 800, y: 100, width: 400, height: 200 }],
		['moved beyond the top', { ...box, y: -50 }, { x: 100, y: 0, width: 400, height: 200 }],
		['larger than all', { x: 0, y: 0, width: 9000, height: 9000 }, { x: 0, y: 0, width: 1200, height: 630 }],
		['smaller than can be held', { ...box, width: 1, height: -4 }, { x: 100, y: 100, width: 24, height: 24 }],
		['between pixels', { ...box, x: 10.4, y: 10.6 }, { x: 10, y: 11, width: 400, height: 200 }]
	])('%s', (_, given, wanted) => expect(inCanvas(given)).toEqual(wanted));
	test('are made larger up to the edge, from where they stand', () => {
		expect(resized(box, 5000, 5000)).toEqual({ x: 100, y: 100, width: 1100, height: 530 });
	});
	test('are changed one by one', () => {
		const layout = withPart(STARTING_LAYOUTS[0]!.layout, 'title', { x: 5 });
		expect(layout.title).toEqual({ ...STARTING_LAYOUTS[0]!.layout.title, x: 5 });
		expect(layout.line).toBe(STARTING_LAYOUTS[0]!.layout.line);
	});
});

describe('pictures in words', () => {
	const pictures: Picture[] = [
		{ src: '/media/a.jpg', name: 'Boat at dawn.jpg', alt: 'A small boat', alts: { fr: 'Un bateau' } },
		{ src: '/pictures/heath.jpg' }
	];
	test.each([
		['', 2],
		['boat', 1],
		['BATEAU dawn', 1],
		['heath', 1],
		['boat heath', 0]
	])('“%s” finds %i', (wanted, count) => expect(findPictures(pictures, wanted)).toHaveLength(count));
	test('are called by the name they came with', () => {
		expect(pictures.map(nameOfPicture)).toEqual(['Boat at dawn.jpg', 'heath.jpg']);
		expect(
			factsInWords({ src: '/a.png', width: 1200, height: 630, bytes: 41_200, type: 'image/png', alpha: true })
		).toBe('a.png · 1,200 × 630 px · PNG · 41 kB · transparent in parts');
		expect(factsInWords({ src: 'https://x.example/b.jpg' })).toBe('b.jpg · size not known');
	});
	test('a cut is shown as that part of the picture it is cut from; the rest as it is', () => {
		const hash = 'b'.repeat(24);
		const kept = [{ src: '/x.jpg', kept: { file: `${hash}.jpg`, width: 1600, height: 900 } }];
		const at = (name: string) => lookAt(`https://m.example/media/${name}`, 'https://m.example/', null, kept);
		expect(at(`${hash}-tall-0-500-play.webp`)).toEqual({
			src: `/media/${hash}.jpg`,
			part: { box: { left: 0, top: 0, width: 600, height: 900 }, width: 1600, height: 900 },
			play: true
		});
		expect(at(`${hash}-whole-play.jpg`)).toEqual({ src: `/media/${hash}.jpg`, play: true });
		expect(at(`${'c'.repeat(24)}-tall-0-500.webp`)).toEqual({ src: `/media/${'c'.repeat(24)}-tall-0-500.webp` });
	});
});

test('the layer of a type is never called every page', () => {
	expect(['Walk', 'Page', 'pages'].map(everyInWords)).toEqual([
		'Every walk',
		'Pages of the type “page”',
		'Pages of the type “pages”'
	]);
});
