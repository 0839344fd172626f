import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import type { Page, Site } from '$core';
import { changeMany } from '../edits/batch';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
import { clock } from '../waiting';
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
		...{ '/bare': 'missing', '/gone': 'unreachable', '/mine': 'other', '/old': 'old' },
		...{ '/shut': 'shut-out', '/twice': 'doubled', '/below': 'missing', '/relative': 'missing' }
	});
	expect(done).toMatchObject({ pages: 9, waiting: 0, counts: { same: 1 } });
	// Where the two readers do not agree, it is said who sees it.
	const more = Object.fromEntries(done.drifted.map(({ path, more: why }) => [path, why]));
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
	const look = () => verify(store, { ...options(), via });
	const first = await look();
	expect(first.drifted).toMatchObject([{ path: '/mine', is: 'doubled' }]);
	expect([sent, spared]).toEqual([18, 0]);
	expect(await look()).toEqual(first);
	expect([sent, spared]).toEqual([18, 18]);
	changeMany(
		store,
		'S',
		{ paths: ['/'] },
		{ do: 'text', tag: 'description', text: 'Words for the home page' },
		'pages'
	);
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	expect(await look()).toEqual(first);
	expect([sent, spared]).toEqual([20, 34]);
	careful.closeAllConnections();
	await new Promise((done) => careful.close(done));
});
