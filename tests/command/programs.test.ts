import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';

/** What other programs do with a running Kephalon: ask its routes, push pages, put heads into another server's pages. */
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const top = mkdtempSync(join(tmpdir(), 'kephalon-programs-'));
const env = { ...process.env, KEPHALON_DB: join(top, 'k.db'), TMPDIR: top };
const children: ChildProcess[] = [];
let behind: Server;
let at = '';

function run(...args: string[]) {
	const { status, stdout, stderr } = spawnSync(process.execPath, [program, ...args], {
		encoding: 'utf8',
		cwd: top,
		env
	});
	return { status, stdout, stderr };
}
const api = (...args: string[]) => run('api', ...args, '--server', at);
const told = (...args: string[]) => JSON.parse(api(...args).stdout) as Record<string, unknown>;

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
	writeFileSync(
		join(top, 's.json'),
		JSON.stringify({
			...{ format: 'kephalon-site', version: 2 },
			site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
			types: [
				{ name: 'note', fields: [], rules: [] },
				{ name: 'boat', fields: [{ name: 'harbour', kind: 'text' }], mapping: { title: '/name' }, rules: [] }
			],
			pages: [{ path: '/', type: 'note', state: 'live', fields: { title: 'Home' }, rules: [] }]
		})
	);
	expect(run('import', 's.json').status).toBe(0);
	expect(run('release', '--site', 'S').status).toBe(0);
	at = await start('serve', '--port', '0');
	behind = createServer((_, response) => {
		response.writeHead(200, { 'content-type': 'text/html' });
		response.end('<!doctype html><html><head><title>Own</title></head><body><p>Text</p></body></html>');
	});
	await new Promise<void>((done) => behind.listen(0, '127.0.0.1', done));
}, 60_000);
afterAll(() => {
	for (const child of children) child.kill();
	behind.close();
	rmSync(top, { recursive: true, force: true, maxRetries: 5 });
});

describe('routes by the command', () => {
	test('are asked by method and path, with what is sent', () => {
		expect(JSON.parse(api('GET', '/sites').stdout)).toEqual([{ name: 'S', base: 'https://s.example/' }]);
		expect(told('get', '/api/v1/openapi.json')).toMatchObject({ openapi: '3.1.1' });
		const page = { type: 'boat', fields: { title: 'Tern', harbour: 'Long Strand' } };
		expect(told('PUT', '/sites/S/pages/boats/1', '--data', JSON.stringify(page))).toMatchObject({ is: 'made' });
		expect(told('GET', '/sites/S/pages/boats/1')).toMatchObject({ path: '/boats/1', ...page });
		writeFileSync(join(top, 'patch.json'), '{"fields":{"harbour":null}}');
		expect(told('PATCH', '/sites/S/pages/boats/1', '--data', `@${join(top, 'patch.json')}`)).toMatchObject({
			...{ is: 'changed', emptied: ['harbour'] }
		});
		expect(api('DELETE', '/sites/S/pages/boats/1').status).toBe(0);
	});
	test('that refuse end with 1 and the problem; wrong use with 2; nobody there is said', () => {
		const gone = api('GET', '/sites/S/pages/none');
		expect([gone.status, JSON.parse(gone.stdout)]).toMatchObject([1, { code: 'page-missing', status: 404 }]);
		expect(run('api', 'FETCH', '/sites').status).toBe(2);
		expect(api('PUT', '/sites/S/pages/a', '--data', '@none.json')).toMatchObject({ status: 2 });
		const away = run('api', 'GET', '/sites', '--server', 'http://127.0.0.1:1');
		expect([away.status, away.stderr]).toEqual([1, expect.stringContaining('Nothing answers at http://127.0.0.1:1')]);
	});
});

test('what is for those who make Kephalon is not there for others; the description is, to be read', async () => {
	expect((await fetch(`${at}/parts`)).status).toBe(404);
	const room = await fetch(`${at}/programs`);
	expect([room.status, (await room.text()).includes('/sites/{site}/pushes')]).toEqual([200, true]);
});

describe('one page', () => {
	const ask = (path: string, method: string, headers: Record<string, string> = {}, body?: object) =>
		fetch(`${at}/api/v1/sites/S/pages${path}`, {
			method,
			headers: { ...(body && { 'content-type': 'application/merge-patch+json' }), ...headers },
			...(body && { body: JSON.stringify(body) })
		});
	test('is changed only as it was read: by its tag', async () => {
		expect(
			(await ask('/c%20d/e', 'PUT', { 'if-none-match': '*' }, { type: 'note', fields: { title: 'One' } })).status
		).toBe(200);
		expect((await ask('/c%20d/e', 'PUT', { 'if-none-match': '*' }, { fields: { title: 'Two' } })).status).toBe(412);
		const read = await ask('/c%20d/e', 'GET');
		const etag = read.headers.get('etag')!;
		expect(etag).toMatch(/^"[\w-]+"$/);
		expect(await read.json()).toMatchObject({ path: '/c%20d/e', fields: { title: 'One' } });
		expect((await ask('/c%20d/e', 'GET', { 'if-none-match': etag })).status).toBe(304);
		const write = (title: string) => ask('/c%20d/e', 'PATCH', { 'if-match': etag }, { fields: { title } });
		expect((await write('Two')).status).toBe(200);
		expect((await write('Three')).status).toBe(412);
		expect((await ask('/c%20d/e', 'DELETE', { 'if-match': etag })).status).toBe(412);
	});
	test('that is refused is told with its code; with a path that cannot be, too', async () => {
		const refused = await ask('/x', 'PUT', {}, { type: 'none', fields: {} });
		expect([refused.status, ((await refused.json()) as { code: string }).code]).toEqual([404, 'type-missing']);
		expect((await ask('/none', 'PATCH', {}, { fields: {} })).status).toBe(404);
		expect((await ask('/none', 'DELETE')).status).toBe(404);
	});
});

describe('pages pushed', () => {
	const push = (lines: string, headers: Record<string, string> = {}, signal?: AbortSignal) =>
		fetch(`${at}/api/v1/sites/S/pushes?source=boats`, {
			...{ method: 'POST', body: lines, headers: { 'content-type': 'application/x-ndjson', ...headers } },
			...(signal && { signal })
		});
	const paths = async () => {
		const all: string[] = [];
		for (let after: string | undefined = ''; after !== undefined;) {
			const query: string = new URLSearchParams({ limit: '1000', ...(after && { after }) }).toString();
			const answer = (await (await fetch(`${at}/api/v1/sites/S/pages?${query}`)).json()) as {
				pages: { path: string }[];
				next?: string;
			};
			all.push(...answer.pages.map(({ path }) => path));
			after = answer.next;
		}
		return all;
	};
	const lineOf = (n: number) => JSON.stringify({ path: `/p/${n}`, type: 'boat', fields: { title: `Page ${n}` } });

	test('are told line by line, and all of them are found by cursor', async () => {
		const before = await paths();
		const answer = await push(`${Array.from({ length: 2500 }, (_, n) => lineOf(n)).join('\n')}\n{"path":"no"}\n`, {
			accept: 'application/x-ndjson'
		});
		const lines = (await answer.text())
			.trim()
			.split('\n')
			.map((line) => JSON.parse(line) as Record<string, unknown>);
		expect(lines.length).toBe(2502);
		expect(lines[0]).toMatchObject({ line: 1, path: '/p/0', is: 'made' });
		expect(lines[2500]).toMatchObject({ line: 2501, is: 'refused', code: 'path-broken' });
		expect(lines.at(-1)).toMatchObject({ made: 2500, notTaken: 1 });
		const after = await paths();
		expect(after.length - before.length).toBe(2500);
		expect(new Set(after).size).toBe(after.length);
		const again = (await (
			await push(`${Array.from({ length: 2500 }, (_, n) => lineOf(n)).join('\n')}\n`)
		).json()) as object;
		expect(again).toMatchObject({ made: 0, changed: 0, same: 2500 });
		expect(again).not.toHaveProperty('edit');
	});

	test('whose sender goes away half-way leave nothing, and no file', { timeout: 60_000 }, async () => {
		const before = await paths();
		const stop = new AbortController();
		const lines = Array.from({ length: 60_000 }, (_, n) => lineOf(100_000 + n)).join('\n');
		const answer = await push(lines, { accept: 'application/x-ndjson' }, stop.signal);
		const reader = answer.body!.getReader();
		await reader.read();
		stop.abort();
		await expect.poll(async () => (await paths()).length, { timeout: 30_000 }).toBe(before.length);
		await expect
			.poll(() => readdirSync(top).filter((name) => name.startsWith('kephalon-lines-')), { timeout: 10_000 })
			.toEqual([]);
	});
});

test('heads of pages that stand nowhere: by fields, by a record, and refused as everywhere', async () => {
	const ask = (body: string, headers: Record<string, string> = { 'content-type': 'application/json' }, site = 'S') =>
		fetch(`${at}/api/v1/sites/${site}/heads`, { method: 'POST', body, headers });
	const pages = [
		{ path: '/b/1', type: 'boat', fields: { title: 'By fields' } },
		{ path: '/b/2', type: 'boat', record: { name: 'By a record' } },
		{ path: '/b/3', type: 'none' }
	];
	const made = (await (await ask(JSON.stringify({ pages }))).json()) as {
		release: number;
		heads: { html?: string; code?: string }[];
	};
	expect(made.release).toBe(1);
	expect(made.heads.map(({ html, code }) => code ?? /<title>(.*)<\/title>/.exec(html!)?.[1])).toEqual([
		...['By fields', 'By a record', 'type-missing']
	]);
	const refused = async (answering: Promise<Response>) => {
		const answer = await answering;
		return [answer.status, ((await answer.json()) as { code: string }).code];
	};
	expect(await refused(ask('{"pages":[]}'))).toEqual([422, 'body-broken']);
	expect(await refused(ask('{"pages":[{"path":"/a"}],"colour":1}'))).toEqual([422, 'body-broken']);
	expect(await refused(ask('[]'))).toEqual([422, 'body-no-record']);
	expect(await refused(ask('{'))).toEqual([400, 'body-not-json']);
	expect(await refused(ask('{}', { 'content-type': 'text/plain' }))).toEqual([415, 'body-of-other-kind']);
	expect(await refused(ask('{}', { 'content-type': 'application/json', origin: 'https://other.example' }))).toEqual([
		403,
		'other-origin'
	]);
	expect(await refused(ask(JSON.stringify({ pages }), undefined, 'None'))).toEqual([404, 'site-missing']);
	expect((await fetch(`${at}/api/v1/sites/S/head?path=/`)).status).toBe(200);
});

test('the front of a server writes heads into its pages; wrong use is said', async () => {
	const upstream = `http://127.0.0.1:${(behind.address() as AddressInfo).port}`;
	const front = await start('front', '--site', 'S', '--upstream', upstream, '--port', '0', '--host', '127.0.0.1');
	expect(await (await fetch(`${front}/`)).text()).toMatch(
		/<title>Home<\/title>[^]*<\/head><body><p>Text<\/p><\/body><\/html>$/
	);
	expect(await (await fetch(`${front}/unknown`)).text()).toContain('<title>Own</title>');
	expect(run('front', '--site', 'None', '--upstream', upstream, '--port', '0')).toMatchObject({ status: 1 });
	for (const wrong of ['nothing', 'ftp://a', `${upstream}/path`]) {
		const refused = run('front', '--site', 'S', '--upstream', wrong);
		expect([refused.status, refused.stderr]).toEqual([2, expect.stringContaining('an address without a path')]);
	}
});
