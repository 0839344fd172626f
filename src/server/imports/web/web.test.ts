import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { Store } from '../../store/store';
import { importWeb } from './importWeb';
import { readPageList } from './lists';
import { robotsOf } from './robots';

/** A live site: what it answers by path, and what it was asked for. */
type Answer = string | { status?: number; headers?: Record<string, string>; body?: string | Buffer };
let answers: Record<string, Answer> = {};
let asked: { path: string; headers: IncomingMessage['headers'] }[] = [];
let server: Server;
let base = '';
let allowed = new Set<string>();
let small: Buffer;

beforeAll(async () => {
	small = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#123' } })
		.png()
		.toBuffer();
	server = createServer((request: IncomingMessage, response: ServerResponse) => {
		const path = request.url as string;
		asked.push({ path, headers: request.headers });
		const answer = answers[path];
		if (answer === undefined) return void response.writeHead(404).end('no');
		if (typeof answer === 'string') return void response.writeHead(200, { 'content-type': 'text/html' }).end(answer);
		if (answer.headers?.etag && request.headers['if-none-match'] === answer.headers.etag)
			return void response.writeHead(304).end();
		response.writeHead(answer.status ?? 200, { 'content-type': 'text/html', ...answer.headers }).end(answer.body ?? '');
	});
	await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
	const host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
	base = `http://${host}/`;
	allowed = new Set([host]);
});
afterAll(() => new Promise((done) => server.close(done)));
beforeEach(() => {
	asked = [];
	answers = {};
});

async function withStore(work: (store: Store) => Promise<void>) {
	const folder = mkdtempSync(join(tmpdir(), 'kephalon-'));
	const store = new Store(join(folder, 'k.db'));
	try {
		await work(store);
	} finally {
		store.close();
		rmSync(folder, { recursive: true });
	}
}
const read = (store: Store, from: string, more: object = {}) =>
	importWeb(store, { site: 's', allowed, source: { from: base + from, rate: 1000, ...more } });
const pathsOf = (store: Store) => store.working.pages.paths(store.working.sites.named('s').id);
const askedFor = () => asked.map(({ path }) => path);

describe('a live site', () => {
	const page = (title: string, links = '') =>
		`<title>${title}</title><p>About the ${title}, and what lives there in the winter.</p>${links}`;
	test('pages of one origin are read from link to link; robots.txt, nofollow, depth and patterns are obeyed', () =>
		withStore(async (store) => {
			answers = {
				'/robots.txt': 'User-agent: *\nDisallow: /closed/\nAllow: /closed/open',
				'/': page(
					'Home',
					'<a href="a#part">A</a><a href=/closed/x>X</a><a href="/closed/open">O</a><a rel=nofollow href=/not>N</a><a href=https://other.example/>E</a><a href=doc.pdf>P</a><a href=skip/me>S</a>'
				),
				'/a': page('A', '<base href="/deep/"><a href=b>B</a><a href=/moved>M</a><img src="/p.png">'),
				'/closed/open': page('Open', '<meta name=robots content="noindex,nofollow"><a href=/never>N</a>'),
				'/moved': { status: 302, headers: { location: '/target' } },
				'/target': page('Target'),
				'/p.png': { headers: { 'content-type': 'image/png' }, body: small },
				'/deep/b': page('B', '<a href=/too-deep>T</a>')
			};
			const summary = await read(store, '', { depth: 2, exclude: ['/skip/**'] });
			expect(summary).toMatchObject({ kind: 'site', read: 5, added: 5, changed: 0, waiting: 0 });
			expect(summary.skipped).toEqual([{ path: `${base}moved`, why: `leads on to ${base}target` }]);
			expect(pathsOf(store)).toEqual(['/', '/a', '/closed/open', '/deep/b', '/target']);
			expect(askedFor().filter((path) => /never|not|skip|closed\/x|pdf|too-deep/.test(path))).toEqual([]);
			const { id } = store.working.sites.named('s');
			expect(store.working.pages.at(id, '/closed/open')?.hidden).toBe(true);
			expect(store.working.pages.at(id, '/a')?.fields).toMatchObject({
				pictures: [{ src: '/p.png' }],
				summary: expect.stringContaining('winter') as string
			});
		}));
	test('a folder and the file that opens it are one page, where both say the same', () =>
		withStore(async (store) => {
			const walks = page('Walks', '<a href="/walks/">Up</a>');
			answers = {
				'/': page('Home', '<a href=index.html>H</a><a href=walks/index.html>W</a><a href=tours/>T</a>'),
				'/index.html': page('Home', '<a href=index.html>H</a><a href=walks/index.html>W</a><a href=tours/>T</a>'),
				'/walks/index.html': walks,
				'/walks/': walks,
				'/tours/': page('Tours', '<a href=index.html>All</a><a href=/lone/index.html>L</a>'),
				'/tours/index.html': page('All tours'),
				'/lone/index.html': page('Lone')
			};
			const summary = await read(store, '');
			expect(pathsOf(store).sort()).toEqual(['/', '/lone/index.html', '/tours/', '/tours/index.html', '/walks/']);
			expect(summary.skipped).toEqual([
				{ path: `${base}index.html`, why: `is ${base} again` },
				{ path: `${base}walks/index.html`, why: `is ${base}walks/ again` }
			]);
			// The second reading comes to the same.
			expect(await read(store, '')).toMatchObject({ read: 5, added: 0, retired: [] });
			// Where the folder is no more, the file is the page.
			delete answers['/walks/'];
			expect(await read(store, '')).toMatchObject({ read: 5, added: 1, retired: ['/walks/'] });
			expect(pathsOf(store)).toContain('/walks/index.html');
		}));

	test('its pictures are looked at once, by their beginnings; one that is not there stands on no page', () =>
		withStore(async (store) => {
			const photograph = await sharp({
				create: { width: 3000, height: 2000, channels: 3, noise: { type: 'gaussian', mean: 128, sigma: 60 } } as never
			})
				.jpeg({ quality: 95 })
				.toBuffer();
			expect(photograph.length).toBeGreaterThan(1_000_000);
			answers = {
				'/robots.txt': 'User-agent: *\nDisallow: /hidden/',
				'/': page(
					'Home',
					'<img src=/logo.png><img src=/sea.jpg><img src=/none.jpg><img src=/hidden/x.png><img src=/text.jpg>'
				),
				'/sea.jpg': {
					headers: { 'content-type': 'image/jpeg', 'content-length': String(photograph.length) },
					body: photograph
				},
				'/logo.png': { headers: { 'content-type': 'image/png' }, body: small },
				'/hidden/x.png': { body: small },
				'/text.jpg': 'no picture'
			};
			const summary = await read(store, '');
			expect(summary).toMatchObject({ read: 1, pictures: 2 });
			expect(summary.skipped.map(({ path, why }) => `${path}: ${why}`)).toEqual([
				'/none.jpg: a picture on 1 page: its server answers with 404',
				'/text.jpg: a picture on 1 page: what stands there is no picture'
			]);
			const { id } = store.working.sites.named('s');
			expect(store.pictures.one(id, '/sea.jpg')).toEqual({
				...{ src: '/sea.jpg', width: 3000, height: 2000, type: 'image/jpeg', bytes: photograph.length }
			});
			expect(store.pictures.one(id, '/logo.png')).toMatchObject({ width: 40, height: 30, mark: true });
			expect((store.working.pages.at(id, '/')?.fields.pictures as { src: string }[]).map(({ src }) => src)).toEqual([
				'/logo.png',
				'/sea.jpg',
				'/hidden/x.png'
			]);
			expect(askedFor()).not.toContain('/hidden/x.png');
			asked = [];
			expect(await read(store, '')).toMatchObject({ pictures: 0 });
			expect(askedFor()).not.toContain('/sea.jpg');
		}));
	test('what was read another way before is read whole again, whether it has changed or not', () =>
		withStore(async (store) => {
			answers = { '/': { body: page('Home', '<a href=/a>'), headers: { etag: '"1"' } }, '/a': page('A') };
			await read(store, '');
			const { id } = store.working.sites.named('s');
			const file = [...store.working.sources.files(id)].find((one) => one.endsWith(base))!;
			const kept = store.working.sources.file(id, file)!;
			store.working.sources.saveFile(id, file, { ...kept, reading: { ...(kept.reading as object), reader: 2 } });
			asked = [];
			await read(store, '');
			expect(asked.filter(({ path }) => path === '/').at(-1)?.headers['if-none-match']).toBeUndefined();
			expect(store.working.sources.file(id, file)?.reading).toEqual(kept.reading);
		}));
	test('the second reading asks whether pages have changed; those that are gone become drafts', () =>
		withStore(async (store) => {
			answers = { '/': { body: page('Home', '<a href=/a>'), headers: { etag: '"1"' } }, '/a': page('A') };
			await read(store, '');
			answers['/'] = { body: page('Home again', '<a href=/a>'), headers: { etag: '"2"' } };
			expect(await read(store, '')).toMatchObject({ read: 2, added: 0, changed: 2 });
			answers['/a'] = { status: 410 };
			asked = [];
			const again = await read(store, '');
			expect(asked.filter(({ path }) => path === '/').at(-1)?.headers['if-none-match']).toBe('"2"');
			expect(again).toMatchObject({
				read: 1,
				retired: ['/a'],
				skipped: [{ path: `${base}a`, why: 'its server answers with 410' }]
			});
			expect(store.working.pages.at(store.working.sites.named('s').id, '/a')?.state).toBe('draft');
		}));
	test('one that says only when it was changed is asked whether it was since; a date that is none is none', () =>
		withStore(async (store) => {
			const changed = 'Mon, 01 Jun 2026 10:00:00 GMT';
			answers = {
				'/': { body: page('Home', '<a href=/odd>O</a>'), headers: { 'last-modified': changed } },
				'/odd': { body: page('Odd'), headers: { 'last-modified': 'the day before yesterday' } }
			};
			expect(await read(store, '')).toMatchObject({ read: 2, skipped: [] });
			const { id } = store.working.sites.named('s');
			expect([store.working.pages.at(id, '/')?.modified, store.working.pages.at(id, '/odd')?.modified]).toEqual([
				'2026-06-01T10:00:00.000Z',
				undefined
			]);
			asked = [];
			await read(store, '');
			const since = (path: string) => asked.filter((one) => one.path === path).at(-1)?.headers['if-modified-since'];
			expect(since('/')).toBe(changed);
		}));
	test('what was stopped is taken up again, and no page is asked for twice', () =>
		withStore(async (store) => {
			answers = Object.fromEntries(
				Array.from({ length: 6 }, (_, at) => [at === 0 ? '/' : `/${at}`, page(`Page ${at}`, `<a href=/${at + 1}>`)])
			);
			const part = await read(store, '', { limit: 3 });
			expect(part).toMatchObject({ read: 3, waiting: 1, retired: [] });
			const rest = await read(store, '', { limit: 100 });
			expect(rest).toMatchObject({ read: 6, waiting: 0 });
			expect(askedFor().filter((path) => path !== '/robots.txt' && path !== '/6')).toEqual([
				'/',
				'/',
				'/1',
				'/2',
				'/',
				'/3',
				'/4',
				'/5'
			]);
		}));
	test('where robots.txt fails, nothing is read; what is no page and what is not there is said', () =>
		withStore(async (store) => {
			answers = { '/robots.txt': { status: 503 }, '/': page('Home') };
			await expect(read(store, '')).rejects.toThrow('nothing may be read');
			answers = {
				'/': page('Home', '<a href=/data><a href=/none>'),
				'/data': { headers: { 'content-type': 'application/x-data' } }
			};
			expect((await read(store, '')).skipped.map(({ why }) => why)).toEqual([
				'is application/x-data, no page',
				'its server answers with 404'
			]);
			await expect(read(store, 'none')).rejects.toThrow('answers with 404');
			await expect(importWeb(store, { site: 's', source: { from: 'nowhere' } })).rejects.toThrow(
				'no whole http or https address'
			);
			await expect(importWeb(store, { site: 's', source: { from: base } })).rejects.toThrow('leads to this machine');
		}));
	test('what servers say beside the markup is told, and is the page’s', () =>
		withStore(async (store) => {
			const links = ['hidden', 'both', 'elsewhere', 'twice', 'letters', 'plain', 'gone', 'unasked', 'none', 'bytes'];
			const html = (body: string, headers: Record<string, string>) => ({ headers, body: Buffer.from(body, 'latin1') });
			answers = {
				'/': page('Home', links.map((name) => `<a href="/${name}">x</a>`).join('')),
				'/hidden': html(page('Hidden'), { 'x-robots-tag': 'otherbot: nofollow, noindex' }),
				'/both': html(page('Both', '<meta name=robots content="max-snippet:20">'), { 'x-robots-tag': 'noarchive' }),
				'/elsewhere': html(page('Elsewhere'), { link: '</next>; rel=next, </there>; rel="canonical"' }),
				'/twice': html(page('Twice').replace('<p>', '<link rel=canonical href="/mine"><p>'), {
					link: '</there>; rel=canonical'
				}),
				'/letters': html(`<meta charset="utf-8">${page('Letters')}`, {
					'content-type': 'text/html; charset=iso-8859-1'
				}),
				'/bytes': html(page('Caf\xe9'), { 'content-type': 'text/html; charset=utf-8' }),
				'/plain': html(page('Plain'), { 'content-type': 'text/plain' }),
				'/gone': { status: 302, headers: { location: '/' } },
				'/unasked': { status: 304 }
			};
			const { told, skipped } = await read(store, '');
			const of = (path: string) => told.filter((one) => one.path === `${base}${path}`).map(({ what }) => what);
			expect(of('hidden')).toEqual([]);
			expect(of('both')).toEqual(['the server says X-Robots-Tag: noarchive, the page robots: max-snippet:20']);
			expect(of('elsewhere')).toEqual([`the server says that it stands at ${base}there (Link: rel=canonical)`]);
			expect(of('twice')).toEqual([
				`the server says that it stands at ${base}there (Link: rel=canonical), the page at /mine`
			]);
			expect(of('letters')).toEqual(['it is read as windows-1252, as the server says; the page says utf-8']);
			expect(of('bytes')).toEqual(['it holds bytes that are no utf-8']);
			expect(of('')).toEqual([]);
			const why = (path: string) => skipped.find((one) => one.path === `${base}${path}`)?.why;
			expect(why('plain')).toBe('is text/plain, no page, though it looks like one: readers make no card of it');
			expect(why('gone')).toContain('leads to the home page');
			expect(why('unasked')).toBe('its server answers with 304');
			expect(why('none')).toBe('its server answers with 404');
			const { id } = store.working.sites.named('s');
			const found = (path: string, tag: string) =>
				store.working.pages
					.at(id, path)!
					.found?.filter(({ name }) => name === tag)
					.map(({ value }) => value);
			expect(found('/both', 'robots')).toEqual(['max-snippet:20, noarchive']);
			expect(found('/elsewhere', 'canonical')).toEqual([`${base}there`]);
			expect(found('/twice', 'canonical')).toEqual(['/mine']);
			// Again, by what is kept of each.
			expect((await read(store, '')).told).toEqual(told);
		}));

	test('what most titles have is taken off at the first reading, and not again where somebody wants it', () =>
		withStore(async (store) => {
			const names = ['a', 'b', 'c', 'd', 'e', 'f'];
			for (const name of names)
				answers[`/${name}`] =
					`<title>Page ${name} – Merrow Coast</title>${names.map((one) => `<a href="/${one}">x</a>`).join('')}`;
			expect((await read(store, 'a')).trimmed).toEqual(['– Merrow Coast']);
			const { id } = store.working.sites.named('s');
			expect(store.working.pages.at(id, '/c')!.fields.title).toBe('Page c');
			expect((await read(store, 'a')).trimmed).toEqual([]);
			expect(store.working.pages.at(id, '/c')!.fields.title).toBe('Page c');
			await read(store, 'a', { trims: { parts: [], numbers: false } });
			expect(store.working.pages.at(id, '/c')!.fields.title).toBe('Page c – Merrow Coast');
		}));

	test('a machine at hand stands in for the public site', () =>
		withStore(async (store) => {
			answers = {
				'/': page('Home', '<a href="https://s.example/a">A</a>'),
				'/a': { status: 301, headers: { location: `${base}b` } },
				'/b': page('B')
			};
			const via = { origin: 'https://s.example', at: base.slice(0, -1) };
			const summary = await importWeb(store, { site: 's', via, source: { from: 'https://s.example/', rate: 1000 } });
			expect(summary.read).toBe(2);
			expect(store.working.sites.named('s').site.base).toBe('https://s.example/');
			expect(pathsOf(store)).toEqual(['/', '/b']);
			expect(asked[0]!.headers).toMatchObject({ 'x-forwarded-host': 's.example', 'x-forwarded-proto': 'https' });
		}));
});

describe('lists of pages', () => {
	const urlset = (inner: string) =>
		`<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9" xmlns:x="http://www.w3.org/1999/xhtml" xmlns:i="urn:s/sitemap-image/1.1">${inner}</urlset>`;
	test('a sitemap, with pictures, versions and dates', () => {
		const list = readPageList(
			gzipSync(
				urlset(
					'<url><loc> https://s.example/a?b=1&amp;c </loc><lastmod>2026-05-03</lastmod><i:image><i:loc>https://s.example/p.jpg</i:loc></i:image><x:link rel="alternate" hreflang="fr" href="https://s.example/fr/a"/></url><url><loc>https://s.example/b</loc><lastmod>2026-05-03T10:00:00+02:00</lastmod></url>'
				)
			),
			's'
		);
		expect(list).toEqual({
			kind: 'sitemap',
			pages: [
				{
					...{ address: 'https://s.example/a?b=1&c', modified: '2026-05-03', pictures: ['https://s.example/p.jpg'] },
					versions: { fr: 'https://s.example/fr/a' }
				},
				{ address: 'https://s.example/b', modified: '2026-05-03T08:00:00.000Z' }
			]
		});
	});
	test.each([
		['2026', '2026-01-01'],
		['2026-05', '2026-05-01'],
		['2026-05-03', '2026-05-03'],
		['2026-05-03T10:00:00+02:00', '2026-05-03T08:00:00.000Z'],
		['Sun, 03 May 2026 10:00:00 GMT', '2026-05-03T10:00:00.000Z'],
		['soon', undefined]
	])('changed last %s', (lastmod, modified) => {
		const list = readPageList(
			Buffer.from(urlset(`<url><loc>https://s.example/a</loc><lastmod>${lastmod}</lastmod></url>`)),
			's'
		);
		expect(list).toMatchObject({ pages: [{ address: 'https://s.example/a' }] });
		expect('pages' in list && list.pages[0]?.modified).toBe(modified);
	});
	test.each([
		[
			'Atom',
			'<feed xmlns="http://www.w3.org/2005/Atom"><title>Notes</title><entry><title>Eider</title><link rel="enclosure" type="image/png" href="/e.png"/><link href="https://s.example/e"/><updated>2026-05-03T10:00:00Z</updated><summary>A duck.</summary><author><name>Isla</name></author><category term="ducks"/></entry></feed>'
		],
		[
			'RSS',
			'<rss version="2.0"><channel><title>Notes</title><item><title>Eider</title><link>https://s.example/e</link><pubDate>Sun, 03 May 2026 10:00:00 GMT</pubDate><description>A duck.</description><author>i@s.example (Isla)</author><category>ducks</category><enclosure type="image/png" url="/e.png" length="1"/></item></channel></rss>'
		]
	])('a feed: %s', (_name, xml) => {
		const list = readPageList(Buffer.from(xml), 'f');
		expect(list).toMatchObject({
			...{ kind: 'feed', title: 'Notes' },
			pages: [
				{
					address: 'https://s.example/e',
					title: 'Eider',
					summary: 'A duck.',
					author: 'Isla',
					tags: ['ducks'],
					pictures: ['/e.png']
				}
			]
		});
	});
	test('what is none is refused; one that is broken off lists what comes before', () => {
		expect(() => readPageList(Buffer.from('<html></html>'), 'x.xml')).toThrow('x.xml is no sitemap and no feed');
		expect(() => readPageList(Buffer.from('<urlset'), 'x.xml')).toThrow('x.xml is no sitemap');
		expect(() => readPageList(Buffer.from([0x1f, 0x8b, 1, 2]), 'x.gz')).toThrow('cannot be unpacked');
		expect(readPageList(Buffer.from('<urlset><url><loc>https://s.example/</loc></url><url>'), 'x')).toMatchObject({
			pages: [{ address: 'https://s.example/' }]
		});
	});
	test('a sitemap index is followed, and each page it lists is read', () =>
		withStore(async (store) => {
			answers = {
				'/all.xml': {
					headers: { 'content-type': 'application/xml' },
					body: `<sitemapindex><sitemap><loc>${base}one.xml</loc></sitemap></sitemapindex>`
				},
				'/one.xml': {
					body: urlset(
						`<url><loc>${base}a</loc><lastmod>2026-05-03</lastmod></url><url><loc>https://other.example/</loc></url>`
					)
				},
				'/a': '<title>A</title><a href=/b>not followed</a>'
			};
			expect(await read(store, 'all.xml')).toMatchObject({ kind: 'sitemap', read: 1 });
			expect(store.working.pages.at(store.working.sites.named('s').id, '/a')).toMatchObject({
				modified: '2026-05-03',
				fields: { title: 'A' }
			});
			expect(askedFor()).not.toContain('/b');
		}));
	test('a list that is packed is one by its bytes, whatever it calls itself; a page that begins like them is a page', () =>
		withStore(async (store) => {
			answers = {
				'/list': {
					headers: { 'content-type': 'application/octet-stream' },
					body: gzipSync(urlset(`<url><loc>${base}a</loc></url>`))
				},
				'/a': '<title>A</title>',
				'/odd': { body: Buffer.from('\x1f<title>Odd</title><p>No list is packed here.', 'latin1') }
			};
			expect(await read(store, 'list')).toMatchObject({ kind: 'sitemap', read: 1 });
			expect(await read(store, 'odd')).toMatchObject({ kind: 'site' });
		}));
	test('entries of a feed become pages of what it says of them', () =>
		withStore(async (store) => {
			const feed = `<rss><channel><item><title>Eider</title><link>${base}e</link><description>&lt;p&gt;A duck of cold seas.&lt;/p&gt;</description></item><item><link>https://other.example/</link></item></channel></rss>`;
			const summary = await importWeb(store, {
				site: 's',
				base,
				file: Buffer.from(feed),
				source: { from: 'notes.xml' }
			});
			expect(summary).toMatchObject({ kind: 'feed', read: 1, added: 1 });
			expect(summary.skipped).toHaveLength(1);
			const again = { site: 's', base, file: Buffer.from(feed), source: { from: 'notes.xml' } };
			expect(await importWeb(store, again)).toMatchObject({ read: 1, added: 0, changed: 1 });
			expect(store.working.pages.at(store.working.sites.named('s').id, '/e')?.fields).toEqual({
				title: 'Eider',
				summary: 'A duck of cold seas.'
			});
		}));
});

test('robots.txt by agent, with the line that forbids', () => {
	const robots = robotsOf(
		'https://s.example/robots.txt',
		'User-agent: kephalon\nDisallow: /a\n\nUser-agent: *\nDisallow: /\nSitemap: https://s.example/s.xml\nCrawl-delay: 2'
	);
	expect(robots.allows('https://s.example/a/b')).toBe(false);
	expect(robots.lineOf('https://s.example/a/b')).toBe(2);
	expect(robots.allows('https://s.example/b')).toBe(true);
	expect(robots.allows('https://s.example/b', 'other')).toBe(false);
	expect(robots.sitemaps).toEqual(['https://s.example/s.xml']);
});
