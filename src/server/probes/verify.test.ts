import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Page, Site } from '$core';
import { changeMany } from '../edits/batch';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
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
	const id = store.saveSite(site);
	store.ensureType(id, 'page');
	for (const path of ['/', '/bare', '/gone', '/mine', '/old', '/shut', '/twice'])
		store.savePage(id, {
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
	serves.set('/twice', (head) => page(`${head}<title>Second</title>`));
	server = createServer((request, response) => {
		const path = request.url as string;
		asked.push(path);
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
		...{ '/shut': 'shut-out', '/twice': 'doubled' }
	});
	expect(done).toMatchObject({ pages: 7, waiting: 0, counts: { same: 1 } });
});

test('one that was stopped goes on where it was, and asks for no page twice', async () => {
	asked.length = 0;
	const stop = new AbortController();
	const part = await verify(store, {
		...options(),
		signal: stop.signal,
		progress: (done) => done === 3 && stop.abort()
	});
	expect(part).toMatchObject({ pages: 3, waiting: 4 });
	const rest = await verify(store, options());
	expect(rest).toMatchObject({ pages: 7, waiting: 0 });
	const pages = asked.filter((path) => path !== '/robots.txt');
	expect(pages).toEqual([...new Set(pages)]);
	expect((await verify(store, { ...options(), sample: 2 })).pages).toBe(2);
});
