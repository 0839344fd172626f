import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import type { Edit, RuleBody } from '$core';
import { saveSiteFile, writeSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { Library } from '../pictures/library';
import { Conflict } from './edit';
import { actOnPage, readPageAction } from './pages';
import { keepRule, readEdit, RefusedRule } from './rules';
import { keepSettings, readSettingsEdit } from './settings';
import { takeBack } from './takeBack';

/** Edits where there is nothing to edit, or somebody else was first: nothing is kept, and the answer says what stands. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-hard-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

let [store, made, id] = [undefined as unknown as Store, 0, 0];
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, {
		site: { name: 'S', base: 'https://s.example/', languages: ['en', 'fr'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'note', fields: [], rules: [{ tag: 'title', kind: 'template', template: 'T {page.title}' }] }],
		pages: [
			{ path: '/a', type: 'note', state: 'live', fields: { title: 'A', picture: { src: '/p.jpg' } }, rules: [] },
			{ path: '/b', type: 'note', state: 'live', fields: { title: 'B' }, rules: [] }
		],
		pictures: [{ src: '/p.jpg', width: 800, height: 600, alt: 'A boat' }, { src: '/q.jpg' }]
	} as never);
	id = store.working.sites.named('S').id;
});
const dump = () => [...writeSiteFile(store, 'S')].join('');
const says = (template: string): RuleBody => ({ kind: 'template', template });
const keep = (edit: unknown, expected?: unknown) => keepRule(store, 'S', readEdit(edit), { expected, origin: 'bench' });
const settings = (edit: unknown) => keepSettings(store, 'S', readSettingsEdit(edit), 'bench');

describe('a rule', () => {
	const places: readonly [string, Edit['place']][] = [
		['the site', { layer: 'site' }],
		['a type', { layer: 'type', name: 'note' }],
		['a page', { layer: 'page', path: '/a' }]
	];
	test.each(places)('of %s that was changed meanwhile: the rule as it stands is told, nothing is kept', (_, place) => {
		const edit = { place, tag: 'description' };
		for (const [before, now] of [
			[null, says('One')],
			[says('One'), says('Two')],
			[says('Two'), { kind: 'borrow', from: 'og:description' }],
			[{ kind: 'borrow', from: 'og:description' }, null]
		] as const) {
			keep({ ...edit, body: now }, before);
			const kept = dump();
			const late = () => keep({ ...edit, body: says('Late') }, before);
			expect(late).toThrow(Conflict);
			expect(late).toThrow(expect.objectContaining({ status: 409, current: now }));
			expect(dump()).toBe(kept);
		}
	});
	test('for one language is another than the one for any', () => {
		const edit = { place: { layer: 'site' }, tag: 'title' };
		keep({ ...edit, body: says('Any') }, null);
		keep({ ...edit, language: 'fr', body: says('French') }, null);
		expect(() => keep({ ...edit, language: 'fr', body: says('Late') }, says('Any'))).toThrow(
			expect.objectContaining({ current: says('French') })
		);
		expect(() => keep({ ...edit, body: null }, says('French'))).toThrow(
			expect.objectContaining({ current: says('Any') })
		);
		keep({ ...edit, language: 'fr', body: null }, says('French'));
		expect(store.working.sites.named('S').site.rules).toEqual([{ tag: 'title', ...says('Any') }]);
	});
	test.each([
		['a type', { layer: 'type', name: 'nota' }, /no type "nota"/],
		['a page', { layer: 'page', path: '/nowhere' }, /no page "\/nowhere"/]
	])('for %s that is not there is refused', (_, place, message) => {
		const before = dump();
		for (const body of [says('x'), null]) expect(() => keep({ place, tag: 'title', body })).toThrow(message);
		expect(dump()).toBe(before);
	});
	test.each([
		['no body', { place: { layer: 'site' }, tag: 'title' }],
		['a layer that is none', { place: { layer: 'world' }, tag: 'title', body: null }],
		['a page without a path', { place: { layer: 'page' }, tag: 'title', body: null }],
		['more than is asked for', { place: { layer: 'site', name: 'x' }, tag: 'title', body: null }],
		['a language that is none', { place: { layer: 'site' }, tag: 'title', language: 'no language', body: null }],
		['a body of no kind', { place: { layer: 'site' }, tag: 'title', body: { kind: 'wish' } }],
		['nothing', null],
		['a list', []]
	])('with %s cannot be read', (_, edit) => {
		expect(() => readEdit(edit)).toThrow(/cannot be read/);
	});
	test('with an error in its template is refused with the place', () => {
		const wrong = () => keep({ place: { layer: 'site' }, tag: 'title', body: says('{page.titel') });
		expect(wrong).toThrow(RefusedRule);
		expect(wrong).toThrow(/character \d+|position \d+|at \d+/);
	});
	test('that would close a loop is refused, whatever layers it runs over', () => {
		keep({ place: { layer: 'site' }, tag: 'og:title', body: { kind: 'borrow', from: 'twitter:title' } });
		expect(() =>
			keep({ place: { layer: 'page', path: '/a' }, tag: 'twitter:title', body: { kind: 'borrow', from: 'og:title' } })
		).toThrow(/og:title/);
	});
});

describe('the home page', () => {
	const act = (action: unknown) => actOnPage(store, 'S', readPageAction(action), 'bench');
	test('of a site that had none: the page moves to /, and its old path leads there', () => {
		const before = dump();
		expect(act({ do: 'home', path: '/a' }).result).toBe('/');
		expect(store.working.pages.at(id, '/')).toMatchObject({ fields: { title: 'A' }, type: 'note' });
		expect(store.working.pages.at(id, '/a')).toBeUndefined();
		expect(store.working.redirects.all(id)).toEqual({ '/a': '/' });
		takeBack(store, 'S', 'last', 'bench');
		expect(dump()).toBe(before);
	});
	test('is not made of one that nobody sees', () => {
		settings({ place: { layer: 'page', path: '/a' }, changes: { state: 'draft' } });
		expect(() => act({ do: 'home', path: '/a' })).toThrow(/It is a draft.*Set it live first/);
		expect(store.working.pages.at(id, '/')).toBeUndefined();
	});
	test('stays what it is when it is made the home page once more', () => {
		act({ do: 'home', path: '/a' });
		const before = dump();
		act({ do: 'home', path: '/' });
		expect(dump()).toBe(before);
	});
});

describe('pictures', () => {
	const place = { layer: 'picture', src: '/p.jpg' };
	test('are told in other languages, each taken back by itself', () => {
		settings({ place, changes: { alts: { fr: 'Un bateau' } } });
		settings({ place, changes: { alts: { fr: 'Un bateau', 'pt-BR': 'Um barco' } } });
		expect(store.pictures.one(id, '/p.jpg')).toEqual({
			src: '/p.jpg',
			width: 800,
			height: 600,
			alt: 'A boat',
			alts: { fr: 'Un bateau', 'pt-BR': 'Um barco' }
		});
		takeBack(store, 'S', 'last', 'bench');
		expect(store.pictures.one(id, '/p.jpg')!.alts).toEqual({ fr: 'Un bateau' });
		settings({ place, changes: { alts: null } });
		expect(store.pictures.one(id, '/p.jpg')).not.toHaveProperty('alts');
	});
	test('of which a fact would be set are refused', () => {
		expect(() => settings({ place, changes: { width: 9 } })).toThrow(/"width" of a picture is read from its file/);
	});
	test('are taken out: their facts are gone, the pages that name them stay as they are', () => {
		const page = store.working.pages.at(id, '/a');
		store.pictures.remove(id, '/p.jpg');
		expect(store.pictures.one(id, '/p.jpg')).toBeUndefined();
		expect(store.pictures.all(id).map(({ src }) => src)).toEqual(['/q.jpg']);
		expect(store.working.pages.at(id, '/a')).toEqual(page);
		store.pictures.remove(id, '/none.jpg');
		expect(store.pictures.all(id)).toHaveLength(1);
	});
	test('without a kept copy are no reason to keep a file, and none to stop sweeping', () => {
		expect(new Library(store).sweep(Date.now() + 3_600_000)).toBe(0);
		expect(store.pictures.all(id)).toHaveLength(2);
	});
});
