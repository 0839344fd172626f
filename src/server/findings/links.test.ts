import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '$core';
import { saveSiteFile } from '../siteFile/siteFile';
import { importFolder } from '../imports/importFolder';
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
	store.working.pages.save(store.working.sites.named('S').id, made);
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

test('what a page’s own file links to is known, though its text is kept without markup', async () => {
	const top = join(folder, 'site');
	const files = {
		'index.html':
			'<p>See <a href="walks/marsh.html#way">the marsh</a>, <a href="/shore/x">x</a> and <a href="caf%C3%A9.html">that</a>.',
		'walks/marsh.html': '<p>It links to <a href="marsh.html">itself</a> and <a href="../">home</a>.',
		'walks/other.html':
			'<p><a href="./marsh.html">One</a> <a href="https://other.example/walks/marsh.html">not that</a>',
		'café.html': '<p>No links here, and words enough to be a text.'
	};
	mkdirSync(join(top, 'walks'), { recursive: true });
	for (const [name, html] of Object.entries(files)) writeFileSync(join(top, name), html);
	const read = () => importFolder(store, { folder: top, site: 'F', base: 'https://f.example/' });
	await read();
	const linking = (path: string) => pagesLinking(store, 'F', path).first;
	expect(linking('/walks/marsh.html')).toEqual(['/', '/walks/other.html']);
	expect(linking('/')).toEqual(['/walks/marsh.html']);
	expect(linking('/caf%C3%A9.html')).toEqual(['/']);
	expect(linking('/walks/other.html')).toEqual([]);
	// Read again, it is known still; changed, it is known anew.
	await read();
	expect(linking('/walks/marsh.html')).toEqual(['/', '/walks/other.html']);
	writeFileSync(join(top, 'walks/other.html'), '<p>It links to nothing any more, whatever it was before.');
	await read();
	expect(linking('/walks/marsh.html')).toEqual(['/']);
});
