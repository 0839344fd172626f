import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Actor, Page } from '$core';
import { changeMany } from '../edits/batch';
import { JOBS } from '../jobs/jobs';
import { KEPT_OF_SITE } from '../store/state/looks';
import { actingAs } from '../people/acting';
import { Store } from '../store/store';
import { lookAt, type ThreeWay } from './look';

let folder = '';
let store: Store;
let server: Server;
let via: { origin: string; at: string };
let id = 0;
/** What is made of the released head of a page before it is served. */
let serve = (head: string) => head;

beforeAll(async () => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-'));
	store = new Store(join(folder, 'k.db'));
	id = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	});
	store.working.types.ensure(id, 'page');
	for (const path of ['/', '/a', '/draft'])
		store.working.pages.save(id, {
			path,
			type: 'page',
			state: path === '/draft' ? 'draft' : 'live',
			fields: { title: `Title of ${path}`, summary: `What ${path} is about.` },
			rules: []
		} as unknown as Page);
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	server = createServer((request, response) => {
		const path = new URL(request.url as string, 'http://x').pathname;
		if (path === '/robots.txt') return void response.writeHead(404).end();
		const head = store.releases.head(id, { path })?.html ?? '<title>Nothing here</title>';
		response
			.writeHead(200, { 'content-type': 'text/html; charset=utf-8' })
			.end(`<!doctype html><html><head>\n${serve(head)}</head><body>x</body></html>`);
	});
	await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
	via = { origin: 'https://s.example', at: `http://127.0.0.1:${(server.address() as AddressInfo).port}` };
});
afterAll(async () => {
	store.close();
	server.closeAllConnections();
	await new Promise((done) => server.close(done));
	rmSync(folder, { recursive: true });
});

const look = (wanted: string) => lookAt(store, 'S', wanted, via);
const judged = (threeWay: readonly ThreeWay[]) => Object.fromEntries(threeWay.map(({ tag, is }) => [tag, is]));

describe('each tag as written, released and served', () => {
	test('is the same where nothing came between', async () => {
		serve = (head) => head;
		const { threeWay, path, probe } = await look('/a');
		expect(path).toBe('/a');
		expect(probe.address).toBe('https://s.example/a');
		expect(threeWay.length).toBeGreaterThan(8);
		expect(new Set(threeWay.map(({ is }) => is))).toEqual(new Set(['same']));
		expect(threeWay.find(({ tag }) => tag === 'title')).toEqual({
			...{
				tag: 'title',
				written: 'Title of /a',
				released: 'Title of /a',
				served: 'Title of /a',
				lines: [2],
				is: 'same'
			}
		});
	});
	test('differs, is missing, stands twice, or is another’s', async () => {
		serve = (head) =>
			`${head
				.replace('What /a is about.', 'Something else.')
				.replace(
					/<meta property="og:url"[^\n]*\n/,
					''
				)}<title>Second</title>\n<meta name="generator" content="Other">\n`;
		const { threeWay } = await look('/a');
		const is = judged(threeWay);
		expect([is.description, is['og:url'], is.title, is['og:title']]).toEqual(['differs', 'missing', 'doubled', 'same']);
		expect(Object.values(is)).toContain('unknown');
		expect(threeWay.find(({ tag }) => tag === 'title')).toMatchObject({ served: 'Title of /a · Second' });
		expect(threeWay.find(({ is: one }) => one === 'unknown')).toMatchObject({
			written: '',
			released: '',
			served: 'Other'
		});
	});
	test('waits for a release where it was written since, also where nothing of it is served yet', async () => {
		serve = (head) => head;
		changeMany(store, 'S', { paths: ['/a'] }, { do: 'text', tag: 'description', text: 'Newer words' }, 'pages');
		changeMany(store, 'S', { paths: ['/a'] }, { do: 'text', tag: 'author', text: 'Ada' }, 'pages');
		const { threeWay } = await look('/a');
		expect(threeWay.find(({ tag }) => tag === 'description')).toMatchObject({
			...{ written: 'Newer words', released: 'What /a is about.', served: 'What /a is about.', is: 'not-released' }
		});
		expect(threeWay.find(({ tag }) => tag === 'author')).toMatchObject({
			...{ written: 'Ada', released: '', served: '', is: 'not-released', lines: [] }
		});
	});
	test('is only what is served where the site has no such page', async () => {
		const { threeWay, path } = await look('https://s.example/nowhere?x=1#part');
		expect(path).toBeUndefined();
		expect(judged(threeWay)).toEqual({ title: 'unknown' });
	});
});

test('what came and went since the last look is told, and looks are kept', async () => {
	serve = (head) => head;
	const before = await look('/');
	expect([before.before, before.came, before.went]).toEqual([[], [], []]);
	serve = (head) => head.replace('Title of /', 'Another');
	const after = await look('/');
	expect(after.before).toEqual([{ made: before.probe.made, findings: before.probe.findings.length }]);
	expect(after.came).toContain('title: Another');
	expect(after.went).toContain('title: Title of /');
	expect(after.came).not.toContain('title: Title of /');
	expect((await look('/')).came).toEqual([]);
});

test.each([
	['https://s.example/a?utm_source=feed&utm_medium=x', '/a'],
	['https://S.EXAMPLE:443/a', '/a'],
	['https://s.example./a#part', '/a'],
	['https://s.example/a?anything=at-all', '/a'],
	['https://s.example', '/'],
	['https://s.example/nowhere', undefined],
	['https://other.example/a', undefined],
	['https://s.example.evil.example/a', undefined]
])('%s is the page %s', async (pasted, path) => {
	expect((await look(pasted)).path).toBe(path);
});

test('what a card was at the last look stands beside what it is now', async () => {
	serve = (head) => head;
	await look('/a');
	expect((await look('/a')).cardsBefore).toEqual([]);
	serve = (head) => head.replaceAll('Title of /a', 'Another');
	const { cardsBefore } = await look('/a');
	expect(cardsBefore.find(({ reader }) => reader === 'gangway')).toMatchObject({ shows: { title: 'Title of /a' } });
	serve = (head) => head;
	expect((await look('/a')).cardsBefore.find(({ reader }) => reader === 'gangway')).toMatchObject({
		shows: { title: 'Another' }
	});
});

test('an earlier look says who looked, where there are people', async () => {
	const edda: Actor = { kind: 'person', id: 1, name: 'Edda Quill', isOwner: false, roles: {} };
	await actingAs(edda, () => look('/'));
	const [last] = (await look('/')).before;
	expect(last).toMatchObject({ by: 'Edda Quill' });
	expect((await look('/')).before[0]).not.toHaveProperty('by');
});

test('of a site so many looks are kept, the oldest forgotten first', () => {
	const id = store.working.sites.named('S').id;
	store.transaction(() => {
		for (let at = 0; at < KEPT_OF_SITE + 5; at++)
			store.state.looks.add(
				id,
				`https://s.example/many/${at}`,
				new Date(Date.UTC(2030, 0, 1, 0, 0, at)).toISOString(),
				{}
			);
	});
	const kept = (at: number) => store.state.looks.of(id, `https://s.example/many/${at}`).length;
	expect([kept(4), kept(5), kept(KEPT_OF_SITE + 4)]).toEqual([0, 1, 1]);
});

test.each([
	['', /neither a whole http or https address nor a path/],
	['ftp://s.example/', /neither a whole/],
	['https://', /neither a whole/],
	['/nowhere', /no page "\/nowhere"/]
])('%j is refused', async (wanted, why) => {
	await expect(look(wanted)).rejects.toThrow(why);
});

test('only addresses of the site are asked of the machine that stands in for it', async () => {
	const { probe, threeWay } = await look('https://127.0.0.1/a');
	expect(probe.head).toBe('');
	expect(threeWay).toEqual([]);
});
