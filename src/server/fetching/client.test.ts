import { createServer as serve, type AddressInfo, type LookupFunction, type Server } from 'node:net';
import { createServer as serveSecurely } from 'node:tls';
import { lookup } from 'node:dns';
import { afterAll, expect, test } from 'vitest';
import { Client, isMalformed } from './client';
import { UNTRUSTED } from './certificate.sample';

/** What answers as it is told, without a thought for HTTP. */
const servers: Server[] = [];
const opened = (server: Server) =>
	new Promise<number>((done) => {
		servers.push(server.listen(0, '127.0.0.1', () => done((server.address() as AddressInfo).port)));
	});
const answering = (answer: string) =>
	opened(
		serve((socket) => {
			socket.on('error', () => undefined);
			socket.once('data', () => socket.end(answer));
		})
	);
afterAll(() => servers.forEach((server) => server.close()));

const asked = () => ({ until: performance.now() + 30_000, headers: { 'user-agent': 'gull' }, wants: () => 1000 });

test.each([
	['a field that is folded', 'Content-Type: text/html;\r\n charset=utf-8\r\nContent-Length: 5\r\n\r\n'],
	['lines that end by LF', 'Content-Type: text/html\nContent-Length: 5\n\n'],
	['lengths that agree', 'Content-Length: 5\r\nContent-Length: 5\r\n\r\n']
])('%s are read, and the guard is asked each time a name is', async (_, fields) => {
	const port = await answering(`HTTP/1.1 200 OK\r\n${fields}hello`);
	const names: string[] = [];
	const guarded: LookupFunction = (name, options, done) => {
		names.push(name);
		lookup(name, options, done);
	};
	const client = new Client({ connect: { lookup: guarded } });
	const { body, statusCode } = await client.get(`http://localhost:${port}/`, asked());
	expect([statusCode, body.toString()]).toEqual([200, 'hello']);
	// Once by the client, once by the runtime's own: a name may have come to mean another machine meanwhile.
	expect(names).toEqual(['localhost', 'localhost']);
	await client.destroy();
});

test('the second time is refused where the guard refuses it', async () => {
	const port = await answering('HTTP/1.1 200 OK\r\nA: b\r\n c\r\nContent-Length: 5\r\n\r\nhello');
	let times = 0;
	const guarded: LookupFunction = (name, options, done) =>
		++times > 1 ? done(new Error('It leads inside.'), '', 4) : lookup(name, options, done);
	const client = new Client({ connect: { lookup: guarded } });
	await expect(client.get(`http://localhost:${port}/`, asked())).rejects.toThrow('It leads inside.');
	await client.destroy();
});

test('what is no HTTP stays what it is', async () => {
	const port = await answering('SSH-2.0-harbour\r\n');
	const client = new Client({});
	const error: unknown = await client.get(`http://127.0.0.1:${port}/`, asked()).catch((thrown: unknown) => thrown);
	expect(error instanceof Error && isMalformed(error)).toBe(true);
	await client.destroy();
});

test('over TLS a server is asked by its name', async () => {
	const names: (string | false | null)[] = [];
	const port = await opened(
		serveSecurely(UNTRUSTED, (socket) => {
			names.push(socket.servername);
			socket.on('error', () => undefined);
			socket.once('data', () => socket.end('HTTP/1.1 200 OK\r\nA: b\r\n c\r\nContent-Length: 5\r\n\r\nhello'));
		})
	);
	const trusts = process.env.NODE_TLS_REJECT_UNAUTHORIZED;
	process.env.NODE_TLS_REJECT_UNAUTHORIZED = '0';
	const client = new Client({});
	try {
		const { body } = await client.get(`https://localhost:${port}/`, asked());
		expect(body.toString()).toBe('hello');
	} finally {
		if (trusts === undefined) delete process.env.NODE_TLS_REJECT_UNAUTHORIZED;
		else process.env.NODE_TLS_REJECT_UNAUTHORIZED = trusts;
		await client.destroy();
	}
	expect(names).toEqual(['localhost', 'localhost']);
});
