import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile } from '../siteFile/siteFile';
import type { Known, LiveRecords } from '../sources/liveRecords';
import { Store } from '../store/store';
import { SourceHeads } from './sourceHeads';

/** Heads of live data for whoever writes them into pages that go past. */
let folder: string;
let store: Store;
let known: Known;
const records = { get: () => Promise.resolve(known) } as unknown as LiveRecords;
const site = (source?: object) => ({
	...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
	site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
	types: [{ name: 'boat', fields: [], rules: [], ...(source && { source }) }],
	pages: [{ path: '/', type: 'boat', state: 'live', rules: [], fields: { title: 'Home' } }]
});
beforeEach(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-source-heads-'));
	store = new Store(join(folder, 's.db'));
	known = { is: 'there', fields: { title: 'Tern' }, isLate: false };
});
afterEach(() => {
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

test('of a page that a source has, and of no other; the same as long as the record is', async () => {
	saveSiteFile(store, site({ path: '/boats/{id}', address: 'https://data.example/{id}' }) as never);
	const heads = new SourceHeads(store, 'S', records);
	// Nothing is released yet.
	expect(heads.of('/boats/7')).toBeUndefined();
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	const again = new SourceHeads(store, 'S', records);
	const head = await again.of('/boats/7');
	expect(head).toBeDefined();
	expect(await again.of('/boats/7')).toBe(head);
	expect(again.of('/other/7')).toBeUndefined();
	for (const is of [{ is: 'gone' }, { is: 'away', why: 'x' }] as const) {
		known = is;
		expect(await again.of('/boats/7')).toBeUndefined();
	}
});

test('a site without a source asks nothing', () => {
	saveSiteFile(store, site() as never);
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	const heads = new SourceHeads(store, 'S', records);
	expect([heads.of('/boats/7'), heads.of('/boats/8')]).toEqual([undefined, undefined]);
});
