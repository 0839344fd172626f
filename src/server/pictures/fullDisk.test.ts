import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, expect, test, vi } from 'vitest';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { Library } from './library';

/** A disk that is full when a picture gets its name. */
vi.mock('node:fs', async (original) => {
	const fs: object = await original();
	const renameSync = () => {
		throw Object.assign(new Error('full'), { code: 'ENOSPC' });
	};
	return { ...fs, renameSync };
});

const folder = mkdtempSync(join(tmpdir(), 'kephalon-full-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('a picture that could not be written leaves nothing behind', async () => {
	const store = new Store(join(folder, 'f.db'));
	const site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
	saveSiteFile(store, { site, types: [], pages: [], pictures: [] } as never);
	const library = new Library(store);
	const bytes = await sharp({ create: { width: 300, height: 300, channels: 3, background: '#369' } })
		.png()
		.toBuffer();
	await expect(library.take('S', bytes, 'x.png')).rejects.toThrow('full');
	expect(readdirSync(library.folder)).toEqual([]);
	expect(store.pictures.all(store.working.sites.named('S').id)).toEqual([]);
});
