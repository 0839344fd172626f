import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '$core';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { pagesLinking } from './links';

let folder: string;
let store: Store;
beforeEach(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-links-'));
	store = new Store(join(folder, 'links.db'));
	saveSiteFile(store, {
		site: { name: 'S', base: 'https://s.example/shore/', languages: ['en'], separator: '|', fields: {}, rules: [] },
		types: [{ name: 'page', fields: [], rules: [] }],
		pages: []
	} as never);
});
afterEach(() => {
	store.close();
	rmSync(folder, { recursive: true });
});

function page(path: string, body?: string) {
	const made: Page = { path, type: 'page', state: 'live', fields: { title: path, ...(body && { body }) }, rules: [] };
	store.savePage(store.site('S').id, made);
}

test('links to a path, however they are written, each page once', () => {
	page('/walks/marsh');
	page('/', '<p><a href="walks/marsh">One</a> and <a href="walks/marsh#way">again</a>');
	page('/a', "<a href='/shore/walks/marsh?from=a'>Whole path</a>");
	page('/b/c', '<a href=../walks/marsh>Relative</a>');
	page('/d', '<map><area href="https://s.example/shore/walks/marsh"></map>');
	page('/e', '<a href="&#119;alks&#47;marsh">Signs by their numbers</a>');
	expect(pagesLinking(store, 'S', '/walks/marsh')).toEqual({ pages: 5, first: ['/', '/a', '/b/c', '/d', '/e'] });
});

test('what only looks like one', () => {
	page('/walks/marsh', '<a href="marsh">It links to itself</a>');
	page('/a', 'walks/marsh in words, <a href="marsh">of another folder</a>, <link href="walks/marsh">');
	page('/b', '<a href="https://other.example/shore/walks/marsh">elsewhere</a><a href="walks/marshes">longer</a>');
	page('/c');
	expect(pagesLinking(store, 'S', '/walks/marsh')).toEqual({ pages: 0, first: [] });
});

test('the home page, and more pages than are named', () => {
	page('/', '<a href="./">itself</a>');
	for (let at = 0; at < 7; at++) page(`/p${at}`, '<a href="./">home</a>');
	const { pages, first } = pagesLinking(store, 'S', '/');
	expect([pages, first.length]).toEqual([7, 5]);
});
