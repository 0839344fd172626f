import { createServer, request as ask, type IncomingMessage, type RequestListener, type Server } from 'node:http';
import { connect } from 'node:net';
import { brotliCompressSync, brotliDecompressSync, gunzipSync, gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { afterEach, describe, expect, test } from 'vitest';
import { headToJson, Resolver, type Site } from '$core';
import { Proxy } from './proxy';
import { testServers } from './served.sample';
import { WrittenHead } from './writtenHead';

/** A server in front of another: heads are written into pages, and all else goes through as it is. */

const SINCE = Date.parse('2026-03-01T10:00:00Z');
const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
	rules: [
		{ tag: 'title', kind: 'template', template: '{page.title}' },
		{ tag: 'description', kind: 'template', template: 'What is released.' }
	]
};
const json = headToJson(
	new Resolver(
		{ site, types: [{ name: 'page', fields: [], rules: [] }], pictures: [] },
		'2026-03-01T10:00:00Z'
	).resolveHead({
		...{ path: '/a', type: 'page', state: 'live', rules: [] },
		fields: { title: 'Café — the released title' }
	})
);
const head = new WrittenHead(json, 'abc123', SINCE);
const LINES = ['<title>Café — the released title</title>', '<meta name="description" content="What is released.">'];

const { listening, end } = testServers();
afterEach(end);

/** A front before a server, with a head for every path that does not begin with `/bare`. */
async function front(
	behind: RequestListener | Server,
	headOf = (path: string) => (path.startsWith('/bare') ? undefined : head)
) {
	const upstream = new URL(`http://127.0.0.1:${await listening(behind)}`);
	const proxy = new Proxy({ upstream, headOf, patience: 2000 });
	const server = createServer(proxy.listener);
	proxy.serve(server);
	return listening(server);
}
interface Got {
	readonly status: number;
	readonly headers: IncomingMessage['headers'];
	readonly body: Buffer;
	readonly trailers: IncomingMessage['trailers'];
	readonly hints: readonly unknown[];
}
const fetched = (port: number, path: string, headers: Record<string, string> = {}, method = 'GET') =>
	new Promise<Got>((done, fail) => {
		const hints: unknown[] = [];
		ask({ host: '127.0.0.1', port, path, headers, method, agent: false })
			.on('information', ({ statusCode, headers: said }) => hints.push([statusCode, said.link]))
			.on('error', fail)
			.on('response', (answer) => {
				const parts: Buffer[] = [];
				answer.on('data', (part: Buffer) => parts.push(part));
				answer.on('error', fail);
				answer.on('end', () =>
					done({
						...{ status: answer.statusCode!, headers: answer.headers, body: Buffer.concat(parts) },
						...{ trailers: answer.trailers, hints }
					})
				);
			})
			.end();
	});

const BODY = `<body><h1>A page</h1><p>${'Café, é and \u{1F98A}. '.repeat(500)}</p>\n</body></html>\n`;
const page = (charset = '<meta charset="utf-8">', own = '<title>Its own</title>\n<meta name="keywords" content="a">') =>
	`<!doctype html>\n<html lang="en">\n<head>\n${charset}\n${own}\n</head>\n${BODY}`;
const html: RequestListener = (_, response) =>
	void response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', etag: '"v1"' }).end(page());

describe('a page', () => {
	test('has the released head in the place of its own tags, and its body byte for byte', async () => {
		const { body, headers, status } = await fetched(await front(html), '/a');
		const text = body.toString();
		expect(status).toBe(200);
		for (const line of LINES) expect(text).toContain(line);
		expect(text).not.toContain('Its own');
		expect(text).toContain('<meta name="keywords" content="a">');
		expect(text.slice(text.indexOf('</head>'))).toBe(`</head>\n${BODY}`);
		expect([headers['content-length'], headers['accept-ranges'], headers.etag]).toEqual([
			undefined,
			undefined,
			'"v1-k-abc123"'
		]);
	});

	test('that comes byte by byte comes out the same', async () => {
		const whole = (await fetched(await front(html), '/a')).body.toString();
		const slowly: RequestListener = (_, response) => {
			response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' });
			const bytes = Buffer.from(page());
			for (let at = 0; at < 600; at++) response.write(bytes.subarray(at, at + 1));
			response.end(bytes.subarray(600));
		};
		expect((await fetched(await front(slowly), '/a')).body.toString()).toBe(whole);
	});

	test.each([
		['gzip', gzipSync, gunzipSync],
		['br', brotliCompressSync, brotliDecompressSync]
	] as const)('packed as %s is undone, and packed again', async (coding, pack, unpack) => {
		const port = await front((request, response) => {
			expect(request.headers['accept-encoding']).toBe(coding);
			response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'content-encoding': coding, etag: '"p"' });
			response.end(pack(page()));
		});
		const { body, headers } = await fetched(port, '/a', { 'accept-encoding': `${coding}, zstd` });
		expect([headers['content-encoding'], headers.etag]).toEqual([coding, 'W/"p-k-abc123"']);
		expect(unpack(body).toString()).toContain(LINES[0]);
		expect(unpack(body).toString()).toContain(BODY);
	});

	test('in another encoding has it in that one: by what its server says, else by what it says itself', async () => {
		const port = await front((request, response) => {
			const said = request.url === '/said' ? '; charset=iso-8859-1' : '';
			response.writeHead(200, { 'content-type': `text/html${said}` });
			response.end(
				Buffer.from(
					page(request.url === '/said' ? '' : '<meta charset="windows-1252">').replaceAll('\u{1F98A}', '-'),
					'latin1'
				)
			);
		});
		for (const path of ['/said', '/own']) {
			const text = (await fetched(port, path)).body.toString('latin1');
			expect(text).toContain('<title>Café \u0097 the released title</title>');
		}
	});

	test.each([
		['whose head never ends', `<html><head><title>x</title>${'<!-- long -->'.repeat(60_000)}`],
		['that is text', 'Not a page at all, but called one.'],
		['whose title is never closed', `<html><head><title>Open<body>${BODY}`],
		['in UTF-16', Buffer.from(`\ufeff${page('')}`, 'utf16le')],
		['that is empty', '']
	])('%s comes out unharmed: nothing of it is lost', async (_, content) => {
		const port = await front((_request, response) => {
			response.writeHead(200, { 'content-type': 'text/html' });
			response.write(content.slice(0, 20));
			setTimeout(() => response.end(content.slice(20)), 20);
		});
		const { body } = await fetched(port, '/a');
		const [first, last] = [Buffer.from(content).subarray(0, 6), Buffer.from(content).subarray(-200)];
		if (content.length > 0)
			expect([body.indexOf(first) >= 0, body.subarray(-last.length).equals(last)]).toEqual([true, true]);
	});

	test('however it is cut into parts, what is behind the head is as it was', async () => {
		let content = Buffer.alloc(0);
		let cuts: readonly number[] = [];
		const port = await front((_, response) => {
			response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' });
			let from = 0;
			for (const at of [...cuts].sort((a, b) => a - b)) {
				response.write(content.subarray(from, Math.min(at, content.length)));
				from = Math.max(from, Math.min(at, content.length));
			}
			response.end(content.subarray(from));
		});
		const bodies = fc
			.string({ unit: 'grapheme', maxLength: 300 })
			.map((text) => text.replaceAll('<', '').replaceAll('\0', ''));
		await fc.assert(
			fc.asyncProperty(bodies, fc.array(fc.nat(800), { maxLength: 6 }), async (text, at) => {
				const behind = `</head><body><p>${text}</p></body></html>`;
				content = Buffer.from(`<!doctype html><html><head><meta charset=utf-8><title>Own</title>${behind}`);
				cuts = at;
				const out = (await fetched(port, '/a')).body.toString();
				expect(out.slice(out.indexOf('</head>'))).toBe(behind);
				expect(out).toContain(LINES[0]);
				expect(out).not.toContain('Own</title>');
			}),
			{ numRuns: 40 }
		);
	});
});

describe('conditions', () => {
	const seen: IncomingMessage['headers'][] = [];
	const conditional: RequestListener = (request, response) => {
		seen.push(request.headers);
		const has = request.headers['if-none-match'] === '"v1"' || request.headers['if-modified-since'] !== undefined;
		const fields = { etag: '"v1"', 'last-modified': 'Wed, 01 Jan 2025 00:00:00 GMT', 'content-type': 'text/html' };
		response.writeHead(has ? 304 : 200, fields).end(has ? '' : page());
	};
	test('who has the page with the head that stands is told so, by the name that it has it under', async () => {
		const port = await front(conditional);
		const first = await fetched(port, '/a');
		expect(first.headers.etag).toBe('"v1-k-abc123"');
		const again = await fetched(port, '/a', { 'if-none-match': first.headers.etag! });
		expect([again.status, again.headers.etag, again.body.length]).toEqual([304, '"v1-k-abc123"', 0]);
	});
	test('who has it with another head gets it anew, whatever its moment says', async () => {
		const port = await front(conditional);
		const since = 'Mon, 02 Mar 2026 00:00:00 GMT';
		const old = await fetched(port, '/a', { 'if-none-match': '"v1-k-older"', 'if-modified-since': since });
		expect(old.status).toBe(200);
		expect(seen.at(-1)).not.toHaveProperty('if-modified-since');
		expect((await fetched(port, '/a', { 'if-modified-since': 'Sat, 01 Feb 2025 00:00:00 GMT' })).status).toBe(200);
		expect((await fetched(port, '/a', { 'if-modified-since': since })).status).toBe(304);
	});
	test('it changed last when the later of the two did', async () => {
		const { headers } = await fetched(await front(conditional), '/a');
		expect(headers['last-modified']).toBe('Sun, 01 Mar 2026 10:00:00 GMT');
		expect((await fetched(await front(conditional), '/bare')).headers['last-modified']).toBe(
			'Wed, 01 Jan 2025 00:00:00 GMT'
		);
	});
	test('a part of a page with a head is the whole of it; of all else it is the part', async () => {
		const ranged: RequestListener = ({ headers }, response) => {
			if (headers.range === undefined) return html({} as never, response as never);
			response
				.writeHead(206, { 'content-range': 'bytes 0-3/9', 'content-length': 4, 'content-type': 'text/html' })
				.end('abcd');
		};
		const port = await front(ranged);
		const whole = await fetched(port, '/a', { range: 'bytes=0-3', 'if-range': '"v1"' });
		expect([whole.status, whole.body.toString().includes(LINES[0]!)]).toEqual([200, true]);
		const part = await fetched(port, '/bare', { range: 'bytes=0-3' });
		expect([part.status, part.headers['content-range'], part.body.toString()]).toEqual([206, 'bytes 0-3/9', 'abcd']);
	});
	test('HEAD names the page as GET does, and says no length', async () => {
		const port = await front(({ method }, response) => {
			response.writeHead(200, { 'content-type': 'text/html', 'content-length': 500, etag: '"v1"' });
			response.end(method === 'HEAD' ? undefined : 'x'.repeat(500));
		});
		const { headers, status } = await fetched(port, '/a', {}, 'HEAD');
		expect([status, headers.etag, headers['content-length']]).toEqual([200, '"v1-k-abc123"', undefined]);
		expect((await fetched(port, '/bare', {}, 'HEAD')).headers['content-length']).toBe('500');
	});
});

describe('all else goes through as it is', () => {
	test.each([
		['an error', 404, 'text/html'],
		['a picture', 200, 'image/png'],
		['a page to be downloaded', 200, 'text/html', 'attachment; filename=a.html'],
		['a page packed in a way that is not known', 200, 'text/html', '', 'zstd']
	])('%s', async (_, status, type, disposition = '', coding = '') => {
		const bytes = Buffer.from(Array.from({ length: 5000 }, (__, at) => at % 256));
		const port = await front((___, response) => {
			const more = {
				...(disposition && { 'content-disposition': disposition }),
				...(coding && { 'content-encoding': coding })
			};
			response
				.writeHead(status, { 'content-type': type, 'x-own': 'kept', 'content-length': bytes.length, ...more })
				.end(bytes);
		});
		const got = await fetched(port, '/a');
		expect([got.status, got.headers['x-own'], got.headers['content-length'], got.body.equals(bytes)]).toEqual([
			...[status, 'kept', '5000', true]
		]);
	});

	test('what is sent, whole, with who sent it; fields between two servers stay there', async () => {
		let got: IncomingMessage['headers'] = {};
		const port = await front((request, response) => {
			got = request.headers;
			request.pipe(response.writeHead(201, { connection: 'close, x-between', 'x-between': '1', 'x-kept': '2' }));
		});
		const bytes = Buffer.alloc(3_000_000, 'abc');
		const { status, body, headers } = await new Promise<Got>((done, fail) => {
			const asked = ask({
				host: '127.0.0.1',
				port,
				path: '/bare',
				method: 'POST',
				headers: { connection: 'close, x-own', 'x-own': '1' }
			});
			asked.on('error', fail).on('response', (answer) => {
				const parts: Buffer[] = [];
				answer.on('data', (part: Buffer) => parts.push(part));
				answer.on('end', () =>
					done({ status: answer.statusCode!, headers: answer.headers, body: Buffer.concat(parts) } as Got)
				);
			});
			asked.end(bytes);
		});
		expect([status, body.equals(bytes)]).toEqual([201, true]);
		expect([headers['x-between'], headers['x-kept']]).toEqual([undefined, '2']);
		expect(got['x-own']).toBeUndefined();
		expect(got['x-forwarded-for']).toBe('127.0.0.1');
	});

	test('hints that come early, and what comes behind the body', async () => {
		const port = await front((_, response) => {
			response.writeEarlyHints({ link: '</a.css>; rel=preload; as=style' });
			response.writeHead(200, { 'content-type': 'text/plain', trailer: 'x-sum' });
			response.write('text');
			response.addTrailers({ 'x-sum': '7' });
			response.end();
		});
		const got = await fetched(port, '/bare');
		expect(got.hints).toEqual([[103, '</a.css>; rel=preload; as=style']]);
		expect(got.trailers).toEqual({ 'x-sum': '7' });
	});

	test('a connection that becomes another protocol, both ways', async () => {
		const server = createServer();
		server.on('upgrade', (request, socket) => {
			socket.write(
				`HTTP/1.1 101 Switching Protocols\r\nUpgrade: ${request.headers.upgrade}\r\nConnection: Upgrade\r\n\r\n`
			);
			socket.on('data', (data: Buffer) => socket.write(`echo ${data.toString()}`));
			socket.on('end', () => socket.end()).on('error', () => undefined);
		});
		const port = await front(server);
		const told = await new Promise<string>((done, fail) => {
			let text = '';
			const socket = connect(port, '127.0.0.1', () =>
				socket.write('GET /bare HTTP/1.1\r\nHost: x\r\nConnection: Upgrade\r\nUpgrade: chat\r\n\r\n')
			);
			socket.on('error', fail);
			socket.on('data', (data: Buffer) => {
				text += data.toString();
				if (text.endsWith('\r\n\r\n')) socket.write('hello');
				if (text.includes('echo hello')) {
					socket.destroy();
					done(text);
				}
			});
		});
		expect(told).toMatch(/^HTTP\/1\.1 101 /);
		expect(told).toMatch(/upgrade: chat/i);
	});

	test('who asks before sending is told to go on by the server behind', async () => {
		const server = createServer((request, response) => request.pipe(response));
		let asked = 0;
		server.on('checkContinue', (request: IncomingMessage, response) => {
			asked++;
			response.writeContinue();
			request.pipe(response);
		});
		const port = await front(server);
		const body = await new Promise<string>((done, fail) => {
			const sending = ask({
				host: '127.0.0.1',
				port,
				path: '/bare',
				method: 'POST',
				headers: { expect: '100-continue', 'content-length': 4 }
			});
			sending.on('error', fail).on('continue', () => sending.end('four'));
			sending.on('response', (answer) => answer.on('data', (data: Buffer) => done(data.toString())));
			sending.flushHeaders();
		});
		expect([body, asked]).toEqual(['four', 1]);
	});
});

describe('where the server behind', () => {
	test('is not there, it is said, with 502', async () => {
		const proxy = new Proxy({ upstream: new URL('http://127.0.0.1:1'), headOf: () => head });
		const port = await listening(createServer(proxy.listener));
		const { status, body } = await fetched(port, '/a');
		expect([status, body.toString()]).toEqual([502, 'The server behind does not answer.\n']);
	});
	test('says nothing, it is given up after a while, with 504', async () => {
		expect((await fetched(await front(() => undefined), '/a')).status).toBe(504);
	});
	test('closes a connection at hand as it is asked, what only reads is asked again, and what changes something is not', async () => {
		let asked = 0;
		const server = createServer((_request, response) => {
			asked++;
			// The second over each connection finds it shut.
			if (response.req.socket.bytesWritten > 0) return void response.req.socket.resetAndDestroy();
			response.writeHead(200, { 'content-type': 'text/plain' }).end('there');
		});
		const port = await front(server);
		for (let n = 0; n < 3; n++) expect((await fetched(port, '/bare')).body.toString()).toBe('there');
		expect(asked).toBeGreaterThan(3);
		const before = asked;
		expect((await fetched(port, '/bare', { 'content-length': '0' }, 'POST')).status).toBe(502);
		expect(asked - before).toBe(1);
	});
	test('breaks off in the middle of a page, so does the answer', async () => {
		const port = await front((_, response) => {
			response.writeHead(200, { 'content-type': 'text/html', 'content-length': 90_000 });
			response.write(page());
			setTimeout(() => response.destroy(), 30);
		});
		await expect(fetched(port, '/a')).rejects.toThrow();
	});
	test('goes on while its asker has gone, it is told', async () => {
		let isGone: () => void = () => undefined;
		const gone = new Promise<void>((done) => (isGone = done));
		const port = await front((_, response) => {
			response.writeHead(200, { 'content-type': 'text/plain' });
			const timer = setInterval(() => response.write('on and on'), 5);
			response.on('close', () => {
				clearInterval(timer);
				isGone();
			});
		});
		const asking = ask({ host: '127.0.0.1', port, path: '/bare', agent: false }, (answer) => {
			answer.once('data', () => asking.destroy());
			answer.on('error', () => undefined);
		});
		asking.on('error', () => undefined).end();
		await gone;
	});
});
