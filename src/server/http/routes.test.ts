import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Recipe } from '$core';
import { stopJobs } from '../jobs/run';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { answer } from './answer';
import type { PartOf, RouteName } from './contract';
import { factsOf, ROUTE_NAMES } from './forms';

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

interface Asked {
	readonly site?: string;
	readonly query?: object;
	readonly body?: unknown;
	readonly bytes?: Uint8Array;
	readonly headers?: Readonly<Record<string, string>>;
	readonly method?: string;
}
function ask(name: RouteName, { site = 'S', query = {}, body, bytes, headers = {}, method }: Asked = {}) {
	const [named, path] = name.split(' ') as [string, string];
	const url = new URL(`http://k/api${path.replace('{site}', encodeURIComponent(site))}`);
	for (const [key, value] of Object.entries(query)) url.searchParams.set(key, String(value));
	const record = body === undefined ? [] : [JSON.stringify(body), ...(bytes ? ['\n'] : [])];
	const request = new Request(url, {
		method: method ?? named,
		headers: { 'content-type': bytes ? 'application/octet-stream' : 'application/json', ...headers },
		...(named !== 'GET' && { body: new Blob([...record, ...(bytes ? [new Uint8Array(bytes)] : [])]) })
	});
	return answer({ request, url, locals: { store } });
}
const told = async (answering: Response | Promise<Response>) =>
	(await (await answering).json()) as Record<string, unknown>;

type Examples = {
	readonly [K in RouteName]: Asked & {
		readonly query?: PartOf<K, 'query'>;
		readonly body?: PartOf<K, 'body'>;
		/** Where the example is one of being refused. */
		readonly status?: number;
	};
};
const page = { place: { layer: 'page', path: '/2' } } as const;
const ruled = { ...page, tag: 'title', body: { kind: 'template', template: 'Mine' } } as const;
const action = { do: 'text', tag: 'title', text: 'All at once' } as const;
const csv = new TextEncoder().encode('path,page says: title\n/2,Two\n');
const recipe: Recipe = {
	...{ version: 1, language: 'en', texts: [] },
	background: { kind: 'colour', colour: '#224466' }
};
/** One for each: a route without one is an error of types. */
const EXAMPLES: Examples = {
	'POST /sites': { body: { name: 'New', base: 'https://new.invalid/', source: { kind: 'hand' } } },
	'POST /table': { body: { base: 'https://new.invalid/' }, bytes: new TextEncoder().encode('path,title\n/a,Ada\n') },
	'GET /sites/{site}/grid': { query: { q: 'page', sort: 'title', down: '1', limit: 3, offset: 1, count: '1' } },
	'POST /sites/{site}/cells': { body: { cells: [{ path: '/3', tag: 'title', text: 'Three' }] } },
	'POST /sites/{site}/batch': { body: { pages: { filter: { type: 'other' } }, action } },
	'POST /sites/{site}/batch/sample': { body: { pages: { paths: ['/1', '/2'] }, action } },
	'GET /sites/{site}/csv': { query: { columns: 'path,title', mark: '1', type: 'note' } },
	'GET /sites/{site}/workbook': { query: { columns: 'path,title', type: 'note' } },
	'POST /sites/{site}/csv': { query: { rewritten: '1' }, bytes: csv },
	'POST /sites/{site}/csv/comparison': { query: {}, bytes: csv },
	'GET /sites/{site}/filters': {},
	'POST /sites/{site}/filters': { body: { name: 'Notes', query: 'type=note' } },
	'GET /sites/{site}/pages': { query: { find: 'Page' } },
	'POST /sites/{site}/pages': { body: { do: 'add', path: '/new', type: 'note', title: 'New' } },
	'GET /sites/{site}/page': { query: { path: '/1' } },
	'GET /sites/{site}/page/leading': { query: { path: '/1' } },
	'GET /sites/{site}/page/linking': { query: { path: '/1' } },
	'GET /sites/{site}/hard': { query: { type: 'note' } },
	'GET /sites/{site}/worst': {},
	'PUT /sites/{site}/rules': { body: { ...ruled, expected: null } },
	'PATCH /sites/{site}/settings': { body: { ...page, changes: { state: 'draft' }, expected: { state: 'live' } } },
	'POST /sites/{site}/types': { body: { do: 'add', name: 'third' } },
	'GET /sites/{site}/types/uses': { query: { type: 'other', field: 'region' } },
	'POST /sites/{site}/reach': { body: ruled },
	'GET /sites/{site}/edits': { query: { limit: 2 } },
	'POST /sites/{site}/edits': { body: { takeBack: 'last' } },
	'GET /sites/{site}/findings': { query: { wait: '1' } },
	'POST /sites/{site}/findings': { body: { code: 'no-description', tag: 'description', reason: 'On purpose' } },
	'GET /sites/{site}/pending': {},
	'GET /sites/{site}/sheet': { query: { offset: 0, q: '' } },
	'POST /sites/{site}/release': { body: { note: 'Third' } },
	'GET /sites/{site}/releases': {},
	'POST /sites/{site}/releases': { body: { backTo: 1 } },
	'GET /sites/{site}/releases/between': { query: { from: 1, to: 2 } },
	'GET /sites/{site}/releases/page': { query: { path: '/1' } },
	'GET /sites/{site}/sitemap': {},
	'GET /sites/{site}/robots': {},
	'GET /sites/{site}/cards': {},
	// No readers are named.
	'POST /sites/{site}/cards': { body: { do: 'look' }, status: 422 },
	'POST /sites/{site}/probe': { body: { address: '/1' } },
	'GET /sites/{site}/drift': {},
	'POST /sites/{site}/drift': { body: {} },
	'PUT /sites/{site}/drift': { body: { every: 'night' } },
	'POST /sites/{site}/launch': { body: { id: 'icons', on: true } },
	'GET /sites/{site}/pictures': {},
	'POST /sites/{site}/pictures': { headers: { 'x-file-name': 'A%20picture.png' } },
	// No such server.
	'POST /sites/{site}/pictures/fetched': { body: { address: 'https://s.invalid/a.png' }, status: 422 },
	'DELETE /sites/{site}/pictures': { body: { src: '/none.png' }, status: 404 },
	'GET /sites/{site}/pictures/uses': {},
	'POST /sites/{site}/share': { body: recipe },
	// Types have no layout for pictures of their own.
	'POST /sites/{site}/compose': { body: { type: 'note' }, status: 422 }
};
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
			status === 200 ? (media ?? 'application/json') : 'application/problem+json'
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

	test.each(named('hasQuery'))('%s is asked for nothing it does not know', async (name) => {
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
	test.each(['/api/nothing', '/api', '/api/sites/S', '/api/sites//grid', '/api/sites/S/grid/'])(
		'%s is nothing',
		async (path) => {
			const url = new URL(path, 'http://k');
			const answering = await answer({ request: new Request(url), url, locals: { store } });
			expect([answering.status, (await told(answering)).code]).toEqual([404, 'address-missing']);
		}
	);
	test('an address that is not in percent-encoding is told', async () => {
		const url = new URL('http://k/api/sites/%E0%A4%A/grid');
		const answering = await answer({ request: new Request(url), url, locals: { store } });
		expect([answering.status, (await told(answering)).code]).toEqual([400, 'address-broken']);
	});
	test('a database that cannot be opened is told as the route tells what it refuses', async () => {
		const url = new URL('http://k/api/sites/S/grid');
		const locals = {
			get store(): Store {
				throw Object.assign(new SyntaxError('x'));
			}
		};
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
