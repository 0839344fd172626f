import { createServer, type IncomingHttpHeaders, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Webhook } from 'standardwebhooks';
import { afterAll, afterEach, beforeEach, describe, expect, test } from 'vitest';
import { UserError } from '../errors';
import { actingAs } from '../people/acting';
import { Store } from '../store/store';
import { announce, announceEnd, announceFindings } from './announce';
import { sendDue, WAITS } from './outbox';
import { sendHook, type HookTask } from './send';
import { addHook, dropHook, sendAgain, turnHook } from './webhooks';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-hooks-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let store: Store;
let count = 0;
const SITE = 'Told';
const at = () => ({ id: store.working.sites.named(SITE).id, name: SITE });
const open: Server[] = [];

beforeEach(() => {
	store = new Store(join(folder, `${count++}.db`));
	const id = store.working.sites.save({
		...{ name: SITE, base: 'https://told.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	});
	store.working.types.save(id, { name: 'page', fields: [], rules: [] });
});
afterEach(() => {
	store.close();
	for (const server of open.splice(0)) server.closeAllConnections();
});

/** A server that takes messages; it answers with each status in turn, the last one from then on. */
async function listener(...statuses: number[]) {
	const came: { headers: IncomingHttpHeaders; body: string }[] = [];
	const server = createServer((request, response) => {
		let body = '';
		request.on('data', (part: Buffer) => (body += part.toString()));
		request.on('end', () => {
			came.push({ headers: request.headers, body });
			response.writeHead(statuses[Math.min(came.length, statuses.length) - 1] ?? 204, { location: '/elsewhere' });
			response.end('thanks');
		});
	});
	open.push(server);
	await new Promise<void>((done) => void server.listen(0, '127.0.0.1', done));
	return { came, address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/hook` };
}
const codeOf = (work: () => unknown) => {
	try {
		work();
	} catch (error) {
		if (error instanceof UserError) return error.code;
		throw error;
	}
	return undefined;
};
const only =
	(events: Parameters<typeof addHook>[2]['events'] = ['release.made']) =>
	(address: string) =>
		addHook(store, SITE, { address, events, inside: true });
const messages = (webhook: number) => store.hooks.messages(at().id, webhook, 50);

test('a message is signed as the standard says, and says what, where and when', async () => {
	const { came, address } = await listener();
	const { id, secret } = only()(address);
	announce(store, at(), 'release.made', { number: 4, pages: 12 });
	expect(await sendDue(store, sendHook)).toBe(1);
	const { headers, body } = came[0]!;
	const told = new Webhook(secret).verify(body, headers as Record<string, string>) as Record<string, unknown>;
	expect(told).toEqual({
		type: 'release.made',
		timestamp: expect.stringMatching(/^\d{4}-\d\d-\d\dT[\d:.]+Z$/) as string,
		data: { site: SITE, number: 4, pages: 12 }
	});
	expect(headers['webhook-id']).toMatch(/^msg_/);
	expect(() => new Webhook(secret).verify(`${body} `, headers as Record<string, string>)).toThrow();
	expect(messages(id)).toMatchObject([{ event: 'release.made', tries: [{ status: 204 }] }]);
	expect(messages(id)[0]).not.toHaveProperty('due');
	// It came through: nothing is sent twice.
	expect(await sendDue(store, sendHook)).toBe(0);
	expect(came).toHaveLength(1);
});

test('only what an address wants is told to it, and nothing that was not kept', async () => {
	const { came, address } = await listener();
	only(['drift.found'])(address);
	announce(store, at(), 'release.made', {});
	expect(() =>
		store.transaction(() => {
			announce(store, at(), 'drift.found', {});
			throw new Error('not kept');
		})
	).toThrow('not kept');
	expect(await sendDue(store, sendHook)).toBe(0);
	announceEnd(store.file, 'Another', 'push', 'done');
	announce(store, at(), 'drift.found', {});
	await sendDue(store, sendHook);
	expect(came).toHaveLength(1);
});

describe('an address that does not take a message', () => {
	test.each([500, 302, 404])('%i is tried again with growing waits, under the same name', async (status) => {
		const { came, address } = await listener(status, 200);
		const { id } = only()(address);
		announce(store, at(), 'release.made', {});
		let now = Date.now() + 1;
		await sendDue(store, sendHook, () => now);
		expect(messages(id)[0]).toMatchObject({ due: now + WAITS[0]!, tries: [{ status }] });
		now += WAITS[0]! - 1;
		expect(await sendDue(store, sendHook, () => now)).toBe(0);
		now += 1;
		expect(await sendDue(store, sendHook, () => now)).toBe(1);
		expect(messages(id)[0]!.tries.map((one) => one.status)).toEqual([status, 200]);
		expect(new Set(came.map(({ headers }) => headers['webhook-id'])).size).toBe(1);
	});

	test('for a day is sent nothing more, and what waited is given up', async () => {
		const { id } = only()('http://127.0.0.1:9/hook');
		announce(store, at(), 'release.made', {});
		announce(store, at(), 'release.made', {});
		let now = Date.now() + 1;
		const began = now;
		const dead = () => Promise.resolve({ why: 'Nobody listens there.' });
		while ((await sendDue(store, dead, () => now)) > 0) now += 8 * 3_600_000;
		expect(store.hooks.at(at().id)).toMatchObject([{ id, waiting: 0, stopped: 'It took no message for a day.' }]);
		expect(Math.max(...messages(id).map(({ tries }) => tries.length))).toBe(WAITS.length + 1);
		expect(WAITS.reduce((sum, wait) => sum + wait, 0)).toBeGreaterThan(23 * 3_600_000);
		expect(WAITS).toEqual([...WAITS].sort((a, b) => a - b));
		expect(now).toBeGreaterThan(began);
		// Off, it is told nothing; on again, what comes from then on.
		announce(store, at(), 'release.made', {});
		expect(messages(id)).toHaveLength(2);
		turnHook(store, SITE, id, true);
		announce(store, at(), 'release.made', {});
		expect(messages(id)).toHaveLength(3);
	});

	test('says that it is gone for good, and is left alone', async () => {
		const { address } = await listener(410);
		only()(address);
		announce(store, at(), 'release.made', {});
		await sendDue(store, sendHook);
		expect(store.hooks.at(at().id)[0]!.stopped).toContain('410');
		expect(await sendDue(store, sendHook, () => Date.now() + 1e9)).toBe(0);
	});

	test('is told in words of why', async () => {
		const why = async (address: string, inside = true) =>
			(await sendHook({ address, secret: 'whsec_AAAA', inside, id: 'm', body: '{}', at: 0 } satisfies HookTask)).why;
		expect(await why('http://127.0.0.1:9/')).toMatch(/listens|sent/);
		expect(await why('http://nowhere.invalid/')).toMatch(/no such host|looked up/);
		expect(await why('http://127.0.0.1:9/', false)).toBe('It leads to this machine.');
		expect(await why('http://localhost/', false)).toBe('It leads to this machine.');
	});
});

test('what a process took and was killed over is sent by the next, a minute later', async () => {
	const { came, address } = await listener();
	only()(address);
	announce(store, at(), 'release.made', {});
	const now = Date.now() + 1;
	expect(store.hooks.takeDue(now, now + 60_000, 9)).toHaveLength(1);
	expect(await sendDue(store, sendHook, () => now)).toBe(0);
	expect(await sendDue(store, sendHook, () => now + 60_000)).toBe(1);
	expect(came).toHaveLength(1);
});

test('a message is sent again by hand, also one that came through; an address is tried', async () => {
	const { came, address } = await listener(500, 500, 200);
	const { id } = only()(address);
	sendAgain(store, SITE, { webhook: id });
	await sendDue(store, sendHook);
	const [first] = messages(id);
	expect(first).toMatchObject({ event: 'webhook.tried', tries: [{ status: 500 }] });
	sendAgain(store, SITE, { message: first!.id });
	await sendDue(store, sendHook);
	sendAgain(store, SITE, { message: first!.id });
	await sendDue(store, sendHook);
	expect(messages(id)[0]!.tries.map(({ status }) => status)).toEqual([500, 500, 200]);
	expect(came).toHaveLength(3);
	expect(codeOf(() => sendAgain(store, SITE, { message: 'msg_none' }))).toBe('hook-message-missing');
	expect(codeOf(() => sendAgain(store, SITE, { webhook: 99 }))).toBe('hook-missing');
});

test('only where the guard allows it, or an owner of all says so; each refusal by its code', () => {
	const add = (address: string, more: object = {}) =>
		codeOf(() => addHook(store, SITE, { address, events: ['release.made'], ...more }));
	for (const inner of [
		'http://127.0.0.1/x',
		'http://10.0.0.8/',
		'http://[::1]/',
		'ftp://a.example/',
		'no address',
		'https://a:b@c.example/'
	])
		expect(add(inner), inner).toBe('hook-address');
	for (const odd of ['ftp://a.example/', 'no address', 'https://a:b@c.example/'])
		expect(add(odd, { inside: true }), odd).toBe('hook-address');
	expect(add('https://hooks.example/in', { events: [] })).toBe('hook-events');
	const builder = {
		kind: 'person',
		id: 2,
		name: 'Bo',
		isOwner: false,
		roles: { [SITE]: { role: 'owner', area: {} } }
	} as const;
	expect(actingAs(builder, () => add('http://10.0.0.8/', { inside: true }))).toBe('hook-inside');
	expect(add('http://10.0.0.8/', { inside: true })).toBeUndefined();
	for (let more = 1; more < 20; more++) expect(add('https://hooks.example/in')).toBeUndefined();
	expect(add('https://hooks.example/in')).toBe('hook-many');
	expect(codeOf(() => dropHook(store, SITE, 99))).toBe('hook-missing');
	expect(codeOf(() => turnHook(store, SITE, 99, false))).toBe('hook-missing');
	dropHook(store, SITE, 1);
	expect(store.hooks.at(at().id)).toHaveLength(19);
	// Its secret is told once, and is nowhere in what is listed.
	expect(JSON.stringify(store.hooks.at(at().id))).not.toContain('whsec_');
	expect(JSON.stringify([...store.trail.all()])).not.toContain('whsec_');
});

test('findings are told when they stand on more pages than before, by kind, and not when they grow fewer', () => {
	const { id } = only(['findings.grown'])('http://127.0.0.1:9/');
	const site = at();
	const counts = (pages: Record<string, number>) => {
		store.state.kinds = () =>
			Object.entries(pages).map(([code, n]) => ({ code, tag: '', pages: n, example: 1, weight: 1 }));
		store.state.countStale = () => 0;
		announceFindings(store, site);
		return messages(id).length;
	};
	// What there is when somebody begins to ask is no news.
	expect(counts({ cut: 1 })).toBe(0);
	expect(counts({ cut: 3, 'no-title': 1 })).toBe(1);
	expect(counts({ cut: 3, 'no-title': 1 })).toBe(1);
	expect(counts({ cut: 1 })).toBe(1);
	expect(counts({ cut: 2 })).toBe(2);
	store.state.countStale = () => 5;
	announceFindings(store, site);
	expect(messages(id)).toHaveLength(2);
});

test('of a site without any finding the first one is news; what grew while nobody asked is not', () => {
	const all = new Map<string, number>();
	store.state.kinds = () => [...all].map(([code, pages]) => ({ code, pages, tag: '', example: 1, weight: 1 }));
	store.state.countStale = () => 0;
	const { id } = only(['findings.grown'])('http://127.0.0.1:9/');
	announceFindings(store, at());
	announceFindings(store, at());
	all.set('cut', 2);
	announceFindings(store, at());
	expect(messages(id)).toHaveLength(1);
	turnHook(store, SITE, id, false);
	all.set('cut', 9);
	announceFindings(store, at());
	const other = only(['findings.grown'])('http://127.0.0.1:9/other').id;
	announceFindings(store, at());
	expect(messages(other)).toHaveLength(0);
	all.set('cut', 10);
	announceFindings(store, at());
	expect(messages(other)).toHaveLength(1);
});

test('one address that is slow keeps no other waiting: each is sent one message at a time, in their order', async () => {
	const { came, address } = await listener();
	only()(address);
	only()('http://127.0.0.1:9/slow');
	for (let n = 0; n < 3; n++) announce(store, at(), 'release.made', { n });
	const sent: string[] = [];
	const send = (task: HookTask) => {
		sent.push(task.address);
		return sendHook(task);
	};
	const now = () => Date.now() + 1;
	expect(await sendDue(store, send, now)).toBe(2);
	expect(new Set(sent).size).toBe(2);
	while ((await sendDue(store, send, now)) > 0);
	expect(came.map(({ body }) => (JSON.parse(body) as { data: { n: number } }).data.n)).toEqual([0, 1, 2]);
});

test('nothing is written while nothing is to be sent', async () => {
	store.transaction = () => {
		throw new Error('it asked for the writer');
	};
	expect(await sendDue(store, sendHook)).toBe(0);
});

test('the newest two hundred messages are kept; those that wait are never dropped', () => {
	const { id } = only()('http://127.0.0.1:9/');
	for (let n = 0; n < 230; n++) announce(store, at(), 'release.made', { n });
	expect(store.hooks.messages(at().id, id, 999)).toHaveLength(230);
	for (
		let left = store.hooks.takeDue(Date.now() + 1, 0, 999);
		left.length > 0;
		left = store.hooks.takeDue(Date.now() + 1, 0, 999)
	)
		for (const one of left) store.hooks.tried(one.id, [], undefined);
	announce(store, at(), 'release.made', {});
	expect(store.hooks.messages(at().id, id, 999)).toHaveLength(200);
});
