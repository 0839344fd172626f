import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, describe, expect, test, vi } from 'vitest';
import type { Delivery } from './delivery';
import { CLIENT_HEADER, frontOf, type FrontOptions } from './front';
import { Meter } from './meter';

/** Under which names the desk is reached, and whom a request is taken to come from. */
let server: Server | undefined;
afterEach(() => {
	server?.close();
	vi.unstubAllEnvs();
});
const delivery = { answer: () => false, isReady: () => true } as unknown as Delivery;

interface Answer {
	readonly status: number;
	readonly text: string;
	readonly headers: Readonly<Record<string, unknown>>;
}
async function ask(
	headers: Readonly<Record<string, string>>,
	options: Omit<FrontOptions, 'delivery' | 'desk'> = {},
	path = '/x'
): Promise<Answer> {
	const desk: FrontOptions['desk'] = ({ headers: got }, response) => void response.end(String(got[CLIENT_HEADER]));
	server = createServer(frontOf({ delivery, desk, ...options })).listen(0, '127.0.0.1');
	await new Promise((done) => server!.once('listening', done));
	const { port } = server.address() as AddressInfo;
	return new Promise((resolve, reject) => {
		const asking = request({ host: '127.0.0.1', port, path, headers: { host: 'localhost', ...headers } }, (answer) => {
			let text = '';
			answer.on('data', (data: Buffer) => (text += data.toString()));
			answer.on('end', () => resolve({ status: answer.statusCode!, text, headers: answer.headers }));
		});
		asking.on('error', reject);
		asking.end();
	});
}

describe('whom a request comes from', () => {
	const proxies = ['127.0.0.1', '10.0.0.2'];
	test.each([
		// Nobody else is believed.
		[{ 'x-forwarded-for': '203.0.113.9' }, [], '127.0.0.1'],
		[{ forwarded: 'for=203.0.113.9' }, ['10.0.0.2'], '127.0.0.1'],
		[{ [CLIENT_HEADER]: '203.0.113.9' }, [], '127.0.0.1'],
		[{ [CLIENT_HEADER]: '203.0.113.9' }, proxies, '127.0.0.1'],
		[{ 'x-forwarded-for': '203.0.113.9' }, proxies, '203.0.113.9'],
		// What stood there before the last proxy that is known may be made up.
		[{ 'x-forwarded-for': '198.51.100.1, 203.0.113.9' }, proxies, '203.0.113.9'],
		[{ 'x-forwarded-for': '198.51.100.1, 203.0.113.9, 10.0.0.2' }, proxies, '203.0.113.9'],
		[{ 'x-forwarded-for': '10.0.0.2' }, proxies, '127.0.0.1'],
		[{ 'x-forwarded-for': '' }, proxies, '127.0.0.1'],
		[{ 'x-forwarded-for': ' , ,' }, proxies, '127.0.0.1'],
		[{ forwarded: 'for=198.51.100.1;proto=https, for="203.0.113.9:4711";by=x' }, proxies, '203.0.113.9'],
		[{ forwarded: 'For="[2001:db8::7]:4711"' }, proxies, '2001:db8::7'],
		[{ forwarded: 'proto=https' }, proxies, '127.0.0.1'],
		[{ 'x-forwarded-for': '::ffff:203.0.113.9' }, proxies, '203.0.113.9'],
		[{ 'x-forwarded-for': 'x'.repeat(4000) }, proxies, 'x'.repeat(64)]
	])('%j, with the proxies %j: %s', async (headers, known, address) => {
		expect((await ask(headers as Record<string, string>, { proxies: known })).text).toBe(address);
	});
});

describe('names', () => {
	test.each([
		['localhost', [], 200],
		['127.0.0.1:4870', [], 200],
		['heads.example', [], 403],
		['heads.example', ['heads.example'], 200],
		['HEADS.example', ['heads.example'], 200],
		['heads.example:444', ['heads.example'], 403],
		['evil.example', ['heads.example'], 403],
		['heads.example.evil.example', ['heads.example'], 403],
		['localhost', ['heads.example'], 200]
	])('as %s where it is called %j: %i', async (host, hosts, status) => {
		expect((await ask({ host }, { hosts })).status).toBe(status);
	});
});

test('browsers are told what a page of the desk may not do, and to stay encrypted where it is', async () => {
	const plain = await ask({});
	expect(plain.headers).toMatchObject({
		...{
			'x-content-type-options': 'nosniff',
			'cross-origin-opener-policy': 'same-origin',
			'referrer-policy': 'same-origin'
		},
		'permissions-policy': expect.stringContaining('camera=()')
	});
	expect(plain.headers['strict-transport-security']).toBeUndefined();
	server!.close();
	vi.stubEnv('KEPHALON_SECURE', '1');
	expect((await ask({})).headers['strict-transport-security']).toMatch(/^max-age=\d{8}/);
});

describe('how much an address may ask', () => {
	test('so many a second, twice as many at once, each address by itself; this machine any', () => {
		const meter = new Meter(10);
		const taken = (address: string, now: number, many: number) =>
			Array.from({ length: many }, () => meter.takes(address, now)).filter(Boolean).length;
		expect(taken('203.0.113.9', 0, 50)).toBe(20);
		expect(taken('203.0.113.10', 0, 50)).toBe(20);
		expect(taken('203.0.113.9', 500, 50)).toBe(5);
		expect(taken('203.0.113.9', 60_000, 50)).toBe(20);
		for (const here of ['127.0.0.1', '::1']) expect(taken(here, 0, 500)).toBe(500);
		const open = new Meter(0);
		expect(open.takes('203.0.113.9', 0)).toBe(true);
	});
	test('many addresses take no memory without end, and one that asks too much is not let in by them', () => {
		const meter = new Meter(1);
		let greedy = 0;
		for (let at = 0; at < 100_000; at++) {
			meter.takes(`10.${at >> 16}.${(at >> 8) & 255}.${at & 255}`, 0);
			if (at % 100 === 0 && meter.takes('203.0.113.9', 0)) greedy++;
		}
		expect(greedy).toBe(2);
		expect((meter as unknown as { known: Map<string, unknown> }).known.size).toBeLessThanOrEqual(20_000);
	});
	test('is told, with when to come again', async () => {
		const headers = { 'x-forwarded-for': '203.0.113.9' };
		const options = { proxies: ['127.0.0.1'], perSecond: 1 };
		const desk: FrontOptions['desk'] = (_, response) => void response.end('desk');
		server = createServer(frontOf({ delivery, desk, ...options })).listen(0, '127.0.0.1');
		await new Promise((done) => server!.once('listening', done));
		const { port } = server.address() as AddressInfo;
		const asked = async (more: Record<string, string> = headers) => {
			const given = await fetch(`http://127.0.0.1:${port}/x`, { headers: more });
			return [given.status, given.headers.get('retry-after'), await given.text()] as const;
		};
		expect((await asked())[0]).toBe(200);
		expect((await asked())[0]).toBe(200);
		const [status, after, text] = await asked();
		expect([status, after]).toEqual([429, '1']);
		expect(JSON.parse(text)).toMatchObject({ code: 'too-many-requests' });
		expect((await asked({ 'x-forwarded-for': '203.0.113.10' }))[0]).toBe(200);
		// Whether it lives is asked by who looks after it.
		expect((await fetch(`http://127.0.0.1:${port}/health`, { headers })).status).toBe(200);
	});
});

describe('whom a window is cut off from that opened it', () => {
	test.each([
		['/panel/Docs/open', 'unsafe-none'],
		['/sign-in?to=%2Fpanel%2FDocs%2Fopen', 'unsafe-none'],
		['/sign-in?to=/panel/Docs/open', 'unsafe-none'],
		['/sign-in', 'same-origin'],
		['/sign-in?to=%2Fbench%2Fpanel%2F', 'same-origin'],
		['/sign-in?x=1&to=/panel/x', 'same-origin'],
		['/bench/panel/', 'same-origin'],
		['/panel', 'same-origin'],
		['//panel/Docs', 'same-origin']
	])('%s: %s', async (path, policy) => {
		expect((await ask({}, {}, path)).headers['cross-origin-opener-policy']).toBe(policy);
	});
});

test('how much an address has left is told, but not to this machine', async () => {
	const options = { perSecond: 1, proxies: ['127.0.0.1'] };
	const from = (address: string) => ask({ 'x-forwarded-for': address }, options);
	const limit = (answer: Answer) => [answer.headers['ratelimit-policy'], answer.headers.ratelimit];
	const first = await from('203.0.113.9');
	expect(limit(first)).toEqual(['"address";q=1;w=1', '"address";r=1;t=1']);
	expect(limit(await ask({}, options))).toEqual([undefined, undefined]);
	expect(limit(await ask({}))).toEqual([undefined, undefined]);
});
