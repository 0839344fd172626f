import { createServer, type RequestListener, type Server } from 'node:http';
import { createServer as listen } from 'node:net';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readRecord } from './readRecord';
import { refuseSource, sourceOf } from './sources';

/** One record, asked for through the guard. */
let server: Server;
let origin = '';
let answer: RequestListener = (_, response) => void response.end('{}');
let asked: (string | undefined)[] = [];
beforeAll(async () => {
	server = createServer((request, response) => {
		asked.push(request.headers['if-none-match']);
		answer(request, response);
	}).listen(0, '127.0.0.1');
	await new Promise((done) => server.once('listening', done));
	origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
	server.closeAllConnections();
	server.close();
});
const read = (more: object = {}) => readRecord({ address: `${origin}/7`, inside: [origin], ...more });
const json = (record: unknown, headers: Record<string, string> = {}) => {
	answer = (_, response) => void response.writeHead(200, headers).end(JSON.stringify(record));
};

describe('a record', () => {
	test('comes with its fields, by a mapping or by their names, and what says how long it may be kept', async () => {
		json(
			{ name: 'Tern', 'a/b~c': 1, about: { harbour: 'Strand' }, none: null },
			{ 'cache-control': 'max-age=5', etag: '"a"', 'x-other': '1' }
		);
		expect(await read()).toEqual({
			...{ status: 200, headers: { 'cache-control': 'max-age=5', etag: '"a"', date: expect.any(String) } },
			fields: { name: 'Tern', 'a/b~c': 1 }
		});
		expect((await read({ mapping: { title: '/name', harbour: '$.about.harbour' } })).fields).toEqual({
			title: 'Tern',
			harbour: 'Strand'
		});
		const whole = await read({ mapping: { title: '/name', odd: 'nothing' }, whole: true });
		expect([whole.fields, Object.keys(whole.problems!), whole.record!.includes('"harbour": "Strand"')]).toEqual([
			{ title: 'Tern' },
			['odd'],
			true
		]);
	});
	test('is asked for with what is known of it', async () => {
		asked = [];
		answer = (_, response) => void response.writeHead(304, { etag: '"a"' }).end();
		expect(await read({ known: { 'if-none-match': '"a"' } })).toEqual({
			status: 304,
			headers: { etag: '"a"', date: expect.any(String) }
		});
		expect(asked).toEqual(['"a"']);
	});
	test('is followed where it leads, and no further than three times', async () => {
		let hops = 0;
		answer = (request, response) =>
			request.url === '/end'
				? void response.end('{"name":"Tern"}')
				: void response.writeHead(302, { location: hops++ < 1 ? '/next' : '/end' }).end();
		expect((await read()).fields).toEqual({ name: 'Tern' });
		answer = (_, response) => void response.writeHead(302, { location: '/again' }).end();
		expect((await read()).why).toMatch(/leads on more than 3 times/);
		answer = (_, response) => void response.writeHead(302, { location: 'http://192.168.0.1/' }).end();
		expect((await read()).why).toMatch(/private network/);
	});
	test.each([
		['no JSON', () => (answer = (_, response) => void response.end('abc')), /no JSON/],
		['a list of none', () => json(7), /no record/],
		['not UTF-8', () => (answer = (_, response) => void response.end(Buffer.from([0x22, 0xff, 0x22]))), /UTF-8/],
		[
			'broken off',
			() =>
				(answer = (_, response) => (
					response.writeHead(200, { 'content-length': '9' }),
					response.write('{'),
					void response.destroy()
				)),
			/broke off|could not/
		],
		['too long', () => (answer = (_, response) => void response.end(`{"a":"${'x'.repeat(5_100_000)}"}`)), /5 MB/]
	] as const)('%s is told', async (_name, set, why) => {
		set();
		const got = await read();
		expect([got.status, got.fields]).toEqual([undefined, undefined]);
		expect(got.why).toMatch(why);
	});
	test('is asked for once more where a kept connection is closed under it, and not for ever', async () => {
		let connections = 0;
		const body = 'HTTP/1.1 200 OK\r\ncontent-type: application/json\r\ncontent-length: 15\r\n\r\n{"name":"Tern"}';
		let answers = 1;
		const raw = listen((socket) => {
			connections++;
			let left = answers;
			socket.on('error', () => undefined).on('data', () => (left-- > 0 ? socket.write(body) : socket.destroy()));
		}).listen(0, '127.0.0.1');
		await new Promise((done) => raw.once('listening', done));
		const at = `http://127.0.0.1:${(raw.address() as AddressInfo).port}`;
		const ask = () => readRecord({ address: `${at}/7`, inside: [at] });
		expect([(await ask()).fields, (await ask()).fields, connections]).toEqual([{ name: 'Tern' }, { name: 'Tern' }, 2]);
		answers = 0;
		expect((await ask()).why).toMatch(/broke off/);
		expect(connections).toBeLessThanOrEqual(4);
		raw.close();
	});
	test('inside a network it is asked for only where that was named', async () => {
		json({ name: 'Tern' });
		expect((await readRecord({ address: `${origin}/7`, inside: [] })).why).toMatch(/leads to this machine/);
		expect((await readRecord({ address: 'http://nobody.invalid/', inside: [] })).why).toMatch(/no such host|could not/);
		expect((await readRecord({ address: 'http://127.0.0.1:1/', inside: ['http://127.0.0.1:1'] })).why).toMatch(
			/Nobody listens/
		);
		expect((await read({ mapping: { title: 'nothing' } })).why).toMatch(/pointer begins with/);
	});
});

describe('which source has a page', () => {
	const type = (name: string, path: string, more: object = {}) => ({
		...{ name, fields: [], rules: [], source: { path, address: 'https://data.example/{id}' } },
		...more
	});
	test('the first type that is not switched off; its path as it stands in an address', () => {
		const types = [type('off', '/b/{id}', { off: true }), type('one', '/b/{id}'), type('two', '/{a}/{id}')];
		expect(sourceOf(types, '/b/7')).toMatchObject({
			path: '/b/7',
			address: 'https://data.example/7',
			type: { name: 'one' }
		});
		expect(sourceOf(types, '/b/é x')).toMatchObject({
			path: '/b/%C3%A9%20x',
			address: 'https://data.example/%C3%A9%20x'
		});
		expect(sourceOf(types, '/c/7')?.type.name).toBe('two');
		expect(sourceOf(types, '/c')).toBeUndefined();
		expect(sourceOf([{ name: 'none', fields: [], rules: [] }], '/b/7')).toBeUndefined();
	});
	test('one that gives nothing, and a mapping that cannot be read, are refused', () => {
		expect(() => refuseSource({ name: 'b', source: { path: '/b', address: 'https://d.example/' } })).toThrow(
			/is no source: its path says no/
		);
		expect(() => refuseSource({ name: 'b', mapping: { title: 'name' } })).toThrow(/pointer begins/);
		expect(() => refuseSource({ name: 'b', mapping: { title: '$.name' } })).not.toThrow();
	});
});
