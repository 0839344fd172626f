import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { brotliCompressSync, deflateRawSync, deflateSync, gzipSync } from 'node:zlib';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { UNTRUSTED } from './certificate.sample';
import { TracingFetcher, type TraceLimits } from './trace';

/** Every way that a fetch can end, against a server that can do all of them. */

type Answer = (response: ServerResponse, request: IncomingMessage) => void;
const answers = new Map<string, Answer>();
let [server, host] = [undefined as unknown as Server, ''];
let fetcher: TracingFetcher;
beforeAll(async () => {
	server = createServer((request, response) => {
		const answer = answers.get(request.url ?? '');
		if (answer) answer(response, request);
		else response.writeHead(404).end('no such page');
	});
	await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
	host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
	server.closeAllConnections();
	server.close();
});
beforeEach(() => {
	answers.clear();
	fetcher = new TracingFetcher(new Set([host]));
});
afterEach(() => fetcher.close());

const LIMITS: TraceLimits = { maxBytes: 1000, timeout: 5000, redirects: 3, headers: { 'user-agent': 'Tester' } };
const get = (path: string, limits: Partial<TraceLimits> = {}) =>
	fetcher.fetch(`http://${host}${path}`, { ...LIMITS, ...limits });
const says =
	(body: string | Buffer, headers: Record<string, string> = {}): Answer =>
	(response) =>
		response.writeHead(200, headers).end(body);
const leads =
	(to: string, status = 302): Answer =>
	(response) =>
		response.writeHead(status, { location: to }).end('moved');

describe('a body', () => {
	test('is read whole, with all that was said of it', async () => {
		answers.set('/a', says('<p>Tides', { 'content-type': 'text/html', 'set-cookie': 'a=1' }));
		const told = await get('/a');
		expect(told).toMatchObject({ end: 'whole', received: 8, hops: [{ address: `http://${host}/a`, status: 200 }] });
		expect(told.body.toString()).toBe('<p>Tides');
		expect(told.hops[0]!.headers).toMatchObject({ 'content-type': 'text/html', 'set-cookie': 'a=1' });
		expect(told.hops[0]!.began).toBeLessThanOrEqual(told.took);
		expect(told.why).toBeUndefined();
	});
	test('of an answer that is no success is read as well', async () => {
		const told = await get('/none');
		expect([told.end, told.hops[0]!.status, told.body.toString()]).toEqual(['whole', 404, 'no such page']);
	});
	test('is asked for with the headers of its reader', async () => {
		answers.set('/a', (response, request) => response.end(request.headers['user-agent']));
		expect((await get('/a')).body.toString()).toBe('Tester');
	});
	test('is cut where its reader stops', async () => {
		answers.set('/exact', says('x'.repeat(1000)));
		answers.set('/less', says('x'.repeat(999)));
		answers.set('/long', says('x'.repeat(50_000)));
		const [exact, less, long] = [await get('/exact'), await get('/less'), await get('/long')];
		expect([exact.end, exact.body.length]).toEqual(['cut', 1000]);
		expect([less.end, less.body.length]).toEqual(['whole', 999]);
		expect([long.end, long.body.length]).toEqual(['cut', 1000]);
	});
	test.each([
		['gzip', gzipSync],
		['x-gzip', gzipSync],
		['deflate', deflateSync],
		['br', brotliCompressSync],
		[' GZIP ', gzipSync]
	] as const)('packed by %s is unpacked', async (encoding, pack) => {
		answers.set('/a', says(pack('Tides twice a day'), { 'content-encoding': encoding }));
		const told = await get('/a');
		expect([told.end, told.body.toString()]).toEqual(['whole', 'Tides twice a day']);
	});
	test.each([
		['gzip', gzipSync],
		['br', brotliCompressSync]
	] as const)('packed by %s and larger than is read is cut, as far as it can be unpacked', async (encoding, pack) => {
		// Too even to be short when packed: letters by chance.
		let state = 5;
		const long = Array.from({ length: 6000 }, () => {
			state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
			return String.fromCharCode(97 + ((state >>> 16) % 26));
		}).join('');
		answers.set('/a', says(pack(long), { 'content-encoding': encoding }));
		const told = await get('/a', { maxBytes: 2000 });
		expect(told.end).toBe('cut');
		expect(told.body.length).toBeGreaterThan(500);
		expect(long.startsWith(told.body.toString())).toBe(true);
	});
	test('that unpacks into more than is read is read that far, however much is packed into it', async () => {
		answers.set('/more', says(gzipSync('x'.repeat(1001)), { 'content-encoding': 'gzip' }));
		answers.set('/bomb', says(gzipSync(Buffer.alloc(90_000_000)).subarray(0, 900), { 'content-encoding': 'gzip' }));
		answers.set('/brotli', says(brotliCompressSync('x'.repeat(5_000_000)), { 'content-encoding': 'br' }));
		answers.set('/just', says(gzipSync('x'.repeat(1000)), { 'content-encoding': 'gzip' }));
		for (const path of ['/more', '/bomb', '/brotli']) {
			const more = await get(path);
			expect([path, more.end, more.body.length]).toEqual([path, 'cut', 1000]);
		}
		expect(await get('/just')).toMatchObject({ end: 'whole', received: expect.any(Number) as number });
	});
	test('packed several times over is unpacked as often, whether one header says so or two', async () => {
		const twice = gzipSync(gzipSync('Tides'));
		answers.set('/twice', says(twice, { 'content-encoding': 'gzip, gzip' }));
		answers.set('/both', (response) =>
			response
				.writeHead(200, [
					['content-encoding', 'gzip'],
					['content-encoding', 'br']
				] as never)
				.end(brotliCompressSync(gzipSync('Tides')))
		);
		answers.set('/raw', says(deflateRawSync('Tides'), { 'content-encoding': 'deflate' }));
		answers.set('/many', says('x', { 'content-encoding': 'gzip, gzip, gzip, gzip, gzip' }));
		for (const path of ['/twice', '/both', '/raw'])
			expect([path, (await get(path)).body.toString()]).toEqual([path, 'Tides']);
		expect((await get('/twice')).packed).toEqual(twice);
		expect(await get('/many')).toMatchObject({ end: 'bad-compression', why: 'packed 5 times' });
	});
	test('packed in a way that nobody asked for is told as that', async () => {
		answers.set('/a', says('\x28\xb5\x2f\xfd', { 'content-encoding': 'zstd' }));
		expect(await get('/a')).toMatchObject({ end: 'unknown-packing', why: 'zstd' });
	});
	test('that says it is packed and is not', async () => {
		answers.set('/a', says('plain words', { 'content-encoding': 'gzip' }));
		expect(await get('/a')).toMatchObject({ end: 'bad-compression', received: 11 });
	});
	test('of an unknown packing is taken as it is', async () => {
		answers.set('/a', says('as it is', { 'content-encoding': 'identity' }));
		expect((await get('/a')).body.toString()).toBe('as it is');
	});
	test('shorter than its server said, or broken off', async () => {
		answers.set('/a', (response) => {
			response.writeHead(200, { 'content-length': '500' });
			response.write('only this');
			setTimeout(() => response.destroy(), 50);
		});
		const told = await get('/a');
		expect([told.end, told.body.toString()]).toEqual(['short', 'only this']);
	});
});

describe('on the way', () => {
	test('each hop is told, and what stands behind # is left out', async () => {
		answers.set('/a', leads('/b#part', 301));
		answers.set('/b', leads(`http://${host}/c`, 307));
		answers.set('/c', says('here'));
		const told = await get('/a');
		expect(told.hops.map(({ address, status }) => [address.slice(`http://${host}`.length), status])).toEqual([
			['/a', 301],
			['/b', 307],
			['/c', 200]
		]);
		expect([told.end, told.body.toString()]).toEqual(['whole', 'here']);
		expect(told.hops.map(({ began }) => began)).toEqual([...told.hops.map(({ began }) => began)].sort((a, b) => a - b));
	});
	test('as many redirects as the reader follows, and not one more', async () => {
		for (let at = 0; at < 5; at++) answers.set(`/${at}`, leads(`/${at + 1}`));
		answers.set('/3', says('the third'));
		expect((await get('/0', { redirects: 3 })).end).toBe('whole');
		const told = await get('/0', { redirects: 2 });
		expect(told).toMatchObject({ end: 'too-many-redirects', why: `http://${host}/3` });
		expect(told.hops).toHaveLength(3);
		expect((await get('/0', { redirects: 0 })).hops).toHaveLength(1);
	});
	test('in a circle', async () => {
		answers.set('/a', leads('/b'));
		answers.set('/b', leads('/a'));
		expect(await get('/a', { redirects: 9 })).toMatchObject({ end: 'loop', why: `http://${host}/a` });
		answers.set('/self', leads('/self'));
		expect((await get('/self')).hops).toHaveLength(1);
	});
	test('to another host, where the reader does not go there', async () => {
		const other = `http://localhost:${host.split(':')[1]}/b`;
		answers.set('/a', leads(other));
		expect(await get('/a', { otherHosts: false })).toMatchObject({ end: 'other-host', why: other });
		// The guard has its say where the reader goes.
		expect(await get('/a', { otherHosts: true })).toMatchObject({ end: 'refused' });
		answers.set('/same', leads('/c'));
		answers.set('/c', says('same host'));
		expect((await get('/same', { otherHosts: false })).end).toBe('whole');
	});
	test('to an inner network is refused, wherever it comes from', async () => {
		answers.set('/a', leads('http://10.0.0.1/secret'));
		const told = await get('/a');
		expect(told.end).toBe('refused');
		expect(told.why).toContain('http://10.0.0.1/secret');
		expect(await fetcher.fetch('http://192.168.0.1/', LIMITS)).toMatchObject({ end: 'refused', hops: [] });
	});
	test('only redirects of the kinds that are followed lead on', async () => {
		answers.set('/a', leads('/b', 308));
		answers.set('/b', says('there'));
		expect((await get('/a')).body.toString()).toBe('there');
		expect(await get('/a', { follows: [301, 302] })).toMatchObject({ end: 'whole', hops: [{ status: 308 }] });
		answers.set('/c', leads('/b', 300));
		expect(await get('/c')).toMatchObject({ hops: [{ status: 300 }] });
	});
	test('cookies are kept where the reader keeps them: without, a page that asks for one goes round in a circle', async () => {
		answers.set('/a', (response, request) =>
			request.headers.cookie === 'seen=1'
				? response.end('inside')
				: response
						.writeHead(302, { location: '/a', 'set-cookie': ['seen=1; Path=/', 'other=2; Domain=elsewhere.example'] })
						.end()
		);
		expect(await get('/a')).toMatchObject({ end: 'loop' });
		const kept = await get('/a', { cookies: true });
		expect([kept.end, kept.body.toString(), kept.hops.length]).toEqual(['whole', 'inside', 2]);
		// One fetch knows nothing of the one before.
		expect((await get('/a', { cookies: true })).hops).toHaveLength(2);
	});
	test('where it may not go, it stops', async () => {
		answers.set('/a', leads('/shut'));
		const asked: string[] = [];
		const mayFollow = (to: string) => {
			asked.push(to);
			return Promise.resolve(!to.endsWith('/shut'));
		};
		expect(await get('/a', { mayFollow })).toMatchObject({ end: 'shut', why: `http://${host}/shut` });
		expect(asked).toEqual([`http://${host}/shut`]);
	});
	test('a redirect that names no place is the end of it', async () => {
		answers.set('/a', (response) => response.writeHead(302).end('where to?'));
		answers.set('/b', leads('http://['));
		answers.set('/not', (response) => response.writeHead(304, { location: '/c' }).end());
		expect((await get('/a')).body.toString()).toBe('where to?');
		expect((await get('/b')).end).toBe('whole');
		// A place beside a success leads nowhere.
		answers.set('/ok', says('here', { location: '/c' }));
		expect((await get('/ok')).body.toString()).toBe('here');
	});
});

describe('without an answer', () => {
	test('in time', async () => {
		answers.set('/slow', () => undefined);
		const told = await get('/slow', { timeout: 200 });
		expect(told).toMatchObject({ end: 'timeout', why: 'nothing for 0.2 seconds', hops: [{ status: 0, headers: {} }] });
		answers.set('/drip', (response) => {
			response.writeHead(200);
			response.write('first words');
		});
		const begun = await get('/drip', { timeout: 300 });
		expect([begun.end, begun.body.toString()]).toEqual(['timeout', 'first words']);
	});
	test('ended from outside', async () => {
		answers.set('/slow', () => undefined);
		const stop = new AbortController();
		setTimeout(() => stop.abort(), 50);
		expect((await get('/slow', { signal: stop.signal })).end).toBe('timeout');
	});
	test('thrown out', async () => {
		answers.set('/reset', (response) => response.socket?.destroy());
		const told = await get('/reset');
		expect(told.end).toBe('reset');
		expect(told.why).toBeTruthy();
	});
	test('of a machine on which nothing listens, or whose certificate nobody vouches for', async () => {
		const tls = createTlsServer(UNTRUSTED, (_, response) => response.end('secret'));
		await new Promise<void>((ready) => tls.listen(0, '127.0.0.1', ready));
		const { port } = tls.address() as AddressInfo;
		const own = new TracingFetcher(new Set([`127.0.0.1:${port}`, '127.0.0.1:1']));
		const told = await own.fetch(`https://127.0.0.1:${port}/`, LIMITS);
		expect(told).toMatchObject({
			end: 'certificate',
			why: 'nobody who is trusted vouches for it',
			hops: [{ status: 0 }]
		});
		expect(await own.fetch('http://127.0.0.1:1/', LIMITS)).toMatchObject({ end: 'no-connection' });
		// A server that speaks no TLS is told as that.
		const plain = new TracingFetcher(new Set([host]));
		expect(await plain.fetch(`https://${host}/`, LIMITS)).toMatchObject({
			end: 'certificate',
			why: 'its server speaks no TLS that is understood'
		});
		await Promise.all([own.close(), plain.close()]);
		tls.closeAllConnections();
		tls.close();
	});
	test('of a name that nobody knows, or that leads inside', async () => {
		const resolving = (error: NodeJS.ErrnoException | null, address = '') =>
			new TracingFetcher(new Set(), undefined, ((
				_name: string,
				_options: object,
				done: (error: NodeJS.ErrnoException | null, all: { address: string; family: number }[]) => void
			) => done(error, address ? [{ address, family: 4 }] : [])) as never);
		const unknown = resolving(Object.assign(new Error('no'), { code: 'ENOTFOUND' }));
		expect(await unknown.fetch('http://nobody.example/', LIMITS)).toMatchObject({ end: 'unknown-name' });
		await unknown.close();
		const inside = resolving(null, '10.0.0.1');
		expect(await inside.fetch('http://inside.example/', LIMITS)).toMatchObject({ end: 'refused' });
		await inside.close();
	});
});

describe('a machine at hand', () => {
	test('stands in for a public address, and is told which', async () => {
		const via = { origin: 'https://site.example', at: `http://${host}` };
		const standing = new TracingFetcher(new Set(), via);
		const seen: Record<string, unknown>[] = [];
		answers.set('/a?b=1', (response, request) => {
			seen.push(request.headers);
			response.writeHead(302, { location: `http://${host}/c` }).end();
		});
		answers.set('/c', says('as it will be'));
		const told = await standing.fetch('https://site.example/a?b=1', LIMITS);
		expect(told.hops.map(({ address }) => address)).toEqual(['https://site.example/a?b=1', 'https://site.example/c']);
		expect([told.end, told.body.toString()]).toEqual(['whole', 'as it will be']);
		expect(seen[0]).toMatchObject({ 'x-forwarded-host': 'site.example', 'x-forwarded-proto': 'https' });
		// It may name itself as it was asked for: by the public name, over http.
		answers.set('/d', (response, request) =>
			response.writeHead(302, { location: `http://${request.headers.host}/c?d=1` }).end()
		);
		answers.set('/c?d=1', says('as it will be'));
		const named = await standing.fetch('https://site.example/d', LIMITS);
		expect([named.hops[1]?.address, named.body.toString()]).toEqual(['https://site.example/c?d=1', 'as it will be']);
		// The machine itself stays refused by its own address.
		expect(await standing.fetch(`http://${host}/c`, LIMITS)).toMatchObject({ end: 'refused' });
		await standing.close();
	});
	test('is asked under the public name, for each host that it stands in for', async () => {
		const at = `http://${host}`;
		const standing = new TracingFetcher(new Set(), [
			{ origin: new URL('https://möwe.example').origin, at },
			{ origin: 'https://media.example:8443', at }
		]);
		answers.set('/a', (response, request) => response.end(request.headers.host));
		const said = async (address: string) => (await standing.fetch(address, LIMITS)).body.toString();
		expect(await said('https://möwe.example:443/a')).toBe('xn--mwe-sna.example');
		expect(await said('https://media.example:8443/a')).toBe('media.example:8443');
		expect((await standing.fetch('http://media.example/a', LIMITS)).end).not.toBe('whole');
		await standing.close();
	});
	test('is no part of other fetches', async () => {
		answers.set('/a', (response, request) => response.end(String(request.headers['x-forwarded-host'])));
		expect((await get('/a')).body.toString()).toBe('undefined');
	});
});
