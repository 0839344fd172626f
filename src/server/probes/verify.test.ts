import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import type { Page, Site } from '$core';
import { changeMany } from '../edits/batch';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
import { clock } from '../waiting';
import { driftInWords } from './drifts';
import { verify } from './verify';

let folder = '';
let store: Store;
let server: Server;
let at = '';
const asked: string[] = [];
/** What is served of each page, given its released head. */
const serves = new Map<string, (head: string) => { status: number; html: string }>();

beforeAll(async () => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-'));
	store = new Store(join(folder, 'k.db'));
	const site: Site = {
		name: 'S',
		base: 'https://s.example/',
		languages: ['en'],
		separator: '·',
		fields: {},
		rules: []
	};
	const id = store.working.sites.save(site);
	store.working.types.ensure(id, 'page');
	for (const path of ['/', '/bare', '/below', '/gone', '/mine', '/old', '/relative', '/shut', '/twice'])
		store.working.pages.save(id, {
			path,
			type: 'page',
			state: 'live',
			fields: { title: `Title ${path}`, summary: `About ${path} & more.` },
			rules: []
		} as Page);
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	const first = store.releases.head(id, { path: '/old' })!.html;
	changeMany(store, 'S', { paths: ['/old'] }, { do: 'text', tag: 'description', text: 'Newer words' }, 'pages');
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	const page = (head: string) => ({ status: 200, html: `<html><head>${head}</head><body>x</body></html>` });
	serves.set('/bare', () => page(''));
	serves.set('/gone', () => ({ status: 503, html: '' }));
	serves.set('/old', () => page(first));
	serves.set('/mine', (head) => page(head.replace('Title /mine', 'Another title')));
	serves.set('/relative', (head) => page(head.replaceAll('content="https://s.example/', 'content="/')));
	serves.set('/below', (head) => ({ status: 200, html: `<html><head></head><body>${head}</body></html>` }));
	serves.set('/twice', (head) => page(`${head}<title>Second</title>`));
	server = createServer((request, response) => {
		const path = request.url as string;
		asked.push(path === '/robots.txt' ? path : `${path} ${request.headers['user-agent']?.split('/')[0]}`);
		if (path === '/robots.txt') return void response.end('User-agent: *\nDisallow: /shut');
		const head = store.releases.head(id, { path })?.html ?? '';
		const { status, html } = (serves.get(path) ?? page)(head);
		response.writeHead(status, { 'content-type': 'text/html; charset=utf-8' }).end(html);
	});
	await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
	at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
	store.close();
	rmSync(folder, { recursive: true });
	server.closeAllConnections();
	await new Promise((done) => server.close(done));
});

const options = () => ({ site: 'S', rate: 1000, via: { origin: 'https://s.example', at } });

test('what is served is compared with what was released, page by page', async () => {
	const done = await verify(store, options());
	expect(Object.fromEntries(done.drifted.map(({ path, is }) => [path, is]))).toEqual({
		...{ '/bare': 'missing', '/gone': 'error', '/mine': 'other', '/old': 'old' },
		...{ '/shut': 'shut-out', '/twice': 'doubled', '/below': 'missing', '/relative': 'missing' }
	});
	expect(done).toMatchObject({ pages: 9, waiting: 0, counts: { same: 1 } });
	// Where the two readers do not agree, it is said who sees it.
	const more = Object.fromEntries(done.drifted.map(driftInWords).map(({ path, more: why }) => [path, why]));
	expect(more).toMatchObject({
		'/below': 'none of its tags is served, as Bottle reads it',
		'/relative': 'og:url, as Bottle reads it',
		'/shut': 'robots.txt forbids it, as Wrack reads it',
		'/bare': 'none of its tags is served',
		'/twice': 'title'
	});
});

test('one that was stopped goes on where it was, and asks for no page twice', async () => {
	asked.length = 0;
	const stop = new AbortController();
	const part = await verify(store, {
		...options(),
		signal: stop.signal,
		progress: (done) => done === 3 && stop.abort()
	});
	expect(part).toMatchObject({ pages: 3, waiting: 6 });
	const rest = await verify(store, options());
	expect(rest).toMatchObject({ pages: 9, waiting: 0 });
	const pages = asked.filter((path) => path !== '/robots.txt');
	expect(pages).toEqual([...new Set(pages)]);
	expect((await verify(store, { ...options(), sample: 2 })).pages).toBe(2);
});

test('while one looks, another is refused; one that was killed is gone on with, and no page is asked twice', async () => {
	asked.length = 0;
	let other: unknown;
	const stop = new AbortController();
	const first = await verify(store, {
		...options(),
		signal: stop.signal,
		progress: (done) => {
			if (done === 2)
				other = verify(store, options()).then(
					() => 'looked',
					(error: Error) => error.message
				);
			if (done === 4) stop.abort();
		}
	});
	expect(await other).toMatch(/^Someone is looking at what is served already: \d pages so far/);
	expect(first.waiting).toBe(5);
	// As one leaves it that was killed: by a process that is no more.
	const id = store.working.sites.named('S').id;
	const kept = store.working.sources.settings<object>(id, 'verify')!;
	const by = { run: 'x', process: 2 ** 22 + 1, until: clock.now() + 100_000 };
	store.transaction(() => store.working.sources.saveSettings(id, 'verify', { ...kept, by }));
	const rest = await verify(store, options());
	expect([rest.pages, rest.waiting]).toEqual([9, 0]);
	const pages = asked.filter((one) => one !== '/robots.txt');
	expect([new Set(pages).size, pages.length]).toEqual([pages.length, pages.length]);
	// One that fails on its way lets the next begin at once, where it was.
	const failing = verify(store, {
		...options(),
		progress: (done) => {
			if (done === 2) throw new Error('no more');
		}
	});
	await expect(failing).rejects.toThrow('no more');
	expect((await verify(store, options())).waiting).toBe(0);
	// One that another has gone on with says so, and writes nothing over it.
	const taken = { ...kept, by: { run: 'another', process: process.pid, until: clock.now() + 100_000 } };
	await expect(
		verify(store, {
			...options(),
			progress: () => store.transaction(() => store.working.sources.saveSettings(id, 'verify', taken))
		})
	).rejects.toThrow('Someone is looking');
	expect(store.working.sources.settings<typeof taken>(id, 'verify')).toEqual(taken);
	// One of a living process that has said nothing for long has ended as well.
	const silent = { ...kept, by: { ...by, process: process.pid, until: clock.now() - 1 } };
	store.transaction(() => store.working.sources.saveSettings(id, 'verify', silent));
	expect((await verify(store, options())).waiting).toBe(0);
});

test('a sample, whole or stopped, is no part of a look at all pages, and is chosen from the first to the last', async () => {
	const stopAfter = async (count: number, sample?: number) => {
		const stop = new AbortController();
		const progress = (done: number) => done === count && stop.abort();
		return verify(store, { ...options(), sample, signal: stop.signal, progress });
	};
	expect(await stopAfter(4)).toMatchObject({ pages: 4, released: 9, waiting: 5 });
	expect(await stopAfter(1, 4)).toMatchObject({ pages: 1, released: 9, waiting: 3 });
	expect(await verify(store, { ...options(), sample: 4 })).toMatchObject({ pages: 4, released: 9, waiting: 0 });
	asked.length = 0;
	// The look at all goes on where it was, and its counts are of each page once.
	expect(await verify(store, options())).toMatchObject({ pages: 9, waiting: 0, counts: { same: 1 } });
	expect(new Set(asked.map((line) => line.split(' ')[0])).size).toBe(5 + 1);
	asked.length = 0;
	await verify(store, { ...options(), sample: 8 });
	const paths = new Set(asked.map((line) => line.split(' ')[0]));
	expect([paths.has('/'), paths.has('/shut') || paths.has('/twice')]).toEqual([true, true]);
});

test('what an earlier version kept on its way is gone on with: its counts know fewer ways to differ', async () => {
	const { id } = store.working.sites.named('S');
	const release = store.releases.latest(id)!.number;
	const kept = { release, after: '/bare', counts: { same: 1, missing: 1 }, drifted: [] };
	store.working.sources.saveSettings(id, 'verify', kept);
	const done = await verify(store, options());
	expect(done).toMatchObject({ pages: 9, waiting: 0, counts: { same: 1, error: 1, noindex: 0 } });
});

test('it asks no faster than it was told to', async () => {
	asked.length = 0;
	let now = 0;
	const slept: number[] = [];
	vi.spyOn(clock, 'now').mockImplementation(() => now);
	vi.spyOn(clock, 'sleep').mockImplementation((milliseconds) => {
		if (milliseconds > 0) slept.push(milliseconds);
		now += Math.max(0, milliseconds);
		return Promise.resolve();
	});
	await verify(store, { ...options(), sample: 3, rate: 20 });
	vi.restoreAllMocks();
	const requests = asked.filter((path) => path !== '/robots.txt').length;
	expect(requests).toBeGreaterThan(3);
	expect(slept.length).toBeGreaterThanOrEqual(requests - 1);
	expect(new Set(slept)).toEqual(new Set([50]));
});

test('with nothing released there is nothing to say', async () => {
	const id = store.working.sites.save({
		...store.working.sites.named('S').site,
		name: 'New',
		base: 'https://new.example/'
	});
	store.working.types.ensure(id, 'page');
	await expect(verify(store, { ...options(), site: 'New' })).rejects.toThrow('Nothing of New is released');
});

test('a page that has not changed is not sent again, until another head is released for it', async () => {
	const tag = (html: string) => `"${html.length}"`;
	let [sent, spared] = [0, 0];
	const careful = createServer((request, response) => {
		const path = request.url as string;
		if (path === '/robots.txt') return void response.writeHead(404).end();
		const head = store.releases.head(store.working.sites.named('S').id, { path })?.html ?? '';
		const html = path === '/mine' ? `<head>${head}<title>Mine</title></head>` : `<head>${head}</head>`;
		const isKnown = request.headers['if-none-match'] === tag(html);
		if (isKnown) spared++;
		else sent++;
		response.writeHead(isKnown ? 304 : 200, { 'content-type': 'text/html; charset=utf-8', etag: tag(html) });
		response.end(isKnown ? undefined : html);
	});
	await new Promise<void>((done) => careful.listen(0, '127.0.0.1', done));
	const via = { origin: 'https://s.example', at: `http://127.0.0.1:${(careful.address() as AddressInfo).port}` };
	// A day on which no page of so few is read whole for its turn.
	vi.spyOn(clock, 'now').mockReturnValue(86_400_000);
	const look = () => verify(store, { ...options(), via });
	const first = await look();
	expect(first.drifted).toMatchObject([{ path: '/mine', is: 'doubled' }]);
	expect([sent, spared]).toEqual([18, 0]);
	expect(await look()).toEqual(first);
	// What was not as released is read again, whatever its server says of it.
	expect([sent, spared]).toEqual([20, 16]);
	changeMany(
		store,
		'S',
		{ paths: ['/'] },
		{ do: 'text', tag: 'description', text: 'Words for the home page' },
		'pages'
	);
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	expect(await look()).toEqual(first);
	expect([sent, spared]).toEqual([24, 30]);
	// On another day one of them is read whole although nothing has changed.
	vi.spyOn(clock, 'now').mockReturnValue(15 * 86_400_000);
	expect(await look()).toEqual(first);
	expect([sent, spared]).toEqual([28, 44]);
	vi.restoreAllMocks();
	careful.closeAllConnections();
	await new Promise((done) => careful.close(done));
});

describe('what a right head does not make right', () => {
	type Answer = { status?: number; headers?: Record<string, string>; html?: string; broken?: boolean };
	/** What is served of a page, given its released head and the one before. */
	const cases: Record<string, [is: string, more: RegExp, serve: (head: string, before: string) => Answer]> = {
		'/c/404': ['error', /404/, () => ({ status: 404 })],
		'/c/500': ['error', /500/, () => ({ status: 500 })],
		'/c/302': ['error', /302/, () => ({ status: 302 })],
		'/c/plain': ['no-page', /text\/plain/, () => ({ headers: { 'content-type': 'text/plain; charset=utf-8' } })],
		'/c/download': [
			'no-page',
			/download/,
			() => ({ headers: { 'content-disposition': 'attachment; filename=a.html' } })
		],
		'/c/robots': [
			'noindex',
			/robots: noindex/,
			(head) => ({ html: `${head}<meta name="robots" content="noindex, follow">` })
		],
		'/c/header': ['noindex', /X-Robots-Tag: noindex/, () => ({ headers: { 'x-robots-tag': 'noindex' } })],
		'/c/over': [
			'noindex',
			/X-Robots-Tag: unavailable_after/,
			() => ({ headers: { 'x-robots-tag': 'unavailable_after: 25 Jun 2010 15:00:00 GMT' } })
		],
		'/c/one': ['same', /^$/, () => ({ headers: { 'x-robots-tag': 'fathom: noindex, nofollow' } })],
		'/c/both': ['noindex', /X-Robots-Tag/, () => ({ headers: { 'x-robots-tag': 'noindex, fathom: nofollow' } })],
		'/c/preview': ['same', /^$/, () => ({ headers: { 'x-robots-tag': 'max-image-preview:none' } })],
		'/c/empty': ['other', /og:title/, (head) => ({ html: head.replace(/(og:title" content=")[^"]*/, '$1') })],
		'/c/letter': ['other', /og:title/, (head) => ({ html: head.replace(/(og:title" content=")[^"]*/, '$1T') })],
		'/c/home': [
			'other',
			/canonical/,
			(head) => ({ html: head.replace(/(rel="canonical" href=")[^"]*/, '$1https://s.example/') })
		],
		'/c/older': ['old', /description.*as from release \d+/, (_, before) => ({ html: before })],
		'/c/short': ['unreachable', /./, () => ({ broken: true })],
		'/c/missing': ['same', /^$/, () => ({ status: 404 })],
		'/c/picture': ['picture', /og:image: https:\/\/s\.example\/gone\.jpg cannot be fetched: .* 404/, () => ({})],
		'/c/picture-page': ['picture', /og:image: .*page\.jpg is no picture but text\/html/, () => ({})],
		'/c/pictured': ['same', /^$/, () => ({})],
		'/c/no-head': ['same', /^$/, () => ({})],
		'/c/sound': ['same', /^$/, () => ({})]
	};
	const PICTURES: Readonly<Record<string, string>> = {
		'/c/picture': '/gone.jpg',
		'/c/picture-page': '/page.jpg',
		'/c/pictured': '/there.jpg',
		'/c/no-head': '/no-head.jpg'
	};
	let served: Server;
	let via: { origin: string; at: string };
	/** Bodies that break off, by path: only the first time. */
	const broken = new Set<string>();
	let isChanged = false;

	beforeAll(async () => {
		const { id } = store.working.sites.named('S');
		store.working.types.save(id, { name: 'none', special: 'not-found', fields: [], rules: [] });
		const save = (path: string, summary?: string) =>
			store.working.pages.save(id, {
				...{ path, type: path === '/c/missing' ? 'none' : 'page', state: 'live', rules: [] },
				fields: {
					title: `Title ${path}`,
					...(summary && { summary }),
					...(PICTURES[path] && { picture: { src: PICTURES[path] } })
				}
			} as Page);
		const facts = { width: 1200, height: 630, type: 'image/jpeg', bytes: 90_000 };
		store.pictures.save(
			id,
			Object.values(PICTURES).map((src) => ({ src, ...facts }))
		);
		for (const path of Object.keys(cases)) save(path);
		const release = () => JOBS.release({ db: store.file, site: 'S' }, () => undefined);
		release();
		const before = new Map(Object.keys(cases).map((path) => [path, store.releases.head(id, { path })!.html]));
		for (const path of Object.keys(cases)) save(path, `Words of ${path}, that came later and are long enough.`);
		release();
		served = createServer((request, response) => {
			const path = request.url as string;
			if (path === '/robots.txt' || (path === '/gone.jpg' && !isChanged)) return void response.writeHead(404).end();
			if (path.endsWith('.jpg')) {
				asked.push(`${request.method} ${path}`);
				const isRefused = path === '/no-head.jpg' && request.method === 'HEAD';
				const type = path === '/page.jpg' && !isChanged ? 'text/html' : 'image/jpeg';
				return void response.writeHead(isRefused ? 405 : 200, { 'content-type': type }).end('x');
			}
			const head = store.releases.head(id, { path })?.html ?? '';
			const {
				status = 200,
				headers,
				html = head,
				broken: breaks
			} = isChanged ? {} : (cases[path]?.[2](head, before.get(path)!) ?? {});
			if (request.headers['if-none-match'] === '"x"') return void response.writeHead(304).end();
			const body = `<html><head>${html}</head><body>x</body></html>`;
			response.writeHead(status, { 'content-type': 'text/html; charset=utf-8', etag: '"x"', ...headers });
			if (!breaks) return void response.end(body);
			broken.add(path);
			response.write(body.slice(0, 60));
			setTimeout(() => response.destroy(), 5);
		});
		await new Promise<void>((done) => served.listen(0, '127.0.0.1', done));
		via = { origin: 'https://s.example', at: `http://127.0.0.1:${(served.address() as AddressInfo).port}` };
	});
	afterAll(async () => {
		served.closeAllConnections();
		await new Promise((done) => served.close(done));
	});

	test('each is told by its own name, and nothing else is', async () => {
		asked.length = 0;
		const done = await verify(store, { ...options(), via });
		const told = new Map(done.drifted.map(driftInWords).map(({ path, is, more }) => [path, [is, more]]));
		for (const [path, [is, more]] of Object.entries(cases)) {
			const [tellsIs, tellsMore] = told.get(path) ?? ['same', ''];
			expect({ path, is: tellsIs }).toEqual({ path, is });
			expect({ path, more: tellsMore }).toEqual({ path, more: expect.stringMatching(more) as string });
		}
		// Each picture is asked for once, and for no more than its head where its server allows that.
		const pictures = asked.filter((one) => /^(GET|HEAD) /.test(one)).sort();
		expect(pictures).toEqual([
			...['GET /no-head.jpg', 'GET /page.jpg', 'HEAD /no-head.jpg', 'HEAD /page.jpg', 'HEAD /there.jpg']
		]);
	});

	test('what was wrong once is read whole until it is right, though its server says that nothing has changed', async () => {
		expect(broken.has('/c/short')).toBe(true);
		isChanged = true;
		const done = await verify(store, { ...options(), via });
		const wrong = done.drifted.filter(({ path }) => path.startsWith('/c/'));
		expect(wrong).toEqual([]);
	});
});
