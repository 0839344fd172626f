import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Page, Site } from '$core';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
import type { Actor } from '$core';
import { actingAs } from '../people/acting';
import { answeredIn } from '../speaking';
import { isDue, lookBySchedule, lookForDrift, readDrift, setSchedule } from './drift';

let folder = '';
let store: Store;
let id = 0;
let website: Server;
/** Paths that the stand-in serves without a head. */
let bare = new Set<string>();
/** By what some pages say that their head was written in. */
const ways = new Map<string, string>();
let asked: string[] = [];
const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
};
const page = (path: string): Page => ({
	path,
	type: 'page',
	state: 'live',
	fields: { title: `At ${path}` },
	rules: []
});
const via = () => ({ origin: 'https://s.example', at: `http://127.0.0.1:${(website.address() as AddressInfo).port}` });

beforeAll(async () => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-drift-'));
	store = new Store(join(folder, 'd.db'));
	id = store.working.sites.save(site);
	store.working.types.ensure(id, 'page');
	for (const path of ['/', '/a', '/b', '/c']) store.working.pages.save(id, page(path));
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	website = createServer((request, response) => {
		const path = request.url ?? '/';
		if (path === '/robots.txt') return void response.writeHead(404).end();
		asked.push(path);
		const head = bare.has(path) ? '' : (store.releases.head(id, { path })?.html ?? '');
		const way = ways.get(path);
		response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', ...(way && { 'kephalon-head': way }) });
		response.end(
			`<!doctype html><html lang="en"><head><meta charset="utf-8">${head}</head><body><p>Text.</p></body></html>`
		);
	});
	await new Promise<void>((done) => website.listen(0, '127.0.0.1', () => done()));
});
afterAll(() => {
	website.close();
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

test('what is served is looked at, and the next look says what came and what went', async () => {
	expect(readDrift(store, 'S')).toMatchObject({ made: null, every: 'off' });
	expect(await lookForDrift(store, 'S', via(), { rate: 1000 })).toMatchObject({
		pages: 4,
		counts: { same: 4 },
		drifted: []
	});
	bare = new Set(['/a']);
	expect(await lookForDrift(store, 'S', via(), { rate: 1000 })).toMatchObject({
		came: ['/a'],
		went: [],
		counts: { missing: 1 }
	});
	bare = new Set(['/b']);
	expect(await lookForDrift(store, 'S', via(), { rate: 1000 })).toMatchObject({ came: ['/b'], went: ['/a'] });
});

test('how a page differs is told in the language of whoever asks; what an earlier version kept, in its own', () => {
	const kept = store.working.sources.settings<{ drifted: object[] }>(id, 'drift')!;
	expect(readDrift(store, 'S').drifted).toEqual([{ path: '/b', is: 'missing', more: 'none of its tags is served' }]);
	const inFrench = answeredIn('fr', () => readDrift(store, 'S').drifted[0]?.more);
	expect(inFrench).toBe('aucune de ses balises n’est servie');
	const old = { path: '/b', is: 'other', more: 'title, as it was said then' };
	store.working.sources.saveSettings(id, 'drift', { ...kept, drifted: [old] });
	expect(readDrift(store, 'S').drifted).toEqual([old]);
	store.working.sources.saveSettings(id, 'drift', kept);
});

test('stopped, it says how many wait, and goes on without asking twice', async () => {
	bare = new Set();
	const stop = new AbortController();
	asked = [];
	const first = await lookForDrift(store, 'S', via(), {
		rate: 1000,
		signal: stop.signal,
		progress: (done) => done === 2 && stop.abort()
	});
	expect(first).toMatchObject({ pages: 2, waiting: 2 });
	expect(await lookForDrift(store, 'S', via(), { rate: 1000 })).toMatchObject({ pages: 4, waiting: 0 });
	// Each page by both readers.
	expect(asked).toEqual(['/', '/', '/a', '/a', '/b', '/b', '/c', '/c']);
});

test('it says who looked, where there are people', async () => {
	const edda: Actor = { kind: 'person', id: 1, name: 'Edda Quill', isOwner: false, roles: {} };
	const seen = await actingAs(edda, () => lookForDrift(store, 'S', via(), { rate: 1000 }));
	expect([seen.by, readDrift(store, 'S').by]).toEqual(['Edda Quill', 'Edda Quill']);
	expect(await lookForDrift(store, 'S', via(), { rate: 1000 })).not.toHaveProperty('by');
});

test('by which way heads came into pages is counted, where that is said', async () => {
	expect((await lookForDrift(store, 'S', via(), { rate: 1000 })).ways).toEqual({});
	ways.set('/a', 'front').set('/b', 'middleware').set('/c', 'something else');
	expect((await lookForDrift(store, 'S', via(), { rate: 1000 })).ways).toEqual({ front: 1, middleware: 1 });
	ways.clear();
});

describe('a schedule', () => {
	const at = (hour: number) => new Date(2026, 4, 3, hour, 10);
	const hoursBefore = (now: Date, hours: number) => new Date(now.getTime() - hours * 3_600_000).toISOString();
	test.each([
		['off', 12, 100, false],
		['hour', 12, 0.5, false],
		['hour', 12, 1, true],
		// Missed while nothing ran, it is made up for, once.
		['night', 12, 100, true],
		['night', 12, 9.5, true],
		['night', 12, 8.5, false],
		['night', 2, 20, false],
		['night', 3, 24, true],
		['night', 3, 0.1, false]
	] as const)('%s, at %d o’clock, %d hours after the last look', (every, hour, hours, due) => {
		expect(isDue({ every, made: hoursBefore(at(hour), hours) }, at(hour))).toBe(due);
	});

	test('that was set by day waits for the night', () => {
		const set = { every: 'night', made: null, since: at(12).toISOString() } as const;
		expect([isDue(set, at(12)), isDue(set, at(23)), isDue({ ...set, since: hoursBefore(at(12), 10) }, at(12))]).toEqual(
			[...[false, false, true]]
		);
	});

	test('looks at the sites whose time has come; an error of one is told and ends nothing', async () => {
		await setSchedule(store, 'S', 'hour');
		asked = [];
		const later = new Date(Date.now() + 2 * 3_600_000);
		const errors: unknown[] = [];
		const look = (site: string) => lookForDrift(store, site, via(), { rate: 1000 });
		await lookBySchedule(store, look, later, (error) => errors.push(error));
		expect([asked.length, errors]).toEqual([8, []]);
		await lookBySchedule(
			store,
			() => {
				throw new Error('no way there');
			},
			new Date(Date.now() + 4 * 3_600_000),
			(error) => errors.push(error)
		).catch((error: unknown) => errors.push(error));
		expect(errors).toHaveLength(1);
		await setSchedule(store, 'S', 'off');
	});
});
