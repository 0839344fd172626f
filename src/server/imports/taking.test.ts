import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { Store } from '../store/store';
import { linesOfTable, takeContent, type ContentSource } from './content';

/** A site made of where its content is, and all that can be said about it. */

let [top, store] = ['', undefined as unknown as Store];
beforeEach(() => {
	top = mkdtempSync(join(tmpdir(), 'kephalon-taking-'));
	store = new Store(join(top, 't.db'));
});
afterEach(() => {
	store.close();
	rmSync(top, { recursive: true, force: true });
});
const BASE = 'https://s.example/';
const write = (name: string, html: string) => {
	const file = join(top, 'site', name);
	mkdirSync(dirname(file), { recursive: true });
	writeFileSync(file, html);
};
const html = (title: string, lang = 'en') =>
	`<html lang="${lang}"><title>${title}</title><p>What stands on the page of ${title}, in a sentence.</p>`;
const take = (source: ContentSource, name = 'S', base = BASE) => takeContent(store, name, base, source);
const folder = (said: object) => take({ kind: 'folder', folder: join(top, 'site'), said } as ContentSource);
const paths = () => [...store.working.pages.all(store.working.sites.named('S').id)].map(({ path }) => path).sort();
const pageAt = (path: string) => store.working.pages.at(store.working.sites.named('S').id, path);

describe('a folder', () => {
	beforeEach(() => {
		write('index.html', html('Home'));
		write('marsh.html', html('The marsh'));
		write('marsh.fr.html', html('Le marais', 'fr'));
		write('old/marsh.html', html('The old marsh'));
	});
	test('addresses with or without their ending', async () => {
		await folder({ bare: true });
		expect(paths()).toEqual(['/', '/marsh', '/marsh.fr', '/old/marsh']);
		await folder({ bare: false });
		expect(pageAt('/marsh.html')?.state).toBe('live');
		expect(pageAt('/marsh')?.state).toBe('draft');
	});
	test('nothing said leaves what was said before', async () => {
		await folder({ bare: true });
		await folder({});
		expect(pageAt('/marsh')?.state).toBe('live');
		expect(pageAt('/marsh.html')).toBeUndefined();
	});
	test('types, languages and what is no page, by patterns', async () => {
		await folder({
			types: [{ pattern: 'old/*', type: 'walk' }],
			languages: [{ pattern: 'old/**', language: 'de' }],
			ignore: ['index.html', '']
		});
		expect(paths()).toEqual(['/marsh.fr.html', '/marsh.html', '/old/marsh.html']);
		expect([pageAt('/marsh.html')?.type, pageAt('/old/marsh.html')?.type]).toEqual(['page', 'walk']);
		expect([pageAt('/old/marsh.html')?.language, pageAt('/marsh.fr.html')?.language]).toEqual(['de', 'fr']);
	});
	test('versions are linked when that is said', async () => {
		await folder({ link: true });
		expect(pageAt('/marsh.html')?.alternates).toMatchObject({ fr: '/marsh.fr.html' });
	});
	test.each([
		[{ types: [{ pattern: 'marsh*', type: '<b>' }] }, /“<b>” cannot name the type of marsh\*/],
		[{ types: [{ pattern: '', type: 'walk' }] }, /cannot name the type/],
		[{ types: [{ pattern: 'marsh*', type: ' walk' }] }, /cannot name the type/],
		[{ languages: [{ pattern: 'old/**', language: 'no tag' }] }, /no tag/],
		[{ types: [{ pattern: 'heath*', type: 'walk' }] }, /heath\*/]
	])('%j is refused with its reason', async (said, why) => {
		await expect(folder(said)).rejects.toThrow(why);
		expect(store.working.sites.find('S')).toBeUndefined();
	});
	test('of what was skipped the first twenty are named', async () => {
		for (let at = 0; at < 25; at++) write(`bad${at}.html`, '\0\0\0\0binary\0');
		const { skipped, pages } = await folder({});
		expect(pages).toBe(4);
		expect(skipped).toHaveLength(21);
		expect(skipped[20]).toBe('… and 5 more');
		expect(skipped[0]).toMatch(/^bad\d+\.html: /);
	});
});

describe('without a folder', () => {
	test('by hand: a home page that says the site’s name', async () => {
		expect(await take({ kind: 'hand' })).toEqual({ pages: 1, pictures: 0, skipped: [] });
		expect(pageAt('/')?.fields).toEqual({ title: 'S' });
		// Again, nothing of it is lost.
		store.working.pages.save(store.working.sites.named('S').id, { ...pageAt('/')!, fields: { title: 'Mine' } });
		await take({ kind: 'hand' });
		expect(pageAt('/')?.fields).toEqual({ title: 'Mine' });
	});
	test('a table, with all that was odd about it', async () => {
		const text = 'path,title,published\n/a,First,2026-05-03\n/b,Second,soon\n,No path,\n/c,Third,2026-01-01,more\n';
		const taken = await take({ kind: 'table', file: text, mapping: {}, type: 'page' });
		expect(taken.pages).toBeGreaterThanOrEqual(2);
		expect(taken.skipped.join('\n')).toContain('“soon”');
		expect(taken.skipped.some((line) => line.startsWith('Row 4'))).toBe(true);
	});
	test('a table’s oddities, a line each', () => {
		const odd = {
			skipped: [{ row: 4, why: 'has no path.' }],
			oddRows: [{ line: 5, what: 'has 4 cells, the headings 3.' }],
			oddCells: [{ line: 6, column: 'published', text: 'x'.repeat(80), why: 'is no date.' }]
		};
		expect(linesOfTable(odd as never)).toEqual([
			'Row 4: has no path.',
			'Row 5 has 4 cells, the headings 3.',
			`Row 6, published: “${'x'.repeat(60)}” is no date.`
		]);
	});
	test.each([
		['', BASE, /needs a name/],
		['  ', BASE, /needs a name/],
		['S', 'shore', /Seen: “shore”/],
		['S', 'shore.example', /Did you mean https:\/\/shore\.example/],
		['S', 'ftp://s.example/', /Seen: “ftp/]
	])('the name %j at %j is refused', async (name, base, why) => {
		await expect(take({ kind: 'hand' }, name, base)).rejects.toThrow(why);
	});
});
