import { mkdirSync, mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import iconv from 'iconv-lite';
import { describeFinding, describeMend } from '$core';
import { Chance } from '../../../conformance/chance';
import { documentOf } from '../../../conformance/parts';
import { findInFolder } from '../findings/folder';
import { sarifOf } from '../findings/sarif';
import { writeSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { importFolder } from './importFolder';
import { proposeTypes } from './proposals';
import { measureQuality } from './quality';
import { fieldsOfTable, sheetOf } from './table/table';
import { readRows } from './table/rows';
import { readPageList } from './web/lists';

/** What comes of tables, folders and lists, written down in told/; a change that is meant is written anew with `-u`. */
const folder = mkdtempSync(join(tmpdir(), 'kephalon-imports-told-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const told = (name: string, parts: readonly (readonly [string, () => unknown])[]) => {
	const lines = parts.flatMap(([title, work]) => {
		try {
			return [`# ${title}`, JSON.stringify(work(), undefined, '\t') ?? 'nothing'];
		} catch (error) {
			return [`# ${title}`, `! ${(error as Error).message}`];
		}
	});
	return expect(`${lines.join('\n')}\n`.replaceAll(folder, 'FOLDER')).toMatchFileSnapshot(`told/${name}.txt`);
};

const COLUMNS: Readonly<Record<string, readonly string[]>> = {
	URL: ['/a', 'https://t.example/b', 'c', '/a', '', 'https://other.example/x', '/d?x=1', '/é', '/e/'],
	Pfad: ['/a', '/b', '/c', '/d', '/e', '/f', '/g', '/h', '/i'],
	Name: ['Ember Heath', 'A "quoted" name', 'Two\nlines', '', '  spaced  ', 'Ünï', 'x', 'y', 'z'],
	Titre: ['Un', 'Deux', 'Trois', 'Quatre', 'Cinq', 'Six', 'Sept', 'Huit', 'Neuf'],
	Beschreibung: ['Kurz', 'Eine längere Beschreibung mit Komma, und mehr', '', '', '', '', '', '', ''],
	Published: [
		'2026-05-03',
		'03/05/2026',
		'5/13/2026',
		'3. Mai 2026',
		'May 3, 2026',
		'2026-05-03T10:00:00Z',
		'soon',
		'',
		'31.12.2025'
	],
	Price: ['1,50', '12.5', '1.234,56', '1,234.56', '-3', '€ 4', '7', '', 'free'],
	Count: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
	Open: ['yes', 'no', 'Ja', 'nein', 'oui', 'non', 'TRUE', 'false', ''],
	Tags: ['birds|sea', 'heath;moor', 'one', '', 'a|b|c', 'd', 'e', 'f|g', 'h'],
	Picture: ['/p/a.jpg', 'https://t.example/b.png', 'c.webp', '', 'none', '/p/d.svg', '/e.gif', '/f.jpeg', '/g.avif'],
	Gallery: ['/p/a.jpg|/p/b.jpg', '/c.png; /d.png', '', '', '', '', '', '', ''],
	Body: ['<p>One</p>', '<h2>Two</h2>', 'plain', '<ul><li>x</ul>', '', '<em>e</em>', '<br>', '', '<strong>s</strong>'],
	Link: ['https://a.example', 'https://b.example/x', '', 'http://c.example', 'nothing', '', '', '', ''],
	Author: ['Isla Thornback', 'Perran Quill', '', 'Isla Thornback', '', '', '', '', ''],
	State: ['live', 'draft', 'Entwurf', 'published', 'privat', 'gone', '', 'brouillon', 'publié'],
	Language: ['en', 'fr', 'Deutsch', 'English', 'pt_BR', 'x', '', 'ja', 'français'],
	__proto__x: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
	constructor: ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', 'i'],
	'': ['', 'x', '', '', '', '', '', '', '']
};
function tableOf(chance: Chance): string {
	const names = Object.keys(COLUMNS).filter((_, at) => chance.is(at < 2 ? 60 : 35));
	if (names.length === 0) names.push('Name');
	const between = chance.pick([',', ';', '\t']);
	const quoted = (text: string) => (/[",;\t\n]/.test(text) || chance.is(10) ? `"${text.replaceAll('"', '""')}"` : text);
	const line = (cells: readonly string[]) => cells.map(quoted).join(between);
	const rows = Array.from({ length: 1 + chance.below(9) }, (_, at) => line(names.map((name) => COLUMNS[name]![at]!)));
	if (chance.is(25)) rows.push(names.slice(1).join(between));
	if (chance.is(20)) rows.push([...names, 'too', 'many'].join(between));
	if (chance.is(15)) rows.push('');
	if (chance.is(10)) rows.push('"never closed');
	return [line(names), ...rows].join(chance.pick(['\n', '\r\n'])) + chance.pick(['', '\n']);
}

test('tables', () => {
	const chance = new Chance(5);
	const all = Array.from({ length: 36 }, () => tableOf(chance));
	return told('tables', [
		...all.map((text, at) => {
			const said =
				at % 4 === 0
					? { pathFromTitle: true }
					: at % 4 === 1
						? { readings: { Price: { kind: 'number' as const, decimal: ',' as const } } }
						: {};
			return [
				text,
				() => ({
					...sheetOf(text, said as never, 'https://t.example/'),
					fields: fieldsOfTable(
						readRows(text),
						{ mapping: sheetOf(text, {}, 'https://t.example/').mapping, type: 'page' },
						new Set(['title', 'summary'])
					)
				})
			] as const;
		}),
		[
			'JSON',
			() =>
				sheetOf(
					'[{"path":"/a","title":"A","n":1,"deep":{"x":[1,2]}},{"path":"/b","title":null,"more":true},7]',
					{},
					'https://t.example/'
				)
		],
		['JSON in lines', () => sheetOf('{"url":"/a","title":"A"}\n{"url":"/b"}\nnothing\n', {}, 'https://t.example/')],
		['JSON of nothing', () => sheetOf('[]', {}, 'https://t.example/')],
		['broken JSON', () => sheetOf('[{"path":', {}, 'https://t.example/')],
		['nothing', () => sheetOf('', {}, 'https://t.example/')],
		['a page of HTML', () => sheetOf('<!doctype html><p>no table', {}, 'https://t.example/')],
		[
			'Japanese',
			() =>
				sheetOf(iconv.encode('パス,題名\n/a,潮の満ち引き\n/b,干潟の鳥たち\n', 'shift_jis'), {}, 'https://t.example/')
		],
		['Excel’s own', () => sheetOf(iconv.encode('sep=;\npath;title\n/a;Café\n', 'win1252'), {}, 'https://t.example/')]
	]);
});

/** When all files were last changed. */
const MOMENT = new Date('2026-05-03T10:00:00Z');
test('a folder of pages: what is found in it, what comes in, and what it is worth', async () => {
	const chance = new Chance(9);
	const top = join(folder, 'site');
	const names = [
		'index.html',
		'about.html',
		'404.html',
		'fr/index.html',
		'fr/about.html',
		'walks/one.html',
		'walks/two.html',
		'walks/three.htm',
		'walks/four.xhtml',
		'deep/er/page.html',
		'a.de.html',
		'a.html',
		'notes.txt',
		'api/x_source.html'
	];
	for (const name of names) {
		mkdirSync(dirname(join(top, name)), { recursive: true });
		writeFileSync(join(top, name), documentOf(chance));
		utimesSync(join(top, name), MOMENT, MOMENT);
	}
	writeFileSync(
		join(top, 'latin.html'),
		iconv.encode('<meta charset=iso-8859-1><title>Été – café</title><p>Où la mer monte deux fois par jour.', 'win1252')
	);
	utimesSync(join(top, 'latin.html'), MOMENT, MOMENT);
	const found = findInFolder(top).findings;
	const store = new Store(join(folder, 'folder.db'));
	const summary = await importFolder(store, { folder: top, site: 'F', base: 'https://f.example/' });
	await told('folder', [
		['types', () => proposeTypes(names)],
		['findings', () => found],
		[
			'SARIF',
			() =>
				sarifOf(
					found.map(({ file, line, finding }) => ({
						...{ code: finding.code, weight: finding.weight, place: file, ...(line && { line }) },
						...{ says: describeFinding(finding), mend: describeMend(finding) }
					})),
					'1.0'
				)
		],
		['summary', () => summary],
		['quality', () => measureQuality(store, 'F')],
		['site file', () => JSON.parse([...writeSiteFile(store, 'F')].join(''))]
	]);
	store.close();
});

test('lists of pages', () =>
	told(
		'lists',
		[
			'<?xml version="1.0"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><url><loc>https://l.example/a</loc><lastmod>2026-05-03</lastmod></url><url><loc> /b </loc></url><url/></urlset>',
			'<sitemapindex><sitemap><loc>https://l.example/s1.xml</loc></sitemap></sitemapindex>',
			'<urlset xmlns:xhtml="http://www.w3.org/1999/xhtml"><url><loc>https://l.example/a</loc><xhtml:link rel="alternate" hreflang="fr" href="https://l.example/fr/a"/></url></urlset>',
			'<rss version="2.0"><channel><title>Feed</title><link>https://l.example/</link><item><title>One &amp; two</title><link>https://l.example/1</link><description>&lt;p&gt;Text&lt;/p&gt;</description><pubDate>Sun, 03 May 2026 10:00:00 GMT</pubDate><category>birds</category></item><item><guid>https://l.example/2</guid></item></channel></rss>',
			'<feed xmlns="http://www.w3.org/2005/Atom"><title>A</title><entry><title type="html">T</title><link rel="alternate" href="/e1"/><link rel="self" href="/s"/><summary>S</summary><updated>2026-05-03T10:00:00Z</updated><author><name>Isla</name></author></entry></feed>',
			'{"version":"https://jsonfeed.org/version/1.1","title":"J","items":[{"id":"1","url":"https://l.example/j","title":"J1","content_html":"<p>x</p>","date_published":"2026-05-03T10:00:00Z","tags":["a"]},{"id":"2"}]}',
			'https://l.example/one\n\nhttps://l.example/two\n# no\nnothing',
			'<urlset><url><loc>x',
			'<html><body>no list</body></html>',
			''
		].map((text) => [text, () => readPageList(Buffer.from(text), 'https://l.example/list.xml')] as const)
	));
