import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import { findTag, type FoundTag, type Page, type Site } from '$core';
import { actOnPage } from './edits/pages';
import { readBatch } from './edits/batch';
import { asAuthored, WrittenNotes } from './files/written';
import { takeTable } from './imports/takeTable';
import { readPageList } from './imports/web/lists';
import { takePicture } from './pictures/takePicture';
import { Store } from './store/store';

/** Single cases, each the least that tells two ways apart. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-singles-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const site: Site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
let [store, id, made] = [undefined as unknown as Store, 0, 0];
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	id = store.saveSite(site);
	store.ensureType(id, 'page');
});
const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{ path, type: 'page', state: 'live', fields: { title: path }, rules: [] },
	...more
});

test('a table replaces the fields it has columns for; what a page is called like its own state is another', () => {
	store.savePage(
		id,
		page('/a', { fields: { title: 'A', summary: 'Old', state: 'Baja', language: 'Latin', path: 'east', keep: 'kept' } })
	);
	const mapping = { path: 'path', title: 'title', summary: 'summary', state: 'state', language: 'language', odd: '' };
	takeTable(
		store,
		{ name: 'S', base: site.base, origin: 'setup' },
		'path,title,summary,state,language,odd\n/a,A two,,draft,fr,x\n',
		{
			mapping
		}
	);
	expect(store.page(id, '/a')).toMatchObject({ language: 'fr' });
	expect(store.page(id, '/a')!.fields).toEqual({
		...{ title: 'A two', state: 'Baja', language: 'Latin', path: 'east', keep: 'kept' }
	});
});

test('a batch names its pages by their paths, or by a filter', () => {
	const action = { do: 'text', tag: 'title', text: 'X' };
	expect(readBatch({ pages: { paths: ['/a', '/b'] }, action }).pages).toEqual({ paths: ['/a', '/b'] });
	expect(readBatch({ pages: { filter: { type: 'page' } }, action }).pages).toEqual({ filter: { type: 'page' } });
	for (const pages of [{ paths: ['/a', 3] }, { paths: 'all' }, {}, { filter: null }])
		expect(() => readBatch({ pages, action })).toThrow('it needs the paths of its pages, or a filter');
});

test('after the last page one comes to where the home page would be', () => {
	store.savePage(id, page('/a'));
	store.savePage(id, page('/b'));
	expect(actOnPage(store, 'S', { do: 'remove', path: '/a' } as never, 'bench').result).toBe('/b');
	expect(actOnPage(store, 'S', { do: 'remove', path: '/b' } as never, 'bench').result).toBe('/');
});

describe('a page as its author left it', () => {
	const read = (found: readonly FoundTag[], title = 'Made') => ({
		...page('/a'),
		type: 'page',
		fields: { title },
		found
	});
	const meta = (name: string, value: string): FoundTag => ({ name, value });
	test('is what was found, where nothing was written into it', () => {
		store.savePage(id, page('/a', { found: [meta('description', 'Before')] }));
		const now = read([meta('description', 'Now')]);
		expect(asAuthored(store, id, now)).toBe(now);
	});
	test('what was found before stands for what was written, also under a name in capitals', () => {
		const before = [meta('Description', 'Authored'), meta('keywords', 'a, b'), meta('robots', 'noindex')];
		store.savePage(id, page('/a', { fields: { title: 'Mine' }, found: before }));
		const written = [meta('title', 'Mine · S'), meta('description', 'Made of Authored')];
		const notes = new WrittenNotes(store, id);
		const tags = written.map(({ name, value }) => ({ tag: findTag(name)!, value, attributes: undefined }));
		notes.add('/a', { html: {}, tags, before: [], after: [] } as never);
		notes.flush();
		expect(asAuthored(store, id, read([...written, meta('KEYWORDS', 'c')], 'Mine · S'))).toMatchObject({
			fields: { title: 'Mine' },
			found: [meta('Description', 'Authored'), meta('robots', 'noindex'), meta('KEYWORDS', 'c')]
		});
		// One of the same name below the head stands beside what was taken out of it.
		const below = meta('Description', 'Below');
		expect(asAuthored(store, id, read([...written, below], 'Mine · S')).found).toEqual([...before, below]);
	});
});

test('a list is packed when its first two bytes say so', () => {
	const xml =
		'<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><url><loc>https://s.example/a</loc></url></urlset>';
	expect(JSON.stringify(readPageList(gzipSync(xml), 'f'))).toBe(JSON.stringify(readPageList(Buffer.from(xml), 'f')));
	for (const first of [
		[0x1f, 0x20],
		[0x20, 0x8b]
	])
		expect(() => readPageList(Buffer.concat([Buffer.from(first), Buffer.from(xml)]), 'f')).not.toThrow(
			'cannot be unpacked'
		);
});

test('a picture without a size is refused, a vector one is drawn', async () => {
	const svg = (size: string) =>
		Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" ${size}><rect width="9" height="9"/></svg>`);
	expect(await takePicture(svg('width="40" height="20"'))).toMatchObject({ facts: { width: 40, height: 20 } });
	await expect(takePicture(svg('width="0" height="20"'))).rejects.toThrow(/size|cannot be read|no picture/i);
});
