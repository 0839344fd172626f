import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { ALL_READERS, FOR_EVER, type Page, type Site } from '$core';
import { ReadersService, readersHandler } from '../../../demo/readers';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
import { clock } from '../waiting';
import { ASKED, lookAtCards, readCards, tellReaders } from './cards';
import { ReadersClient, type AskAnswer } from './service';

/** Readers keep cards under their own rules, by a clock that is moved on here; Kephalon speaks to them over HTTP. */

const BASE = 'https://s.example/';
let title = '';
let isBusy = false;
let website: Server;
let readers: Server;
let service: ReadersService;
const at = (server: Server) => `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
const listen = (server: Server) => new Promise<void>((done) => server.listen(0, '127.0.0.1', () => done()));

beforeAll(async () => {
	website = createServer((request, response) => {
		if (request.url === '/robots.txt') return void response.writeHead(404).end();
		response.writeHead(isBusy ? 503 : 200, { 'content-type': 'text/html; charset=utf-8' });
		if (request.url === '/deep')
			return void response.end(
				`<!doctype html><title>Deep</title><meta property="og:title" content="Deep"><meta property="og:url" content="${BASE}"><p>Words.</p>`
			);
		response.end(
			`<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title><meta property="og:title" content="${title}"></head><body><p>Some words.</p></body></html>`
		);
	});
	await listen(website);
});
beforeEach(async () => {
	readers?.close();
	service = new ReadersService({ origin: BASE.replace(/\/$/, ''), at: at(website) });
	readers = createServer(readersHandler(service));
	await listen(readers);
	title = 'First';
});
afterAll(() => {
	website.close();
	readers.close();
});

describe('a reader', () => {
	test.each(ALL_READERS.map(({ id, habits }) => [id, habits.keeps?.hours ?? 0] as const))(
		'%s keeps a card for %d hours',
		async (reader, keeps) => {
			const address = `${BASE}a`;
			expect((await service.card(reader, address)).card?.title).toBe('First');
			title = 'Second';
			const now = (await service.card(reader, address)).card?.title;
			expect(now).toBe(keeps === 0 ? 'Second' : 'First');
			service.moveOn(keeps * 0.9);
			if (keeps > 0) expect((await service.card(reader, address)).card?.title).toBe('First');
			service.moveOn(keeps * 0.2);
			// What goes with the message stays as it was sent.
			expect((await service.card(reader, address)).card?.title).toBe(keeps >= FOR_EVER ? 'First' : 'Second');
		}
	);

	test.each(ALL_READERS.map(({ id, habits }) => [id, habits.keeps?.again ?? 'ask'] as const))(
		'%s, told to fetch again: %s',
		async (reader, again) => {
			const address = `${BASE}a`;
			await service.card(reader, address);
			title = 'Second';
			const first = await service.again(reader, address);
			const wanted: Record<typeof again, AskAnswer['is']> = {
				ask: 'fetched',
				'ask-twice': 'ask-again',
				wait: 'wait',
				'new-address': 'new-address',
				never: 'never'
			};
			expect(first.is).toBe(wanted[again]);
			if (again === 'ask-twice') expect((await service.again(reader, address)).is).toBe('fetched');
			const kept = again === 'wait' || again === 'new-address' || again === 'never';
			expect((await service.card(reader, address)).card?.title).toBe(kept ? 'First' : 'Second');
		}
	);

	test('that there was no card is kept for its own time: one 503 does not leave it without for a year', async () => {
		const address = `${BASE}busy`;
		isBusy = true;
		expect((await service.card('bottle', address)).card).toBe(null);
		isBusy = false;
		expect((await service.card('bottle', address)).card).toBe(null);
		service.moveOn(1.1);
		expect((await service.card('bottle', address)).card?.title).toBe('First');
	});

	test('a page that names another shares as that one, which keeps its own card', async () => {
		const card = async (path: string) => (await service.card('gangway', BASE + path)).card?.title;
		expect(await card('deep')).toBe('Deep');
		// What a page put there by naming it is not its own.
		expect(await card('')).toBe('First');
		expect(await card('deep')).toBe('First');
		expect((await service.card('galley', `${BASE}deep`)).card?.title).toBe('Deep');
	});

	test('asked twice too far apart, it was asked once', async () => {
		await service.card('gangway', `${BASE}a`);
		expect((await service.again('gangway', `${BASE}a`)).is).toBe('ask-again');
		service.moveOn(1);
		expect((await service.again('gangway', `${BASE}a`)).is).toBe('ask-again');
	});

	test('asked too often, it says how long it does not listen', async () => {
		for (let ask = 0; ask < 30; ask++) await service.again('headland', `${BASE}${ask}`);
		const limited = await service.again('headland', `${BASE}more`);
		expect(limited).toMatchObject({ is: 'limit' });
		service.moveOn(1);
		expect((await service.again('headland', `${BASE}more`)).is).toBe('wait');
	});
});

test('over HTTP: a card, an ask, the clock, and what is wrong in a request', async () => {
	const origin = at(readers);
	const get = async (path: string, method = 'GET') => {
		const answer = await fetch(origin + path, { method });
		return { status: answer.status, body: (await answer.json()) as Record<string, unknown> };
	};
	const address = encodeURIComponent(`${BASE}a`);
	expect(await get(`/card?reader=wrack&address=${address}`)).toMatchObject({ status: 200, body: { reader: 'wrack' } });
	expect(await get(`/again?reader=wrack&address=${address}`, 'POST')).toMatchObject({ body: { is: 'fetched' } });
	expect(await get('/clock?hours=24', 'POST')).toMatchObject({ status: 200 });
	expect(await get('/clock?hours=never', 'POST')).toMatchObject({ status: 422 });
	expect(await get(`/card?reader=nobody&address=${address}`)).toMatchObject({ status: 404 });
	expect(await get('/card?reader=wrack&address=javascript:1')).toMatchObject({ status: 422 });
	expect((await (await fetch(origin)).text()).includes('<form>')).toBe(true);
});

describe('an answer that is none', () => {
	const sound = {
		...{
			reader: 'wrack',
			address: `${BASE}a`,
			key: 'k',
			fetched: '2026-01-01T00:00:00Z',
			until: null,
			isShutOut: false
		},
		card: { title: 'T', description: '', picture: '', host: '', siteName: '' }
	};
	let says: { status: number; body: string; cut?: boolean } = { status: 200, body: '' };
	let odd: Server;
	beforeAll(async () => {
		odd = createServer((_, response) => {
			response.writeHead(says.status, { 'content-type': 'application/json' });
			if (!says.cut) return void response.end(says.body);
			response.write(says.body);
			setTimeout(() => response.destroy(), 20);
		});
		await listen(odd);
	});
	afterAll(() => void odd.close());
	const asked = (status: number, body: unknown, cut = false) => {
		says = { status, body: typeof body === 'string' ? body : JSON.stringify(body), cut };
		const client = new ReadersClient(at(odd));
		const both = [client.card('wrack', `${BASE}a`), client.again('wrack', `${BASE}a`)] as const;
		// They are waited for one after the other.
		for (const one of both) one.catch(() => undefined);
		return both;
	};
	test.each([
		['nothing', 200, ''],
		['an empty record', 200, '{}'],
		['half of one', 200, JSON.stringify(sound).slice(0, 60)],
		['a list', 200, []],
		['null', 200, 'null'],
		['a card without a title', 200, { ...sound, card: { description: 'x' } }],
		['a title that is a record', 200, { ...sound, card: { ...sound.card, title: { a: 1 } } }],
		['an answer nobody knows', 200, { is: 'constructor' }],
		['a wait that is no number', 429, { is: 'limit', wait: 'long' }],
		['more than is read', 200, { ...sound, more: 'x'.repeat(300_000) }]
	] as const)('%s is told as that', async (_, status, body) => {
		for (const answer of asked(status, body))
			await expect(answer).rejects.toThrow('gave an answer that cannot be read');
	});
	test('one that speaks of another reader is told as that', async () => {
		const [card] = asked(200, { ...sound, reader: 'nobody' });
		await expect(card).rejects.toThrow('gave an answer that cannot be read');
		const [, again] = asked(200, { is: 'fetched', card: { ...sound, reader: 'gangway' } });
		await expect(again).rejects.toThrow('gave an answer that cannot be read');
	});
	test('one that breaks off is told as that', async () => {
		for (const answer of asked(200, JSON.stringify(sound).slice(0, 40), true))
			await expect(answer).rejects.toThrow('gave an answer that cannot be read');
	});
	test('a refusal is told in its own words, where it has some', async () => {
		for (const answer of asked(404, { detail: 'Nobody is called so.' }))
			await expect(answer).rejects.toThrow('Nobody is called so.');
		for (const answer of asked(500, '<html>')) await expect(answer).rejects.toThrow('answered 500');
	});
	test('a card and each answer that there is are read', async () => {
		const [card] = asked(200, sound);
		expect(await card).toEqual(sound);
		for (const body of [
			{ is: 'fetched', card: sound },
			{ is: 'ask-again' },
			{ is: 'wait', until: null },
			{ is: 'new-address', until: '2026-01-01T00:00:00Z' }
		]) {
			const [, other] = asked(200, body);
			expect(await other).toEqual(body);
		}
		const [, other] = asked(429, { is: 'limit', wait: 3 });
		expect(await other).toEqual({ is: 'limit', wait: 3 });
	});
});

describe('what Kephalon keeps of it', () => {
	const folder = mkdtempSync(join(tmpdir(), 'kephalon-cards-'));
	afterAll(() => rmSync(folder, { recursive: true, force: true }));
	const site: Site = {
		...{ name: 'S', base: BASE, languages: ['en'], separator: '·', fields: {}, rules: [] }
	};
	const page = (path: string, title: string, more: Partial<Page> = {}): Page => ({
		...{ path, type: 'page', state: 'live', fields: { title }, rules: [] },
		...more
	});
	const stop = new AbortController();
	const options = { signal: stop.signal, say: () => undefined };
	let made = 0;
	function begin() {
		const store = new Store(join(folder, `${++made}.db`));
		const id = store.working.sites.save(site);
		store.working.types.ensure(id, 'page');
		store.working.pages.save(id, page('/', 'First', { key: true }));
		const release = () => JOBS.release({ db: store.file, site: 'S' }, () => undefined);
		release();
		return { store, id, release };
	}

	test('after a release the old cards are known; told, those that can fetch again do, and the others say until when', async () => {
		const { store, id, release } = begin();
		const client = new ReadersClient(at(readers));
		expect(await lookAtCards(store, client, 'S', options)).toBe(ASKED.length);
		const before = readCards(store, 'S', true);
		expect(before.pages).toBe(1);
		expect(before.old).toEqual([]);

		title = 'Second';
		store.working.pages.save(id, page('/', 'Second', { key: true }));
		release();
		const after = readCards(store, 'S', true);
		// One that keeps no card fetches it anew when it is asked next: nothing of it is old.
		const keeping = ASKED.filter(({ habits }) => habits.keeps);
		expect([after.old.length, after.counts.porthole]).toEqual([keeping.length, expect.objectContaining({ lapsed: 1 })]);
		expect(after.old[0]).toMatchObject({ shows: 'First', released: 'Second' });

		const lines: string[] = [];
		await tellReaders(store, client, 'S', { ...options, say: ({ last }) => void (last && lines.push(last)) });
		expect(lines).toHaveLength(keeping.length);
		const told = readCards(store, 'S', true);
		const stubborn = keeping.filter(({ habits }) => ['wait', 'new-address', 'never'].includes(habits.keeps!.again));
		expect(told.old.map(({ reader }) => reader).sort()).toEqual(stubborn.map(({ id: reader }) => reader).sort());
		for (const one of told.old)
			expect(one).toMatchObject({ told: expect.stringMatching(/nothing makes it|only another|stays as it was/) });
		store.close();
	});

	test('a card is held against what its own reader would make of the release', () => {
		const { store, id, release } = begin();
		const own = [
			{ tag: 'og:title', kind: 'template', template: 'For feeds' },
			{ tag: 'twitter:title', kind: 'template', template: 'For timelines' }
		] as const;
		store.working.pages.save(id, page('/', 'First', { rules: own }));
		release();
		const byTwitter = ASKED.filter(({ form }) => form === 'timeline').map((reader) => reader.id);
		expect(byTwitter.length).toBeGreaterThan(0);
		const card = {
			isShutOut: false,
			seen: '2026-05-03T10:00:00Z',
			until: '9999-01-01T00:00:00Z',
			told: null,
			path: '/'
		};
		const kept = (title: string) => {
			for (const { id: reader } of ASKED)
				store.state.looks.saveCard(id, { ...card, reader, shown: { title, description: '', picture: '' } as never });
			return readCards(store, 'S', true).old;
		};
		// Where one shows the title of the others, that alone makes it old.
		const old = kept('For timelines');
		for (const reader of byTwitter) expect(old.map((one) => one.reader)).not.toContain(reader);
		expect(old.find(({ reader }) => reader === 'gangway')).toMatchObject({
			shows: 'For timelines',
			released: 'For feeds'
		});
		store.close();
	});

	test('a reader that was shut out is told as such, whatever it had kept before', () => {
		const { store, id, release } = begin();
		store.working.pages.save(id, page('/', 'First'));
		release();
		const card = { seen: '2026-05-03T10:00:00Z', until: '9999-01-01T00:00:00Z', told: null, path: '/' };
		const counted = (isShutOut: boolean, shown: object | null) => {
			store.state.looks.saveCard(id, { ...card, reader: 'gangway', isShutOut, shown: shown as never });
			return readCards(store, 'S', true).counts.gangway;
		};
		const nothing = { current: 0, old: 0, lapsed: 0, none: 0, 'shut-out': 0 };
		const other = { title: 'Another', description: '', picture: '' };
		expect(counted(true, null)).toEqual({ ...nothing, 'shut-out': 1 });
		expect(counted(true, other)).toEqual({ ...nothing, 'shut-out': 1 });
		expect(counted(false, other)).toEqual({ ...nothing, old: 1 });
		expect(counted(false, null)).toEqual({ ...nothing, none: 1 });
		store.close();
	});

	test('a card past its time is not old: it is fetched anew when it is asked for next', () => {
		const { store, id, release } = begin();
		store.working.pages.save(id, page('/', 'First'));
		release();
		const shown = { title: 'Before', description: '', picture: '', host: '', siteName: '' };
		const counted = (until: string | null) => {
			const card = { seen: '2026-05-03T10:00:00Z', told: null, path: '/', reader: 'gangway', isShutOut: false };
			store.state.looks.saveCard(id, { ...card, until, shown });
			return readCards(store, 'S', true);
		};
		expect(counted('9999-01-01T00:00:00Z')).toMatchObject({ counts: { gangway: { old: 1, lapsed: 0 } } });
		expect(counted('2026-05-04T10:00:00Z')).toMatchObject({ old: [], counts: { gangway: { old: 0, lapsed: 1 } } });
		expect(counted(null)).toMatchObject({ old: [], counts: { gangway: { lapsed: 1 } } });
		store.close();
	});

	test('readers that do not answer are told as such, and what was known stays', async () => {
		const { store } = begin();
		await lookAtCards(store, new ReadersClient(at(readers)), 'S', options);
		const known = readCards(store, 'S', true);
		await expect(lookAtCards(store, new ReadersClient('http://127.0.0.1:9'), 'S', options)).rejects.toThrow(
			/do not answer/
		);
		expect(readCards(store, 'S', true)).toEqual(known);
		store.close();
	});

	test('asking again goes on with the pages that nobody was asked about, then begins anew', () => {
		const { store, id, release } = begin();
		for (const path of ['/a', '/b', '/c'])
			store.working.pages.save(id, page(path, `Page ${path}`, { key: path === '/c' }));
		release();
		const ask = (most: number) => {
			const paths = store.state.looks.pagesToAsk(id, most);
			const card = {
				reader: 'gangway',
				shown: null,
				isShutOut: false,
				seen: '2026-05-03T10:00:00Z',
				until: null,
				told: null
			};
			for (const path of paths) store.state.looks.saveCard(id, { path, ...card });
			return [...paths, readCards(store, 'S', true).notAsked];
		};
		expect(readCards(store, 'S', true)).toMatchObject({ pages: 0, notAsked: 4 });
		// Key pages first, the home page among them, then what a release changed last.
		expect(ask(2)).toEqual(['/c', '/', 2]);
		expect(ask(2)).toEqual(['/a', '/b', 0]);
		expect(ask(2)).toEqual(['/c', '/', 0]);
		store.close();
	});

	test('so many pages are asked about at a time, by every reader; the rest is told as not asked', async () => {
		const { store, id, release } = begin();
		for (let at = 0; at < 204; at++) store.working.pages.save(id, page(`/${at}`, `Page ${at}`));
		release();
		const asked = new Set<string>();
		const card = (_reader: string, address: string) => {
			asked.add(address);
			return Promise.resolve({
				reader: _reader,
				fetched: '2026-05-03T10:00:00Z',
				until: null,
				isShutOut: false,
				card: null
			});
		};
		const { signal } = new AbortController();
		const count = () => lookAtCards(store, { card } as never, 'S', { signal, say: () => undefined });
		expect(await count()).toBe(200 * ASKED.length);
		expect([asked.size, readCards(store, 'S', true).notAsked]).toEqual([200, 5]);
		await count();
		expect([asked.size, readCards(store, 'S', true).notAsked]).toEqual([205, 0]);
		store.close();
	});

	test('a reader that never listens again is told as that; what the others said is kept', async () => {
		const { store, id, release } = begin();
		await lookAtCards(store, new ReadersClient(at(readers)), 'S', options);
		title = 'Second';
		store.working.pages.save(id, page('/', 'Second', { key: true }));
		release();
		const sleep = vi.spyOn(clock, 'sleep').mockResolvedValue(undefined);
		let asks = 0;
		const again = () => {
			asks++;
			return Promise.resolve({ is: 'limit', wait: 3 } as const);
		};
		const before = readCards(store, 'S', true).old.length;
		await expect(tellReaders(store, { again } as never, 'S', options)).rejects.toThrow('does not listen again');
		// Four at one time, each asked and waited for a few times.
		expect(asks).toBeLessThanOrEqual(4 * 4);
		expect(sleep).toHaveBeenCalledWith(3000, expect.anything());
		expect(readCards(store, 'S', true).old.length).toBe(before);
		vi.restoreAllMocks();
		store.close();
	});

	test('it is stopped between two asks', async () => {
		const { store } = begin();
		const stopping = new AbortController();
		await lookAtCards(store, new ReadersClient(at(readers)), 'S', {
			signal: stopping.signal,
			say: () => stopping.abort()
		}).catch(() => undefined);
		expect(readCards(store, 'S', true).counts.gangway?.current ?? 0).toBeLessThanOrEqual(1);
		expect(store.state.looks.cards(store.working.sites.named('S').id).length).toBeLessThan(ASKED.length);
		store.close();
	});
});
