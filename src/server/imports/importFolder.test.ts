import { mkdirSync, mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { GuardedFetcher } from '../fetching/fetch';
import { injectFolder } from '../files/injectFolder';
import { Store } from '../store/store';
import { gatherPictures } from '../pictures/gather';
import { writeSiteFile } from '../siteFile/siteFile';
import { importFolder } from './importFolder';
import { readFiles } from './readFiles';

let folder = '';
let server: Server;
let host = '';

beforeAll(async () => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-'));
	const picture = await sharp({ create: { width: 640, height: 360, channels: 3, background: '#357' } })
		.jpeg()
		.toBuffer();
	server = createServer((request, response) => {
		if (request.url === '/lying.png') response.writeHead(200, { 'content-type': 'image/png' }).end(picture);
		else response.writeHead(200, { 'content-type': 'image/png' }).end('no picture at all');
	});
	await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
	host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
	rmSync(folder, { recursive: true, force: true });
	await new Promise((done) => server.close(done));
});

test('pictures at whole addresses are fetched for their facts, whatever their names and servers say', async () => {
	const at = (name: string) => `http://${host}/${name}`;
	writeFileSync(
		join(folder, 'page.html'),
		`<title>Tide</title><h1>Tide</h1><p>Long enough a text to be taken for the page's own paragraph, about the tide.</p>
		<img src="${at('lying.png')}"><img src="${at('text.png')}"><img src="http://10.0.0.1/inner.png">`
	);
	const store = new Store(join(folder, 'k.db'));
	const fetcher = new GuardedFetcher(new Set([host]));
	const options = { folder, site: 's', base: 'https://site.example/' };
	const summary = await importFolder(store, { ...options, fetcher });
	await fetcher.close();
	expect(summary.skipped).toEqual([
		{ path: at('text.png'), why: 'a picture on 1 page: what stands there is no picture' },
		{
			path: 'http://10.0.0.1/inner.png',
			why: 'a picture on 1 page: http://10.0.0.1/inner.png is not fetched: it leads to a private network.'
		}
	]);
	const { id } = store.working.sites.find('s')!;
	expect(store.pictures.all(id)).toEqual([
		{
			...{ src: at('lying.png'), width: 640, height: 360, bytes: expect.any(Number), type: 'image/jpeg' },
			light: expect.stringMatching(/^[0-9a-f]{128}$/) as string,
			...{ kept: { file: expect.stringMatching(/^[0-9a-f]{24}\.jpg$/), width: 640, height: 360 } }
		}
	]);
	expect(store.working.pages.at(id, '/page.html')?.fields.pictures).toEqual([{ src: at('lying.png') }]);
});

test('a picture of the folder is copied where rules cut it; what people set for it stays when it is read again', async () => {
	const top = mkdtempSync(join(tmpdir(), 'kephalon-'));
	const draw = (background: string) => sharp({ create: { width: 1200, height: 700, channels: 3, background } });
	await draw('#246').png().toFile(join(top, 'boat.png'));
	writeFileSync(join(top, 'mark.svg'), '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90"/>');
	writeFileSync(join(top, 'a.html'), '<title>A</title><img src="boat.png" alt="A boat"><img src="mark.svg">');
	const store = new Store(join(top, 'k.db'));
	const read = () => importFolder(store, { folder: top, site: 's', base: 'https://s.example/' });
	await read();
	const { id } = store.working.sites.find('s')!;
	expect(store.pictures.one(id, '/boat.png')).toMatchObject({ width: 1200, height: 700, type: 'image/png' });
	expect(store.pictures.one(id, '/boat.png')).not.toHaveProperty('kept');
	expect(await gatherPictures(store, 's')).toBe(0);
	store.working.rules.set(id, { layer: 'site' }, 'og:image', undefined, {
		...{ kind: 'pictures', sources: [{ from: 'body' }], shapes: ['wide'] }
	});
	expect(await gatherPictures(store, 's')).toBe(1);
	await read();
	const boat = store.pictures.one(id, '/boat.png')!;
	expect(boat).toMatchObject({ width: 1200, height: 700, type: 'image/png', kept: { width: 1200, height: 700 } });
	expect(store.pictures.one(id, '/mark.svg')).toMatchObject({ type: 'image/svg+xml' });
	expect(store.pictures.one(id, '/mark.svg')).not.toHaveProperty('kept');
	store.pictures.save(id, [{ ...boat, focus: [0.1, 0.9], alt: 'A small boat', cuts: { tall: { focus: [0.5, 0.5] } } }]);
	await draw('#a42').png().toFile(join(top, 'boat.png'));
	await read();
	const again = store.pictures.one(id, '/boat.png')!;
	expect(again).toMatchObject({ focus: [0.1, 0.9], alt: 'A small boat', cuts: { tall: { focus: [0.5, 0.5] } } });
	expect(again.kept?.file).not.toBe(boat.kept?.file);
	rmSync(top, { recursive: true, force: true });
});

/** A folder with these files, by path; a site read from it, again and again. */
function siteOf(files: Readonly<Record<string, string>>) {
	const top = mkdtempSync(join(tmpdir(), 'kephalon-'));
	const write = (path: string, text: string) => {
		mkdirSync(join(top, path, '..'), { recursive: true });
		writeFileSync(join(top, path), text);
	};
	for (const [path, text] of Object.entries(files)) write(path, text);
	const database = mkdtempSync(join(tmpdir(), 'kephalon-'));
	const store = new Store(join(database, 'k.db'));
	return {
		...{ top, store, write },
		read: (more: Partial<Parameters<typeof importFolder>[1]> = {}) =>
			importFolder(store, { folder: top, site: 's', base: 'https://s.example/', ...more }),
		page: (path: string) => store.working.pages.at(store.working.sites.named('s').id, path)!,
		end() {
			store.close();
			rmSync(top, { recursive: true });
			rmSync(database, { recursive: true });
		}
	};
}

const birds = ['Eider', 'Teal', 'Smew', 'Goldeneye', 'Pintail', 'Scaup'];

test('reading again opens only what has changed, and says what is new, changed and gone', async () => {
	const site = siteOf(
		Object.fromEntries(
			birds.map((bird) => [
				`${bird}.html`,
				`<title>${bird}</title><p>The ${bird} is a duck of cold seas and shores.</p>`
			])
		)
	);
	expect(await site.read()).toMatchObject({ read: 6, added: 6, changed: 0, retired: [] });
	expect(await site.read()).toMatchObject({ read: 6, added: 0, changed: 0, retired: [] });
	// What is the same by size and time is not opened: nothing of it is seen.
	const { top } = site;
	utimesSync(join(top, 'Teal.html'), 1000, 1000);
	await site.read();
	site.write('Teal.html', '<title>Lied</title><p>The Teal is a duck of cold seas and shores.</p>');
	utimesSync(join(top, 'Teal.html'), 1000, 1000);
	expect(await site.read()).toMatchObject({ changed: 0 });
	expect(site.page('/Teal.html').fields.title).toBe('Teal');
	site.write('Teal.html', '<title>Teal</title><p>The Teal is the smallest of the ducks that come here.</p>');
	site.write('new.html', '<title>New</title>');
	rmSync(join(top, 'Smew.html'));
	expect(await site.read()).toMatchObject({ read: 6, added: 1, changed: 1, retired: ['/Smew.html'] });
	expect(site.page('/Teal.html').fields).toMatchObject({ summary: expect.stringContaining('smallest') as string });
	expect(site.page('/Eider.html').fields).toMatchObject({ body: 'The Eider is a duck of cold seas and shores.' });
	expect(site.page('/Smew.html').state).toBe('draft');
	site.end();
});

test('what many titles have in common is told, and taken off from then on', async () => {
	const titled = (bird: string, at: number) =>
		`<title>${at + 1}. ${bird} — The Shore Manual</title><p>About the ${bird}, in a few words or more.</p>`;
	const site = siteOf(Object.fromEntries(birds.map((bird, at) => [`${bird}.html`, titled(bird, at)])));
	const common = { parts: [{ at: 'end', text: ' — The Shore Manual', pages: 6 }], numbered: 6 };
	const none = { parts: [], numbered: 0 };
	// What is plain goes at the first reading, is listed, and set back by one word.
	expect((await site.read()).titles).toEqual({ ...none, taken: common });
	expect(site.page('/Eider.html').fields.title).toBe('Eider');
	expect((await site.read({ keepTitles: true })).titles).toEqual({ ...common, taken: none });
	expect(site.page('/Eider.html').fields.title).toBe('1. Eider — The Shore Manual');
	// It stays so, until it is said otherwise.
	expect((await site.read()).titles).toEqual({ ...common, taken: none });
	expect((await site.read({ trimTitles: true })).titles).toEqual({ ...none, taken: common });
	expect(site.page('/Eider.html').fields.title).toBe('Eider');
	site.write('more.html', titled('Goosander', 6));
	await site.read();
	expect(site.page('/more.html').fields.title).toBe('Goosander');
	site.end();
});

test('a title that many pages share gives way to the heading; pages that still share one say what they stand in', async () => {
	const files: Record<string, string> = {
		'birds/index.html': '<title>Birds of the shore</title>',
		'fish/index.html': '<title>Fish</title>'
	};
	for (const group of ['birds', 'fish'])
		for (const name of ['a', 'b']) files[`${group}/${name}.html`] = `<title>Reserve</title><h1>Page ${name}</h1>`;
	const site = siteOf(files);
	await site.read();
	expect(site.page('/birds/a.html').fields).toMatchObject({ title: 'Page a', section: 'Birds of the shore' });
	expect(site.page('/fish/a.html').fields).toMatchObject({ title: 'Page a', section: 'Fish' });
	expect(site.page('/fish/').fields).not.toHaveProperty('section');
	site.end();
});

test('an author’s title stays where the heading stands on other pages as well', async () => {
	const names = ['Harbour', 'Cliffs', 'Lighthouse', 'Chapel', 'Quarry', 'Ferry'];
	const site = siteOf(
		Object.fromEntries(
			names.map((name, at) => [
				`c${at}.html`,
				`<title>Acme Handbook — Chapter ${at + 1}: ${name}</title><h1>Latest version: 3.2</h1><p>About the ${name}.</p>`
			])
		)
	);
	await site.read();
	expect(site.page('/c2.html').fields).toMatchObject({ title: 'Lighthouse', heading: 'Latest version: 3.2' });
	site.end();
});

test('titles that are the same have nothing in common with each other; a heading of a letter is none', async () => {
	const same = 'The Tide Tables – A Book in Parts – Reference';
	const page = (heading: string) => `<title>${same}</title><h1>${heading}</h1>`;
	const site = siteOf({
		...Object.fromEntries([...'abcdefghij'].map((letter) => [`index_${letter}.html`, page(`- ${letter} -`)])),
		...{ 'ebb.html': page('All about ebb'), 'flood.html': page('All about flood') }
	});
	await site.read();
	expect(site.page('/index_c.html').fields.title).toBe(same);
	expect(site.page('/ebb.html').fields.title).toBe('All about ebb');
	site.end();
});

test('what stands in brackets behind most titles is taken off; a page without prose has no body', async () => {
	const names = ['ebb', 'flood', 'neap', 'spring', 'slack', 'bore'];
	const menu = '<p><a href="/">Home</a> <a href="/x">Tables</a></p>';
	const site = siteOf({
		...Object.fromEntries(names.map((name) => [`${name}.html`, `<title>${name} tide (Book 17)</title>${menu}`])),
		'own.html': `<title>Own (sic)</title><h1>Own</h1><p>The marsh is flooded twice a day and is never the same.</p>`
	});
	await site.read();
	expect(site.page('/neap.html').fields).toEqual({ title: 'neap tide' });
	expect(site.page('/own.html').fields).toMatchObject({ title: 'Own (sic)', body: expect.stringContaining('marsh') });
	site.end();
});

test('what a program wrote of each page by a formula stands behind what was written of it', async () => {
	const site = siteOf(
		Object.fromEntries(
			birds.flatMap((bird) =>
				['a', 'b', 'c'].map((name) => [
					`${bird}-${name}.html`,
					`<html lang="en"><meta name="description" content="entry: order: o${name}, family: f${name}, bird: ${bird}"><title>${bird} ${name}</title>` +
						`<p>This entry of the register is about ${bird} ${name} and was made for it.</p>` +
						`<p>${bird}-${name} ${name === 'a' ? 'breeds on the outer rocks, late in spring.' : name === 'b' ? 'is seldom seen before the first frost has come.' : 'dives for mussels where the current is strong.'}</p>`
				])
			)
		)
	);
	await site.read();
	for (const bird of birds)
		expect(site.page(`/${bird}-a.html`).fields.summary).toBe(`${bird}-a breeds on the outer rocks, late in spring.`);
	const frames = site.store.working.sites.named('s').site.frames;
	expect(frames).toEqual([
		{ tag: 'description', language: 'en', value: 'entry: order: * family: * bird: *', pages: 18, formula: true }
	]);
	site.end();
});

test('a text or picture that a share of the pages has is passed over; the same in a folder alone and in a larger site', async () => {
	const page = (bird: string) =>
		`<title>${bird}</title><p>All of the reserves are open from dawn until dusk, all year.</p><img src="/shared.png"><p>The ${bird} is a duck that dives for mussels off the rocks.</p><img src="/${bird}.png">`;
	const small = Object.fromEntries(Array.from({ length: 24 }, (_, at) => [`ducks/d${at}.html`, page(`bird ${at}`)]));
	const large = {
		...small,
		...Object.fromEntries(
			Array.from({ length: 300 }, (_, at) => [
				`other/o${at}.html`,
				`<title>${at}</title><p>Something else, the number ${at} of a good many more.</p>`
			])
		)
	};
	for (const files of [small, large]) {
		const site = siteOf(files);
		await site.read();
		expect(site.page('/ducks/d7.html').fields.summary).toBe(
			'The bird 7 is a duck that dives for mussels off the rocks.'
		);
		site.end();
	}
});

test('the language is what the page, its place or its words tell; what nothing tells is not stated', async () => {
	const english =
		'The reserve lies between the river and the sea, and visitors are welcome on every day of the year. There is a hide above the marsh.';
	const french =
		'La réserve se trouve entre la rivière et la mer, et les visiteurs sont les bienvenus tous les jours de l’année. Un abri domine le marais.';
	const site = siteOf({
		'said.html': `<html lang="cy"><p>${english}</p>`,
		'told.html': `<p>${english}</p>`,
		'dit.html': `<p>${french}</p>`,
		'code.html': '<p>stat() open() close() read() write()</p>',
		'p.html.ja': '<p>x</p>',
		'b/x.html': `<p>${english}</p>`
	});
	await site.read({ source: { languages: [{ pattern: 'b/**', language: 'en-GB' }] } });
	const languageOf = (path: string) => site.page(path).language;
	expect(['/said.html', '/told.html', '/dit.html', '/p.html.ja', '/b/x.html'].map(languageOf)).toEqual([
		'cy',
		'en',
		'fr',
		'ja',
		'en-GB'
	]);
	expect(languageOf('/code.html')).toBe('und');
	site.end();
});

test('versions in several languages are told of, and kept as alternates when asked; what the page says itself is kept', async () => {
	const site = siteOf({
		'a.fr.html': '<html lang=fr><title>A</title>',
		'a.html': '<html lang=en><title>A</title>',
		'own.html': '<html lang=en><title>Own</title><link rel=alternate hreflang=de href="/de/own.html">'
	});
	expect((await site.read()).versions).toEqual({ pages: 2, linked: false });
	expect(site.page('/a.html').alternates).toBeUndefined();
	expect(site.page('/own.html').alternates).toEqual({ de: '/de/own.html' });
	expect((await site.read({ source: { link: true } })).versions).toEqual({ pages: 2, linked: true });
	expect(site.page('/a.html').alternates).toEqual({ fr: '/a.fr.html' });
	expect(site.page('/a.fr.html').alternates).toEqual({ en: '/a.html' });
	site.end();
});

test('pages under a base address, hidden ones, left out files, addresses without an ending', async () => {
	const site = siteOf({
		'deep/down/a.html': '<base href="../../"><title>A</title><img src="pictures/none.png">',
		'b.html': '<title>B</title><meta name=robots content="noindex, follow">',
		'src/c.html': '<title>C</title>'
	});
	const summary = await site.read({ source: { ignore: ['src/**'], bare: true } });
	expect(summary.read).toBe(2);
	expect(summary.skipped).toEqual([{ path: '/pictures/none.png', why: 'a picture on 1 page: not in the folder' }]);
	expect(site.page('/b').hidden).toBe(true);
	site.write('b.html', '<title>B</title><meta name=robots content="follow">');
	await site.read();
	expect(site.page('/b').hidden).toBeFalsy();
	await expect(site.read({ source: { types: [{ pattern: 'dwon/*.html', type: 'x' }] } })).rejects.toThrow(
		'The pattern “dwon/*.html” fits no file. There is a folder “down”.'
	);
	await expect(site.read({ source: { types: [{ pattern: 'down/*.html', type: 'x' }] } })).rejects.toThrow(
		'“**/down/*.html” would fit 1, such as deep/down/a.html.'
	);
	site.end();
});

test('a later reading brings the base address, and languages that came in, to the site', async () => {
	const site = siteOf({ 'a.html': '<html lang="en"><title>A</title>' });
	await site.read();
	const of = () => {
		const { base, languages } = site.store.working.sites.named('s').site;
		return { base, languages };
	};
	const first = of();
	expect(first.languages).toEqual(['en']);
	site.write('b.html', '<html lang="fr"><title>B</title>');
	await site.read();
	expect(of()).toEqual({ ...first, languages: ['en', 'fr'] });
	await importFolder(site.store, { folder: site.top, site: 's', base: 'https://new.example/' });
	expect(of()).toEqual({ base: 'https://new.example/', languages: ['en', 'fr'] });
	site.end();
});

test('a folder without pages says what it saw', async () => {
	const site = siteOf({ 'a.md': 'x', 'b.md': 'x', c: '' });
	await expect(site.read()).rejects.toThrow('It holds 2 .md, 1 no ending.');
	site.end();
});

test('a name that is no UTF-8 is read, and its path says its bytes', async () => {
	const site = siteOf({ 'a.html': '<title>A</title>' });
	writeFileSync(
		Buffer.concat([Buffer.from(`${site.top}/caf`), Buffer.from([0xe9]), Buffer.from('.html')]),
		'<title>Coffee</title>'
	);
	await site.read();
	expect(site.page('/caf%E9.html').fields.title).toBe('Coffee');
	const out = `${site.top}-out`;
	const headOf = () => 'no page';
	const { unknown } = injectFolder({ folder: site.top, out, dryRun: false, headOf });
	expect(unknown.map(({ path }) => path)).toEqual(['a.html', 'caf�.html']);
	expect(readdirSync(out, { encoding: 'buffer' }).some((name) => name.includes(0xe9))).toBe(true);
	rmSync(out, { recursive: true });
	site.end();
});

test('a language that somebody has set stays where a later reading tells none', async () => {
	const site = siteOf({ 'a.html': '<title>A</title>', 'b.html': '<html lang="fr"><title>B</title>' });
	await site.read();
	const { id } = site.store.working.sites.named('s');
	for (const path of ['/a.html', '/b.html']) site.store.working.pages.save(id, { ...site.page(path), language: 'cy' });
	site.write('a.html', '<title>A again</title>');
	site.write('b.html', '<html lang="fr"><title>B again</title>');
	await site.read();
	expect(site.page('/a.html')).toMatchObject({ language: 'cy', fields: { title: 'A again' } });
	expect(site.page('/b.html').language).toBe('fr');
	site.end();
});

test('a picture that has not changed keeps what was set for it, and is known again from what was read of it', async () => {
	const top = mkdtempSync(join(tmpdir(), 'kephalon-'));
	await sharp({ create: { width: 1200, height: 700, channels: 3, background: '#246' } })
		.png()
		.toFile(join(top, 'boat.png'));
	const store = new Store(join(top, 'k.db'));
	let times = 0;
	const read = () => {
		writeFileSync(join(top, 'a.html'), `<title>A ${'x'.repeat(++times)}</title><img src="boat.png">`);
		return importFolder(store, { folder: top, site: 's', base: 'https://s.example/' });
	};
	await read();
	const { id } = store.working.sites.find('s')!;
	const boat = () => store.pictures.one(id, '/boat.png');
	store.pictures.save(id, [{ ...boat()!, focus: [0.1, 0.2], alt: 'A boat' }]);
	expect(await read()).toMatchObject({ changed: 1, pictures: 1 });
	expect(boat()).toMatchObject({ width: 1200, height: 700, focus: [0.1, 0.2], alt: 'A boat' });
	store.pictures.remove(id, '/boat.png');
	await read();
	expect(boat()).toEqual(expect.objectContaining({ src: '/boat.png', width: 1200, height: 700, type: 'image/png' }));
	expect(Object.keys(boat()!)).not.toContain('focus');
	store.close();
	rmSync(top, { recursive: true });
});

test('a folder and the file that opens it are one page, whichever way addresses are written', async () => {
	const head = (canonical: string, to: string) =>
		`<link rel=canonical href="${canonical}"><link rel=alternate hreflang=fr href="${to}"><meta property="og:url" content="${canonical}">`;
	const site = siteOf({
		'index.html': `<html lang=en><title>Home</title>${head('https://s.example/index.html', 'fr/index.html')}`,
		'a/index.html': `<html lang=en><title>A</title>${head('index.html', '../fr/a/index.html?x')}`,
		'b.html': `<html lang=en><title>B</title>${head('https://other.example/index.html', '/fr/')}`,
		'fr/index.html': `<html lang=fr><title>Accueil</title><link rel=alternate hreflang=en href="/index.html">`,
		'fr/a/index.html': `<html lang=fr><title>A</title><link rel=alternate hreflang=en href="/a/">`
	});
	await site.read();
	const found = (path: string, tag: string) =>
		(site.page(path).found ?? []).filter(({ name }) => name === tag).map(({ value }) => value);
	expect(found('/', 'canonical')).toEqual(['https://s.example/']);
	expect(found('/', 'og:url')).toEqual(['https://s.example/']);
	expect(found('/a/', 'canonical')).toEqual(['./']);
	expect(found('/b.html', 'canonical')).toEqual(['https://other.example/index.html']);
	expect(site.page('/').alternates).toEqual({ fr: '/fr/' });
	expect(site.page('/a/').alternates).toEqual({ fr: '/fr/a/' });
	expect(site.page('/fr/').alternates).toEqual({ en: '/' });
	site.end();
});

test('a formula that found descriptions are made by is told, and kept as their author’s by one word, until it is taken back', async () => {
	const page = (at: number) =>
		`<title>C${at}</title><meta name=description content="declaration: module: m${at}, package: p${at}, class: C${at}"><p>What C${at} is for, and how it came to be the one that counts to ${at}.</p>`;
	const site = siteOf(Object.fromEntries(Array.from({ length: 12 }, (_, at) => [`c${at}.html`, page(at)])));
	const frames = () => (site.store.working.sites.named('s').site.frames ?? []).filter(({ formula }) => formula);
	const formula = 'declaration: module: * package: * class: *';
	expect((await site.read()).formulas).toEqual([{ tag: 'description', formula, pages: 12 }]);
	expect(frames()).toHaveLength(1);
	expect((await site.read({ source: { keepFormulas: true } })).formulas).toEqual([]);
	expect(frames()).toEqual([]);
	expect((await site.read()).formulas).toEqual([]);
	expect((await site.read({ source: { keepFormulas: false } })).formulas).toHaveLength(1);
	site.end();
});

test('a page that leads says what it alone leads to; a menu that others have as well is none', async () => {
	const list = (...names: string[]) => names.map((name) => `<li><a href="/${name}.html">${name}</a></li>`).join('');
	const menu = list('Home', 'Download', 'Screenshots', 'Tutorial');
	const page = (title: string, more: string) => `<html lang=en><title>${title}</title><ul>${menu}</ul><ul>${more}</ul>`;
	const site = siteOf({
		...Object.fromEntries('abcdefgh'.split('').map((one) => [`${one}.html`, page(one, list(`Only ${one}`))])),
		'birds.html': page('Birds', list(...birds))
	});
	await site.read();
	expect(site.page('/birds.html').fields).toEqual({
		title: 'Birds',
		summary: 'Contains Eider, Teal, Smew, Goldeneye, Pintail, and Scaup.'
	});
	expect(site.page('/c.html').fields).toEqual({ title: 'c' });
	site.end();
});

/** So many that threads pay. */
const MANY = 2100;

test('many files are read elsewhere as well, whichever comes first; an answer that fails leaves nothing', async () => {
	const files = Object.fromEntries(
		Array.from({ length: MANY }, (_, at) => [`${at}.html`, at === 7 ? '' : `<title>Page ${at}</title><p>x</p>`])
	);
	const [here, elsewhere] = [siteOf(files), siteOf(files)];
	await here.read();
	let goes = 0;
	const told: number[] = [];
	const summary = await elsewhere.read({
		readFiles: async (some, bare) => {
			await new Promise((done) => setTimeout(done, goes++ % 2 ? 1 : 20));
			// What comes from another thread is a copy.
			return structuredClone(await readFiles(structuredClone(some), bare));
		},
		progress: (done) => told.push(done)
	});
	// What is not waited for is read here meanwhile.
	expect(goes).toBeGreaterThan(0);
	expect(goes).toBeLessThan(Math.ceil(MANY / 48));
	expect(told).toEqual(Array.from({ length: MANY }, (_, at) => at + 1));
	expect(summary.skipped).toEqual([{ path: '7.html', why: 'empty' }]);
	const dump = ({ store }: typeof here) => [...writeSiteFile(store, 's')].join('');
	const stamped = /"modified": ?"[^"]*"/g;
	expect(dump(elsewhere).replace(stamped, '')).toBe(dump(here).replace(stamped, ''));
	// Nothing has changed: nothing is read.
	await elsewhere.read({ readFiles: () => Promise.reject(new Error('asked')) });
	const broken = siteOf(files);
	const fails = () => Promise.reject(new Error('gone'));
	await expect(broken.read({ readFiles: fails })).rejects.toThrow('gone');
	expect(broken.store.working.sites.find('s')).toBeUndefined();
	for (const one of [here, elsewhere, broken]) one.end();
});
