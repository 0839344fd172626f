import Database from 'better-sqlite3';
import {
	chmodSync,
	mkdirSync,
	mkdtempSync,
	openSync,
	readFileSync,
	rmSync,
	symlinkSync,
	writeFileSync,
	writeSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import type { Page, Site } from '$core';
import { keepSettings, readSettingsEdit } from './edits/settings';
import { JOBS } from './jobs/jobs';
import { takePicture } from './pictures/takePicture';
import { parseSiteFile, saveSiteFile, writeSiteFile } from './siteFile/siteFile';
import { backUp, restore } from './backup/backup';
import { openDatabase } from './store/opening/database';
import { Store } from './store/store';
import { refuseFolder } from './web/contentFolders';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-edges-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let made = 0;

const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
};
const page = (path: string): Page => ({ path, type: 'note', state: 'live', fields: { title: path }, rules: [] });
function fill(paths: readonly string[] = ['/', '/a']): Store {
	const store = new Store(join(folder, `${++made}.db`));
	const types = [{ name: 'note', fields: [], rules: [] }];
	saveSiteFile(store, { site, types, pages: paths.map(page), pictures: [] } as never);
	return store;
}

describe('a vector picture that asks for too much', () => {
	/** Each level names the one below it ten times; blurred, so that nothing can be left out. */
	const nested = (levels: number) => {
		const groups = Array.from(
			{ length: levels },
			(_, at) => `<g id="g${at + 1}">${`<use href="#g${at}"/>`.repeat(10)}</g>`
		);
		return Buffer.from(
			`<svg xmlns="http://www.w3.org/2000/svg" width="4000" height="4000"><defs><filter id="f"><feGaussianBlur stdDeviation="90"/></filter><g id="g0" filter="url(#f)"><rect width="4000" height="4000"/></g>${groups.join('')}</defs><use href="#g${levels}"/></svg>`
		);
	};
	test('is ended, and another picture is taken meanwhile', async () => {
		const hard = takePicture(nested(9)).catch((error: Error) => error.message);
		const plain = Buffer.from(
			'<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><rect width="9" height="9"/></svg>'
		);
		expect(await takePicture(plain)).toMatchObject({ extension: 'png' });
		expect(await hard).toMatch(/takes longer than 10 seconds|needs more than 700 MB|damaged/);
	});
});

describe('a database that may only be read', () => {
	test('is read where nothing may be written, and a missing one is not made', () => {
		const store = fill();
		const text = [...writeSiteFile(store, 'S')].join('');
		store.close();
		const [there, file] = [join(folder, 'shut'), join(folder, 'shut', 'k.db')];
		mkdirSync(there);
		writeFileSync(file, readFileSync(store.file));
		chmodSync(file, 0o444);
		chmodSync(there, 0o555);
		const reader = new Store(file, { readonly: true });
		expect([...writeSiteFile(reader, 'S')].join('')).toBe(text);
		reader.close();
		chmodSync(there, 0o755);
		expect(() => openDatabase(join(folder, 'none', 'x.db'), { readonly: true })).toThrow(
			/There is no database .*x\.db/
		);
	});
	test('of an older version is brought up to date first', () => {
		const store = fill();
		store.close();
		const db = new Database(store.file);
		db.pragma('user_version = 99');
		db.close();
		expect(() => openDatabase(store.file, { readonly: true })).toThrow(/written by a newer Kephalon/);
	});
});

describe('backup and restore', () => {
	test('what was backed up is put back, and never over anything', async () => {
		const store = fill();
		const text = [...writeSiteFile(store, 'S')].join('');
		const copy = join(folder, 'copy');
		expect(await backUp(store, copy)).toMatchObject({ sites: 1, pages: 2 });
		const file = join(folder, 'back', 'k.db');
		expect(restore(copy, file)).toMatchObject({ db: file, sites: 1, pages: 2 });
		const back = new Store(file);
		expect([...writeSiteFile(back, 'S')].join('')).toBe(text);
		back.close();
		expect(() => restore(copy, file)).toThrow(/stands where the backup would go/);
		expect(() => restore(folder + '/nothing', file)).toThrow(/There is no backup in/);
		store.close();
	});
	test('a damaged database is refused, and nothing stays of its copy', async () => {
		const store = fill(Array.from({ length: 800 }, (_, at) => `/${at}`));
		store.db.pragma('wal_checkpoint(TRUNCATE)');
		store.close();
		const bytes = readFileSync(store.file);
		// Towards the end of the file: rows of some table.
		const handle = openSync(store.file, 'r+');
		for (let at = Math.floor((bytes.length / 4096) * 0.7); at < bytes.length / 4096 - 1; at++)
			writeSync(handle, Buffer.alloc(64, 0xaa), 0, 64, at * 4096);
		const broken = new Store(store.file, { create: false });
		const copy = join(folder, 'broken-copy');
		await expect(backUp(broken, copy)).rejects.toThrow(/damaged/);
		broken.close();
		expect(() => restore(copy, join(folder, 'x.db'))).toThrow(/There is no backup/);
	});
});

describe('folders read over the web', () => {
	const top = join(folder, 'content');
	mkdirSync(join(top, 'site'), { recursive: true });
	mkdirSync(join(folder, 'content-too'));
	symlinkSync(folder, join(top, 'out'));
	test.each<[string, string[], RegExp | undefined]>([
		[top, [], /Start Kephalon with --content/],
		[top, [top], undefined],
		[join(top, 'site'), [top], undefined],
		['', [top], /by its whole path/],
		['site', [top], /by its whole path/],
		[join(top, '..'), [top], /may not be read/],
		[`${top}/site/../..`, [top], /may not be read/],
		[join(folder, 'content-too'), [top], /may not be read/],
		[join(top, 'out'), [top], /may not be read/],
		['/etc', [top], /may not be read/],
		[join(top, 'none'), [top], /may not be read, or is not there/]
	])('%s with %j', (wanted, allowed, why) => {
		process.env.KEPHALON_CONTENT = JSON.stringify(allowed);
		const refuse = () => refuseFolder(wanted);
		if (why) expect(refuse).toThrow(why);
		else expect(refuse).not.toThrow();
	});
});

describe('names that every record inherits', () => {
	test.each(['__proto__', 'constructor', 'toString'])('%s is refused for a type and a field', (name) => {
		const file = (types: unknown[], pages: unknown[] = []) =>
			JSON.stringify({ format: 'kephalon-site', version: 2, site, types, pages });
		expect(() => parseSiteFile(file([{ name, fields: [], rules: [] }]), 'x.json')).toThrow();
		const fields = [{ name, kind: 'text' }];
		expect(() => parseSiteFile(file([{ name: 'note', fields, rules: [] }]), 'x.json')).toThrow();
		const given = JSON.stringify({ ...page('/x'), fields: { X: 'y' } }).replace('"X"', JSON.stringify(name));
		const text = file([{ name: 'note', fields: [], rules: [] }], ['PAGE']).replace('"PAGE"', given);
		expect(() => parseSiteFile(text, 'x.json')).toThrow();
	});
});

describe('a home page that would go', () => {
	test.each<[string, unknown]>([
		['as a draft', { place: { layer: 'page', path: '/' }, changes: { state: 'draft' } }],
		['with its type', { place: { layer: 'type', name: 'note' }, changes: { off: true } }],
		['by another path', { place: { layer: 'page', path: '/' }, changes: { path: '/elsewhere' } }]
	])('%s stops the release, which says why', (_, change) => {
		const store = fill();
		const release = () => JOBS.release({ db: store.file, site: 'S' }, () => undefined);
		release();
		keepSettings(store, 'S', readSettingsEdit(change), 'bench');
		expect(release).toThrow(/the home page would go/);
		expect(store.releases.latest(store.working.sites.named('S').id)?.number).toBe(1);
		store.close();
	});
});
