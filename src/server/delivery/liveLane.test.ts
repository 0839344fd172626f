import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { Delivery } from './delivery';
import { frontOf } from './front';

/** Heads of live data from where only what is released is delivered, and beside the desk. */
const folder = mkdtempSync(join(tmpdir(), 'kephalon-lane-'));
const db = join(folder, 'l.db');
const open: [Server, Delivery][] = [];
let store: Store;
let [delivered, desk] = ['', ''];

async function served(isDesk: boolean): Promise<string> {
	const delivery = new Delivery(db, isDesk);
	const server = createServer(
		frontOf({ delivery, ...(isDesk && { desk: (_, response) => void response.writeHead(418).end() }) })
	);
	open.push([server, delivery]);
	await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
	return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}
beforeAll(async () => {
	store = new Store(db);
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'note', fields: [], rules: [] }],
		pages: [{ path: '/', type: 'note', state: 'live', rules: [], fields: { title: 'Home' } }]
	} as never);
	[delivered, desk] = [await served(false), await served(true)];
});
afterAll(() => {
	for (const [server, delivery] of open) {
		server.closeAllConnections();
		server.close();
		delivery.close();
	}
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

const ask = (at: string, body: unknown, headers: Record<string, string> = {}) =>
	fetch(`${at}/api/v1/sites/S/heads`, {
		...{ method: 'POST', body: typeof body === 'string' ? body : JSON.stringify(body) },
		headers: { 'content-type': 'application/json', ...headers }
	});
const codeOf = async (asking: Promise<Response>) => {
	const answer = await asking;
	return [answer.status, ((await answer.json()) as { code?: string }).code];
};
const pages = [{ path: '/n', type: 'note', fields: { title: 'A note' } }];

test('before a release there are none, but of the working copy, and of that at the desk alone', async () => {
	expect(await codeOf(ask(delivered, { pages }))).toEqual([409, 'rules-not-released']);
	expect(await codeOf(ask(delivered, { pages, rules: 'working' }))).toEqual([403, 'working-not-delivered']);
	expect(await (await ask(desk, { pages, rules: 'working' })).text()).toContain('<title>A note</title>');
	JOBS.release({ db, site: 'S' }, () => undefined);
	for (const at of [delivered, desk])
		expect(await (await ask(at, { pages })).text()).toContain('<title>A note</title>');
});

test('what is too long, of another site or no JSON is refused; all else is the desk’s', async () => {
	expect(await codeOf(ask(delivered, `{"pages":[${' '.repeat(2_200_000)}]}`))).toEqual([413, 'body-too-large']);
	expect(await codeOf(ask(delivered, { pages }, { origin: 'https://other.example' }))).toEqual([403, 'other-origin']);
	expect(await codeOf(ask(delivered, '{"pages":'))).toEqual([400, 'body-not-json']);
	expect(await codeOf(ask(delivered, ''))).toEqual([422, 'body-missing']);
	expect((await fetch(`${desk}/api/v1/sites/S/other`, { method: 'POST', body: '{}' })).status).toBe(418);
});

test('pages that take long hold nobody else up', async () => {
	const body = '<p>Words that are read for an opening. </p>'.repeat(440);
	const heavy = Array.from({ length: 90 }, (_, n) => ({
		path: `/h/${n}`,
		type: 'note',
		fields: { title: `H ${n}`, body }
	}));
	const ends: string[] = [];
	await ask(delivered, { pages });
	await Promise.all([
		ask(delivered, { pages: heavy }).then((answer) => answer.text().then(() => ends.push('heavy'))),
		// It comes while the other is made.
		new Promise((done) => setTimeout(done, 5)).then(() => ask(delivered, { pages }).then(() => ends.push('light')))
	]);
	expect(ends).toEqual(['light', 'heavy']);
});
