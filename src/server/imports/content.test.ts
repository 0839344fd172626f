import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { Store } from '../store/store';
import { takeContent } from './content';

/** A folder as the set-up reads it: what is found is told, and what is said about it is taken at the next reading. */

let top = '';
let folder = '';
let store: Store;
const BASE = 'https://s.example/';
const write = (name: string, title: string, more = '') => {
	const file = join(folder, name);
	mkdirSync(dirname(file), { recursive: true });
	writeFileSync(
		file,
		`<!doctype html><html lang="en"><head><title>${title} — The Manual</title>${more}</head><body><h1>${title}</h1><p>A paragraph about ${title} that is long enough to be taken for what the page is about, and to be quoted.</p></body></html>`
	);
};
beforeEach(() => {
	top = mkdtempSync(join(tmpdir(), 'kephalon-content-'));
	folder = join(top, 'public');
	for (const name of ['one', 'two', 'three', 'four', 'five', 'six']) write(`walks/${name}.html`, `Walk ${name}`);
	write('index.html', 'Home', '<meta name="description" content="What its author wrote of the home page, in words.">');
	write('404.html', 'Nothing here');
	write('drafts/rough.html', 'Rough');
	store = new Store(join(top, 'c.db'));
});
afterEach(() => {
	store.close();
	rmSync(top, { recursive: true, force: true });
});
const take = (more: object = {}) => takeContent(store, 'S', BASE, { kind: 'folder', folder, ...more });
const pageAt = (path: string) => store.working.pages.at(store.working.sites.named('S').id, path);

test('what a folder holds is told: what authors wrote, titles with something in common, types by paths', async () => {
	const { pages, folder: found } = await take({ said: { ignore: ['drafts/**'] } });
	expect(pages).toBe(8);
	expect(found).toMatchObject({
		...{ added: 8, changed: 0, retired: [], found: { description: 1 }, languages: { en: 8 } },
		titles: { parts: [], taken: { parts: [{ at: 'end', text: ' — The Manual', pages: 8 }], numbered: 0 } }
	});
	expect(found?.proposals.map(({ pattern, type, pages: count }) => `${pattern} ${type} ${count}`)).toEqual([
		'{404,not-found,notfound}.{html,htm,xhtml} not-found 1',
		'walks/** walks 6'
	]);
	expect(pageAt('/drafts/rough.html')).toBeUndefined();
});

test('404.html is known as the page that is not found', async () => {
	await take();
	expect(pageAt('/404.html')?.type).toBe('not-found');
	expect(store.working.sites.named('S').types.find(({ name }) => name === 'not-found')?.special).toBe('not-found');
});

test('what is said is taken, and stays for the reading after that', async () => {
	const { folder: found } = await take({ said: { types: [{ pattern: 'walks/**', type: 'walk' }] }, trimTitles: true });
	expect(found?.titles.parts).toEqual([]);
	expect(pageAt('/walks/one.html')).toMatchObject({ type: 'walk', fields: { title: 'Walk one' } });
	await take();
	expect(pageAt('/walks/two.html')).toMatchObject({ type: 'walk', fields: { title: 'Walk two' } });
});

test('a type that somebody gave the not-found page stays', async () => {
	await take();
	const { id } = store.working.sites.named('S');
	store.working.types.ensure(id, 'page');
	store.working.pages.save(id, { ...pageAt('/404.html')!, type: 'page' });
	write('404.html', 'Nothing at all here');
	await take();
	expect(pageAt('/404.html')).toMatchObject({ type: 'page', fields: { heading: 'Nothing at all here' } });
});

test.each([
	[{ types: [{ pattern: 'walks/**', type: '<b>' }] }, '“<b>” cannot name the type of walks/**'],
	[{ types: [{ pattern: 'hikes/**', type: 'walk' }] }, 'The pattern “hikes/**” fits no file'],
	[{ languages: [{ pattern: 'fr/**', language: 'french!' }] }, 'no pattern with a language']
])('%j is refused', async (said, why) => {
	await expect(take({ said })).rejects.toThrow(why);
});
