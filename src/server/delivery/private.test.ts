import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { keepSettings, readSettingsEdit } from '../edits/settings';
import { robotsOf } from '../exports/robots';
import { sitemapsOf } from '../exports/sitemap';
import { JOBS } from '../jobs/jobs';
import { addPerson, lockPerson, setRole, takeInvitation } from '../people/accounts';
import { addKey, dropKey } from '../people/keys';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { Delivery } from './delivery';
import { frontOf } from './front';

/** A private site: nothing of it goes to anyone without a right to it, and what it says to search is no. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-private-'));
const db = join(folder, 'p.db');
const [OWN, SHARED, OPEN] = ['a', 'b', 'c'].map((sign) => `${sign.repeat(24)}.jpg`) as [string, string, string];
const servers: Server[] = [];
const deliveries: Delivery[] = [];
let store: Store;

beforeAll(async () => {
	store = new Store(db);
	for (const [name, pictures] of [
		['Shut', [OWN, SHARED]],
		['Open', [OPEN, SHARED]]
	] as const) {
		saveSiteFile(store, {
			site: {
				name,
				base: `https://${name.toLowerCase()}.example/`,
				languages: ['en'],
				separator: '·',
				fields: {},
				rules: []
			},
			types: [{ name: 'page', fields: [], rules: [] }],
			pages: ['/', '/a'].map((path) => ({
				...{ path, type: 'page', state: 'live', rules: [] },
				fields: { title: `${name} ${path}`, picture: { src: `/media/${pictures[0]}` } }
			})),
			pictures: pictures.map((file) => ({ src: `/media/${file}`, width: 1200, height: 630, type: 'image/jpeg' }))
		} as never);
		JOBS.release({ db, site: name }, () => undefined);
	}
	mkdirSync(`${db}.media`, { recursive: true });
	for (const file of [OWN, SHARED, OPEN]) writeFileSync(join(`${db}.media`, file), file);
	for (const isDesk of [false, true]) {
		const delivery = new Delivery(db, isDesk);
		const server = createServer(frontOf({ delivery })).listen(0, '127.0.0.1');
		await new Promise((done) => server.once('listening', done));
		deliveries.push(delivery);
		servers.push(server);
	}
});
afterAll(() => {
	for (const server of servers) server.close();
	for (const delivery of deliveries) delivery.close();
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

const setPrivate = (on: boolean) => {
	const edit = readSettingsEdit({ place: { layer: 'site' }, changes: { private: on || null } });
	keepSettings(store, 'Shut', edit, 'bench');
};
const get = (path: string, headers: Record<string, string> = {}, at = 0) =>
	fetch(`http://127.0.0.1:${(servers[at]!.address() as AddressInfo).port}${path}`, { headers });
const HEAD = '/api/sites/Shut/head?path=/a';
const keyed = (key: string) => ({ authorization: `Bearer ${key}` });
/** What delivery alone says to a request, thing by thing. */
const told = async (headers: Record<string, string> = {}, at = 0) =>
	Object.fromEntries(
		await Promise.all(
			[
				HEAD,
				'/api/sites/Shut/manifest',
				...[OWN, SHARED, OPEN].map((file) => `/media/${file}`),
				HEAD.replace('Shut', 'Open')
			].map(async (path) => [path, (await get(path, headers, at)).status] as const)
		)
	);
const all = (head: number, manifest: number, own: number) => ({
	...{ [HEAD]: head, '/api/sites/Shut/manifest': manifest, [`/media/${OWN}`]: own },
	...{ [`/media/${SHARED}`]: 200, [`/media/${OPEN}`]: 200, [HEAD.replace('Shut', 'Open')]: 200 }
});

test('whose a picture is is known once, however often it is saved, taken out and taken in', () => {
	const { id } = store.working.sites.named('Shut');
	const copied = { src: '/far.jpg', width: 9, height: 9, kept: { file: `${'d'.repeat(24)}.jpg`, width: 9, height: 9 } };
	for (let times = 0; times < 3; times++) {
		store.pictures.save(id, [
			{ src: `/media/${OWN}`, width: 1200 + times, height: 630 },
			{ ...copied, width: times }
		] as never);
		expect(store.pictures.ownersOf(OWN)).toEqual([{ site: 'Shut', isPrivate: 0 }]);
		expect(store.pictures.ownersOf(`${'d'.repeat(24)}-wide.jpg`)).toEqual([{ site: 'Shut', isPrivate: 0 }]);
	}
	store.pictures.remove(id, '/far.jpg');
	// Heads that are released name it still.
	expect(store.pictures.ownersOf(`${'d'.repeat(24)}.jpg`)).toHaveLength(1);
	store.pictures.save(id, [copied] as never);
	store.pictures.remove(id, '/far.jpg');
	expect(store.pictures.one(id, `/media/${OWN}`)).toMatchObject({ width: 1202 });
});

describe('to whom it goes', () => {
	test('public, to everyone; private, to nobody at once, though it was asked for and kept before', async () => {
		expect(await told()).toEqual(all(200, 404, 200));
		expect(await told()).toEqual(all(200, 404, 200));
		setPrivate(true);
		expect(await told()).toEqual(all(401, 401, 404));
		const refused = await get(HEAD, { 'if-none-match': '*' });
		expect(refused.status).toBe(401);
		expect(refused.headers.get('www-authenticate')).toBe('Bearer realm="Kephalon"');
		expect(refused.headers.get('cache-control')).toBe('no-store');
		expect(await refused.json()).toMatchObject({
			code: 'site-private',
			detail: expect.stringMatching(/“Shut” is private/)
		});
		// Who puts heads into pages gets none, and the reason.
		const empty = await get(`${HEAD}&or=empty`);
		expect([empty.status, empty.headers.get('kephalon-empty'), await empty.text()]).toEqual([200, 'site-private', '']);
		// At the desk, whoever is alone is at home.
		expect(await told({}, 1)).toEqual(all(200, 404, 200));
	});

	test('to a key of the site that reads, and to no other', async () => {
		const reads = addKey(store, 'Shut', { name: 'front end', scopes: ['read'] });
		const probes = addKey(store, 'Shut', { name: 'probe', scopes: ['probe'] });
		const elsewhere = addKey(store, 'Open', { name: 'other', scopes: ['read', 'edit', 'release', 'probe'] });
		for (const at of [0, 1]) {
			expect(await told(keyed(reads), at)).toEqual(all(200, 404, 200));
			for (const wrong of [probes, elsewhere, `${reads}x`, 'kephalon_', reads.slice(0, -1)])
				expect(await told(keyed(wrong), at)).toEqual(all(401, 401, 404));
		}
		const answer = await get(HEAD, keyed(reads));
		expect(answer.headers.get('cache-control')).toBe('private, no-store');
		expect(answer.headers.get('vary')).toBe('accept, accept-encoding, authorization, cookie');
		expect((await get(`/media/${OWN}`, keyed(reads))).headers.get('cache-control')).toMatch(/^private/);
		expect((await get(`/media/${SHARED}`)).headers.get('cache-control')).toMatch(/^public/);
		// What one was given is not kept for the next.
		expect(await told()).toEqual(all(401, 401, 404));
		const { id } = store.people.keysAt(store.working.sites.named('Shut').id).find(({ name }) => name === 'front end')!;
		// Beside the desk its use is noted, once an hour.
		expect(store.trail.newest('Shut', 20).filter(({ what }) => what === 'key-used')).toHaveLength(2);
		dropKey(store, 'Shut', id);
		expect(await told(keyed(reads))).toEqual(all(401, 401, 404));
	});

	test('to people with a role there, while they have it', async () => {
		const owner = addPerson(store, 'Odo Fenn', true);
		const reader = addPerson(store, 'Rika Brandt');
		const session = await takeInvitation(store, reader.secret, 'nine slow herons', { address: '::1', agent: '' });
		const cookie = { cookie: `other=1; kephalon=${session}` };
		expect(owner.isOwner).toBe(true);
		// With people nobody is alone.
		for (const at of [0, 1]) {
			expect(await told({}, at)).toEqual(all(401, 401, 404));
			expect(await told(cookie, at)).toEqual(all(401, 401, 404));
		}
		setRole(store, 'Shut', 'Rika Brandt', 'reader');
		for (const at of [0, 1]) expect(await told(cookie, at)).toEqual(all(200, 404, 200));
		setRole(store, 'Shut', 'Rika Brandt', undefined);
		setRole(store, 'Open', 'Rika Brandt', 'builder');
		for (const at of [0, 1]) expect(await told(cookie, at)).toEqual(all(401, 401, 404));
		setRole(store, 'Shut', 'Rika Brandt', 'reader');
		lockPerson(store, 'Rika Brandt', true);
		for (const at of [0, 1]) expect(await told(cookie, at)).toEqual(all(401, 401, 404));
	});
});

test('robots are shut out, no sitemap lists it, and every head says noindex once it is released', async () => {
	const { site } = store.working.sites.named('Shut');
	expect(robotsOf(site)).toBe('# Written by Kephalon.\nUser-agent: *\nDisallow: /\n');
	expect([...sitemapsOf(store, 'Shut')]).toEqual([]);
	const key = addKey(store, 'Shut', { name: 'last', scopes: ['read'] });
	const robots = async () =>
		/<meta name="robots" content="([^"]*)">/.exec(await (await get(HEAD, keyed(key))).text())?.[1];
	expect(await robots()).toBeUndefined();
	JOBS.release({ db, site: 'Shut' }, () => undefined);
	expect(await robots()).toBe('noindex');
	setPrivate(false);
	expect((await get(HEAD)).status).toBe(200);
	expect(robotsOf(store.working.sites.named('Shut').site)).toMatch(/Allow: \//);
	JOBS.release({ db, site: 'Shut' }, () => undefined);
	expect(await robots()).toBeUndefined();
	expect([...sitemapsOf(store, 'Shut')][0]?.text).toContain('https://shut.example/a');
});
