import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import type { Page, Site } from '$core';
import { JOBS } from '../jobs/jobs';
import { readPageList } from '../imports/web/lists';
import { Store } from '../store/store';
import { sitemapsOf } from './sitemap';

test('what is released and shown to search is listed, with versions and dates; more than one sitemap holds stand under an index', () => {
	const folder = mkdtempSync(join(tmpdir(), 'kephalon-'));
	const store = new Store(join(folder, 'k.db'));
	const site: Site = {
		name: 'S',
		base: 'https://s.example/',
		languages: ['en'],
		separator: '·',
		fields: {},
		rules: []
	};
	const id = store.saveSite(site);
	store.saveType(id, { name: 'page', fields: [], rules: [] });
	store.saveType(id, { name: 'none', special: 'not-found', fields: [], rules: [] });
	const page = (path: string, more: Partial<Page> = {}): Page => ({
		path,
		type: 'page',
		state: 'live',
		fields: { title: path },
		rules: [],
		...more
	});
	for (const one of [
		page('/'),
		page('/a&b', { modified: '2026-05-03', alternates: { fr: '/fr/a' } }),
		page('/hidden', { hidden: true }),
		page('/draft', { state: 'draft' }),
		page('/404', { type: 'none' }),
		page('/twin', { rules: [{ tag: 'canonical', kind: 'template', template: 'https://s.example/' }] })
	])
		store.savePage(id, one);
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	const [only, ...others] = sitemapsOf(store, 'S');
	expect(others).toEqual([]);
	expect(readPageList(Buffer.from(only!.text), 'own')).toEqual({
		kind: 'sitemap',
		pages: [
			{ address: 'https://s.example/' },
			{
				address: 'https://s.example/a&b',
				modified: '2026-05-03',
				versions: { en: 'https://s.example/a&b', fr: 'https://s.example/fr/a' }
			}
		]
	});
	store.transaction(() => {
		for (let at = 0; at < 20; at++) store.savePage(id, page(`/p${at}`));
	});
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	const many = [...sitemapsOf(store, 'S', 12)];
	expect(many.map(({ name }) => name)).toEqual(['sitemap.xml', 'sitemap-1.xml', 'sitemap-2.xml']);
	expect(readPageList(Buffer.from(many[0]!.text), 'own')).toEqual({
		kind: 'index',
		sitemaps: ['https://s.example/sitemap-1.xml', 'https://s.example/sitemap-2.xml']
	});
	const counts = many.slice(1).map(({ text }) => text.split('<url>').length - 1);
	expect(counts).toEqual([12, 10]);
	store.close();
	rmSync(folder, { recursive: true });
}, 120_000);
