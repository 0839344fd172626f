import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import type { ContentType, Page, Site } from '$core';
import { takeTable } from '../imports/takeTable';
import { saveSiteFile, writeSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { readBenchData, readWhatLeads } from '../web/benchData';
import { actOnPage, readPageAction } from './pages';
import { keepSettings, readSettingsEdit } from './settings';
import { takeBack } from './takeBack';
import { actOnType, fieldUses, readTypeAction } from './types';

/** What is done to whole pages and types, and to the fields of pages. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-whole-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en', 'fr'], separator: '·', fields: {} },
	rules: [{ tag: 'description', kind: 'template', template: '{page.region}' }]
};
const types: ContentType[] = [
	{
		name: 'note',
		fields: [{ name: 'region', kind: 'text' }],
		rules: [{ tag: 'title', kind: 'template', template: '{page.title}[[ in {page.region}]]' }]
	},
	{ name: 'other', fields: [], rules: [] },
	{ name: 'off', off: true, fields: [], rules: [] }
];
const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{ path, type: 'note', state: 'live', fields: { title: path, region: 'North' }, rules: [] },
	...more
});
const pages = [
	page('/'),
	page('/a', {
		rules: [{ tag: 'og:title', language: 'fr', kind: 'template', template: '{page.region | case "upper"}' }]
	}),
	page('/b', { language: 'fr' }),
	page('/d', { language: 'fr', state: 'draft' }),
	page('/o', { type: 'off' })
];

let [store, made, id] = [undefined as unknown as Store, 0, 0];
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, { site, types, pages, pictures: [] } as never);
	id = store.working.sites.named('S').id;
});
const dump = () => [...writeSiteFile(store, 'S')].join('');
const at = (path: string) => store.working.pages.at(id, path) as Page;
const act = (action: unknown) => actOnPage(store, 'S', readPageAction(action), 'bench').result;
const onType = (action: Record<string, unknown>) => actOnType(store, 'S', readTypeAction(action), 'bench').result;
const change = (path: string, changes: unknown) =>
	keepSettings(store, 'S', readSettingsEdit({ place: { layer: 'page', path }, changes }), 'bench');
const undone = (work: () => unknown) => {
	const before = dump();
	work();
	expect(dump()).not.toBe(before);
	takeBack(store, 'S', 'last', 'bench');
	expect(dump()).toBe(before);
};

describe('pages', () => {
	test('a new one is a draft in its language; as a version it names the other, which names it once it is live', () => {
		act({ do: 'add', path: '/fr/a', type: 'note', title: 'A en français', language: 'fr', versionOf: '/a' });
		expect(at('/fr/a')).toMatchObject({ state: 'draft', language: 'fr', alternates: { en: '/a' } });
		expect(at('/a').alternates).toBeUndefined();
		expect(() => act({ do: 'link', path: '/a', to: '/fr/a' })).toThrow(
			'/fr/a is a draft: its readers would be led nowhere'
		);
		change('/fr/a', { state: 'live' });
		act({ do: 'link', path: '/a', to: '/fr/a' });
		expect(at('/a').alternates).toEqual({ fr: '/fr/a' });
		act({ do: 'unlink', path: '/a', to: '/fr/a' });
		expect([at('/a').alternates, at('/fr/a').alternates]).toEqual([undefined, undefined]);
	});

	test.each([
		[{ do: 'add', path: 'a', type: 'note', title: 'A' }, '“a” is no path'],
		[{ do: 'add', path: '/x y', type: 'note', title: 'A' }, 'holds no space'],
		[{ do: 'add', path: '/a', type: 'note', title: 'A' }, 'There is a page at /a already'],
		[{ do: 'add', path: '/n', type: 'none', title: 'A' }, 'There is no type "none"'],
		[{ do: 'add', path: '/n', type: 'note', title: 'A', language: 'french!' }, 'no language tag'],
		[{ do: 'add', path: '/n', type: 'note', title: 'A', versionOf: '/a' }, '/a is in “en” itself'],
		[{ do: 'link', path: '/a', to: '/a' }, 'That is this page itself'],
		[{ do: 'link', path: '/a', to: '/none' }, 'There is no page /none'],
		[{ do: 'link', path: '/a', to: '/' }, 'Both pages are in “en”'],
		[{ do: 'remove', path: '/a', to: '/a' }, 'cannot lead to itself'],
		[{ do: 'home', path: '/d' }, '/d cannot become the home page. It is a draft'],
		[{ do: 'home', path: '/o' }, 'switched off'],
		[{ do: 'fly', path: '/a' }, '"do" is one of'],
		[{ do: 'copy', path: '/a' }, '"to" is missing']
	])('%j is refused: %s', (action, why) => {
		expect(() => act(action)).toThrow(why);
	});

	test('settings are held to the same: no home page that nobody sees, no version that leads nowhere', () => {
		act({ do: 'remove', path: '/' });
		expect(() => change('/d', { path: '/' })).toThrow('/d cannot become the home page. It is a draft');
		expect(() => change('/a', { alternates: { fr: '/d' } })).toThrow('/d is a draft');
		expect(() => change('/a', { alternates: { fr: '/none' } })).toThrow('There is no page /none');
		// What stands there already does not keep the rest of the page from being changed.
		change('/a', { alternates: { fr: '/b' } });
		change('/b', { state: 'draft' });
		expect(() => change('/a', { target: 'x', alternates: { fr: '/b' } })).not.toThrow();
	});

	test('a version that is named already is not put aside unasked', () => {
		act({ do: 'link', path: '/a', to: '/b' });
		expect(() => act({ do: 'link', path: '/', to: '/b' })).toThrow('/b names /a as its version in “en”');
		expect(at('/b').alternates).toEqual({ en: '/a' });
	});

	test('one is taken away with the versions that name it, and what led to it leads on', () => {
		change('/a', { alternates: { fr: '/b' } });
		change('/b', { path: '/b2' });
		expect(readWhatLeads(store, 'S', '/b2')).toEqual({ former: ['/b'], naming: ['/a'], isHome: false });
		undone(() => act({ do: 'remove', path: '/b2', to: '/a' }));
		act({ do: 'remove', path: '/b2', to: '/a' });
		expect(at('/a').alternates).toBeUndefined();
		expect(store.working.redirects.all(id)).toEqual({ '/b': '/a', '/b2': '/a' });
		act({ do: 'remove', path: '/a' });
		expect(store.working.redirects.all(id)).toEqual({});
	});

	test('a copy is a version of nothing', () => {
		change('/a', { alternates: { fr: '/b' }, key: true });
		act({ do: 'copy', path: '/a', to: '/copy' });
		expect(at('/copy')).toMatchObject({ state: 'draft', rules: pages[1]!.rules });
		expect([at('/copy').alternates, at('/copy').key]).toEqual([undefined, undefined]);
	});

	test('its versions are told with gaps and one-way links', () => {
		change('/a', { alternates: { fr: '/b' } });
		const { versions } = readBenchData(store, 'S', '/a') as { versions: readonly unknown[] };
		expect(versions).toEqual([
			{
				...{ language: 'fr', path: '/b', state: 'live', namesBack: false },
				...{ title: '/b in North', description: 'North', picture: '' }
			}
		]);
		expect((readBenchData(store, 'S', '/') as { versions: readonly unknown[] }).versions).toEqual([{ language: 'fr' }]);
	});
});

describe('types', () => {
	test('a renamed one keeps its pages', () => {
		undone(() => onType({ do: 'rename', name: 'note', to: 'remark' }));
		onType({ do: 'rename', name: 'note', to: 'remark' });
		expect(at('/a').type).toBe('remark');
		expect(store.working.pages.count(id).byType).toMatchObject({ remark: 4 });
		expect(() => onType({ do: 'rename', name: 'remark', to: 'other' })).toThrow('There is a type "other" already');
	});

	test('one is taken away when it is said what its pages become', () => {
		expect(() => onType({ do: 'remove', name: 'note' })).toThrow('4 pages are of the type "note"');
		undone(() => onType({ do: 'remove', name: 'note', to: 'other' }));
		expect(onType({ do: 'remove', name: 'note', to: 'other' })).toBe('other');
		expect(at('/a').type).toBe('other');
		expect(store.working.sites.named('S').types.map(({ name }) => name)).toEqual(['off', 'other']);
	});

	test('a field is renamed with the values of the pages and all templates that ask for it', () => {
		expect(fieldUses(store, 'S', 'note', 'region').map(({ layer, tag }) => `${layer} ${tag}`)).toEqual([
			'site description',
			'type title',
			'page og:title'
		]);
		undone(() => onType({ do: 'renameField', name: 'note', field: 'region', to: 'area' }));
		onType({ do: 'renameField', name: 'note', field: 'region', to: 'area' });
		expect(fieldUses(store, 'S', 'note', 'region')).toEqual([]);
		expect(at('/a').fields).toEqual({ title: '/a', area: 'North' });
		// Pages of other types keep what they have under that name.
		expect(at('/o').fields).toEqual({ title: '/o', region: 'North' });
		expect(() => onType({ do: 'renameField', name: 'note', field: 'none', to: 'x' })).toThrow('no field "none"');
		expect(() => onType({ do: 'renameField', name: 'note', field: 'area', to: 'a b' })).toThrow('cannot name a field');
	});

	test.each(['title', 'summary', 'spare', '__proto__', 'toString'])(
		'nothing is written over under the name %s',
		(to) => {
			store.working.pages.save(id, { ...at('/a'), fields: { ...at('/a').fields, spare: 'Kept' } });
			const before = dump();
			expect(() => onType({ do: 'renameField', name: 'note', field: 'region', to })).toThrow(/already|cannot name/);
			expect(dump()).toBe(before);
		}
	);

	test('a site template that another type still fills asks for both names', () => {
		store.working.types.save(id, { ...types[1]!, fields: [{ name: 'region', kind: 'text' }] });
		onType({ do: 'renameField', name: 'note', field: 'region', to: 'area' });
		expect(store.working.sites.named('S').site.rules).toEqual([
			{ tag: 'description', kind: 'template', template: '{page.area ?? page.region}' }
		]);
	});
});

describe('fields written here', () => {
	const read = (text: string) =>
		takeTable(store, { name: 'S', base: site.base, origin: 'command' }, text, { mapping: { path: 'path' } });

	test('are held against a later reading, until they are given free', () => {
		change('/a', { fields: { ...at('/a').fields, title: 'By hand' } });
		expect(at('/a').held).toEqual(['title']);
		read('path,title,region\n/a,From the table,South\n');
		expect(at('/a').fields).toMatchObject({ title: 'By hand', region: 'South' });
		change('/a', { held: null });
		read('path,title,region\n/a,From the table,South\n');
		expect(at('/a').fields).toMatchObject({ title: 'From the table', region: 'South' });
	});

	test('one that was emptied stays empty, and a picture is not mixed of two', () => {
		const { region: _region, ...rest } = at('/a').fields;
		change('/a', { fields: { ...rest, picture: { src: '/mine.jpg' } } });
		store.working.readIn.refreshPage(id, {
			...{ path: '/a', type: undefined },
			fields: { title: 'Read', region: 'West', picture: { src: '/theirs.jpg', alt: 'Theirs' } }
		});
		expect(at('/a').fields).toEqual({ title: 'Read', picture: { src: '/mine.jpg' } });
	});

	test('a body that was written here is not replaced', () => {
		change('/a', { fields: { ...at('/a').fields, body: '<p>Mine</p>' } });
		store.working.readIn.refreshPage(id, {
			path: '/a',
			type: undefined,
			fields: { title: 'Read', body: '<p>Theirs</p>' }
		});
		expect(at('/a').fields).toMatchObject({ title: 'Read', body: '<p>Mine</p>' });
	});
});

test('a table replaces what it has columns for: what a folder gave besides, and what authors wrote, stays', () => {
	store.working.readIn.refreshPage(id, {
		...{ path: '/f', type: 'other', modified: '2026-01-01' },
		fields: { title: 'Folder', summary: 'From the file', body: '<p>Text</p>' },
		found: [{ name: 'description', value: 'The author’s' }]
	});
	takeTable(store, { name: 'S', base: site.base, origin: 'command' }, 'path,title,region\n/f,Table,\n', {
		mapping: { path: 'path' }
	});
	expect(at('/f')).toMatchObject({
		...{ type: 'other', modified: '2026-01-01', found: [{ name: 'description', value: 'The author’s' }] },
		fields: { title: 'Table', summary: 'From the file', body: '<p>Text</p>' }
	});
	expect(store.working.readIn.retirePages(id, new Set())).toContain('/f');
});

test('a page that names one path in two languages is kept, however often it changes', () => {
	const versions = (all: Record<string, string>) =>
		saveSiteFile(store, {
			...{ format: 'kephalon-site', version: 2, site, types, pictures: [], redirects: {} },
			pages: [page('/'), page('/a', { alternates: all }), page('/b')]
		} as never);
	for (const all of [{ fr: '/b', 'fr-CA': '/b' }, { fr: '/b', 'fr-CA': '/b', de: '/b' }, { fr: '/b' }]) {
		versions(all);
		const { id } = store.working.sites.named('S');
		expect(store.working.pages.at(id, '/a')!.alternates).toEqual(all);
		expect(store.db.prepare('SELECT path FROM page_version WHERE site_id = ?').all(id)).toEqual([{ path: '/b' }]);
	}
	versions({});
	expect(store.db.prepare('SELECT path FROM page_version').all()).toEqual([]);
});
