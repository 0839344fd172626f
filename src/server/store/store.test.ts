import Database from 'better-sqlite3';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import { Resolver, STARTING_LAYOUTS, type Edit, type Page, type Site } from '$core';
import { releasedHead } from '../heads/heads';
import { JOBS } from '../jobs/jobs';
import { keepRule, readEdit, refuseEdit } from '../edits/rules';
import { openDatabase } from './opening/database';
import { MIGRATIONS } from './opening/migrations';
import { Store } from './store';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-store-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let made = 0;
const newFile = () => join(folder, `${++made}.db`);

const site: Site = {
	name: 'S',
	base: 'https://s.example/',
	languages: ['en'],
	separator: '·',
	fields: { tagline: 'T' },
	rules: [{ tag: 'title', kind: 'template', template: '{page.title} {separator} {site.name}' }]
};
const page = (path: string, more: Partial<Page> = {}): Page => ({
	path,
	type: 'note',
	state: 'live',
	fields: { title: path },
	rules: [],
	...more
});

describe('opening a database', () => {
	test('a missing one is made, with its folder', () => {
		const store = new Store(join(folder, 'deep/er/a.db'));
		expect(store.db.pragma('user_version', { simple: true })).toBe(MIGRATIONS.length);
		expect(store.db.pragma('journal_mode', { simple: true })).toBe('wal');
		store.close();
	});
	test('a file that is no database is left as it is', () => {
		const file = newFile();
		writeFileSync(
			file,
			'Dear diary, this is not a database at all, but it is long enough to be looked at as if it were one.'
		);
		expect(() => openDatabase(file)).toThrow(
			'is not a database. Name another file with --db; this one was left as it is.'
		);
		expect(readFileSync(file, 'utf8')).toMatch(/^Dear diary/);
	});
	test('another program’s database is left as it is', () => {
		const file = newFile();
		const other = new Database(file);
		other.exec('CREATE TABLE songs (name TEXT)');
		other.close();
		expect(() => openDatabase(file)).toThrow('is a database of another program');
	});
	test('one from a newer version', () => {
		const file = newFile();
		const store = new Store(file);
		store.db.pragma('user_version = 99');
		store.close();
		expect(() => openDatabase(file)).toThrow('was written by a newer Kephalon (version 99;');
	});
	test('a locked one', () => {
		const file = newFile();
		const store = new Store(file);
		const other = new Store(file, { patience: 10 });
		store.db.exec('BEGIN IMMEDIATE');
		expect(() => other.transaction(() => other.working.sites.save(site))).toThrow('is locked by another program');
		store.db.exec('ROLLBACK');
		store.close();
		other.close();
	});
	test('a path that is a folder', () => {
		expect(() => openDatabase(folder)).toThrow('cannot be opened');
	});
});

describe('the working copy and what is released', () => {
	let store: Store;
	let id: number;
	beforeEach(() => {
		store = new Store(newFile());
		id = store.transaction(() => {
			const made = store.working.sites.save(site);
			store.working.types.ensure(made, 'note');
			for (const one of [
				page('/a'),
				page('/b', { state: 'draft' }),
				page('/c', { hidden: true, language: 'fr', rules: [{ tag: 'title', kind: 'leaveOut' }] })
			])
				store.working.pages.save(made, one);
			return made;
		});
	});

	test('what goes in comes out', () => {
		expect(store.working.sites.named('S').site).toEqual(site);
		expect(store.working.pages.at(id, '/c')).toEqual(
			page('/c', { hidden: true, language: 'fr', rules: [{ tag: 'title', kind: 'leaveOut' }] })
		);
		expect([...store.working.pages.all(id)].map((one) => one.path)).toEqual(['/a', '/b', '/c']);
		expect(store.working.pages.count(id)).toEqual({ all: 3, live: 2, byType: { note: 3 } });
	});

	test('a site that is not there is told with those that are', () => {
		expect(() => store.working.sites.named('X')).toThrow('There is no site "X". Sites there: "S".');
	});

	test('a rule is set, replaced, and taken away in each layer', () => {
		for (const place of [{ layer: 'site' }, { layer: 'type', name: 'note' }, { layer: 'page', path: '/a' }] as const) {
			store.working.rules.set(id, place, 'og:title', 'fr', { kind: 'template', template: 'x' });
			store.working.rules.set(id, place, 'og:title', 'fr', { kind: 'template', template: 'y' });
			const rulesAt = () =>
				(place.layer === 'site'
					? store.working.sites.named('S').site.rules
					: place.layer === 'type'
						? store.working.sites.named('S').types[0]!.rules
						: store.working.pages.at(id, '/a')!.rules
				).filter((rule) => rule.tag === 'og:title');
			expect(rulesAt()).toEqual([{ tag: 'og:title', language: 'fr', kind: 'template', template: 'y' }]);
			store.working.rules.set(id, place, 'og:title', 'fr', null);
			expect(rulesAt()).toEqual([]);
		}
		expect(() => store.working.rules.set(id, { layer: 'page', path: '/none' }, 'title', undefined, null)).toThrow(
			'There is no page "/none"'
		);
	});

	test('a release has the live pages, is numbered, and does not change with the working copy', () => {
		const first = JOBS.release({ db: store.file, site: 'S' }, () => undefined);
		expect(first).toMatchObject({ number: 1, pages: 2 });
		const before = store.releases.head(id, { path: '/a' });
		expect(before?.html).toContain('<title>/a · S</title>');
		const edit: Edit = { place: { layer: 'site' }, tag: 'title', body: { kind: 'template', template: 'New' } };
		keepRule(store, 'S', edit, { origin: 'bench' });
		expect(store.releases.head(id, { path: '/a' })).toEqual(before);
		expect(store.state.countStale(id)).toBe(3);
		JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
		expect(store.state.countStale(id)).toBe(0);
		expect(store.state.differing(id, 9)).toEqual({
			changed: 1,
			added: 0,
			removed: 0,
			paths: ['/a']
		});
		const second = JOBS.release({ db: store.file, site: 'S' }, () => undefined);
		expect(second.number).toBe(2);
		expect(store.releases.head(id, { address: 'https://s.example/a' })?.html).toContain('<title>New</title>');
		expect(store.releases.head(id, { path: '/b' })).toBeUndefined();
	});

	test('a release that fails on the way is not there at all', () => {
		const resolver = new Resolver({ site, types: [], pictures: [] }, '');
		function* heads() {
			yield releasedHead(resolver, page('/a'));
			throw new Error('the disk is full');
		}
		const release = { site: id, revision: 1, created: 'now' };
		expect(() => store.releases.make(release, heads())).toThrow('the disk is full');
		expect(store.releases.latest(id)).toBeUndefined();
	});

	test('a full disk during a release is told, and leaves nothing', () => {
		store.db.pragma('wal_checkpoint(TRUNCATE)');
		const pages = Number(store.db.pragma('page_count', { simple: true }));
		store.db.pragma(`max_page_count = ${pages}`);
		const resolver = new Resolver({ site, types: [], pictures: [] }, '');
		const heads = Array.from({ length: 500 }, (_, i) =>
			releasedHead(resolver, page(`/${i}`, { fields: { title: `x${i}`.repeat(50) } }))
		);
		expect(() => store.releases.make({ site: id, revision: 1, created: 'now' }, heads)).toThrow(/full/);
		store.db.pragma('max_page_count = 1000000');
		expect(store.releases.latest(id)).toBeUndefined();
		expect(store.db.prepare('SELECT count(*) AS n FROM head').get()).toEqual({ n: 0 });
	});

	test('reach counts what is under the edit, what changes, and the worst of it', () => {
		const edit = {
			place: { layer: 'site' },
			tag: 'title',
			body: { kind: 'template', template: '{page.nothing} , x' }
		} as const;
		expect(JOBS.reach({ db: store.file, site: 'S', edit, part: 0, parts: 1 }, () => undefined)).toMatchObject({
			under: 3,
			changed: 2,
			worse: 2,
			better: 0,
			worst: [{ verdict: 'worse', gained: [{ code: 'gap', data: { variables: ['page.nothing'] } }] }, {}]
		});
	});

	test('an edit is refused for its form, its template, a loop that it closes', () => {
		expect(() => readEdit({ place: { layer: 'moon' }, tag: 'title', body: null })).toThrow('The edit cannot be read');
		expect(() => readEdit({ place: { layer: 'site' }, tag: 'title', body: { kind: 'template' } })).toThrow(
			'The rule cannot be read'
		);
		const refusals = (body: unknown) =>
			refuseEdit(store, store.working.sites.named('S'), readEdit({ place: { layer: 'site' }, tag: 'title', body })).map(
				(issue) => issue.message
			);
		expect(refusals({ kind: 'template', template: '{page.titel}' })).toEqual([
			'Unknown variable "page.titel" at 1:2. Did you mean "page.title"?'
		]);
		store.working.rules.set(id, { layer: 'site' }, 'description', undefined, { kind: 'borrow', from: 'title' });
		expect(refusals({ kind: 'borrow', from: 'description' })).toEqual([
			'These tags borrow in a circle: title → description → title. Give one of them a template of its own.'
		]);
		expect(refusals({ kind: 'template', template: '{page.title}' })).toEqual([]);
	});
});

test('a database of version 3 has its separators written in full, and its heads stay what they were', () => {
	const file = join(folder, 'old.db');
	const old = new Database(file);
	for (const migration of MIGRATIONS.slice(0, 3)) old.exec(migration);
	old.pragma('user_version = 3');
	const settings = JSON.stringify({ languages: ['en'], separator: '·', fields: {} });
	const layout = {
		...STARTING_LAYOUTS[0]!.layout,
		title: { ...STARTING_LAYOUTS[0]!.layout.title, template: '{page.title} {sep} x' }
	};
	old.prepare(`INSERT INTO site (id, name, base, settings) VALUES (1, 'Old', 'https://o.example/', ?)`).run(settings);
	old.prepare(`INSERT INTO site (id, name, base, settings) VALUES (2, 'Bare', 'https://b.example/', ?)`).run(settings);
	old
		.prepare(`INSERT INTO content_type (id, site_id, name, settings) VALUES (1, 1, 't', ?)`)
		.run(JSON.stringify({ fields: [], layout }));
	old
		.prepare(
			`INSERT INTO page (id, site_id, path, type, state, fields, settings) VALUES (1, 1, '/', 't', 'live', ?, ?)`
		)
		.run(JSON.stringify({ title: 'P' }), JSON.stringify({ found: [{ name: 'description', value: 'Found' }] }));
	const rule = old.prepare(
		`INSERT INTO rule (site_id, type_id, page_id, tag, language, body) VALUES (1, ?, ?, ?, '', ?)`
	);
	rule.run(
		null,
		null,
		'title',
		JSON.stringify({ kind: 'template', template: '{page.title} {sep} {site.name} \\{sep}' })
	);
	rule.run(1, null, 'og:title', JSON.stringify({ kind: 'borrow', from: 'title' }));
	old.close();
	const store = new Store(file);
	const { site, types, id } = store.working.sites.named('Old');
	expect(site.rules).toEqual([
		{ tag: 'title', kind: 'template', template: '{page.title} {separator} {site.name} \\{sep}' }
	]);
	expect(types[0]!.layout!.title!.template).toBe('{page.title} {separator} x');
	expect([site.foundPolicy, store.working.sites.named('Bare').site.foundPolicy]).toEqual([{ all: 'never' }, undefined]);
	const head = new Resolver({ site, types, pictures: [] }, '').resolveHead(store.working.pages.at(id, '/')!);
	expect(head.tags.map(({ tag, value }) => [tag.name, value])).toContainEqual(['title', 'P · Old {sep}']);
	expect(head.tags.some(({ tag }) => tag.name === 'description')).toBe(false);
	store.close();
});

test('rules for one language, however it is written, are one rule', () => {
	const store = new Store(join(folder, 'languages.db'));
	const id = store.working.sites.save({
		name: 'L',
		base: 'https://l.example/',
		languages: ['en'],
		separator: '·',
		fields: {},
		rules: []
	});
	for (const language of ['fr-ca', 'fr-CA', 'fr'])
		store.working.rules.set(id, { layer: 'site' }, 'title', language, { kind: 'template', template: language });
	expect(store.working.sites.named('L').site.rules.map((rule) => rule.language)).toEqual(['fr', 'fr-CA']);
	store.close();
});
