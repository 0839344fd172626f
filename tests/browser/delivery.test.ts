import { request } from 'node:http';
import { randomBytes } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { startDemo, type RunningDemo } from './demo';

/** The HTTP API and the stand-in website, without a browser. */
let demo: RunningDemo;
let heads: string;
beforeAll(async () => {
	demo = await startDemo();
	heads = `${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/head`;
});
afterAll(() => demo?.stop());

const get = (query: string, headers: Record<string, string> = {}) => fetch(heads + query, { headers });
const send = (what: string, method: string, body: unknown, headers: Record<string, string> = {}) =>
	fetch(`${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/${what}`, {
		method,
		headers: { 'content-type': 'application/json', ...headers },
		body: typeof body === 'string' ? body : JSON.stringify(body)
	});

/** A request with headers that fetch would not let through. */
function raw(path: string, headers: Record<string, string>): Promise<number> {
	const { hostname, port } = new URL(demo.kephalon);
	return new Promise((resolve, reject) => {
		request({ hostname, port, path, headers }, (answer) => {
			answer.resume();
			resolve(answer.statusCode ?? 0);
		})
			.on('error', reject)
			.end();
	});
}

describe('a released head', () => {
	test('by path and by address, as HTML and as JSON', async () => {
		const byPath = await get('?path=/visit');
		expect(byPath.status).toBe(200);
		expect(byPath.headers.get('content-type')).toBe('text/html; charset=utf-8');
		expect(byPath.headers.get('cache-control')).toContain('must-revalidate');
		const html = await byPath.text();
		expect(html).toMatch(/^<title>Plan a visit · Merrow Coast Reserves<\/title>\n/);
		const byAddress = await get(`?address=${encodeURIComponent('https://merrowcoast.example/visit#top')}`);
		expect(await byAddress.text()).toBe(html);
		for (const answer of [
			await get('?path=/visit&format=json'),
			await get('?path=/visit', { accept: 'application/json' })
		]) {
			expect(answer.headers.get('content-type')).toBe('application/json');
			const { tags } = (await answer.json()) as { tags: { tag: string; value: string }[] };
			expect(tags[0]).toMatchObject({ tag: 'title', value: 'Plan a visit · Merrow Coast Reserves' });
		}
	});

	test('with a strong ETag: an unchanged one costs a 304', async () => {
		const etag = (await get('?path=/visit')).headers.get('etag') as string;
		expect(etag).toMatch(/^"[^"]+"$/);
		for (const asked of [etag, `"other", ${etag}`, `W/${etag}`, '*']) {
			const again = await get('?path=/visit', { 'if-none-match': asked });
			expect(again.status).toBe(304);
			expect(again.headers.get('etag')).toBe(etag);
			expect(await again.text()).toBe('');
		}
		expect((await get('?path=/visit', { 'if-none-match': '"other"' })).status).toBe(200);
		expect((await get('?path=/visit&format=json')).headers.get('etag')).not.toBe(etag);
		expect((await get('?path=/about')).headers.get('etag')).not.toBe(etag);
	});

	test.each([
		['?path=/nowhere', 404, 'has no page at /nowhere'],
		['?path=/walks/winter-waders', 404, 'has no page at /walks/winter-waders'],
		['', 400, 'Name the page by'],
		['?path=/a&address=/b', 400, 'Name the page by']
	])('%s is refused with problem details', async (query, status, detail) => {
		const answer = await get(query);
		expect(answer.status).toBe(status);
		expect(answer.headers.get('content-type')).toBe('application/problem+json');
		expect(await answer.json()).toMatchObject({ status, type: 'about:blank', detail: expect.stringContaining(detail) });
	});

	test('of a site that is not there', async () => {
		const answer = await fetch(`${demo.kephalon}/api/sites/Nobody/head?path=/`);
		expect(answer.status).toBe(404);
		expect(((await answer.json()) as { detail: string }).detail).toContain('There is no site "Nobody"');
	});
});

describe('only this machine is answered, and only our own pages may change anything', () => {
	test.each([
		[{ host: 'evil.example' }, 403],
		[{ host: '127.0.0.1.evil.example' }, 403],
		[{ host: 'localhost:4870' }, 307]
	])('%j', async (headers, status) => {
		expect(await raw('/', headers)).toBe(status);
	});
	test('another origin, and a form', async () => {
		const edit = { place: { layer: 'site' }, tag: 'title', body: null };
		expect((await send('rules', 'PUT', edit, { origin: 'https://evil.example' })).status).toBe(403);
		expect([403, 415]).toContain((await send('rules', 'PUT', edit, { 'content-type': 'text/plain' })).status);
		expect([403, 415]).toContain(
			(await send('release', 'POST', 'x', { 'content-type': 'application/x-www-form-urlencoded' })).status
		);
	});
});

const picture = (changes: object) => ({ place: { layer: 'picture', src: '/pictures/boat.jpg' }, changes });
describe('edits', () => {
	test.each([
		['{', 400, 'is not JSON'],
		[{ place: { layer: 'moon' }, tag: 'title', body: null }, 422, '“place/layer” is none of site, type, page'],
		[
			{ place: { layer: 'page', path: '/none' }, tag: 'title', body: { kind: 'leaveOut' } },
			404,
			'There is no page "/none"'
		],
		[{ place: { layer: 'site' }, tag: 'og:titel', body: { kind: 'leaveOut' } }, 422, 'Did you mean "og:title"?'],
		[
			{ place: { layer: 'site' }, tag: 'og:image:width', body: { kind: 'template', template: '5' } },
			422,
			'travels with its picture'
		],
		[
			{ place: { layer: 'type', name: 'walk' }, tag: 'title', body: { kind: 'template', template: '{page.pirce}' } },
			422,
			'Did you mean "page.price"?'
		]
	])('%j is refused with a sentence', async (edit, status, detail) => {
		const answer = await send('rules', 'PUT', edit);
		expect(answer.status).toBe(status);
		expect(((await answer.json()) as { detail: string }).detail).toContain(detail);
	});

	test.each<[string, string, unknown, number, string]>([
		['settings', 'PATCH', { place: { layer: 'picture', src: '/none.jpg' }, changes: { alt: 'x' } }, 404, 'no picture'],
		['settings', 'PATCH', picture({ focus: [2, 0] }), 422, 'must be <= 1'],
		['settings', 'PATCH', picture({ cuts: { wide: { focus: [0, 0], zoom: 9 } } }), 422, 'must be <= 4'],
		['settings', 'PATCH', picture({ width: 5 }), 422, 'is read from its file'],
		['settings', 'PATCH', picture({ src: '/x.jpg' }), 422, 'is read from its file'],
		['share', 'POST', { version: 1 }, 422, '“language” is missing'],
		['share', 'POST', '{', 400, 'is not JSON'],
		['compose', 'POST', { type: 7 }, 422, '“type” must be string'],
		['pictures', 'DELETE', { src: '/pictures/boat.jpg' }, 422, 'It is used on /walks/gannets-by-boat'],
		['pictures', 'DELETE', { src: '/none.jpg' }, 404, 'no picture'],
		['pictures/fetched', 'POST', { address: 'http://127.0.0.1:9/x.jpg' }, 422, 'is not fetched']
	])('of pictures: %s %s %j is refused with a sentence', async (what, method, body, status, detail) => {
		const answer = await send(what, method, body);
		expect(((await answer.json()) as { detail: string }).detail).toContain(detail);
		expect(answer.status).toBe(status);
	});
	test('composing a type without a layout says what to do', async () => {
		const answer = await send('compose', 'POST', { type: 'warden' });
		expect(await answer.json()).toMatchObject({ detail: expect.stringContaining('has no layout') as string });
	});

	test('an edit of what has changed meanwhile is a conflict that says what stands there', async () => {
		const edit = { place: { layer: 'site' }, tag: 'og:site_name', body: { kind: 'leaveOut' } };
		const conflict = await send('rules', 'PUT', { ...edit, expected: { kind: 'template', template: 'old' } });
		expect([conflict.status, (await conflict.json()).current]).toEqual([409, null]);
		const settings = { place: { layer: 'site' }, changes: { separator: '–' }, expected: { separator: '|' } };
		const other = await send('settings', 'PATCH', settings);
		expect([other.status, (await other.json()).current]).toEqual([409, { separator: '·' }]);
	});

	test('a page that has moved is found at its new place', async () => {
		const move = (from: string, to: string) =>
			send('settings', 'PATCH', { place: { layer: 'page', path: from }, changes: { path: to } });
		await move('/visit', '/plan');
		await send('release', 'POST', {});
		const moved = await fetch(`${heads}?path=/visit`, { redirect: 'manual' });
		expect([moved.status, moved.headers.get('kephalon-moved-to')]).toEqual([308, '/plan']);
		expect(await (await get('?path=/visit')).text()).toContain('https://merrowcoast.example/plan');
		await move('/plan', '/visit');
		await send('release', 'POST', {});
	});

	test('reach is told without keeping anything', async () => {
		const edit = { place: { layer: 'site' }, tag: 'og:site_name', body: { kind: 'template', template: 'Merrow' } };
		const lines = (await (await send('reach', 'POST', edit)).text()).trim().split('\n');
		expect(JSON.parse(lines.at(-1) as string)).toMatchObject({ reach: { under: 23, changed: 23 } });
		const settings = { place: { layer: 'site' }, changes: { separator: '–' } };
		const told = (await (await send('reach', 'POST', settings)).text()).trim().split('\n');
		const { reach } = JSON.parse(told.at(-1) as string);
		expect(reach.worst[0].after).toContain(' – ');
		const pending = await fetch(`${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/pending`);
		expect(await pending.json()).toMatchObject({ changed: 0, added: 0, removed: 0 });
	});
});

describe('the stand-in website', () => {
	test('serves every live page with its own released head in the HTML as served', async () => {
		const html = await (await fetch(`${demo.website}/sightings/orca-off-the-skerries`)).text();
		expect(html).toContain(
			'<meta charset="utf-8">\n<title>“Orca!” &amp; other shouts &lt;off the Skerries&gt; at the Outer Isles · Merrow Coast Reserves</title>\n'
		);
		expect(html.match(/<title>/g)?.length).toBe(1);
		expect(html).toContain('<meta property="og:type" content="article">');
		expect(html).toContain('<link rel="canonical" href="https://merrowcoast.example/sightings/orca-off-the-skerries">');
	});
	test('a draft and an unknown address are not found, with the head of the page for that', async () => {
		for (const path of ['/walks/winter-waders', '/nowhere']) {
			const answer = await fetch(demo.website + path);
			expect(answer.status).toBe(404);
			expect(await answer.text()).toMatch(
				/<title>There is no such page · Merrow Coast Reserves<\/title>[^]*<meta name="robots" content="noindex">/
			);
		}
	});
	test('serves the pictures that the heads name', async () => {
		const html = await (await fetch(`${demo.website}/reserves/gannet-head`)).text();
		const address = /og:image" content="https:\/\/merrowcoast\.example([^"]+)"/.exec(html)?.[1];
		const answer = await fetch(demo.website + address);
		expect(answer.status).toBe(200);
		expect(answer.headers.get('content-type')).toBe('image/jpeg');
		expect((await fetch(`${demo.website}/pictures/none.jpg`)).status).toBe(404);
	});
});

describe('what is sent', () => {
	const api = (what: string) => `${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/${what}`;
	const send = (bytes: Buffer) =>
		fetch(api('pictures'), {
			method: 'POST',
			headers: { 'content-type': 'application/octet-stream', 'x-file-name': 'photo.jpg' },
			body: new Uint8Array(bytes)
		});
	test('a photograph of 12 MB is taken; what is too large is told so', async () => {
		const [width, height] = [4800, 3600];
		const noise = randomBytes(width * height * 3);
		const photo = await sharp(noise, { raw: { width, height, channels: 3 } })
			.jpeg({ quality: 88 })
			.toBuffer();
		expect(photo.length).toBeGreaterThan(12_000_000);
		const answer = await send(photo);
		expect(answer.status).toBe(200);
		expect(await answer.json()).toMatchObject({ src: expect.stringMatching(/^\/media\//), width: 4096 });
		for (const size of [21_000_000, 70_000_000]) {
			const refused = await send(Buffer.alloc(size));
			expect(refused.status, String(size)).toBe(413);
			expect(refused.headers.get('content-type')).toContain('application/problem+json');
		}
	});
	test.each(['null', '[]', '5', '"x"'])('%s in place of an object is refused', async (body) => {
		for (const [method, what] of [
			['PUT', 'rules'],
			['PATCH', 'settings'],
			['POST', 'pages'],
			['POST', 'types'],
			['POST', 'reach']
		]) {
			const answer = await fetch(api(what!), {
				method: method!,
				headers: { 'content-type': 'application/json' },
				body
			});
			expect(answer.status, what).toBe(422);
		}
	});
});
