import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '$core';
import { JOBS } from '../jobs/jobs';
import { readFindings } from '../findings/findings';
import { releasedHead, resolverOf } from '../heads/heads';
import { saveSiteFile, writeSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { changeMany, readBatch } from './batch';
import { keepSettings, readSettingsEdit } from './settings';
import { actOnType, readTypeAction } from './types';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-pieces-'));
let store: Store;
let made = 0;
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const say = (tag: string, template: string) => ({ tag, kind: 'template', template });
const page = (path: string, type: string, more: Partial<Page> = {}): Page => ({
	...{ path, type, state: 'live', rules: [], fields: { title: path, price: 20, stock: 'odd' } },
	...more
});
beforeEach(() => {
	store?.close();
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: {
			...{ name: 'S', base: 'https://s.example/', languages: ['en', 'fr'], separator: '·', fields: {} },
			words: { book: { en: 'Book now', fr: 'Réserver' } },
			pieces: { price: '{page.price | money "EUR" "short"}', line: '{page.title}, {piece.price}' },
			rules: [say('title', '{piece.line}')]
		},
		types: [
			{
				...{ name: 'tour', rules: [say('description', 'From {piece.price}. {words.book}: {page.stock}')] },
				names: { one: { en: 'Tour' }, many: { en: 'Tours' } },
				fields: [
					{ name: 'price', kind: 'number' },
					{ name: 'stock', kind: 'choice', words: [{ is: 'in', words: { en: 'In stock' } }] }
				]
			},
			{ name: 'other', fields: [], rules: [], pieces: { price: 'free' } }
		],
		pages: [
			page('/', 'tour'),
			page('/a', 'tour', { rules: [say('author', '{piece.price}')] as Page['rules'] }),
			page('/b', 'other')
		]
	} as never);
});

const stored = () => store.working.sites.named('S');
const dump = () => [...writeSiteFile(store, 'S')].join('');
const change = (place: unknown, changes: unknown) =>
	keepSettings(store, 'S', readSettingsEdit({ place, changes }), 'bench');
const rename = (name: string, piece: string, to: string) =>
	actOnType(store, 'S', readTypeAction({ do: 'renamePiece', name, piece, to }), 'bench');
const headAt = (path: string) => {
	const site = stored();
	const head = releasedHead(resolverOf(store, site, '2026-05-01T10:00:00Z'), store.working.pages.at(site.id, path)!);
	return JSON.stringify(head);
};

test('words, pieces and names stand in the site file, whole, and go into heads', () => {
	const file = dump();
	const again = new Store(join(folder, 'again.db'));
	saveSiteFile(again, JSON.parse(file) as never);
	expect([...writeSiteFile(again, 'S')].join('')).toBe(file);
	again.close();
	expect(headAt('/')).toContain('/, €20');
	expect(headAt('/')).toContain('From €20. Book now: odd');
	expect(headAt('/b')).toContain('/b, free');
});

describe('a piece gets another name', () => {
	test('with every template that uses it; heads come to what they came to', () => {
		const before = ['/', '/a'].map(headAt);
		rename('', 'price', 'cost');
		expect(['/', '/a'].map(headAt)).toEqual(before);
		const { site, types } = stored();
		expect(site.pieces).toEqual({ cost: '{page.price | money "EUR" "short"}', line: '{page.title}, {piece.cost}' });
		expect(types.find(({ name }) => name === 'tour')!.rules[0]).toMatchObject({
			template: 'From {piece.cost}. {words.book}: {page.stock}'
		});
		expect(store.working.pages.at(stored().id, '/a')!.rules).toMatchObject([{ template: '{piece.cost}' }]);
		// A type with a piece of that name itself keeps it.
		expect(types.find(({ name }) => name === 'other')!.pieces).toEqual({ price: 'free' });
	});
	test('that of a type in the type alone; taken, missing and broken names are refused', () => {
		rename('other', 'price', 'gratis');
		expect(stored().types.find(({ name }) => name === 'other')!.pieces).toEqual({ gratis: 'free' });
		expect(stored().site.pieces).toHaveProperty('price');
		const before = dump();
		expect(() => rename('', 'price', 'line')).toThrow('There is a piece "line" already.');
		expect(() => rename('', 'price', 'gratis')).toThrow('There is a piece "gratis" already.');
		expect(() => rename('', 'none', 'x')).toThrow('There is no piece "none" there.');
		expect(() => rename('', 'price', 'a b')).toThrow();
		expect(() => rename('', 'constructor', 'x')).toThrow('There is no piece "constructor" there.');
		expect(dump()).toBe(before);
	});
});

test('a field is renamed in pieces too', () => {
	actOnType(store, 'S', readTypeAction({ do: 'renameField', name: 'tour', field: 'price', to: 'cost' }), 'bench');
	expect(stored().site.pieces!.price).toBe('{page.cost | money "EUR" "short"}');
	expect(headAt('/')).toContain('/, €20');
});

test('a piece that cannot be read, or leads back to itself, is not kept', () => {
	const before = dump();
	const site = { layer: 'site' };
	expect(() => change(site, { pieces: { price: '{piece.price}' } })).toThrow('piece price');
	expect(() => change(site, { pieces: { a: '{piece.b}', b: '{piece.a}' } })).toThrow('leads back');
	expect(() => change(site, { pieces: { a: '{page.title' } })).toThrow('never closed');
	expect(() => change({ layer: 'type', name: 'other' }, { pieces: { line: '{piece.line}' } })).toThrow('leads back');
	expect(() => change(site, { words: { 'a b': {} } })).toThrow();
	expect(() => change(site, { words: { book: { 'not a tag!': 'x' } } })).toThrow();
	expect(dump()).toBe(before);
	change(site, { pieces: null });
	expect(stored().site.pieces).toBeUndefined();
});

test('an edit of words or of a piece brings what is kept of every page that may read it up to date', () => {
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	const stale = () => store.state.countStale(stored().id);
	expect(stale()).toBe(0);
	change({ layer: 'site' }, { words: { book: { en: 'Book' } } });
	expect(stale()).toBe(3);
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	change({ layer: 'type', name: 'other' }, { pieces: { price: 'for nothing' } });
	expect(stale()).toBe(1);
});

test('a choice that is none of its field’s is told, once for all pages', () => {
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	const told = () => readFindings(store, 'S').filter(({ code }) => code === 'unknown-choice');
	expect(told()).toMatchObject([{ pages: 2, weight: 4 }]);
	expect(told()[0]!.says).toContain('“stock”');
	const [type] = stored().types.filter(({ name }) => name === 'tour');
	const [price, stock] = type!.fields;
	const words = [...stock!.words!, { is: 'odd', words: {} }];
	change({ layer: 'type', name: 'tour' }, { fields: [price, { ...stock, words }] });
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	expect(told()).toEqual([]);
});

test('pages are pinned as one edit, and let go as one; what they no longer say is told', () => {
	const now = () => dump();
	const before = now();
	const batch = (on: boolean) =>
		changeMany(
			store,
			'S',
			{ paths: ['/', '/a'] },
			readBatch({ pages: { paths: ['/'] }, action: { do: 'pin', on } }).action,
			'pages'
		);
	expect(batch(true).result).toBe(2);
	const site = stored();
	expect(store.working.pages.at(site.id, '/')!.pinned).toMatchObject({ title: '/, €20', 'og:image': '' });
	expect(batch(true).result).toBe(0);
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	const told = () => readFindings(store, 'S').filter(({ code }) => code === 'pin-broken');
	expect(told()).toEqual([]);
	change({ layer: 'site' }, { pieces: { price: '{page.price | money "EUR"}', line: '{page.title}, {piece.price}' } });
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	// The title, and what is shared of it.
	expect(
		told()
			.map(({ tag, pages }) => `${tag} ${pages}`)
			.sort()
	).toEqual(['description 2', 'og:description 2', 'og:title 2', 'title 2']);
	expect(batch(false).result).toBe(2);
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	expect(told()).toEqual([]);
	change(
		{ layer: 'site' },
		{ pieces: { price: '{page.price | money "EUR" "short"}', line: '{page.title}, {piece.price}' } }
	);
	expect(now()).toBe(before);
});
