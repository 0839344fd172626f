import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import type { Page, Site } from '$core';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile, writeSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { WriterLock } from '../store/opening/writerLock';
import { gridRows } from '../store/table/grid';
import { hasPausedOrders, pauseOrders, resumeOrders } from '../store/opening/orders';
import { makeLongEdit, type LongWork } from './longEdit';
import { keepSettings, readSettingsEdit } from './settings';
import { editMeant, isLarge, takeBack, takeBackLarge } from './takeBack';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-long-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const siteOf = (name: string): Site => ({
	...{ name, base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
});
const page = (path: string, title = path): Page => ({
	...{ path, type: 'note', state: 'live', fields: { title }, rules: [] }
});
let [store, made, id] = [undefined as unknown as Store, 0, 0];
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	const types = [{ name: 'note', fields: [], rules: [] }];
	saveSiteFile(store, {
		site: siteOf('S'),
		types,
		pages: ['/', '/a', '/b'].map((path) => page(path)),
		pictures: []
	} as never);
	saveSiteFile(store, { site: siteOf('Other'), types, pages: [page('/')], pictures: [] } as never);
	id = store.working.sites.named('S').id;
});
const dump = (name = 'S') => [...writeSiteFile(store, name)].join('');
const entry = { origin: 'command', kind: 'import', what: { pages: 9 } } as const;
const busy = (milliseconds: number) => {
	for (const until = performance.now() + milliseconds; performance.now() < until;);
};
/** Writes pages one after the other, slowly: several goes. */
const slowly = (paths: readonly string[], each = 60): LongWork<number> =>
	function* (site) {
		for (const path of paths) {
			store.working.pages.save(site.id, page(path, `New ${path}`));
			busy(each);
			yield;
		}
		return paths.length;
	};
const PATHS = ['/a', '/c', '/d', '/e', '/f', '/g', '/h', '/i'];

/** Another writer, in a thread: tries again and again, and tells how often it has written. */
function otherWriter(file: string) {
	const code = `
		const { parentPort, workerData } = require('node:worker_threads');
		const Database = require('better-sqlite3');
		const db = new Database(workerData, { timeout: 0 });
		const write = db.prepare("UPDATE site SET base = 'https://other.example/' || ? || '/' WHERE name = 'Other'");
		let writes = 0;
		const timer = setInterval(() => {
			try { write.run(writes); } catch (error) { return; }
			writes++;
		}, 20);
		parentPort.on('message', () => { clearInterval(timer); db.close(); parentPort.postMessage(writes); parentPort.close(); });
		parentPort.postMessage('ready');`;
	const worker = new Worker(code, { eval: true, workerData: file });
	const next = () => new Promise<unknown>((resolve) => worker.once('message', resolve));
	return {
		ready: next(),
		async stop() {
			const told = next();
			worker.postMessage('stop');
			return (await told) as number;
		}
	};
}

describe('a long edit', () => {
	test('lets others write between its goes, and is one edit all the same', async () => {
		const before = dump();
		const other = otherWriter(store.file);
		await other.ready;
		const seen = new Set<string>();
		const base = () => store.working.sites.names().find(({ name }) => name === 'Other')!.base;
		// It goes on until the other was seen to write twice: however busy the machine is.
		const { edit, result, revision } = makeLongEdit(store, 'S', entry, function* (site) {
			let made = 0;
			for (; made < 16 || (seen.size < 3 && made < 2000); made++) {
				store.working.pages.save(
					site.id,
					page(made === 0 ? '/a' : `/made/${made}`, made === 0 ? 'New /a' : `Made ${made}`)
				);
				busy(60);
				seen.add(base());
				yield;
			}
			return made;
		});
		expect(await other.stop()).toBeGreaterThanOrEqual(2);
		expect(seen.size).toBeGreaterThanOrEqual(3);
		expect(result).toBeGreaterThanOrEqual(16);
		expect(store.record.list(id, undefined, 1)).toMatchObject([{ id: edit, kind: 'import', revision }]);
		expect(store.working.sites.named('S').revision).toBe(revision);
		expect(store.record.unfinished()).toEqual([]);
		expect(store.working.pages.at(id, '/a')).toMatchObject({ fields: { title: 'New /a' } });
		takeBack(store, 'S', 'last', 'bench', result - 1);
		expect(dump()).toBe(before);
	});
	test('of a moment is made in one go', () => {
		const { revision } = store.working.sites.named('S');
		const { edit } = makeLongEdit(store, 'S', entry, slowly(['/a', '/x'], 0));
		expect(store.record.one(id, edit!)).toMatchObject({ revision: revision + 1 });
		expect(store.working.sites.named('S').revision).toBe(revision + 1);
	});
	test('that changes nothing leaves no trace', () => {
		const { revision } = store.working.sites.named('S');
		const nothing: LongWork<string> = function* () {
			yield;
			return 'done';
		};
		expect(makeLongEdit(store, 'S', entry, nothing)).toEqual({ edit: undefined, revision, result: 'done' });
		expect(store.working.sites.named('S').revision).toBe(revision);
	});
	test.each([
		['at once', 0],
		['after several goes', 60]
	])('that fails %s leaves nothing, whatever others did meanwhile', (_, each) => {
		const before = dump();
		const failing: LongWork<void> = function* (site) {
			yield* slowly(PATHS, each)(site);
			throw new Error('no further');
		};
		expect(() => makeLongEdit(store, 'S', entry, failing)).toThrow('no further');
		expect(dump()).toBe(before);
		expect(store.record.unfinished()).toEqual([]);
		expect(WriterLock.take(store.file)).toBeDefined();
	});
	test('that fails leaves no site that it made', () => {
		const failing: LongWork<void> = function* (site) {
			store.working.types.ensure(site.id, 'note');
			yield* slowly(PATHS)(site);
			throw new Error('no further');
		};
		expect(() => makeLongEdit(store, 'New', entry, failing, { fresh: siteOf('New') })).toThrow('no further');
		expect(store.working.sites.find('New')).toBeUndefined();
		const working: LongWork<number> = function* (site) {
			store.working.types.ensure(site.id, 'note');
			return yield* slowly(['/x'], 0)(site);
		};
		makeLongEdit(store, 'New', entry, working, { fresh: siteOf('New') });
		expect(store.working.pages.count(store.working.sites.named('New').id).all).toBe(1);
	});
	test('that waits for no one is made whole while another is going on', () => {
		const lock = WriterLock.take(store.file)!;
		const { revision } = store.working.sites.named('S');
		makeLongEdit(store, 'S', entry, slowly(PATHS));
		expect(store.working.sites.named('S').revision).toBe(revision + 1);
		lock.release();
	});
});

describe('where many pages come, the indexes that only the table needs', () => {
	const indexes = () =>
		store.db
			.prepare(`SELECT name, sql FROM sqlite_schema WHERE type = 'index' AND tbl_name = 'page_state' ORDER BY name`)
			.all();
	const sorted = () => gridRows(store.db, id, { type: 'note' }, { sort: 'title', down: true, offset: 0, limit: 99 });

	test('are away meanwhile and there again after it, and the table is right all the time', () => {
		const before = indexes();
		let [fewest, during] = [before.length, [] as unknown[]];
		makeLongEdit(
			store,
			'S',
			entry,
			function* (site) {
				yield* slowly(PATHS)(site);
				fewest = indexes().length;
				during = sorted();
			},
			{ coming: 5000 }
		);
		expect(fewest).toBe(3);
		expect(during).toHaveLength(10);
		expect(sorted()).toEqual(during);
		expect(indexes()).toEqual(before);
	});
	test('those that looking at pages writes wait until few are still to be looked at', () => {
		const names = () => indexes().map((row) => (row as { name: string }).name);
		const before = names();
		const many = Array.from({ length: 5000 }, (_, at) => `/many/${at}`);
		makeLongEdit(store, 'S', entry, slowly(many, 0), { coming: many.length });
		const away = before.filter((name) => !names().includes(name));
		expect(away).toEqual([
			...['page_state_card', 'page_state_description', 'page_state_description_from', 'page_state_description_width'],
			...['page_state_picture', 'page_state_picture_from', 'page_state_tags'],
			...['page_state_title', 'page_state_title_from', 'page_state_title_width'],
			...['page_state_type_card', 'page_state_type_description', 'page_state_type_description_width'],
			...['page_state_type_differs'],
			...['page_state_type_heavy', 'page_state_type_picture', 'page_state_type_title', 'page_state_type_title_width']
		]);
		// Whoever opens it meanwhile leaves it so, and the table is right.
		new Store(store.file).close();
		expect(names()).toHaveLength(before.length - away.length);
		JOBS.refresh({ db: store.file, site: 'Other' }, () => undefined);
		expect(names()).toHaveLength(before.length - away.length);
		expect(hasPausedOrders(store.db)).toBe(false);
		expect(sorted().length).toBe(99);
		JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
		expect(names()).toEqual(before);
		expect(sorted()[0]).toMatchObject({ path: '/many/999' });
	});
	test('are made again with the next schema, whatever is still to be looked at', () => {
		const before = indexes();
		expect(pauseOrders(store.db, 5000)).toBe(true);
		resumeOrders(store.db, 'all');
		expect(indexes()).toEqual(before);
	});
	test('few that come hold no lock that others may want', () => {
		makeLongEdit(
			store,
			'S',
			entry,
			function* (site) {
				const lock = WriterLock.take(store.file);
				expect(lock).toBeDefined();
				lock!.release();
				yield* slowly(['/a'], 0)(site);
			},
			{ coming: 4999 }
		);
	});
	test('stay where few come, or no more than are there', () => {
		expect(pauseOrders(store.db, 4999)).toBe(false);
		const { n } = store.db.prepare('SELECT count(*) AS n FROM page_state').get() as { n: number };
		expect(n).toBe(4);
		expect(hasPausedOrders(store.db)).toBe(false);
	});
	test('are there again when it fails, and when its maker was ended, with the next who opens the database', () => {
		const before = indexes();
		const failing: LongWork<void> = function* (site) {
			yield* slowly(PATHS)(site);
			throw new Error('no further');
		};
		expect(() => makeLongEdit(store, 'S', entry, failing, { coming: 5000 })).toThrow('no further');
		expect(indexes()).toEqual(before);
		expect(pauseOrders(store.db, 5000)).toBe(true);
		expect(indexes()).toHaveLength(3);
		const lock = WriterLock.take(store.file)!;
		new Store(store.file).close();
		expect(hasPausedOrders(store.db)).toBe(true);
		lock.release();
		new Store(store.file, { readonly: true }).close();
		expect(indexes()).toEqual(before);
		expect(hasPausedOrders(store.db)).toBe(false);
	});
});

describe('while one is half made', () => {
	/** One that has done something and goes on. */
	function half(isNew = false) {
		const site = isNew ? store.working.sites.save(siteOf('New')) : id;
		return store.transaction(() => {
			const revision = store.record.nextRevision(site);
			const edit = store.record.begin({ site, revision, made: '2026-05-03T10:00:00Z', author: 'ada', ...entry });
			store.record.go(edit, () => {
				store.working.types.ensure(site, 'note');
				store.working.pages.save(site, page('/a', 'Half'));
			});
			store.record.beginLong(edit, isNew);
			return edit;
		});
	}
	test('it is not taken back, and nothing is released', () => {
		const lock = WriterLock.take(store.file)!;
		const settled = takeBackable();
		half();
		expect(store.record.next(id).back).toBe(settled);
		expect(() => JOBS.release({ db: store.file, site: 'S' }, () => undefined)).toThrow(
			expect.objectContaining({ status: 409, message: expect.stringContaining('ada is putting in many pages') })
		);
		// Whoever opens the database meanwhile leaves it alone.
		new Store(store.file).close();
		new Store(store.file, { readonly: true }).close();
		expect(store.record.unfinished()).toMatchObject([{ site: id, isNew: false, author: 'ada' }]);
		expect(store.working.pages.at(id, '/a')!.fields.title).toBe('Half');
		lock.release();
	});
	const takeBackable = () =>
		keepSettings(store, 'S', readSettingsEdit({ place: { layer: 'site' }, changes: { separator: '|' } }), 'bench').edit;

	test.each([
		['to write', {}],
		['to read', { readonly: true }]
	])('and its maker ended, the next who opens the database %s takes it back', (_, options) => {
		const before = dump();
		half();
		expect(dump()).not.toBe(before);
		const next = new Store(store.file, options);
		expect(next.record.unfinished()).toEqual([]);
		expect(dump()).toBe(before);
		expect(store.record.list(id, undefined, 9)).toMatchObject([{ kind: 'import', what: { from: 'site file' } }]);
		next.close();
	});
	test('with a new site, that goes', () => {
		half(true);
		new Store(store.file).close();
		expect(store.working.sites.find('New')).toBeUndefined();
	});
	test('what others changed since stays theirs', () => {
		half();
		keepSettings(
			store,
			'S',
			readSettingsEdit({ place: { layer: 'page', path: '/a' }, changes: { key: true } }),
			'bench'
		);
		store.record.note(
			{ site: id, revision: 99, made: '', author: 'bo', origin: 'bench', kind: 'page', what: null },
			() => store.working.pages.save(id, { ...store.working.pages.at(id, '/a')!, fields: { title: 'Theirs' } }),
			() => undefined
		);
		new Store(store.file).close();
		expect(store.working.pages.at(id, '/a')).toMatchObject({ key: true, fields: { title: 'Theirs' } });
		expect(store.record.unfinished()).toEqual([]);
	});
});

describe('a large edit that is taken back', () => {
	const many = Array.from({ length: 5200 }, (_, at) => `/many/${at}`);
	const bring = (paths: readonly string[]) =>
		makeLongEdit(store, 'S', entry, function* (site) {
			for (const path of paths) {
				store.working.pages.save(site.id, page(path));
				yield;
			}
		}).edit as number;
	const indexes = () =>
		store.db
			.prepare(`SELECT name FROM sqlite_schema WHERE type = 'index' AND tbl_name = 'page_state' ORDER BY 1`)
			.all();
	test('is told from a small one by its changes', () => {
		const [small, large] = [bring(PATHS), bring(many.slice(0, 400))];
		expect(isLarge(store, small)).toBe(false);
		expect(isLarge(store, large)).toBe(true);
		expect([editMeant(store, 'S', 'last'), editMeant(store, 'S', small)]).toEqual([large, small]);
		expect(editMeant(store, 'S', 'again')).toBeUndefined();
	});
	test('leaves what was there, and the table of pages as fast as before', () => {
		const [before, all] = [dump(), indexes()];
		const edit = bring(many);
		expect(() => takeBackLarge(store, 'S', edit, 'bench')).toThrow('5200 of');
		expect(takeBackLarge(store, 'S', edit, 'bench', 5200).result).toMatchObject({ taken: edit });
		expect(dump()).toBe(before);
		expect(indexes()).toEqual(all);
		expect(hasPausedOrders(store.db)).toBe(false);
		// Again, and what another has changed since stays.
		const again = takeBackLarge(store, 'S', editMeant(store, 'S', 'again') as number, 'bench');
		expect(store.working.pages.count(id).all).toBe(3 + many.length);
		keepSettings(
			store,
			'S',
			{ place: { layer: 'page', path: '/many/7' }, changes: { target: 'seven' } } as never,
			'bench'
		);
		expect(() => takeBackLarge(store, 'S', edit, 'bench', 5200)).toThrow('It stays: what it changed was changed again');
		expect(store.working.pages.count(id).all).toBe(3 + many.length);
		JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
		expect(indexes()).toEqual(all);
		expect(again.edit).toBeDefined();
		// While another makes a long edit, nothing is taken away from the table.
		const lock = WriterLock.take(store.file);
		expect(() => takeBackLarge(store, 'S', edit, 'bench', 5200)).toThrow('It stays');
		lock?.release();
	});
});
