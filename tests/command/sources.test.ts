import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer as createRaw } from 'node:net';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';

/** Heads of pages whose records a source of live data has: delivered, put into pages that go past, and tried. */
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const top = mkdtempSync(join(tmpdir(), 'kephalon-sources-'));
const env = { ...process.env, KEPHALON_DB: join(top, 'k.db'), TMPDIR: top };
const children: ChildProcess[] = [];
let source: Server;
let [desk, delivery, front, closed] = ['', '', '', ''];
/** What the source was asked for. */
let asked: string[] = [];
let answer: (request: IncomingMessage, response: ServerResponse) => void;
const boat =
	(name: string, control = 'max-age=60') =>
	(_: IncomingMessage, response: ServerResponse) =>
		void response
			.writeHead(200, { 'content-type': 'application/json', 'cache-control': control })
			.end(JSON.stringify({ name, about: { harbour: 'Long Strand' }, photo: { url: 'https://img.example/7.jpg' } }));

const run = (...args: string[]) => spawnSync(process.execPath, [program, ...args], { encoding: 'utf8', cwd: top, env });
function start(...args: string[]): Promise<string> {
	const child = spawn(process.execPath, [program, ...args], { cwd: top, env });
	children.push(child);
	return new Promise((resolve, reject) => {
		let said = '';
		child.stderr.on('data', (data: Buffer) => {
			said += data.toString();
			const found = /is at (\S+)/.exec(said)?.[1];
			if (found) resolve(found);
		});
		child.once('exit', () => reject(new Error(said)));
	});
}
beforeAll(async () => {
	source = createServer((request, response) => {
		asked.push(request.url ?? '');
		answer(request, response);
	});
	await new Promise<void>((done) => source.listen(0, '127.0.0.1', done));
	const origin = `http://127.0.0.1:${(source.address() as AddressInfo).port}`;
	const rule = (tag: string, template: string) => ({ tag, kind: 'template', template });
	writeFileSync(
		join(top, 's.json'),
		JSON.stringify({
			...{ format: 'kephalon-site', version: 2 },
			site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
			types: [
				{ name: 'note', fields: [], rules: [] },
				{
					name: 'boat',
					fields: [{ name: 'harbour', kind: 'text' }],
					source: { path: '/boats/{id}', address: `${origin}/data/{id}.json`, samples: ['/boats/1', '/boats/404'] },
					mapping: { title: '/name', harbour: '$.about.harbour', picture: '/photo' },
					rules: [rule('title', '{page.title}, {page.harbour}')]
				}
			],
			pages: [
				{ path: '/', type: 'note', state: 'live', fields: { title: 'Home' }, rules: [] },
				{ path: '/boats/kept', type: 'boat', state: 'live', fields: { title: 'Kept' }, rules: [] }
			]
		})
	);
	expect(run('import', 's.json').stderr).toMatch(/2 pages/);
	expect(run('release', '--site', 'S').status).toBe(0);
	const behind = createServer((_, response) => {
		response.writeHead(200, { 'content-type': 'text/html' });
		response.end('<!doctype html><html><head><title>Own</title></head><body><p>Text</p></body></html>');
	});
	await new Promise<void>((done) => behind.listen(0, '127.0.0.1', done));
	behind.unref();
	const upstream = `http://127.0.0.1:${(behind.address() as AddressInfo).port}`;
	[desk, delivery, front, closed] = await Promise.all([
		start('serve', '--port', '0', '--source', origin),
		start('deliver', '--port', '0', '--source', origin),
		start('front', '--site', 'S', '--upstream', upstream, '--port', '0', '--source', origin),
		start('deliver', '--port', '0')
	]);
}, 60_000);
afterAll(() => {
	for (const child of children) child.kill();
	source.closeAllConnections();
	source.close();
	rmSync(top, { recursive: true, force: true, maxRetries: 5 });
});
beforeEach(() => {
	[asked, answer] = [[], boat('Tern')];
});

let next = 100;
/** A page that was not asked for before. */
const fresh = () => `/boats/${next++}`;
const head = (path: string, more = '', at = delivery, headers: Record<string, string> = {}) =>
	fetch(`${at}/api/v1/sites/S/head?path=${encodeURIComponent(path)}${more}`, { headers });
const ask = async (path: string, body: object) => {
	const got = await fetch(`${desk}/api/v1/sites/S${path}`, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify(body)
	});
	return { status: got.status, told: (await got.json()) as Record<string, unknown> & { code?: string } };
};

describe('delivered at the same address as all others', () => {
	test('by the rules of its type, with a tag; kept as long as the source says', async () => {
		const path = fresh();
		const first = await head(path);
		expect([first.status, first.headers.get('kephalon-release'), first.headers.get('kephalon-record')]).toEqual([
			200,
			'1',
			null
		]);
		const html = await first.text();
		expect(html).toContain('<title>Tern, Long Strand</title>');
		expect(html).toContain(`<link rel="canonical" href="https://s.example${path}">`);
		expect(html).toContain('https://img.example/7.jpg');
		const tag = first.headers.get('etag')!;
		const again = await head(path, '', delivery, { 'if-none-match': tag });
		expect([again.status, await again.text(), asked.length]).toEqual([304, '', 1]);
		const byAddress = await fetch(
			`${delivery}/api/v1/sites/S/head?address=${encodeURIComponent(`https://s.example${path}?utm=1#x`)}`
		);
		expect(await byAddress.text()).toBe(html);
		const json = (await (await head(path, '&format=json')).json()) as { tags: { tag: string; value: string }[] };
		expect(json.tags).toContainEqual(expect.objectContaining({ tag: 'title', value: 'Tern, Long Strand' }));
		const packed = await fetch(`${delivery}/api/v1/sites/S/head${path}`, { headers: { 'accept-encoding': 'br' } });
		expect([packed.headers.get('content-encoding'), await packed.text()]).toEqual(['br', html]);
		expect(asked).toEqual([`/data/${path.slice(7)}.json`]);
	});
	test('a page that is kept goes before, one of no source is not there', async () => {
		expect(await (await head('/boats/kept')).text()).toContain('<title>Kept');
		expect([(await head('/boats/a/b')).status, (await head('/other/7')).status, asked]).toEqual([404, 404, []]);
	});
	test('one that the source has not is not there, or empty where that is asked for', async () => {
		answer = (_, response) => void response.writeHead(404).end();
		const path = fresh();
		const gone = await head(path);
		expect([gone.status, ((await gone.json()) as { code: string }).code]).toEqual([404, 'page-not-released']);
		const empty = await head(path, '&or=empty');
		expect([empty.status, await empty.text(), empty.headers.get('kephalon-empty')]).toEqual([
			200,
			'',
			'page-not-released'
		]);
	});
	test('what a path says stays a part of the address', async () => {
		for (const id of ['a%2F..%2Fb', '%2e%2e', 'x%3Fy%23z']) await head(`/boats/${id}`);
		expect(asked.map((one) => one.split('/').length)).toEqual([3, 3, 3]);
		expect(asked.every((one) => one.startsWith('/data/') && one.endsWith('.json'))).toBe(true);
	});
	test('however a path is written, it is one page, with one address', async () => {
		const canonicals = await Promise.all(
			['/boats/caf%C3%A9%20x', '/boats/café x'].map(async (path) => {
				const got = await head(path);
				return [got.status, /rel="canonical" href="([^"]*)"/.exec(await got.text())?.[1]];
			})
		);
		expect(canonicals[0]).toEqual([200, 'https://s.example/boats/caf%C3%A9%20x']);
		expect(canonicals[1]).toEqual(canonicals[0]);
		expect(new Set(asked)).toEqual(new Set(['/data/caf%C3%A9%20x.json']));
		// What is no path of a page is told as that, and fails nothing.
		for (const odd of ['/boats/a\u0000b', '/boats/\ud800', '/boats/%', `/boats/${'x'.repeat(5000)}`])
			expect([200, 404]).toContain((await head(odd.toWellFormed())).status);
	});
	test('a source inside a network is not asked where nobody named it', async () => {
		const refused = await head(fresh(), '', closed);
		const { code, detail } = (await refused.json()) as { code: string; detail: string };
		expect([refused.status, code, asked]).toEqual([503, 'source-away', []]);
		expect(detail).toContain('leads to this machine');
		expect(refused.headers.get('retry-after')).toBe('5');
	});
	test('fifty at once ask the source once', async () => {
		answer = (request, response) => void setTimeout(() => boat('Slow')(request, response), 200);
		const path = fresh();
		const all = await Promise.all(Array.from({ length: 50 }, () => head(path).then((one) => one.text())));
		expect([new Set(all).size, asked.length]).toEqual([1, 1]);
	});
});

describe('while the source is away', () => {
	test('the last good head goes out, and that is told: in the answer, and to whoever asks the desk', async () => {
		const path = fresh();
		answer = boat('Gone soon', 'max-age=0');
		const html = await (await head(path, '', desk)).text();
		answer = (_, response) => void response.writeHead(500).end();
		await expect
			.poll(async () => (await head(path, '', desk)).headers.get('kephalon-record'), { timeout: 10_000 })
			.toBe('late');
		const late = await head(path, '', desk);
		expect([late.status, await late.text()]).toEqual([200, html]);
		const away = (await (await fetch(`${desk}/api/v1/sites/S/sources`)).json()) as object[];
		expect(away).toEqual([
			{ type: 'boat', why: 'It answered 500.', since: expect.stringMatching(/^\d{4}-\d\d-\d\dT/) }
		]);
		answer = boat('Back', 'max-age=0');
		await expect
			.poll(async () => (await head(path, '', desk)).text(), { timeout: 10_000 })
			.toContain('Back, Long Strand');
		expect(await (await fetch(`${desk}/api/v1/sites/S/sources`)).json()).toEqual([]);
	});
});

describe('put into pages that go past', () => {
	test('as all heads are', async () => {
		const path = fresh();
		// On a busy machine the record may come later than a page waits for it; then the next one has it.
		let page = '';
		await expect
			.poll(async () => (page = await (await fetch(front + path)).text()), { timeout: 10_000 })
			.toContain('<title>Tern, Long Strand</title>');
		expect(page).toContain('<body><p>Text</p></body>');
		expect(page).not.toContain('Own');
	});
	test('a source that says nothing holds no page for long', async () => {
		answer = () => undefined;
		const began = Date.now();
		const page = await (await fetch(front + fresh())).text();
		expect(page).toContain('<title>Own</title>');
		expect(Date.now() - began).toBeLessThan(20_000);
	});
});

describe('tried', () => {
	test('a record, and what each field comes to; by another mapping, too', async () => {
		const { status, told } = await ask('/records', { type: 'boat', path: '/boats/9' });
		expect([status, told.status, told.fields]).toEqual([
			...[200, 200],
			{ title: 'Tern', harbour: 'Long Strand', picture: { src: 'https://img.example/7.jpg' } }
		]);
		expect(told.record).toContain('"harbour": "Long Strand"');
		const other = await ask('/records', {
			type: 'boat',
			path: '/boats/9',
			mapping: { title: '$.about.*', short: '/none' }
		});
		expect(other.told.fields).toEqual({ title: 'Long Strand' });
		expect((await ask('/records', { type: 'boat', path: '/cars/9' })).told.code).toBe('record-of-none');
		expect((await ask('/records', { type: 'none', path: '/boats/9' })).told.code).toBe('type-missing');
		expect((await ask('/records', { type: 'boat', path: '/boats/9', mapping: { title: '$..a..b' } })).told.code).toBe(
			'mapping-broken'
		);
		const broken = { path: '/boats/{id}', address: 'http://{id}/' };
		expect((await ask('/records', { type: 'boat', path: '/boats/9', source: broken })).told.code).toBe('source-broken');
	});
	test('templates on the samples of the source, and on paths that are named', async () => {
		answer = (request, response) =>
			request.url === '/data/404.json'
				? void response.writeHead(404).end()
				: boat(`Boat ${request.url}`)(request, response);
		const edit = {
			place: { layer: 'type', name: 'boat' },
			tag: 'title',
			body: { kind: 'template', template: '{page.title}!' }
		};
		const { told } = await ask('/tries', { edits: [edit], type: 'boat', live: ['/boats/55', '/elsewhere'] });
		const tried = told as unknown as { path: string; away?: string; values: { value: string }[] }[];
		const of = (path: string) => tried.find((one) => one.path === path);
		expect(of('/boats/55')!.values[0]!.value).toBe('Boat /data/55.json!');
		expect(of('/boats/1')!.values[0]!.value).toBe('Boat /data/1.json!');
		expect(of('/boats/404')).toMatchObject({ away: 'It answered 404.', values: [] });
		expect(of('/elsewhere')!.away).toMatch(/No type names a source/);
	});
	test.each([
		['no JSON', 'HTTP/1.1 200 OK\r\nContent-Length: 3\r\n\r\nabc', 'no JSON'],
		['a number', 'HTTP/1.1 200 OK\r\nContent-Length: 1\r\n\r\n7', 'no record'],
		['not UTF-8', 'HTTP/1.1 200 OK\r\nContent-Length: 9\r\n\r\n{"a":"\xff"}', 'UTF-8'],
		['broken off', 'HTTP/1.1 200 OK\r\nContent-Length: 900\r\n\r\n{"a":', 'broke off'],
		['no HTTP', 'hello\r\n\r\n', 'could not be reached'],
		['nothing', '', 'broke off'],
		['more than 5 MB', `HTTP/1.1 200 OK\r\n\r\n{"a":"${'x'.repeat(5_100_000)}"}`, '5 MB'],
		[
			'a way inside',
			'HTTP/1.1 302 Found\r\nLocation: http://10.0.0.1/\r\nContent-Length: 0\r\n\r\n',
			'private network'
		],
		['a way round', 'HTTP/1.1 302 Found\r\nLocation: /again\r\nContent-Length: 0\r\n\r\n', 'leads on'],
		[
			'a way to a file',
			'HTTP/1.1 302 Found\r\nLocation: file:///etc/passwd\r\nContent-Length: 0\r\n\r\n',
			'begins with file:'
		],
		['lists in lists', `HTTP/1.1 200 OK\r\n\r\n${'['.repeat(100_000)}${']'.repeat(100_000)}`, '']
	])('a source that answers %s is told as that', async (_name, bytes, why) => {
		const raw = createRaw((socket) => {
			socket.on('error', () => undefined);
			socket.once('data', () => socket.end(Buffer.from(bytes, 'latin1')));
		}).listen(0, '127.0.0.1');
		await new Promise((done) => raw.once('listening', done));
		// A redirect of the named source is the way by which it answers otherwise.
		const there = `http://127.0.0.1:${(raw.address() as AddressInfo).port}`;
		const own = await start('serve', '--port', '0', '--source', there);
		const got = await fetch(`${own}/api/v1/sites/S/records`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({
				type: 'boat',
				path: '/boats/9',
				source: { path: '/boats/{id}', address: `${there}/{id}` }
			})
		});
		const told = (await got.json()) as { why?: string; fields?: object };
		expect(got.status).toBe(200);
		if (why === '') expect(told.why ?? told.fields).toBeDefined();
		else expect(told.why).toContain(why);
		children.pop()!.kill();
		raw.close();
	});
});
