import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, expect, test } from 'vitest';
import { Store } from '../store/store';
import { Library } from './library';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-library-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const SITE = {
	name: 'S',
	base: 'https://s.example/',
	languages: ['en'],
	separator: '·',
	fields: {},
	rules: []
};
const picture = (red: number) =>
	sharp({ create: { width: 64, height: 48, channels: 3, background: { r: red, g: 9, b: 9 } } })
		.png()
		.toBuffer();

test('a picture is kept once by its bytes, found by its name alone, and swept when no site knows it', async () => {
	const store = new Store(join(folder, 'k.db'));
	const site = store.working.sites.save(SITE);
	const library = new Library(store);
	const [first, again, other] = [
		await library.take('S', await picture(10)),
		await library.take('S', await picture(10)),
		await library.take('S', await picture(200))
	];
	expect(again).toEqual(first);
	expect(first).toMatchObject({ width: 64, height: 48, type: 'image/jpeg' });
	expect(readdirSync(`${store.file}.media`)).toHaveLength(2);
	expect(
		store.pictures
			.all(site)
			.map(({ src }) => src)
			.sort()
	).toEqual([first.src, other.src].sort());
	expect(library.fileOf(first.src.replace('/media/', ''))).toContain('.media');
	for (const name of ['../k.db', '/etc/passwd', 'x.jpg', '', `${'0'.repeat(24)}.jpg`])
		expect(library.fileOf(name)).toBeUndefined();
	expect(library.sweep()).toBe(0);
	store.pictures.save(site, [first], true);
	// One that may be on its way in is left alone.
	expect(library.sweep()).toBe(0);
	expect(library.sweep(Date.now() + 3_600_000)).toBe(1);
	expect(readdirSync(`${store.file}.media`)).toHaveLength(1);
});

test('what is refused leaves nothing behind', async () => {
	const store = new Store(join(folder, 'r.db'));
	const site = store.working.sites.save(SITE);
	const library = new Library(store);
	await expect(library.take('S', Buffer.from('no picture'))).rejects.toThrow('no picture');
	expect(store.pictures.all(site)).toEqual([]);
	expect(library.sweep()).toBe(0);
});
