import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import type { Page, Site } from '$core';
import { parseSiteFile, saveSiteFile, writeSiteFile } from '../siteFile/siteFile';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
import { takeContent } from '../imports/content';
import { actOnPage, readPageAction } from '../edits/pages';
import { keepSettings, readSettingsEdit } from '../edits/settings';
import { readWorst } from './worst';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-web-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const site: Site = {
	name: 'S',
	base: 'https://s.example/',
	languages: ['en', 'fr'],
	separator: '·',
	fields: {},
	rules: []
};
const page = (path: string, more: Partial<Page> = {}): Page => ({
	path,
	type: 'note',
	state: 'live',
	fields: { title: path },
	rules: [{ tag: 'title', kind: 'template', template: 'Own' }],
	...more
});
let [store, made] = [undefined as unknown as Store, 0];
let id = 0;
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	id = store.working.sites.save(site);
	store.working.types.save(id, { name: 'note', fields: [], rules: [] });
	store.working.types.save(id, { name: 'start', special: 'home', fields: [], rules: [] });
	store.working.pages.save(id, page('/', { type: 'start' }));
	store.working.pages.save(id, page('/a', { alternates: { fr: '/b' } }));
	store.working.pages.save(id, page('/b', { alternates: { en: '/a' } }));
});
const change = (place: unknown, changes: unknown) =>
	keepSettings(store, 'S', readSettingsEdit({ place, changes }), 'bench');

describe('settings', () => {
	test('a page’s new path leaves a redirect, old ones follow, and other languages are told', () => {
		change({ layer: 'page', path: '/a' }, { path: '/a2' });
		change({ layer: 'page', path: '/a2' }, { path: '/a3', state: 'draft' });
		expect(store.working.pages.at(id, '/a3')).toMatchObject({ state: 'draft', rules: page('/a').rules });
		expect(store.working.redirects.all(id)).toEqual({ '/a': '/a3', '/a2': '/a3' });
		expect(store.working.pages.at(id, '/b')?.alternates).toEqual({ en: '/a3' });
		// Back to where a redirect stands: the redirect goes.
		change({ layer: 'page', path: '/a3' }, { path: '/a' });
		expect(store.working.redirects.all(id)).toEqual({ '/a2': '/a', '/a3': '/a' });
		expect(() => change({ layer: 'page', path: '/a' }, { path: '/b' })).toThrow(/There is a page at \/b already/);
	});
	test('null takes a setting away; what cannot be kept is refused and nothing is changed', () => {
		change({ layer: 'page', path: '/a' }, { key: true, target: 'tides' });
		change({ layer: 'page', path: '/a' }, { key: null });
		expect(store.working.pages.at(id, '/a')).toMatchObject({ target: 'tides' });
		expect(store.working.pages.at(id, '/a')).not.toHaveProperty('key');
		expect(() => change({ layer: 'page', path: '/a' }, { state: 'sold' })).toThrow(/cannot be kept/);
		expect(() => change({ layer: 'site' }, { base: 'nonsense' })).toThrow(/cannot be kept/);
		expect(() => change({ layer: 'type', name: 'none' }, {})).toThrow(/There is no type "none"/);
		expect(() => readSettingsEdit({ place: { layer: 'site' }, changes: { rules: [] } })).toThrow(/rules are set by/);
		expect(store.working.sites.named('S').site.base).toBe(site.base);
	});
	test('a site is renamed, unless the name is taken', () => {
		store.working.sites.save({ ...site, name: 'T' });
		expect(() => change({ layer: 'site' }, { name: 'T' })).toThrow(/There is a site "T" already/);
		change({ layer: 'site' }, { name: 'U', separator: '|' });
		expect(store.working.sites.named('U').site.separator).toBe('|');
		expect(store.working.sites.find('S')).toBeUndefined();
	});
	test('a type that is switched off has no live pages to release', () => {
		change({ layer: 'type', name: 'note' }, { off: true });
		expect([...store.working.pages.all(id, 'live')].map(({ path }) => path)).toEqual(['/']);
	});
	test('a conflict is seen by the settings that are changed, and by no others', () => {
		const edit = (expected: Record<string, unknown>) =>
			readSettingsEdit({ place: { layer: 'site' }, changes: { separator: '–' }, expected });
		const keep = (expected: Record<string, unknown>) => keepSettings(store, 'S', edit(expected), 'bench');
		expect(() => keep({ separator: '|' })).toThrow(
			expect.objectContaining({ current: { separator: '·' }, status: 409 })
		);
		expect(store.working.sites.named('S').site.separator).toBe('·');
		expect(keep({ lean: true }).edit).toBeDefined();
		expect(keep({ separator: '–' }).edit).toBeUndefined();
	});
});

describe('whole pages', () => {
	const act = (action: unknown) => actOnPage(store, 'S', readPageAction(action), 'bench').result;
	test('a copy has the overrides and is a draft', () => {
		expect(act({ do: 'copy', path: '/a', to: '/c' })).toBe('/c');
		expect(store.working.pages.at(id, '/c')).toMatchObject({ state: 'draft', rules: page('/a').rules });
		expect(() => act({ do: 'copy', path: '/a', to: '/b' })).toThrow(/There is a page at \/b already/);
	});
	test('a page made home changes places with the one before, types and all', () => {
		expect(act({ do: 'home', path: '/a' })).toBe('/');
		expect(store.working.pages.at(id, '/')).toMatchObject({ type: 'start', fields: { title: '/a' } });
		expect(store.working.pages.at(id, '/a')).toMatchObject({ type: 'note', fields: { title: '/' } });
	});
	test('added and taken away', () => {
		act({ do: 'add', path: '/new', type: 'note', title: 'New' });
		expect(store.working.pages.at(id, '/new')).toMatchObject({ state: 'draft', fields: { title: 'New' } });
		act({ do: 'remove', path: '/new' });
		expect(store.working.pages.at(id, '/new')).toBeUndefined();
	});
	test.each([
		[{ do: 'sell', path: '/a' }, /"do" is one of/],
		[{ do: 'copy', path: '/a' }, /"to" is missing/],
		[{ do: 'copy', path: '/a', to: 'c' }, /begins with a slash/],
		[{ do: 'add', path: '/x', type: 'none', title: 'X' }, /There is no type "none"/],
		[{ do: 'remove', path: '/none' }, /There is no page "\/none"/],
		[null, /"do" is one of/]
	])('%j is refused', (action, why) => {
		expect(() => act(action)).toThrow(why);
	});
});

describe('a site from where its content is', () => {
	test('by hand, then from a table: settings and overrides stay', async () => {
		expect(await takeContent(store, 'New', 'https://new.example', { kind: 'hand' })).toMatchObject({ pages: 1 });
		const source = {
			kind: 'table',
			file: 'path,title\n/x,X',
			mapping: { path: 'path', title: 'title' },
			type: 'thing'
		} as const;
		expect(await takeContent(store, 'New', 'https://new.example/', source)).toEqual({
			pages: 1,
			pictures: 0,
			skipped: []
		});
		const stored = store.working.sites.named('New');
		store.working.pages.save(stored.id, { ...store.working.pages.at(stored.id, '/x')!, rules: page('/').rules });
		await takeContent(store, 'New', 'https://new.example/', { ...source, file: 'path,title\n/x,Y\n/x,Z' });
		expect(store.working.pages.at(stored.id, '/x')).toMatchObject({
			type: 'thing',
			fields: { title: 'Y' },
			rules: page('/').rules
		});
		expect(stored.types.map(({ name }) => name)).toEqual(['page', 'thing']);
	});
	test('from a folder', async () => {
		const files = mkdtempSync(join(folder, 'files-'));
		writeFileSync(join(files, 'a.html'), '<title>A</title><h1>A</h1>');
		expect(await takeContent(store, 'F', 'https://f.example/', { kind: 'folder', folder: files })).toMatchObject({
			pages: 1
		});
	});
	test.each([
		['', 'https://new.example/', /needs a name/],
		['N', 'new.example', /Did you mean https:\/\/new.example\?/],
		['N', 'nonsense', /not an absolute/]
	])('%j at %j is refused', async (name, base, why) => {
		await expect(takeContent(store, name, base, { kind: 'hand' })).rejects.toThrow(why);
	});
});

test('the worst pages come first, key pages count double, and what mends most stands on top', async () => {
	const long = 'A summary that is long enough to say what the page is about, and not so long that it is cut.';
	store.working.pages.save(id, page('/a', { fields: { title: 'A', summary: long } }));
	store.working.pages.save(id, page('/b', { key: true, fields: { title: 'B', summary: long } }));
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	const { pages, faulty, worst, mends } = await readWorst(store, 'S');
	expect([pages, faulty]).toEqual([3, 3]);
	expect(worst.map(({ path }) => path)).toEqual(['/b', '/', '/a']);
	expect(worst[0]!.card.title.shown).toBe('Own');
	expect(mends.map(({ code, pages: count }) => [code, count])).toEqual([
		['no-picture', 3],
		['no-description', 1]
	]);
});

test('each kind of finding names the mend of its own tag', async () => {
	const texts = { 'og:title': 'T {page.none}', 'og:description': 'D {page.none}' };
	for (const [path, tags] of [
		['/c', ['og:title', 'og:description']],
		['/d', ['og:description']]
	] as const)
		store.working.pages.save(
			id,
			page(path, {
				rules: tags.map((tag) => ({ tag, kind: 'template' as const, template: texts[tag] })),
				fields: { title: 'C' }
			})
		);
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	const gaps = (await readWorst(store, 'S')).mends.filter(({ code }) => code === 'gap');
	expect(gaps.map(({ tag, pages }) => [tag, pages])).toEqual([
		['og:description', 2],
		['og:title', 1]
	]);
	for (const path of ['/c', '/d']) store.working.pages.remove(id, path);
});

test('a site file carries redirects, key pages and types that are off, there and back', () => {
	change({ layer: 'page', path: '/a' }, { path: '/a2', key: true, target: 'tide' });
	change({ layer: 'type', name: 'note' }, { off: true });
	const text = [...writeSiteFile(store, 'S')].join('');
	const other = new Store(join(folder, 'other.db'));
	saveSiteFile(other, parseSiteFile(text, 'x.json'));
	expect([...writeSiteFile(other, 'S')].join('')).toBe(text);
	expect(text).toContain('"redirects"');
});
