import { request as ask, type IncomingMessage, type RequestListener } from 'node:http';
import { connect } from 'node:net';
import { Readable } from 'node:stream';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterEach, describe, expect, test } from 'vitest';
import { headToJson, Resolver, type Site } from '$core';
import type { HeadsFrom } from '../../bin/middleware.js';
import { testServers } from '$server/rewriting/served.sample';
import { heads, headsOf } from './middleware';

/** What the package says of itself is so. */
const typed: typeof import('../../bin/middleware.js') = { heads, headsOf };

/** Heads in the pages of a Node server, asked of a Kephalon that answers, is slow, is away, or answers nonsense. */
const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
	rules: [{ tag: 'title', kind: 'template', template: '{page.title}' }]
};
const headNamed = (title: string) =>
	JSON.stringify(
		headToJson(
			new Resolver(
				{ site, types: [{ name: 'page', fields: [], rules: [] }], pictures: [] },
				'2026-03-01T10:00:00Z'
			).resolveHead({ path: '/a', type: 'page', state: 'live', rules: [], fields: { title } })
		)
	);

const { listening, end } = testServers();
afterEach(end);
let title = 'Released';
/** Where the server that was made last is. */
let at = 0;
let asked: IncomingMessage[] = [];
const usual: RequestListener = (request, response) => {
	asked.push(request);
	const etag = `"${title}"`;
	if (request.url?.includes('none')) return void response.writeHead(404).end();
	if (request.headers['if-none-match'] === etag) return void response.writeHead(304, { etag }).end();
	response.writeHead(200, { etag, 'content-type': 'application/json' }).end(headNamed(title));
};
const page = `<!doctype html><html><head><meta charset="utf-8"><title>Own</title></head><body><p>${'Text. '.repeat(400)}</p></body></html>`;
const html: RequestListener = (_, response) => void response.setHeader('content-type', 'text/html').end(page);

async function served(kephalon: RequestListener, app: RequestListener = html, more: Partial<HeadsFrom> = {}) {
	asked = [];
	title = 'Released';
	const put = typed.heads({
		server: `http://127.0.0.1:${await listening(kephalon)}`,
		site: 'S',
		fresh: 0,
		patience: 5000,
		...more
	});
	const port = await listening((request, response) => put(request, response, () => app(request, response)));
	at = port;
	return (path: string, headers: Record<string, string> = {}, method = 'GET') =>
		new Promise<{ status: number; headers: IncomingMessage['headers']; text: string; took: number }>((done, fail) => {
			const began = performance.now();
			ask({ host: '127.0.0.1', port, path, headers, method, agent: false }, (answer) => {
				const parts: Buffer[] = [];
				answer.on('data', (part: Buffer) => parts.push(part));
				answer.on('end', () =>
					done({
						...{ status: answer.statusCode!, headers: answer.headers, text: Buffer.concat(parts).toString() },
						took: performance.now() - began
					})
				);
			})
				.on('error', fail)
				.end();
		});
}
const titleIn = ({ text }: { text: string }) => /<title>(.*?)<\/title>/.exec(text)?.[1];

describe('a page', () => {
	test.each<[string, RequestListener]>([
		['at once', html],
		[
			'in parts, with a head and a length',
			(_, response) => {
				response.writeHead(200, {
					'Content-Type': 'text/html; charset=utf-8',
					'Content-Length': Buffer.byteLength(page)
				});
				for (let at = 0; at < page.length; at += 100) response.write(page.slice(at, at + 100));
				response.end();
			}
		],
		[
			'later',
			(_, response) => void sleep(20).then(() => response.setHeader('content-type', 'text/html').end(Buffer.from(page)))
		],
		[
			'with fields as a list',
			(_, response) => {
				response.writeHead(200, 'OK', ['content-type', 'text/html'] as never);
				response.end(page, 'utf8', () => undefined);
			}
		]
	])('that is written %s has its head, and its body byte for byte', async (_, app) => {
		const get = await served(usual, app);
		const got = await get('/a');
		expect(titleIn(got)).toBe('Released');
		expect(got.text.slice(got.text.indexOf('</head>'))).toBe(page.slice(page.indexOf('</head>')));
		expect(got.headers['content-length']).toBeUndefined();
	});
	test('has the new head with the next request after a release, and asks by the tag it has', async () => {
		const get = await served(usual);
		await get('/a');
		title = 'Anew';
		await get('/a');
		await expect.poll(async () => titleIn(await get('/a'))).toBe('Anew');
		expect(asked.at(-1)?.headers['if-none-match']).toBe('"Anew"');
	});
	test('is named by itself and its head; who has both is told so by the server itself', async () => {
		const app: RequestListener = ({ headers }, response) => {
			response.setHeader('etag', '"v1"').setHeader('content-type', 'text/html');
			if (headers['if-none-match'] === '"v1"') response.writeHead(304).end();
			else response.end(page);
		};
		const get = await served(usual, app, { fresh: 60_000 });
		const { headers } = await get('/a');
		expect(headers.etag).toBe('"v1-k-Released"');
		expect((await get('/a', { 'if-none-match': headers.etag! })).status).toBe(304);
		expect((await get('/a', { 'if-none-match': '"v1-k-older"' })).status).toBe(200);
	});
});

describe('a page', () => {
	test('that is piped, however long, comes whole: who writes is told when there is room', async () => {
		const long = page.replace('</body>', `${'<p>More of it.</p>'.repeat(150_000)}</body>`);
		const get = await served(usual, (_, response) => {
			response.setHeader('content-type', 'text/html');
			Readable.from(long.match(/[^]{1,65536}/g)!).pipe(response);
		});
		const { text } = await get('/a');
		expect(titleIn({ text })).toBe('Released');
		expect(text.length).toBeGreaterThan(2_700_000);
		expect(text.slice(text.indexOf('</head>')) === long.slice(long.indexOf('</head>'))).toBe(true);
	});
	test('is never told as unchanged by the moment of its file alone, nor before its head is known', async () => {
		const app: RequestListener = ({ headers }, response) => {
			const has = headers['if-modified-since'] !== undefined || headers['if-none-match'] === '"v1"';
			const fields = { etag: '"v1"', 'last-modified': 'Wed, 01 Jan 2025 00:00:00 GMT', 'content-type': 'text/html' };
			response.writeHead(has ? 304 : 200, fields).end(has ? '' : page);
		};
		const get = await served(usual, app, { fresh: 60_000 });
		const since = { 'if-modified-since': 'Thu, 02 Jan 2025 00:00:00 GMT' };
		// What somebody has of a time before there were heads.
		const first = await get('/a', { ...since, 'if-none-match': '"v1"' });
		expect([first.status, first.headers['last-modified']]).toEqual([200, undefined]);
		expect((await get('/a', since)).status).toBe(200);
		const again = await get('/a', { ...since, 'if-none-match': first.headers.etag! });
		expect([again.status, again.headers.etag]).toEqual([304, first.headers.etag]);
		// A page that has no head is its server's own affair.
		await get('/none');
		expect((await get('/none', since)).status).toBe(304);
	});
	test('whose asker goes away before its head is there harms nobody; ended twice it ends once', async () => {
		const get = await served(
			(request, response) => void sleep(80).then(() => usual(request, response)),
			(_, response) => {
				response.setHeader('content-type', 'text/html').end(page);
				response.end();
			}
		);
		const other = connect(at, '127.0.0.1', () => {
			other.write('GET /b HTTP/1.1\r\nHost: x\r\n\r\n');
			setTimeout(() => other.destroy(), 10);
		});
		expect(titleIn(await get('/a'))).toBe('Released');
		await sleep(120);
		expect(titleIn(await get('/b'))).toBe('Released');
	});
});

describe('what is no page of ours goes out as it is', () => {
	test.each<[string, RequestListener]>([
		['a picture', (_, response) => void response.writeHead(200, { 'content-type': 'image/png' }).end('bytes')],
		['an error', (_, response) => void response.writeHead(500, { 'content-type': 'text/html' }).end(page)],
		[
			'what is packed',
			(_, response) =>
				void response.writeHead(200, { 'content-type': 'text/html', 'content-encoding': 'gzip' }).end('bytes')
		],
		['nothing', (_, response) => void response.writeHead(204).end()]
	])('%s', async (_, app) => {
		const [through, own] = [
			await (await served(usual, app))('/a'),
			await (await served((_r, r) => void r.destroy(), app))('/a')
		];
		expect([through.status, through.text, through.headers['content-type']]).toEqual([
			own.status,
			own.text,
			own.headers['content-type']
		]);
	});
	test('a page that has no head', async () => {
		expect(titleIn(await (await served(usual))('/none'))).toBe('Own');
	});
});

describe('while Kephalon', () => {
	test('is away, pages go on: as they are, or with the last good head', async () => {
		let isAway = true;
		const get = await served((request, response) => (isAway ? void response.destroy() : usual(request, response)));
		expect(titleIn(await get('/a'))).toBe('Own');
		isAway = false;
		expect(titleIn(await get('/a'))).toBe('Released');
		isAway = true;
		expect(titleIn(await get('/a'))).toBe('Released');
	});
	test('is slow, a page waits no longer than it may, and has the head once it is there', async () => {
		const get = await served((request, response) => void sleep(300).then(() => usual(request, response)), html, {
			patience: 20
		});
		const first = await get('/a');
		expect([titleIn(first), first.took < 250]).toEqual(['Own', true]);
		await sleep(400);
		expect(titleIn(await get('/a'))).toBe('Released');
	});
	test.each([
		['an error', 500, '{}'],
		['no JSON', 200, 'nonsense'],
		['another JSON', 200, '{"tags":[{}]}'],
		['null', 200, 'null']
	])('answers %s, pages go on', async (_, status, body) => {
		const get = await served(
			(_r, response) => void response.writeHead(status, { 'content-type': 'application/json' }).end(body)
		);
		expect(titleIn(await get('/a'))).toBe('Own');
	});
});

test('by web standards: a response with the head in it', async () => {
	title = 'Released';
	const put = headsOf({ server: `http://127.0.0.1:${await listening(usual)}`, site: 'S', patience: 5000 });
	const answered = (path: string, init: ResponseInit = { headers: { 'content-type': 'text/html', etag: '"v"' } }) =>
		put(new Request(`https://s.example${path}?q=1`), new Response(page, init));
	const response = await answered('/a');
	const text = await response.text();
	expect(titleIn({ text })).toBe('Released');
	expect(text.endsWith(page.slice(page.indexOf('</head>')))).toBe(true);
	expect(response.headers.get('etag')).toBe('"v-k-Released"');
	expect(await (await answered('/none')).text()).toBe(page);
	expect(await (await answered('/a', { headers: { 'content-type': 'text/plain' } })).text()).toBe(page);
});
