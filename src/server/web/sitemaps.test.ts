import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { afterAll, beforeEach, expect, test, vi } from 'vitest';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { readSitemap } from './sitemaps';

/** The work of a thread, here; and how often it was asked for. */
const asked: string[] = [];
let isBroken = false;
vi.mock('../jobs/run', () => ({
	runJob: async (name: 'sitemaps', input: { db: string; site: string }) => {
		asked.push(name);
		if (isBroken) throw new Error('broken');
		return Promise.resolve(JOBS[name](input));
	}
}));

const folder = mkdtempSync(join(tmpdir(), 'kephalon-sitemaps-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let [store, made] = [undefined as unknown as Store, 0];
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, {
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'note', fields: [], rules: [] }],
		pages: ['/', '/a'].map((path) => ({ path, type: 'note', state: 'live', fields: { title: path }, rules: [] })),
		pictures: []
	} as never);
	release();
	[asked.length, isBroken] = [0, false];
});
const release = () => JOBS.release({ db: store.file, site: 'S' }, () => undefined);
const text = async () => gunzipSync((await readSitemap(store, 'S', 'sitemap.xml'))!.gzip).toString();

test('is made once for all who ask, until something is released or edited', async () => {
	const all = await Promise.all([text(), text(), text()]);
	expect(all[0]).toContain('<loc>https://s.example/a</loc>');
	expect(new Set(all).size).toBe(1);
	expect(asked).toHaveLength(1);
	const { etag } = (await readSitemap(store, 'S', 'sitemap.xml'))!;
	expect((await readSitemap(store, 'S', 'sitemap.xml'))!.etag).toBe(etag);
	store.transaction(() => {
		const { id } = store.working.sites.named('S');
		store.record.nextRevision(id);
		store.working.pages.save(id, { ...store.working.pages.at(id, '/a')!, hidden: true });
	});
	expect(await text()).not.toContain('/a<');
	release();
	expect((await readSitemap(store, 'S', 'sitemap.xml'))!.etag).not.toBe(etag);
	expect(asked).toHaveLength(3);
});

test('there is none of another name; what failed is made anew', async () => {
	expect(await readSitemap(store, 'S', 'sitemap-1.xml')).toBeUndefined();
	release();
	isBroken = true;
	await expect(readSitemap(store, 'S', 'sitemap.xml')).rejects.toThrow('broken');
	isBroken = false;
	expect(await text()).toContain('https://s.example/');
});
