import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { validateXML } from 'xmllint-wasm';
import type { Page, Site } from '$core';
import { JOBS } from '../jobs/jobs';
import { readPageList } from '../imports/web/lists';
import { Store } from '../store/store';
import { sitemapsOf } from './sitemap';

const schema = (name: string) => ({
	fileName: `${name}.xsd`,
	contents: readFileSync(new URL(`schemas/${name}.xsd`, import.meta.url), 'utf8')
});
/** Holds a text to the published schema. */
async function valid(text: string, name: 'sitemap' | 'siteindex') {
	const { errors } = await validateXML({
		xml: [{ fileName: 'sitemap.xml', contents: text }],
		schema: [schema(name)],
		preload: [schema('link'), schema('image')]
	});
	expect(errors.map(({ message }) => message)).toEqual([]);
}

test('what is released and shown to search is listed, with versions and dates; more than one sitemap holds stand under an index', async () => {
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
	const id = store.working.sites.save(site);
	store.working.types.save(id, { name: 'page', fields: [], rules: [] });
	store.working.types.save(id, { name: 'none', special: 'not-found', fields: [], rules: [] });
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
		page('/pictured', { fields: { title: 'P', picture: '/p.jpg' } }),
		page('/timed', { modified: '2026-05-03T10:20:30+02:00' }),
		page('/half', { modified: '2026-05-03 10:20' }),
		page(`/${'long'.repeat(600)}`),
		page('/hidden', { hidden: true }),
		page('/draft', { state: 'draft' }),
		page('/404', { type: 'none' }),
		page('/twin', { rules: [{ tag: 'canonical', kind: 'template', template: 'https://s.example/' }] })
	])
		store.working.pages.save(id, one);
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
			},
			{ address: 'https://s.example/half', modified: '2026-05-03' },
			{ address: 'https://s.example/pictured', pictures: ['https://s.example/p.jpg'] },
			{ address: 'https://s.example/timed', modified: '2026-05-03T08:20:30.000Z' }
		]
	});
	await valid(only!.text, 'sitemap');
	store.transaction(() => {
		for (let at = 0; at < 20; at++) store.working.pages.save(id, page(`/p${at}`));
	});
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	const many = [...sitemapsOf(store, 'S', 12)];
	expect(many.map(({ name }) => name)).toEqual(['sitemap.xml', 'sitemap-1.xml', 'sitemap-2.xml', 'sitemap-3.xml']);
	expect(readPageList(Buffer.from(many[0]!.text), 'own')).toEqual({
		kind: 'index',
		sitemaps: ['https://s.example/sitemap-1.xml', 'https://s.example/sitemap-2.xml', 'https://s.example/sitemap-3.xml']
	});
	await valid(many[0]!.text, 'siteindex');
	for (const { text } of many.slice(1)) await valid(text, 'sitemap');
	const counts = many.slice(1).map(({ text }) => text.split('<url>').length - 1);
	expect(counts).toEqual([12, 12, 1]);
	store.close();
	rmSync(folder, { recursive: true });
});
