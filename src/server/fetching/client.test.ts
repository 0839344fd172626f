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

/** Answers with a head and goes on for ever; `ended` is there when its asker goes. */
async function endless(head: string, part: string) {
	let tell: () => void;
	const ended = new Promise<void>((done) => (tell = done));
	const port = await opened(
		serve((socket) => {
			socket.on('error', () => undefined).on('close', () => tell());
			socket.once('data', () => {
				socket.write(head);
				const going = setInterval(() => socket.write(part), 5);
				socket.on('close', () => clearInterval(going));
			});
		})
	);
	return { port, ended };
}

test.each([
	['that leads on', 'HTTP/1.1 302 Found\r\nLocation: /b\r\nContent-Length: 9000000\r\n\r\n', 0],
	['without an end', 'HTTP/1.1 200 OK\r\n\r\n', 100],
	['that is not quite HTTP, without an end', 'HTTP/1.1 200 OK\r\nA: b\r\n c\r\n\r\n', 100]
])('a body %s is read as far as it is wanted, and its connection ends', async (_, head, wanted) => {
	const { port, ended } = await endless(head, 'gull '.repeat(10));
	const client = new Client({});
	const { body, isCut, failed } = await client.get(`http://127.0.0.1:${port}/`, { ...asked(), wants: () => wanted });
	expect(isCut).toBe(true);
	expect(failed).toBeUndefined();
	expect(body.length).toBeGreaterThanOrEqual(wanted);
	expect(body.length).toBeLessThan(wanted + 200);
	await ended;
	await client.destroy();
});

test('what is wanted is asked of the answer, not of what comes before it', async () => {
	const port = await answering(
		'HTTP/1.1 103 Early Hints\r\nLink: </a>\r\n\r\nHTTP/1.1 200 OK\r\nContent-Length: 5\r\n\r\nhello'
	);
	const client = new Client({});
	const statuses: number[] = [];
	const wants = (status: number) => statuses.push(status) * 100;
	const { body, statusCode } = await client.get(`http://127.0.0.1:${port}/`, { ...asked(), wants });
	expect([statuses, statusCode, body.toString()]).toEqual([[200], 200, 'hello']);
	await client.destroy();
});

test('what takes longer than its time ends with what came; before the head, with nothing', async () => {
	const { port, ended } = await endless('HTTP/1.1 200 OK\r\n\r\nhello', '');
	const silent = await opened(serve((socket) => socket.on('error', () => undefined)));
	const client = new Client({});
	const soon = () => ({ ...asked(), until: performance.now() + 100 });
	const { body, failed } = await client.get(`http://127.0.0.1:${port}/`, soon());
	expect([body.toString(), failed?.name]).toEqual(['hello', 'TimeoutError']);
	await ended;
	await expect(client.get(`http://127.0.0.1:${silent}/`, soon())).rejects.toMatchObject({ name: 'TimeoutError' });
	await client.destroy();
});

test('it ends when its asker says so: before it began, and in the midst of it', async () => {
	const { port, ended } = await endless('HTTP/1.1 200 OK\r\n\r\nhello', 'x');
	const client = new Client({});
	const stop = new AbortController();
	const going = client.get(`http://127.0.0.1:${port}/`, { ...asked(), wants: () => 1e9, signal: stop.signal });
	setTimeout(() => stop.abort(), 50);
	const { failed } = await going;
	expect(failed?.name).toBe('AbortError');
	await ended;
	const over = { ...asked(), signal: stop.signal };
	await expect(client.get(`http://127.0.0.1:${port}/`, over)).rejects.toMatchObject({ name: 'AbortError' });
	await client.destroy();
});

test('a body that breaks off says so and is there as far as it came', async () => {
	const port = await answering('HTTP/1.1 200 OK\r\nContent-Length: 50\r\n\r\nhello');
	const client = new Client({});
	const { body, failed } = await client.get(`http://127.0.0.1:${port}/`, asked());
	expect(body.toString()).toBe('hello');
	expect(failed).toBeInstanceOf(Error);
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
