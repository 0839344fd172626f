import { mkdtempSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { joinReaches, measureReach, type Edit } from '$core';
import { keepRule } from '../edits/rules';
import { saveSiteFile, writeSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { importFolder } from '../imports/importFolder';
import { JOBS } from './jobs';
import { countUnder, reachOf } from './reach';
import { runJob, stopJobs, threads } from './run';

/** Jobs as they run: in a thread, of the program that is built. */
const PAGES = 3000;
const folder = mkdtempSync(join(tmpdir(), 'kephalon-threads-'));
let store: Store;
let db = '';
let made = 0;
beforeAll(
	() => (process.env.KEPHALON_THREAD ??= fileURLToPath(new URL('../../../build/cli/thread.js', import.meta.url)))
);
beforeEach(() => {
	store?.close();
	db = join(folder, `${made++}.db`);
	store = new Store(db);
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: ['note', 'other'].map((name) => ({ name, fields: [], rules: [] })),
		pages: Array.from({ length: PAGES }, (_, at) => ({
			...{ path: at === 0 ? '/' : `/${at}`, type: at % 3 === 1 ? 'other' : 'note', state: 'live', rules: [] },
			fields: { title: `Page ${at}`, summary: at % 2 ? 'Words that say something of this page, enough of them.' : '' }
		}))
	} as never);
});
afterAll(async () => {
	store.close();
	await stopJobs();
	rmSync(folder, { recursive: true, force: true });
});
const dump = () => [...writeSiteFile(store, 'S')].join('');
const edit: Edit = {
	place: { layer: 'type', name: 'note' },
	tag: 'description',
	body: { kind: 'template', template: 'Of {page.title}' }
};

test('reach, counted in parts by threads, is what the core counts of all pages, and says how far it is', async () => {
	const { id, site, types } = store.working.sites.named('S');
	const told: number[] = [];
	const counted = await reachOf(store, 'S', edit, { progress: (done) => told.push(done) });
	const model = { site, types, pictures: store.pictures.all(id) };
	const whole = joinReaches([
		measureReach(
			model,
			[...store.working.pages.all(id)].filter(({ type }) => type === 'note'),
			edit,
			new Date().toISOString()
		)
	]);
	const { worst, ...numbers } = counted;
	const { worst: wanted, ...others } = whole;
	expect(numbers).toEqual(others);
	expect(worst.length).toBe(wanted.length);
	expect(told.length).toBeGreaterThan(0);
	expect([...told].sort((a, b) => a - b)).toEqual(told);
	expect(told.at(-1)).toBeLessThanOrEqual(PAGES);
});
test('how many pages stand under an edit', () => {
	const under = (place: Edit['place']) => countUnder(store, 'S', { ...edit, place } as Edit);
	expect(under({ layer: 'site' })).toBe(PAGES);
	expect(under({ layer: 'type', name: 'other' })).toBe(PAGES / 3);
	expect(under({ layer: 'type', name: 'constructor' })).toBe(0);
	expect(under({ layer: 'page', path: '/' })).toBe(1);
});

test('stopped at any moment, a batch has changed nothing, and that is so when it says so', async () => {
	const before = dump();
	const pages = { filter: {} };
	const action = { do: 'text' as const, tag: 'title', text: 'Changed' };
	for (const after of [0, 5, 40, 400]) {
		const stop = new AbortController();
		const running = runJob(
			'batch',
			{ db, site: 'S', pages, action },
			{
				signal: stop.signal,
				progress: (done) => done >= after && stop.abort()
			}
		);
		if (after === 0) stop.abort();
		await expect(running).rejects.toThrow('Stopped.');
		expect(dump()).toBe(before);
		expect(store.record.unfinished()).toEqual([]);
	}
	await expect(runJob('batch', { db, site: 'S', pages, action }, { signal: AbortSignal.abort() })).rejects.toThrow(
		'Stopped.'
	);
	expect(await runJob('batch', { db, site: 'S', pages, action })).toMatchObject({ changed: PAGES });
});

test('taking back a large edit says how far it is, and stopped at any moment it has taken nothing back', async () => {
	const action = { do: 'text' as const, tag: 'title', text: 'Changed' };
	const { edit } = await runJob('batch', { db, site: 'S', pages: { filter: {} }, action });
	const changed = dump();
	const indexes = () => store.db.prepare(`SELECT name FROM sqlite_schema WHERE type = 'index' ORDER BY 1`).all();
	const before = indexes();
	for (const after of [0, 1000, 2000]) {
		const stop = new AbortController();
		const progress = (done: number) => done >= after && stop.abort();
		const running = runJob('takeBack', { db, site: 'S', edit: edit! }, { signal: stop.signal, progress });
		if (after === 0) stop.abort();
		await expect(running).rejects.toThrow('Stopped.');
		expect(dump()).toBe(changed);
		expect(indexes()).toEqual(before);
	}
	const told: (readonly [number, number | undefined])[] = [];
	const progress = (done: number, all?: number) => told.push([done, all]);
	await runJob('takeBack', { db, site: 'S', edit: edit! }, { progress });
	expect(told).toEqual([
		[1000, PAGES],
		[2000, PAGES],
		[PAGES, PAGES]
	]);
	expect(dump()).not.toBe(changed);
});

test('what a thread refuses comes back as it was meant; what fails in it is no refusal', async () => {
	await expect(runJob('hard', { db, site: 'Nowhere' })).rejects.toMatchObject({ name: 'UserError', status: 404 });
	const pages = { paths: ['/nowhere'] };
	const action = { do: 'retype' as never };
	await expect(runJob('batch', { db, site: 'S', pages, action: action as never })).rejects.toThrow();
	const none = join(folder, 'none.db');
	writeFileSync(none, 'no database');
	await expect(runJob('count', { db: none, site: 'S' } as never)).rejects.toMatchObject({ name: 'UserError' });
	await expect(runJob('frobnicate' as never, { db } as never)).rejects.not.toMatchObject({ name: 'UserError' });
});

test('more work than may wait is refused in a sentence, and what was taken is done', async () => {
	const answers = await Promise.allSettled(Array.from({ length: 90 }, () => runJob('hard', { db, site: 'S' })));
	const refused = answers.filter((one) => one.status === 'rejected');
	expect(refused.length).toBeGreaterThan(0);
	expect(refused.length).toBeLessThan(30);
	for (const { reason } of refused) expect(String(reason)).toContain('Too much is being worked on already');
	expect(await runJob('hard', { db, site: 'S' })).toEqual(JOBS.hard({ db, site: 'S' }));
});

test('a database that is replaced while it is open is refused or read, never half', async () => {
	const before = dump();
	store.close();
	truncateSync(db, 4096);
	await expect(runJob('hard', { db, site: 'S' })).rejects.toMatchObject({ name: 'UserError' });
	rmSync(db);
	for (const end of ['-wal', '-shm']) rmSync(db + end, { force: true });
	store = new Store(db);
	saveSiteFile(store, JSON.parse(before) as never);
	expect(dump()).toBe(before);
});

test('a thread whose program is not there is told as that, at once', async () => {
	const program = process.env.KEPHALON_THREAD;
	await stopJobs();
	try {
		process.env.KEPHALON_THREAD = join(folder, 'gone.js');
		await expect(runJob('refresh', { db, site: 'S' })).rejects.toThrow(/program of the threads is not there/);
		delete process.env.KEPHALON_THREAD;
		await expect(runJob('refresh', { db, site: 'S' })).rejects.toThrow(/start through the kephalon command/);
	} finally {
		process.env.KEPHALON_THREAD = program;
	}
	await expect(runJob('refresh', { db, site: 'S' })).resolves.toBeDefined();
});

test('going back says how far it is; comparing counts all, and tells the first', async () => {
	await runJob('release', { db, site: 'S' });
	keepRule(
		store,
		'S',
		{ place: { layer: 'site' }, tag: 'title', body: { kind: 'template', template: 'Other {page.title}' } },
		{ origin: 'bench' }
	);
	await runJob('release', { db, site: 'S' });
	const compared = await runJob('compareReleases', { db, site: 'S', between: [1, 2], most: 3 });
	expect([compared.count, compared.pages.length]).toEqual([PAGES, 3]);
	const one = await runJob('compareReleases', { db, site: 'S', between: [1, 2], most: 3, path: '/7' });
	expect([one.count, one.pages.map(({ path }) => path)]).toEqual([1, ['/7']]);
	const told: number[][] = [];
	const made = await runJob(
		'goBack',
		{ db, site: 'S', to: 1 },
		{ progress: (done, all) => void told.push([done, all ?? -1]) }
	);
	expect(made).toMatchObject({ number: 3, changed: PAGES });
	expect(told).toEqual([0, 500, 1000, 1500, 2000, 2500, 3000].map((done) => [done, PAGES]));
});

test('a thread that needs more memory than it may have is ended, and that is said', async () => {
	const before = threads.heap;
	await stopJobs();
	try {
		threads.heap = 48;
		const file = Buffer.from(
			JSON.stringify(Array.from({ length: 150_000 }, (_, at) => ({ path: `/${at}`, title: 'T' })))
		);
		await expect(runJob('lookAtTable', { file, said: {}, base: 'https://s.example/' } as never)).rejects.toMatchObject({
			code: 'work-too-large'
		});
	} finally {
		await stopJobs();
		threads.heap = before;
	}
	await expect(runJob('refresh', { db, site: 'S' })).resolves.toBeDefined();
});

test('a folder is read by threads as it is by one', async () => {
	const pages = mkdtempSync(join(folder, 'pages-'));
	for (let at = 0; at < 700; at++)
		writeFileSync(join(pages, `${at}.html`), `<title>Page ${at}</title><p>What stands on page ${at} and on no other.`);
	await importFolder(store, { folder: pages, site: 'Here', base: 'https://s.example/' });
	await runJob('content', { db, name: 'There', base: 'https://s.example/', source: { kind: 'folder', folder: pages } });
	const dump = (name: string) => [...writeSiteFile(store, name)].join('').replaceAll('"There"', '"Here"');
	expect(dump('There')).toBe(dump('Here'));
	expect(dump('Here')).toContain('What stands on page 699');
});
