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

test('whatever makes something is done once with a key, by whoever asks; another thing under it is refused', async () => {
	const add = (path: string, key = 'k-2') =>
		ask('POST /sites/{site}/pages', {
			body: { do: 'add', path, type: 'note', title: 'New' },
			headers: { 'idempotency-key': key }
		});
	const first = await told(add('/new'));
	expect(await told(add('/new'))).toEqual(first);
	expect(await told(add('/newer'))).toMatchObject({ code: 'idempotency-key-used' });
	// What failed can be asked for again.
	expect(await told(add('/new', 'k-3'))).toMatchObject({ status: 422 });
	const put = () =>
		ask('PUT /sites/{site}/pages/{path}', {
			...{ path: '/put', body: { type: 'note', fields: { title: 'P' } }, headers: { 'idempotency-key': 'k-4' } }
		});
	const [one, other] = [await told(put()), await told(put())];
	expect([one.is, other]).toEqual(['made', one]);
	const lines = (text: string) =>
		ask('POST /sites/{site}/pushes', {
			...{ bytes: Buffer.from(text), headers: { 'idempotency-key': 'k-5', 'content-type': 'application/x-ndjson' } }
		});
	const line = '{"path":"/pushed","type":"note","fields":{"title":"P"}}\n';
	const pushed = await told(lines(line));
	expect([pushed.made, await told(lines(line))]).toEqual([1, pushed]);
	expect(await told(lines(line + line))).toMatchObject({ code: 'idempotency-key-used' });
});

describe('long works', () => {
	const body = { pages: { filter: {} }, action: { do: 'text', tag: 'description', text: 'Every one of them' } };
	test('are told as events where that is accepted', async () => {
		const answering = await ask('POST /sites/{site}/batch', { body, headers: { accept: 'text/event-stream' } });
		expect(answering.headers.get('content-type')).toBe('text/event-stream');
		const events = (await answering.text()).split('\n\n').filter(Boolean);
		expect(events.at(-1)).toMatch(/^event: result\ndata: \{.*"changed":12/);
		for (const event of events) expect(event).toMatch(/^event: (?:progress|result)\ndata: \{[^\n]*\}$/);
		const refused = await ask('POST /sites/{site}/batch', {
			...{ body: { ...body, action: { ...body.action, tag: 'no tag' } }, headers: { accept: 'text/event-stream' } }
		});
		expect(await refused.text()).toMatch(/^event: problem\ndata: \{.*"code":/);
	});
	test('go on by themselves where that is preferred, and are looked at by their number', async () => {
		const begun = await ask('POST /sites/{site}/batch', { body, headers: { prefer: 'wait=1, respond-async' } });
		expect([begun.status, begun.headers.get('preference-applied')]).toEqual([202, 'respond-async']);
		const { id, state } = await told(begun);
		expect([state, begun.headers.get('location')]).toEqual(['running', `/api/v1/sites/S/works/one?id=${String(id)}`]);
		const events = await ask('GET /sites/{site}/works/one', {
			query: { id },
			headers: { accept: 'text/event-stream' }
		});
		expect((await events.text()).split('\n\n').filter(Boolean).at(-1)).toContain('"state":"done"');
		expect(await told(ask('GET /sites/{site}/works/one', { query: { id } }))).toMatchObject({
			...{ state: 'done', route: 'POST /sites/{site}/batch', result: { changed: 12 } }
		});
		const listed = (await (await ask('GET /sites/{site}/works')).json()) as object[];
		expect(listed[0]).toMatchObject({ id, state: 'done' });
		expect(listed[0]).not.toHaveProperty('result');
	});
	test('are stopped by their number, and leave nothing', async () => {
		const begun = await told(ask('POST /sites/{site}/batch', { body, headers: { prefer: 'respond-async' } }));
		const ended = await told(ask('DELETE /sites/{site}/works/one', { query: { id: begun.id } }));
		expect(['stopped', 'done']).toContain(ended.state);
		const site = store.working.sites.named('S');
		const rules = store.working.pages.at(site.id, '/2')!.rules.length;
		expect(rules).toBe(ended.state === 'done' ? 1 : 0);
	});
	test('that are refused say why', async () => {
		const wrong = { ...body, action: { ...body.action, tag: 'no tag' } };
		const begun = await told(ask('POST /sites/{site}/batch', { body: wrong, headers: { prefer: 'respond-async' } }));
		await expect
			.poll(async () => (await told(ask('GET /sites/{site}/works/one', { query: { id: begun.id } }))).state)
			.toBe('refused');
		expect(await told(ask('GET /sites/{site}/works/one', { query: { id: begun.id } }))).toMatchObject({
			problem: { code: expect.any(String) }
		});
	});
});

test('a site is changed only as it was read: by its tag', async () => {
	const read = await ask('GET /sites/{site}');
	const etag = read.headers.get('etag')!;
	expect(etag).toMatch(/^"r\d+"$/);
	expect((await ask('GET /sites/{site}', { headers: { 'if-none-match': etag } })).status).toBe(304);
	const set = (match: string, separator: string) =>
		ask('PATCH /sites/{site}/settings', {
			body: { place: { layer: 'site' }, changes: { separator } },
			headers: { 'if-match': match }
		});
	expect((await set(etag, '|')).status).toBe(200);
	expect(await told(set(etag, '/'))).toMatchObject({ code: 'site-changed', status: 412 });
	for (const odd of ['"x"', 'r1', 'W/"r1"', '"r1", "r2"'])
		expect(await told(set(odd, '/'))).toMatchObject({ code: 'match-unknown' });
	expect((await set('*', '–')).status).toBe(200);
	const now = await told(ask('GET /sites/{site}'));
	expect((now.site as { separator: string }).separator).toBe('–');
});

test('only the members that are wanted', async () => {
	const answer = await told(ask('GET /sites/{site}/pages', { query: { fields: 'pages.path,next', limit: 2 } }));
	expect(answer).toEqual({ pages: [{ path: '/' }, { path: '/1' }], next: '/1' });
	const page = await ask('GET /sites/{site}/pages/{path}', { path: '/2', query: { fields: 'path,fields.title' } });
	expect([page.headers.get('etag'), await told(page)]).toEqual([null, { path: '/2', fields: { title: 'Page 2' } }]);
	expect(await told(ask('GET /sites/{site}/pages', { query: { fields: '' } }))).toMatchObject({
		code: 'fields-broken'
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
