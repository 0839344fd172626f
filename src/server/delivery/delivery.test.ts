import { createServer, request as ask, type IncomingHttpHeaders, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Page, Site } from '$core';
import { keepRule } from '../edits/rules';
import { keepSettings, readSettingsEdit } from '../edits/settings';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { Delivery } from './delivery';
import { frontOf } from './front';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-delivery-'));
const db = join(folder, 'd.db');
const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
	extra: { after: '<script>alert(1)</script>' }
};
const page = (path: string): Page => ({
	...{ path, type: 'page', state: 'live', rules: [] },
	fields: { title: `Page ${path}`, summary: 'What stands here is long enough to be compressed. '.repeat(9) }
});

let [store, delivery] = [undefined as unknown as Store, undefined as unknown as Delivery];
let server: Server;
let desk: Server;
beforeAll(async () => {
	store = new Store(db);
	const types = [{ name: 'page', fields: [], rules: [] }];
	saveSiteFile(store, {
		site,
		types,
		pages: [
			'/',
			'/a',
			'/ä b',
			'/goes',
			'/caf%C3%A9',
			'/folder/',
			'/opened/index.html',
			'/caf%C3%A9+a&b.html',
			'/100%2525'
		].map(page),
		pictures: []
	} as never);
	delivery = new Delivery(db);
	server = createServer(frontOf({ delivery })).listen(0, '127.0.0.1');
	desk = createServer(frontOf({ delivery, desk: (_, response) => void response.writeHead(200).end('desk') })).listen(
		0,
		'127.0.0.1'
	);
	await Promise.all([server, desk].map((one) => new Promise((done) => one.once('listening', done))));
});
afterAll(() => {
	server.close();
	desk.close();
	delivery.close();
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

interface Answer {
	readonly status: number;
	readonly headers: IncomingHttpHeaders;
	readonly body: Buffer;
}
function get(
	path: string,
	headers: Record<string, string> = {},
	{ to = server, method = 'GET' } = {}
): Promise<Answer> {
	return new Promise((resolve, reject) => {
		const { port } = to.address() as AddressInfo;
		ask({ host: '127.0.0.1', port, path, method, headers }, (response) => {
			const parts: Buffer[] = [];
			response.on('data', (part: Buffer) => parts.push(part));
			response.on('end', () =>
				resolve({ status: response.statusCode as number, headers: response.headers, body: Buffer.concat(parts) })
			);
		})
			.on('error', reject)
			.end();
	});
}
const head = '/api/sites/S/head?path=/a';

describe('delivery', () => {
	test('nothing is there before the first release, and a release by another connection is seen at once', async () => {
		expect((await get(head)).status).toBe(404);
		JOBS.release({ db, site: 'S' }, () => undefined);
		const first = await get(head);
		expect(first).toMatchObject({ status: 200, headers: { 'kephalon-release': '1' } });
		keepRule(
			store,
			'S',
			{ place: { layer: 'page', path: '/a' }, tag: 'title', body: { kind: 'template', template: 'Second' } },
			{ origin: 'bench' }
		);
		expect((await get(head)).body.equals(first.body)).toBe(true);
		JOBS.release({ db, site: 'S' }, () => undefined);
		const second = await get(head);
		expect(second.headers['kephalon-release']).toBe('2');
		expect(second.body.toString()).toContain('<title>Second</title>');
	});
});

describe('what is released', () => {
	beforeAll(() => void JOBS.release({ db, site: 'S' }, () => undefined));
	test('extra markup never runs as a page of ours', async () => {
		const { headers, body } = await get(head);
		expect(body.toString()).toContain('<script>alert(1)</script>');
		expect(headers['content-security-policy']).toBe("sandbox; default-src 'none'");
		expect(headers['x-content-type-options']).toBe('nosniff');
		expect(headers['referrer-policy']).toBe('no-referrer');
	});
	test('by path in any form, and by address without its fragment', async () => {
		for (const query of ['path=/%C3%A4%20b', 'path=/%C3%A4+b', 'address=https://s.example/%C3%A4%20b%23part'])
			expect((await get(`/api/sites/S/head?${query}`)).body.toString()).toContain('<title>Page /ä b</title>');
	});
	test.each([
		['?path=/caf%C3%A9%2Ba%26b.html', '/caf%C3%A9+a&b.html'],
		['?path=/caf%25c3%25a9%2Ba%26b.html', '/caf%C3%A9+a&b.html'],
		['?path=/100%2525', '/100%2525'],
		['/caf%C3%A9+a&b.html', '/caf%C3%A9+a&b.html'],
		['/caf%c3%a9+a%26b.html?or=empty', '/caf%C3%A9+a&b.html'],
		['/100%2525', '/100%2525'],
		['/%C3%A4%20b', '/ä b'],
		['/folder/index.html', '/folder/'],
		['/', '/']
	])('as the request for the page wrote it, behind the address of heads as well: %s', async (asked, path) => {
		const { status, body } = await get(`/api/sites/S/head${asked}`);
		expect(status).toBe(200);
		expect(body.toString()).toContain(`<title>Page ${path.replace('&', '&amp;')}</title>`);
	});
	test.each(['br', 'gzip', ''])('compressed as asked: %j', async (coding) => {
		for (const [format, type] of [
			['html', 'text/html; charset=utf-8'],
			['json', 'application/json']
		] as const) {
			const plain = await get(`${head}&format=${format}`);
			const { headers, body } = await get(`${head}&format=${format}`, { 'accept-encoding': coding });
			expect(headers['content-type']).toBe(type);
			expect(headers['content-encoding'] ?? '').toBe(coding);
			expect(headers.vary).toBe('accept, accept-encoding');
			const whole = coding === 'br' ? brotliDecompressSync(body) : coding === 'gzip' ? gunzipSync(body) : body;
			expect(whole.equals(plain.body)).toBe(true);
			if (coding) expect(body.length).toBeLessThan(plain.body.length);
		}
	});
	test.each([
		['path=/index.html', '/'],
		['path=/folder/', '/folder/'],
		['path=/folder/index.html', '/folder/'],
		['path=/folder/index.HTM', '/folder/'],
		['path=/opened/index.html', '/opened/index.html'],
		['path=/opened/', '/opened/index.html'],
		['address=https://s.example/folder/index.html', '/folder/'],
		['address=https://s.example/opened/', '/opened/index.html']
	])('a folder and the page that opens it are one: %s', async (query, path) => {
		const { status, body } = await get(`/api/sites/S/head?${query}`);
		expect(status).toBe(200);
		expect(body.toString()).toContain(`<title>Page ${path}`);
	});
	test.each([
		['/api/sites/S/head?path=/never&or=empty', 'page-not-released'],
		['/api/sites/S/head?path=/folder&or=empty', 'page-not-released'],
		['/api/sites/S/head?address=https://t.example/&or=empty', 'page-not-released'],
		['/api/sites/Nobody/head?path=/a&or=empty', 'site-not-there']
	])('nothing instead of a problem for who puts it into a page: %s', async (address, why) => {
		const { status, headers, body } = await get(address);
		expect([status, body.length, headers['kephalon-empty'], headers['cache-control']]).toEqual([
			200,
			0,
			why,
			'no-store'
		]);
		expect(headers['content-type']).toBe('text/html; charset=utf-8');
		// Without the word, it is told.
		expect((await get(address.replace('&or=empty', ''))).status).toBe(404);
	});
	test('what is there is the same with the word as without', async () => {
		expect((await get(`${head}&or=empty`)).body.equals((await get(head)).body)).toBe(true);
	});
	test('as JSON by Accept, and a browser gets HTML', async () => {
		expect((await get(head, { accept: 'application/json' })).headers['content-type']).toBe('application/json');
		expect((await get(head, { accept: 'text/html, application/json' })).headers['content-type']).toContain('text/html');
	});
	test('what is not changed is told without a body, whatever form the tag comes in', async () => {
		const { etag } = (await get(head)).headers as { etag: string };
		for (const known of [etag, `W/${etag}`, `"other", ${etag}`, '*']) {
			const answer = await get(head, { 'if-none-match': known });
			expect([answer.status, answer.body.length, answer.headers.etag]).toEqual([304, 0, etag]);
		}
		expect((await get(head, { 'if-none-match': '"other"' })).status).toBe(200);
		// Another coding is another representation.
		expect((await get(head, { 'if-none-match': etag, 'accept-encoding': 'br' })).status).toBe(200);
	});
	test('a HEAD request has the headers and no body', async () => {
		const [whole, bare] = [await get(head), await get(head, {}, { method: 'HEAD' })];
		expect([bare.status, bare.body.length]).toEqual([200, 0]);
		expect(bare.headers['content-length']).toBe(String(whole.body.length));
	});
	test('a page that has moved leads on', async () => {
		const goes = '/api/sites/S/head?path=/goes';
		const change = readSettingsEdit({ place: { layer: 'page', path: '/goes' }, changes: { path: '/moved' } });
		keepSettings(store, 'S', change, 'bench');
		// Until it is released, the old path is served.
		expect((await get(goes)).status).toBe(200);
		JOBS.release({ db, site: 'S' }, () => undefined);
		const { status, headers } = await get(`${goes}&format=json`);
		expect(status).toBe(308);
		expect(headers.location).toBe('/api/sites/S/head?path=%2Fmoved&format=json');
		expect((await get(headers.location as string)).status).toBe(200);
		expect((await get('/api/sites/S/head/goes?format=json')).headers.location).toBe(
			'/api/sites/S/head?format=json&path=%2Fmoved'
		);
	});
	test('so does one whose path is written otherwise', async () => {
		const change = readSettingsEdit({ place: { layer: 'page', path: '/caf%C3%A9' }, changes: { path: '/tea' } });
		keepSettings(store, 'S', change, 'bench');
		JOBS.release({ db, site: 'S' }, () => undefined);
		for (const asked of ['/caf%C3%A9', '/caf%c3%a9', '?path=/caf%C3%A9']) {
			const { status, headers } = await get(`/api/sites/S/head${asked}`);
			expect([status, headers['kephalon-moved-to']], asked).toEqual([308, '/tea']);
		}
	});
	test.each([
		['/api/sites/S/head', 400],
		['/api/sites/S/head/a?path=/a', 400],
		['/api/sites/S/head/a?address=https://s.example/a', 400],
		['/api/sites/S/head/%ff', 404],
		['/api/sites/S/headache', 404],
		['/api/sites/S/head?path=/a&address=https://s.example/a', 400],
		['/api/sites/%zz/head?path=/a', 400],
		['/api/sites/None/head?path=/a', 404],
		['/api/sites/S/head?path=/none', 404],
		['/api/sites/S/manifest', 404],
		['/api/sites/S/rules', 404],
		['/', 404]
	])('%s is refused with %i, and tells no path of the machine', async (path, status) => {
		const answer = await get(path);
		expect(answer.status).toBe(status);
		expect(answer.headers['content-type']).toBe('application/problem+json');
		expect(answer.body.toString()).not.toContain(folder);
	});
});

describe('the front', () => {
	test('hands on what it does not answer itself, under local names only', async () => {
		expect((await get('/anything', {}, { to: desk })).body.toString()).toBe('desk');
		expect((await get('/anything', { host: 'evil.example' }, { to: desk })).status).toBe(403);
		expect((await get(head, { host: 'evil.example' }, { to: desk })).status).toBe(403);
		// Without a desk there is nothing to protect.
		expect((await get('/health', { host: 'any.example' })).status).toBe(200);
	});
	test('says whether it lives and whether its database answers', async () => {
		expect((await get('/health')).body.toString()).toBe('ok\n');
		expect((await get('/ready')).status).toBe(200);
		const closed = new Delivery(db);
		closed.close();
		expect(closed.isReady()).toBe(false);
	});
});
