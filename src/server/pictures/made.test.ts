import { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { CUT_VERSION, MOST_BYTES, nameOfRecipe, recipeOf, STARTING_LAYOUTS, type Cut, type Recipe } from '$core';
import { Store } from '../store/store';
import { writeCut, writeIcon } from './cuts';
import { drawShare } from './draw';
import { Library } from './library';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-made-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const SITE = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };

let seed = 7;
const noise = Buffer.from(Array.from({ length: 1600 * 900 * 3 }, () => (seed = (seed * 16_807) % 2_147_483_647) & 255));
const files: Record<string, string> = {};
beforeAll(async () => {
	const keep = async (name: string, picture: Sharp) => {
		files[name] = join(folder, name);
		await picture.toFile(files[name]);
	};
	await keep('noise.png', sharp(noise, { raw: { width: 1600, height: 900, channels: 3 } }));
	await keep('clear.png', sharp({ create: { width: 800, height: 800, channels: 4, background: '#20408080' } }));
	await keep('plain.jpg', sharp({ create: { width: 1600, height: 900, channels: 3, background: '#406080' } }));
});

const cut = (change: Partial<Cut> = {}): Cut => ({
	...{
		hash: '0'.repeat(24),
		shape: 'wide',
		focus: [500, 500],
		zoom: 100,
		play: false,
		format: 'jpeg',
		version: CUT_VERSION
	},
	...change
});

describe('a cut is written', () => {
	test.each(['jpeg', 'webp', 'png'] as const)(
		'as %s under the byte limit, however much there is in it',
		async (format) => {
			const bytes = await writeCut(files['noise.png']!, cut({ format }));
			expect(bytes.length).toBeLessThanOrEqual(MOST_BYTES);
			expect(await sharp(bytes).metadata()).toMatchObject({ width: 1200, height: 630, format });
			expect((await writeCut(files['noise.png']!, cut({ format }))).equals(bytes)).toBe(true);
		}
	);
	test('a whole one that is larger than readers use is brought down, and light enough', async () => {
		const file = join(folder, 'large.jpg');
		await sharp({
			create: { width: 3000, height: 2000, channels: 3, noise: { type: 'gaussian', mean: 128, sigma: 40 } }
		} as never)
			.jpeg({ quality: 95 })
			.toFile(file);
		const bytes = await writeCut(file, cut({ shape: 'whole', version: 2 }));
		const { width, height, format } = await sharp(bytes).metadata();
		expect([width, height, format, bytes.length <= MOST_BYTES]).toEqual([2400, 1600, 'jpeg', true]);
	});
	test('with what is transparent kept in PNG, and on white in JPEG', async () => {
		const png = await writeCut(files['clear.png']!, cut({ shape: 'square', format: 'png' }));
		expect((await sharp(png).stats()).isOpaque).toBe(false);
		const jpeg = await writeCut(files['clear.png']!, cut({ shape: 'square' }));
		const { dominant } = await sharp(jpeg).stats();
		expect(dominant.b).toBeGreaterThan(150);
	});
	test('with the mark for video in its middle, and nowhere else', async () => {
		const at = async (bytes: Buffer, left: number, top: number) => {
			const pixel = await sharp(bytes).extract({ left, top, width: 1, height: 1 }).removeAlpha().raw().toBuffer();
			return (pixel[0]! + pixel[1]! + pixel[2]!) / 3;
		};
		const [bare, marked] = [
			await writeCut(files['plain.jpg']!, cut()),
			await writeCut(files['plain.jpg']!, cut({ play: true }))
		];
		expect((await at(marked, 600, 315)) - (await at(bare, 600, 315))).toBeGreaterThan(80);
		expect(Math.abs((await at(marked, 60, 60)) - (await at(bare, 60, 60)))).toBeLessThan(6);
	});
});

describe('an icon is written', () => {
	test.each([
		['clear', false],
		['solid', true],
		['safe', true]
	] as const)('%s', async (ground, isOpaque) => {
		const bytes = await writeIcon(files['clear.png']!, {
			hash: '0'.repeat(24),
			size: 180,
			ground,
			version: CUT_VERSION
		});
		expect(await sharp(bytes).metadata()).toMatchObject({ width: 180, height: 180, format: 'png' });
		expect((await sharp(bytes).stats()).isOpaque).toBe(isOpaque);
		const corner = await sharp(bytes).extract({ left: 2, top: 2, width: 1, height: 1 }).raw().toBuffer();
		if (ground === 'safe') expect([...corner.subarray(0, 3)]).toEqual([255, 255, 255]);
	});
});

describe('a share picture is drawn', () => {
	const recipe = (title: string, language = 'en', layout = 0): Recipe =>
		recipeOf(STARTING_LAYOUTS[layout]!.layout, undefined, {
			...{ title, line: 'Marl', language, logo: 'logo.png', play: false },
			picture: { file: 'lead.jpg', focus: [0.5, 0.5], zoom: 1 }
		});
	const read = (name: string) => readFileSync(files[name === 'lead.jpg' ? 'plain.jpg' : 'clear.png']!);

	test('in its size, the same bytes for the same recipe, others for another', async () => {
		const [one, same, other] = [
			await drawShare(recipe('The pier'), read),
			await drawShare(recipe('The pier'), read),
			await drawShare(recipe('The pierhead'), read)
		];
		expect(await sharp(one).metadata()).toMatchObject({ width: 1200, height: 630, format: 'jpeg' });
		expect(one!.equals(same!)).toBe(true);
		expect(one!.equals(other!)).toBe(false);
	});
	test('without a picture that is gone', async () => {
		expect(await sharp(await drawShare(recipe('The pier'), () => undefined)).metadata()).toMatchObject({ width: 1200 });
	});
	/** Where the words of a layout on plain paper end: the pixels that are not paper, outside the title's box. */
	test.each([
		[
			'Latin',
			'A very long title that goes on and on about the tide and the marsh and what lives there, '.repeat(4),
			'en'
		],
		['one word', 'W'.repeat(120), 'en'],
		['Arabic', 'الطيور على الشاطئ في أول الشتاء '.repeat(8), 'ar'],
		['Hebrew', 'ציפורים על החוף בתחילת החורף '.repeat(8), 'he'],
		['Devanagari', 'सर्दियों की शुरुआत में तट पर पक्षी '.repeat(8), 'hi'],
		['Japanese', '冬のはじめの海辺の鳥たちを見に行く'.repeat(8), 'ja'],
		['Greek', 'Τα πουλιά της ακτής το χειμώνα '.repeat(8), 'el']
	])('with a title in %s that never spills out of its box', async (_, title, language) => {
		const { line: _line, logo: _logo, frame: _frame, picture: _picture, ...bare } = STARTING_LAYOUTS[2]!.layout;
		const drawn = recipeOf(bare, undefined, {
			title,
			line: '',
			language,
			logo: undefined,
			play: false,
			picture: undefined
		});
		const bytes = await drawShare(drawn, () => undefined);
		const { data } = await sharp(bytes).greyscale().raw().toBuffer({ resolveWithObject: true });
		const { x, y, width, height } = bare.title;
		// The form has a hem of some pixels where it meets an edge.
		const HEM = 8;
		let [inside, outside] = [0, 0];
		for (let row = 0; row < 630; row++)
			for (let column = 0; column < 1200; column++) {
				if (data[row * 1200 + column]! > 170) continue;
				const isInside = column >= x - HEM && column < x + width + HEM && row >= y - HEM && row < y + height + HEM;
				if (isInside) inside++;
				else outside++;
			}
		expect(outside).toBe(0);
		expect(inside).toBeGreaterThan(2000);
	});
});

describe('the library makes what is asked for', () => {
	test('once, and takes it away with the picture it was made of', async () => {
		const store = new Store(join(folder, 'm.db'));
		const site = store.working.sites.save(SITE);
		const library = new Library(store);
		const picture = await library.take(SITE.name, readFileSync(files['plain.jpg']!), 'plain.jpg');
		const hash = picture.src.slice(7, 31);
		const name = `${hash}-wide-500-500.jpg`;
		const file = await library.find(name);
		const { mtimeMs } = statSync(file!);
		expect(await library.find(name)).toBe(file);
		expect(statSync(file!).mtimeMs).toBe(mtimeMs);
		expect(await library.find(`${hash}-icon-32.png`)).toBeDefined();
		expect(await library.find(`${'1'.repeat(24)}-wide-500-500.jpg`)).toBeUndefined();
		expect(library.size()).toEqual({ pictures: 1, bytes: picture.bytes });
		const later = Date.now() + 3_600_000;
		expect(library.sweep(later)).toBe(0);
		store.pictures.remove(site, picture.src);
		// A release still names it.
		const json = JSON.stringify({ image: `https://s.example/media/${name}` });
		const release = (text: string) =>
			store.releases.make({ site, revision: 1, created: '' }, [
				{ path: '/', address: '/', hash: text, html: text, json: text }
			]);
		release(json);
		release('{}');
		expect(library.sweep(later)).toBe(0);
		release('{"later":1}');
		expect(library.sweep(later)).toBe(3);
	});
	test('what was set for a picture stays when the same file comes again', async () => {
		const store = new Store(join(folder, 'n.db'));
		const site = store.working.sites.save(SITE);
		const library = new Library(store);
		const bytes = readFileSync(files['plain.jpg']!);
		const picture = await library.take(SITE.name, bytes, 'plain.jpg');
		store.pictures.save(site, [{ ...picture, focus: [0.1, 0.2], alt: 'Plain' }]);
		expect(await library.take(SITE.name, bytes, 'other.jpg')).toMatchObject({
			focus: [0.1, 0.2],
			alt: 'Plain',
			name: 'plain.jpg'
		});
	});
	test('share pictures that the last two releases named are kept, others go in time', () => {
		const store = new Store(join(folder, 'o.db'));
		const site = store.working.sites.save(SITE);
		const library = new Library(store);
		const recipeOfTitle = (title: string) =>
			recipeOf(STARTING_LAYOUTS[2]!.layout, undefined, {
				...{ title, line: '', language: 'en', logo: undefined, play: false, picture: undefined }
			});
		const names = ['one', 'two', 'three', 'tried'].map((title, at) => {
			const recipe = recipeOfTitle(title);
			const name = nameOfRecipe(recipe);
			if (title === 'tried') store.pictures.saveRecipes(site, new Map([[name, recipe]]), '2025-01-01T00:00:00.000Z');
			else {
				const head = { path: '/', address: 'https://s.example/', hash: title, html: title, json: '{}' };
				store.releases.make({ site, revision: 1, created: `2025-0${at + 1}-01T00:00:00.000Z` }, [
					{ ...head, share: { name, recipe } }
				]);
			}
			mkdirSync(library.folder, { recursive: true });
			writeFileSync(join(library.folder, name), 'x');
			return name;
		});
		library.sweep(Date.now() + 3_600_000);
		expect(store.pictures.recipeNames().sort()).toEqual([names[1], names[2]].sort());
		expect(names.map((name) => library.fileOf(name) !== undefined)).toEqual([false, true, true, false]);
	});
});

describe('in bands of two colours', () => {
	const bands = () =>
		sharp(
			Buffer.from(
				'<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="900"><rect width="1600" height="900" fill="#c03020"/><rect x="400" width="800" height="900" fill="#2040c0"/></svg>'
			)
		);
	test('a cut that is light enough is written as well as can be, and no better one is given up', async () => {
		const file = join(folder, 'bands.png');
		await bands().png().toFile(file);
		const bytes = await writeCut(file, cut());
		expect(bytes.length).toBeLessThan(MOST_BYTES);
		// Its edges are those of the best quality: clear of the fringes that a strong compression leaves.
		const { data, info } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true });
		const at = (x: number) => [...data.subarray((300 * info.width + x) * info.channels).subarray(0, 3)];
		const near = (one: number[], other: number[]) =>
			Math.max(...one.map((value, index) => Math.abs(value - other[index]!)));
		expect(near(at(100), [0xc0, 0x30, 0x20])).toBeLessThan(6);
		expect(near(at(600), [0x20, 0x40, 0xc0])).toBeLessThan(6);
	});
	test('a picture is cut to the proportions of its place', async () => {
		const text = { x: 0, y: 600, width: 10, height: 10, template: '', size: 20, least: 10, weight: 400 } as const;
		const layout = {
			background: { kind: 'colour', colour: '#ffffff' },
			picture: { x: 0, y: 0, width: 300, height: 600, tint: '#000000', strength: 0 },
			title: { ...text, font: 'title', colour: '#000000', align: 'start', stand: 'top' }
		} as const;
		const recipe = recipeOf(layout as never, undefined, {
			...{ title: '', line: '', language: 'en', logo: undefined, play: false },
			picture: { file: 'bands.png', focus: [0.5, 0.5], zoom: 1 }
		});
		const source = await bands().png().toBuffer();
		const drawn = await drawShare(recipe, () => source);
		const { data, info } = await sharp(drawn).raw().toBuffer({ resolveWithObject: true });
		const at = (x: number, y: number) => [...data.subarray((y * info.width + x) * info.channels).subarray(0, 3)];
		// Half as wide as high: the middle band alone is in it, down to its edges.
		for (const x of [4, 150, 295]) expect(at(x, 300)[2], String(x)).toBeGreaterThan(150);
		expect(at(150, 590)[2]).toBeGreaterThan(150);
	});
});
