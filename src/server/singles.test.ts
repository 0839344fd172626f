import Database from 'better-sqlite3';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import { findTag, type FoundTag, type Page, type Site } from '$core';
import { actOnPage } from './edits/pages';
import { readBatch } from './edits/batch';
import { asAuthored, WrittenNotes } from './files/written';
import { writeCsv } from './exports/csv';
import { guardedLookup } from './fetching/guard';
import { decodeTable, readRows } from './imports/table/rows';
import { takeTable } from './imports/takeTable';
import { readPageList } from './imports/web/lists';
import { takePicture } from './pictures/takePicture';
import { backUp, restore } from './backup/backup';
import { Store } from './store/store';

/** Single cases, each the least that tells two ways apart. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-singles-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const site: Site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
let [store, id, made] = [undefined as unknown as Store, 0, 0];
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	id = store.working.sites.save(site);
	store.working.types.ensure(id, 'page');
});
const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{ path, type: 'page', state: 'live', fields: { title: path }, rules: [] },
	...more
});

test('a table replaces the fields it has columns for; what a page is called like its own state is another', () => {
	store.working.pages.save(
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
	expect(store.working.pages.at(id, '/a')).toMatchObject({ language: 'fr' });
	expect(store.working.pages.at(id, '/a')!.fields).toEqual({
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
	store.working.pages.save(id, page('/a'));
	store.working.pages.save(id, page('/b'));
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
		store.working.pages.save(id, page('/a', { found: [meta('description', 'Before')] }));
		const now = read([meta('description', 'Now')]);
		expect(asAuthored(store, id, now)).toBe(now);
	});
	test('what was found before stands for what was written, also under a name in capitals', () => {
		const before = [meta('Description', 'Authored'), meta('keywords', 'a, b'), meta('robots', 'noindex')];
		store.working.pages.save(id, page('/a', { fields: { title: 'Mine' }, found: before }));
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

describe('picture sources in the table of pages', () => {
	const cellOf = (rule: object) => {
		store.working.pages.save(id, page('/a', { rules: [{ tag: 'og:image', kind: 'pictures', ...rule } as never] }));
		const wanted = { columns: [], sort: 'path', down: false, mark: false } as const;
		const [head, row] = [...writeCsv(store, 'S', {}, wanted)].join('').trim().split(/\r?\n/) as [string, string];
		return row.split(',')[head.split(',').indexOf('page says: og:image')];
	};
	test('one file is its place; several are told, and never as the first of them', () => {
		const file = { from: 'file', src: '/one.jpg' };
		expect(cellOf({ sources: [file] })).toBe('/one.jpg');
		expect(cellOf({ sources: [file, { from: 'lead' }] })).toBe('(picture sources)');
		expect(cellOf({ sources: [{ from: 'lead' }] })).toBe('(picture sources)');
		expect(cellOf({ sources: [] })).toBe('(picture sources)');
	});
});

describe('a name is looked up by the guard', () => {
	const PUBLIC = [
		{ address: '93.184.216.34', family: 4 },
		{ address: '2606:2800:220:1::1', family: 6 }
	];
	const look = (found: readonly object[] | Error, options: object) =>
		new Promise<unknown[]>((resolve) => {
			const resolver = (_name: string, _options: object, done: (error: Error | null, found: unknown) => void) =>
				found instanceof Error ? done(found, undefined) : done(null, found);
			guardedLookup(resolver as never)('x.example', options, (...told: unknown[]) => resolve(told));
		});
	test('all its addresses where all are asked for, else the first with its family', async () => {
		expect(await look(PUBLIC, { all: true })).toEqual([null, PUBLIC]);
		expect(await look(PUBLIC, {})).toEqual([null, '93.184.216.34', 4]);
		expect(await look([PUBLIC[1]!], { all: false })).toEqual([null, '2606:2800:220:1::1', 6]);
	});
	test.each([[{ all: true }], [{}]])('one inner address refuses it, wherever it stands (%j)', async (options) => {
		const inner = { address: '10.0.0.7', family: 4 };
		for (const found of [
			[inner, ...PUBLIC],
			[...PUBLIC, inner],
			[PUBLIC[0], inner, PUBLIC[1]]
		] as object[][]) {
			const [error] = await look(found, options);
			expect(String(error)).toContain('private network');
		}
	});
	test('none at all, and a failure, are told as what they are', async () => {
		expect((await look([], {}))[0]).toMatchObject({ code: 'ENODATA' });
		const failure = new Error('ENOTFOUND');
		expect((await look(failure, { all: true }))[0]).toBe(failure);
	});
});

describe('a table', () => {
	test('in an encoding that nothing tells is read as the web reads it, and loses no letter of ASCII', () => {
		const odd = Buffer.from([0x70, 0x2c, 0x71, 0x0a, 0x81, 0x2c, 0x8d, 0x0a]);
		const { text, encoding } = decodeTable(odd);
		expect(encoding).not.toBe('');
		expect(text.startsWith('p,q\n')).toBe(true);
	});
	test('keeps numbers in a list of JSON numbers, and all else in it as text', () => {
		const { rows } = readRows('[{"path":"/a","n":[1,2.5,"3",true,null]}]');
		expect(rows[0]?.cells).toEqual({ path: '/a', n: [1, 2.5, '3', 'true', 'null'] });
	});
	test('of more records than may be is refused by their number', () => {
		expect(() => readRows(`[${'{},'.repeat(200_000)}{}]`)).toThrow('200001 rows, more than the 200000');
	});
});

test('a backup whose rows belong to nothing is refused, and nothing is put back', async () => {
	store.working.pages.save(id, page('/a'));
	const copy = join(folder, 'copy');
	await backUp(store, copy);
	const file = join(
		copy,
		readdirSync(copy).find((name) => name.endsWith('.db'))!
	);
	const db = new Database(file);
	db.pragma('foreign_keys = OFF');
	db.exec("INSERT INTO page_body (page_id, body) VALUES (999999, 'lost')");
	db.close();
	const target = join(folder, 'put-back.db');
	expect(() => restore(copy, target)).toThrow('rows that belong to nothing');
	expect(existsSync(target)).toBe(false);
});
