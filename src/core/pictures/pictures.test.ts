import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Area, Picture } from '../model';
import { READERS } from '../readers/profiles';
import { coverOf, isCutBy } from './areas';
import { iconsOf, nameOfIcon, readIconName, webManifest } from './icons';
import { colourOf, nameOfRecipe, recipeOf, wholeLook, type RecipeParts, type ShareLayout } from './layout';
import { STARTING_LAYOUTS } from './layouts';
import {
	cutOf,
	formatFor,
	keptCopyOf,
	measureCut,
	MOST_BYTES,
	CUT_VERSION,
	nameOfCut,
	readCutName,
	readersOfTag,
	SHAPES,
	type Cut
} from './shapes';
import { SHAPE_NAMES } from '../model';

const HASH = '0123456789abcdef01234567';
const kept: Picture = { src: '/boat.jpg', kept: { file: `${HASH}.jpg`, width: 1600, height: 900 } };
const aCut = fc.record({
	hash: fc.constant(HASH),
	shape: fc.constantFrom(...SHAPE_NAMES),
	focus: fc.tuple(fc.integer({ min: 0, max: 1000 }), fc.integer({ min: 0, max: 1000 })),
	zoom: fc.integer({ min: 100, max: 400 }),
	play: fc.boolean(),
	format: fc.constantFrom<Cut['format']>('jpeg', 'png', 'webp'),
	version: fc.constant(CUT_VERSION)
});

describe('the name of a cut', () => {
	test('says all there is to know of it, and is read back', () => {
		fc.assert(
			fc.property(aCut, (cut) => {
				expect(readCutName(nameOfCut(cut))).toEqual(cut);
			})
		);
	});
	test.each([
		'boat.jpg',
		`${HASH}.jpg`,
		`${HASH}-wide.jpg`,
		`${HASH}-wide-500-1001.jpg`,
		`${HASH}-wide-0500-500.jpg`,
		`${HASH}-wide-500-500-100.jpg`,
		`${HASH}-wide-500-500-401.jpg`,
		`${HASH}-whole.svg`,
		`${HASH}-wide-500-500-v1.jpg`,
		`${HASH}-wide-500-500-v${CUT_VERSION + 1}.jpg`,
		`../${HASH}-wide-500-500.jpg`,
		`${HASH}-wide-500-500.jpg\n`
	])('%j is none', (name) => expect(readCutName(name)).toBeUndefined());
});

test('the names of later versions differ from those of the first', () => {
	const cut: Cut = { hash: HASH, shape: 'whole', focus: [500, 500], zoom: 100, play: true, format: 'jpeg', version: 2 };
	expect(nameOfCut(cut)).toBe(`${HASH}-whole-play-v2.jpg`);
	expect(nameOfIcon({ hash: HASH, size: 512, ground: 'safe', version: 12 })).toBe(`${HASH}-icon-512-safe-v12.png`);
	expect(readIconName(`${HASH}-icon-512-safe-v${CUT_VERSION + 1}.png`)).toBeUndefined();
});

describe('a cut', () => {
	test('lies in its picture, has its shape, and is never enlarged', () => {
		const side = fc.integer({ min: 1, max: 5000 });
		fc.assert(
			fc.property(aCut, side, side, (cut, width, height) => {
				const to = measureCut(cut, { width, height });
				const { box } = to;
				expect(box.left).toBeGreaterThanOrEqual(0);
				expect(box.top).toBeGreaterThanOrEqual(0);
				expect(box.left + box.width).toBeLessThanOrEqual(width);
				expect(box.top + box.height).toBeLessThanOrEqual(height);
				expect(to.width).toBeLessThanOrEqual(box.width);
				expect(to.width).toBeLessThanOrEqual(SHAPES[cut.shape].width);
				const wanted = SHAPES[cut.shape].width / SHAPES[cut.shape].height;
				// Whole pixels: off by half a pixel on either side at the most.
				expect(Math.abs(box.width - box.height * wanted)).toBeLessThanOrEqual(0.5 * (1 + wanted) + 1e-9);
			})
		);
	});
	test.each([
		['wide', [0, 30, 1600, 840], [1200, 630]],
		['double', [0, 50, 1600, 800], [1024, 512]],
		['square', [350, 0, 900, 900], [800, 800]],
		['tall', [500, 0, 600, 900], [600, 900]]
	] as const)('to %s is taken round the middle, unless told otherwise', (shape, [left, top, width, height], size) => {
		const cut = cutOf(kept, shape, READERS)!;
		expect(measureCut(cut, kept.kept!)).toEqual({ box: { left, top, width, height }, width: size[0], height: size[1] });
		expect([cut.width, cut.height]).toEqual(size);
	});
	test('follows the focus, and a shape that is set by itself does not', () => {
		const picture: Picture = { ...kept, focus: [0.1, 0.5], cuts: { square: { focus: [0.9, 0.5], zoom: 2 } } };
		const at = (shape: 'square' | 'tall') => measureCut(cutOf(picture, shape, READERS)!, kept.kept!).box;
		expect(at('tall')).toMatchObject({ left: 0, width: 600 });
		expect(at('square')).toEqual({ left: 1150, top: 225, width: 450, height: 450 });
		expect(cutOf(picture, 'square', READERS)!.file).toBe(`${HASH}-square-900-500-200.jpg`);
	});
	test('of a picture that the library does not hold there is none', () => {
		expect(cutOf({ src: '/boat.jpg', width: 9, height: 9 }, 'wide', READERS)).toBeUndefined();
		expect(keptCopyOf({ src: `/media/${HASH}.png`, width: 9, height: 8 })).toEqual({
			...{ file: `${HASH}.png`, width: 9, height: 8 }
		});
		expect(keptCopyOf({ src: `/media/${HASH}-wide-5-5.png`, width: 9, height: 8 })).toBeUndefined();
	});
	test('has the lightest form that all its readers take', () => {
		const named = (tag: string, isFirst: boolean) => readersOfTag(tag, isFirst).map(({ id }) => id);
		expect(named('og:image', true)).toEqual(['gangway', 'ropewalk', 'galley', 'bottle', 'wrack']);
		expect(named('og:image', false)).toEqual(['wrack']);
		expect(named('twitter:image', true)).toEqual(['headland']);
		expect(formatFor(readersOfTag('og:image', true), false)).toBe('jpeg');
		expect(formatFor(readersOfTag('og:image', true), true)).toBe('png');
		expect(formatFor(readersOfTag('og:image', false), true)).toBe('webp');
		expect(formatFor([], false)).toBe('jpeg');
		expect(MOST_BYTES).toBe(600_000);
	});
});

describe('icons', () => {
	const square: Picture = { src: '/icon.png', kept: { file: `${HASH}.png`, width: 512, height: 512 } };
	test('of one square source come in every size, none larger than itself', () => {
		expect(iconsOf(square)!.links.map(({ size }) => size)).toEqual([16, 32, 48, 96, 192]);
		expect(iconsOf(square)!.touch).toEqual({ hash: HASH, size: 180, ground: 'solid', version: CUT_VERSION });
		const small = iconsOf({ ...square, kept: { ...square.kept!, width: 100, height: 100 } })!;
		expect(small.links.map(({ size }) => size)).toEqual([16, 32, 48, 96]);
		expect([small.touch, small.manifest]).toEqual([undefined, []]);
		expect(iconsOf(kept)).toBeUndefined();
	});
	test.each([
		['without a kept copy', undefined],
		['that is wider than high', { width: 512, height: 511 }],
		['that is smaller than the least icon', { width: 15, height: 15 }]
	])('cannot be cut of a picture %s', (_name, size) => {
		const picture: Picture = { src: '/icon.png', ...(size && { kept: { file: `${HASH}.png`, ...size } }) };
		expect(iconsOf(picture)).toBeUndefined();
		expect(webManifest({ name: 'Marl', language: 'en' }, picture)).toBeUndefined();
	});
	test('have names that are read back', () => {
		for (const file of [...iconsOf(square)!.links, iconsOf(square)!.touch!, ...iconsOf(square)!.manifest])
			expect(readIconName(nameOfIcon(file))).toEqual(file);
		for (const name of [`${HASH}-icon-17.png`, `${HASH}-icon-32.jpg`, `${HASH}-icon-32-clear.png`])
			expect(readIconName(name)).toBeUndefined();
	});
	test('stand in the web manifest, relative to it', () => {
		expect(webManifest({ name: 'Marl', language: 'en', themeColour: '#123456' }, square)).toMatchObject({
			...{ name: 'Marl', lang: 'en', theme_color: '#123456' },
			icons: [
				{ src: `media/${HASH}-icon-192.png`, sizes: '192x192', purpose: 'any' },
				{ sizes: '512x512', purpose: 'any' },
				{ src: `media/${HASH}-icon-512-safe.png`, purpose: 'maskable' }
			]
		});
		expect(webManifest({ name: 'Marl', language: 'en' }, kept)).toBeUndefined();
	});
});

describe('areas', () => {
	const area = fc
		.tuple(...[0, 1, 2, 3].map(() => fc.integer({ min: 0, max: 20 })))
		.map(([x, y, w, h]): Area => [x! / 40, y! / 40, w! / 40, h! / 40]);
	test('cover together what a grid of points says', () => {
		fc.assert(
			fc.property(fc.array(area, { maxLength: 6 }), (areas) => {
				let inside = 0;
				for (let y = 0; y < 40; y++)
					for (let x = 0; x < 40; x++) {
						const [px, py] = [(x + 0.5) / 40, (y + 0.5) / 40];
						if (areas.some(([l, t, w, h]) => px > l && px < l + w && py > t && py < t + h)) inside++;
					}
				expect(coverOf(areas)).toBeCloseTo(inside / 1600, 9);
			})
		);
	});
	test.each<[string, Area, Area, boolean]>([
		['wholly inside', [0.2, 0.2, 0.2, 0.2], [0, 0, 0.5, 1], false],
		['wholly outside', [0.6, 0.2, 0.2, 0.2], [0, 0, 0.5, 1], false],
		['half inside', [0.4, 0.2, 0.2, 0.2], [0, 0, 0.5, 1], true],
		['only just touched', [0.301, 0.2, 0.2, 0.2], [0, 0, 0.5, 1], false],
		['all but the least share within', [0, 0, 100, 1], [0, 0, 97, 1], false],
		['the least share within', [0, 0, 100, 1], [0, 0, 3, 1], false],
		['a little more than it within', [0, 0, 100, 1], [0, 0, 4, 1], true]
	])('%s', (_, text, box, isCut) => expect(isCutBy(text, box)).toBe(isCut));
});

describe('a recipe', () => {
	const layout = STARTING_LAYOUTS[0]!.layout;
	const parts: RecipeParts = {
		...{ title: 'Long Strand', line: 'Reserve', language: 'en', logo: undefined, play: false },
		picture: { file: `${HASH}.jpg`, focus: [0.5, 0.5], zoom: 1 }
	};
	test('has the same name for the same, and another for anything that differs', () => {
		const name = (of: ShareLayout, look: object, given: RecipeParts) => nameOfRecipe(recipeOf(of, look, given));
		const names = [
			name(layout, {}, parts),
			name(layout, {}, { ...parts, title: 'Long strand' }),
			name(layout, {}, { ...parts, picture: { ...parts.picture!, focus: [0.5, 0.51] } }),
			name(layout, {}, { ...parts, play: true }),
			name(layout, {}, { ...parts, language: 'fr' }),
			name(layout, { ink: '#000000' }, parts),
			name({ ...layout, title: { ...layout.title, x: 73 } }, {}, parts),
			name(STARTING_LAYOUTS[1]!.layout, {}, parts)
		];
		expect(new Set(names).size).toBe(names.length);
		expect(name(layout, {}, { ...parts })).toBe(names[0]);
		expect(names[0]).toMatch(/^share-[0-9a-f]{24}\.jpg$/);
	});
	test('leaves out what the page has nothing for', () => {
		const bare = recipeOf(layout, undefined, { ...parts, line: '', picture: undefined });
		expect(bare.texts.map(({ text }) => text)).toEqual(['Long Strand']);
		expect(bare.picture).toBeUndefined();
		expect(bare.logo).toBeUndefined();
	});
	test('has colours by their use, and only such as can be drawn', () => {
		const look = wholeLook({ accent: '#ABCDEF', paper: 'url(x)' });
		expect(colourOf('accent', look)).toBe('#abcdef');
		expect(colourOf('#001122', look)).toBe('#001122');
		for (const wrong of ['red', 'url(x)', '', 'paper']) expect(colourOf(wrong, look)).toMatch(/^#[0-9a-f]{6}$/);
	});
});
