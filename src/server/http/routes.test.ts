import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { stopJobs } from '../jobs/run';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { answer } from './answer';
import type { RouteName } from './contract';
import { action, EXAMPLES, ruled, type Asked } from './examples';
import { factsOf, ROUTE_NAMES } from './forms';
import { visitorOf } from './visitor';

/** Every route, asked as a program would: what it answers is held to the contract, and what it is not asked like is refused. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-routes-'));
let store: Store;
let made = 0;
let picture: Buffer;
let reader: Server;
let readers = '';

beforeAll(async () => {
	process.env.KEPHALON_THREAD ??= fileURLToPath(new URL('../../../build/cli/thread.js', import.meta.url));
	picture = await sharp({ create: { width: 1200, height: 630, channels: 3, background: '#246' } })
		.png()
		.toBuffer();
	reader = createServer((_, response) => void response.writeHead(503).end());
	await new Promise<void>((done) => reader.listen(0, '127.0.0.1', done));
	readers = `http://127.0.0.1:${(reader.address() as AddressInfo).port}`;
});
beforeEach(async () => {
	store?.close();
	store = new Store(join(folder, `${made++}.db`));
	vi.stubEnv('KEPHALON_HOLD_ANSWERS', '1');
	vi.stubEnv('KEPHALON_CONTENT', JSON.stringify([folder]));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: { name: 'S', base: 'https://s.invalid/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [
			{ name: 'note', fields: [], rules: [{ tag: 'description', kind: 'template', template: '{page.summary}' }] },
			{ name: 'other', fields: [{ name: 'region', kind: 'text' }], rules: [] }
		],
		pages: Array.from({ length: 12 }, (_, at) => ({
			...{ path: at === 0 ? '/' : `/${at}`, type: at % 3 === 1 ? 'other' : 'note', state: 'live', rules: [] },
			fields: { title: `Page ${at}`, summary: at % 2 ? 'Words that say something of this page, enough of them.' : '' }
		}))
	} as never);
	await ask('POST /sites/{site}/release', { body: { note: 'First' } });
	await ask('POST /sites/{site}/cells', { body: { cells: [{ path: '/1', tag: 'title', text: 'Changed' }] } });
	await ask('POST /sites/{site}/release', { body: {} });
	await ask('POST /sites/{site}/pictures', { bytes: picture });
}, 60_000);
afterAll(async () => {
	vi.unstubAllEnvs();
	store.close();
	reader.close();
	await stopJobs();
	rmSync(folder, { recursive: true, force: true });
});

function ask(
	name: RouteName,
	{ site = 'S', path: of = '/1', query = {}, body, bytes, headers = {}, method }: Asked = {}
) {
	const [named, path] = name.split(' ') as [string, string];
	const url = new URL(`http://k/api/v1${path.replace('{site}', encodeURIComponent(site)).replace('/{path}', of)}`);
	for (const [key, value] of Object.entries(query)) url.searchParams.set(key, String(value));
	const record = body === undefined ? [] : [JSON.stringify(body), ...(bytes ? ['\n'] : [])];
	const request = new Request(url, {
		method: method ?? named,
		headers: { 'content-type': bytes ? 'application/octet-stream' : 'application/json', ...headers },
		...(named !== 'GET' && { body: new Blob([...record, ...(bytes ? [new Uint8Array(bytes)] : [])]) })
	});
	return answer({ request, url, locals: visitor(store) });
}
const visitor = (at: Store) =>
	visitorOf(
		new Request('http://k'),
		() => at,
		() => '127.0.0.1'
	);
const told = async (answering: Response | Promise<Response>) =>
	(await (await answering).json()) as Record<string, unknown>;

const exampleOf = (name: RouteName): Asked & { status?: number } =>
	name === 'POST /sites/{site}/pictures' ? { ...EXAMPLES[name], bytes: picture } : (EXAMPLES[name] as Asked);
const named = (facts: 'hasBody' | 'hasQuery' | 'hasLines') => ROUTE_NAMES.filter((name) => factsOf(name)[facts]);

describe('every route', { timeout: 30_000 }, () => {
	test.each(ROUTE_NAMES)('%s answers as the contract says', async (name) => {
		const { status = 200, ...asked } = exampleOf(name);
		const answering = await ask(name, asked);
		const text = await answering.clone().text();
		expect(answering.status, text.slice(0, 500)).toBe(status);
		const { media, about } = factsOf(name);
		expect(answering.headers.get('content-type')).toContain(
			status < 400 ? (media ?? 'application/json') : 'application/problem+json'
		);
		expect(about).toMatch(/^[A-Z].+\.$/s);
	});

	test.each(named('hasLines'))('%s tells how far it is where that is accepted, and comes to the same', async (name) => {
		const { status = 200, ...asked } = exampleOf(name);
		const answering = await ask(name, { ...asked, headers: { accept: 'application/x-ndjson' } });
		expect(answering.headers.get('content-type')).toBe('application/x-ndjson');
		const lines = (await answering.text()).trim().split('\n');
		const all = lines.map((line) => JSON.parse(line) as Record<string, unknown>);
		expect(all.slice(0, -1).every((line) => 'done' in line)).toBe(true);
		expect('failed' in all.at(-1)!, lines.at(-1)).toBe(false);
		expect('refused' in all.at(-1)!).toBe(status !== 200);
	});

	test.each(ROUTE_NAMES.filter((name) => name.includes('{site}')))('%s of no site is 404', async (name) => {
		const answering = await ask(name, { ...exampleOf(name), site: 'Nobody/at all' });
		expect(answering.status).toBe(404);
		expect(await told(answering)).toMatchObject({ code: 'site-missing', site: 'Nobody/at all' });
	});

	test.each(named('hasBody'))('%s takes nothing it does not know, and nothing for a record', async (name) => {
		const asked = exampleOf(name);
		const answering = await ask(name, { ...asked, body: { ...(asked.body as object), 'not-there': 1 } });
		expect(answering.status).toBe(422);
		expect(await told(answering)).toMatchObject({ code: 'body-broken' });
		for (const body of [null, [], 7]) {
			const refused = await ask(name, { ...asked, body });
			expect([refused.status, (await told(refused)).code]).toEqual([422, 'body-no-record']);
		}
	});

	// What an issuer adds is left alone (RFC 6749, section 4.1.2).
	const ofOurs = named('hasQuery').filter((name) => name !== 'GET /session/sign-on/back');
	test.each(ofOurs)('%s is asked for nothing it does not know', async (name) => {
		const asked = exampleOf(name);
		const answering = await ask(name, { ...asked, query: { ...asked.query, colour: 'red' } });
		expect(answering.status).toBe(400);
		expect(await told(answering)).toMatchObject({ code: 'query-broken', at: 'colour' });
	});
});

describe('what is refused says where and why', () => {
	test.each<[RouteName, unknown, string, string]>([
		['POST /sites/{site}/edits', {}, 'takeBack', 'is missing'],
		['POST /sites/{site}/edits', { takeBack: 'first' }, 'takeBack', 'The number of an edit'],
		['POST /sites/{site}/launch', { id: '', on: true }, 'id', '1 characters'],
		['POST /sites/{site}/launch', { id: 'x', on: 'yes' }, 'on', 'boolean'],
		['POST /sites/{site}/pages', { do: 'copy', path: '/1' }, 'to', 'is missing'],
		['POST /sites/{site}/pages', { do: 'home', path: '/1', too: 1 }, 'too', 'is not known here; there is do, path'],
		['POST /sites/{site}/batch', { pages: {}, action }, 'pages/paths', 'is missing'],
		['POST /sites/{site}/batch', { pages: { paths: [1] }, action }, 'pages/paths/0', 'must be string'],
		[
			'POST /sites/{site}/batch',
			{ pages: { paths: [] }, action: { do: 'text', tag: 'title' } },
			'action/text',
			'is missing'
		],
		['POST /sites/{site}/cells', { cells: [{ path: '/1', tag: 'title' }] }, 'cells/0/text', 'is missing'],
		['PUT /sites/{site}/drift', { every: 'often' }, 'every', 'off, hour, night'],
		['POST /sites/{site}/probe', { address: ' ' }, 'address', 'pattern'],
		['POST /sites/{site}/pages', { do: 'dance', path: '/1' }, 'do', 'is none of add, copy, remove'],
		['PUT /sites/{site}/rules', { ...ruled, place: { layer: 'moon' } }, 'place/layer', 'is none of site, type, page']
	])('%s with %j', async (name, body, at, why) => {
		const problem = await told(ask(name, { body }));
		expect(problem).toMatchObject({ code: 'body-broken', at });
		expect(problem.detail).toContain(why);
	});
	test('numbers of a query are read out of it', async () => {
		const { rows } = (await told(ask('GET /sites/{site}/grid', { query: { limit: '2' } }))) as { rows: unknown[] };
		expect(rows).toHaveLength(2);
		expect(await told(ask('GET /sites/{site}/releases/between', { query: { from: 'x', to: 2 } }))).toMatchObject({
			...{ code: 'query-broken', at: 'from' }
		});
	});
	test('a file that is needed and does not come', async () => {
		const source = { kind: 'table', mapping: {}, type: 'note' } as const;
		const body = { name: 'T', base: 'https://t.invalid/', source };
		expect(await told(ask('POST /sites', { body }))).toMatchObject({ code: 'table-file-missing' });
	});
	test('a folder that nobody allowed', async () => {
		const body = { name: 'T', base: 'https://t.invalid/', source: { kind: 'folder', folder: '/etc' } };
		expect(await told(ask('POST /sites', { body }))).toMatchObject({ code: 'content-folder-closed' });
	});
});

describe('addresses and methods', () => {
	test('HEAD is answered as GET', async () => {
		expect((await ask('GET /sites/{site}/grid', { method: 'HEAD' })).status).toBe(200);
	});
	test('a method that does nothing says which do', async () => {
		const answering = await ask('GET /sites/{site}/grid', { method: 'DELETE' });
		expect(answering.status).toBe(405);
		expect(answering.headers.get('allow')).toBe('GET, HEAD');
		expect(await told(answering)).toMatchObject({ code: 'method-other', methods: ['GET', 'HEAD'] });
	});
	test.each(['/api/nothing', '/api', '/api/sites/S/nothing', '/api/sites//grid', '/api/sites/S/grid/'])(
		'%s is nothing',
		async (path) => {
			const url = new URL(path, 'http://k');
			const answering = await answer({ request: new Request(url), url, locals: visitor(store) });
			expect([answering.status, (await told(answering)).code]).toEqual([404, 'address-missing']);
		}
	);
	test('an address that is not in percent-encoding is told', async () => {
		const url = new URL('http://k/api/sites/%E0%A4%A/grid');
		const answering = await answer({ request: new Request(url), url, locals: visitor(store) });
		expect([answering.status, (await told(answering)).code]).toEqual([400, 'address-broken']);
	});
	test('a database that cannot be opened is told as the route tells what it refuses', async () => {
		const url = new URL('http://k/api/sites/S/grid');
		const locals = visitorOf(
			new Request(url),
			() => {
				throw Object.assign(new SyntaxError('x'));
			},
			() => ''
		);
		expect((await answer({ request: new Request(url), url, locals })).status).toBe(400);
	});
});

test('a release that is sent again with its key is made once, also while the first is on its way', async () => {
	const asked = { body: { note: 'Once' }, headers: { 'idempotency-key': 'k-1' } };
	const [one, other] = await Promise.all([
		told(ask('POST /sites/{site}/release', asked)),
		told(ask('POST /sites/{site}/release', asked))
	]);
	expect(one.number).toBe(3);
	expect(other).toEqual(one);
	expect(await told(ask('POST /sites/{site}/release', { ...asked, body: { note: 'Another' } }))).toMatchObject({
		code: 'idempotency-key-used'
	});
});

test('readers that do not answer are told line by line', async () => {
	vi.stubEnv('KEPHALON_READERS', readers);
	const answering = await ask('POST /sites/{site}/cards', {
		...{ body: { do: 'look' }, headers: { accept: 'application/x-ndjson' } }
	});
	vi.stubEnv('KEPHALON_READERS', '');
	expect(JSON.parse((await answering.text()).trim().split('\n').at(-1)!)).toMatchObject({ code: 'readers-refuse' });
});
