import fc from 'fast-check';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import type { Edit, Page, RuleBody, Site } from '$core';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile, writeSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { makeEdit } from './edit';
import { actOnPage, readPageAction } from './pages';
import { keepRule } from './rules';
import { keepSettings, readSettingsEdit } from './settings';
import { takeBack } from './takeBack';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-edits-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·' },
	fields: { tagline: 'T' },
	rules: []
};
const page = (path: string): Page => ({ path, type: 'note', state: 'live', fields: { title: path }, rules: [] });
const PATHS = ['/', '/a', '/b', '/c'];
const says = (template: string): RuleBody => ({ kind: 'template', template });
const atSite = (template: string | null): Edit => ({
	place: { layer: 'site' },
	tag: 'title',
	body: template === null ? null : says(template)
});

const types = ['note', 'other'].map((name) => ({ name, fields: [], rules: [] }));
const begin = () => saveSiteFile(store, { site, types, pages: PATHS.map(page), pictures: [] } as never);
let [store, made, id] = [undefined as unknown as Store, 0, 0];
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	begin();
	id = store.working.sites.named('S').id;
});
const dump = () => [...writeSiteFile(store, 'S')].join('');
const rule = (edit: Edit, expected?: unknown) => keepRule(store, 'S', edit, { expected, origin: 'bench' });
const settings = (place: unknown, changes: unknown) =>
	keepSettings(store, 'S', readSettingsEdit({ place, changes }), 'bench');
const act = (action: unknown) => actOnPage(store, 'S', readPageAction(action), 'bench');

describe('one way in', () => {
	test('an edit counts one revision and stands in the record with what was before and after', () => {
		const before = store.working.sites.named('S').revision;
		expect(rule(atSite('One')).revision).toBe(before + 1);
		rule(atSite('Two'));
		const [last, first] = store.record.list(id, undefined, 2);
		expect(last).toMatchObject({ kind: 'rule', origin: 'bench', revision: before + 2, isBack: false });
		expect(store.record.countChanges(last!.id)).toBe(1);
		expect(last!.what).toEqual({ place: { layer: 'site' }, tag: 'title', before: says('One'), after: says('Two') });
		expect(first!.what).toMatchObject({ before: null });
	});
	test('what changes nothing leaves no trace', () => {
		rule(atSite('One'));
		const { revision } = store.working.sites.named('S');
		expect(rule(atSite('One'))).toMatchObject({ edit: undefined, revision });
		expect(store.working.sites.named('S').revision).toBe(revision);
	});
	test('of two that saw the same, one is kept and the other is told', () => {
		const other = new Store(store.file);
		rule(atSite('Mine'), null);
		expect(() => keepRule(other, 'S', atSite('Theirs'), { expected: null, origin: 'bench' })).toThrow(
			expect.objectContaining({ status: 409, current: says('Mine') })
		);
		other.close();
	});
	test('an edit that fails on its way leaves nothing', () => {
		const before = dump();
		const failing = () =>
			makeEdit(store, 'S', { origin: 'bench', kind: 'batch', what: {} }, (stored) => {
				store.working.rules.set(stored.id, { layer: 'site' }, 'title', undefined, says('Half'));
				throw new Error('no further');
			});
		expect(failing).toThrow('no further');
		expect(dump()).toBe(before);
		expect(store.db.prepare('SELECT count(*) AS n FROM editing').get()).toEqual({ n: 0 });
	});
	test('a database that was replaced under the program takes no more edits', () => {
		copyFileSync(store.file, `${store.file}.copy`);
		rmSync(store.file);
		expect(() => rule(atSite('Lost'))).toThrow(/was replaced or deleted/);
		copyFileSync(`${store.file}.copy`, store.file);
		expect(() => rule(atSite('Lost'))).toThrow(/was replaced or deleted/);
	});
});

describe('taking back', () => {
	test.each<[string, () => unknown]>([
		['a rule', () => rule(atSite('New'))],
		['a setting of the site', () => settings({ layer: 'site' }, { separator: '|', lean: true })],
		['a setting of a page', () => settings({ layer: 'page', path: '/a' }, { key: true, state: 'draft' })],
		['a move', () => settings({ layer: 'page', path: '/a' }, { path: '/moved' })],
		['a copy', () => act({ do: 'copy', path: '/a', to: '/copy' })],
		['a page taken away with its rules', () => act({ do: 'remove', path: '/b' })],
		['another home page', () => act({ do: 'home', path: '/a' })],
		[
			'a whole import',
			() =>
				saveSiteFile(
					store,
					{ site, types: [], pages: [], pictures: [] } as never,
					store.working.sites.named('S').revision
				)
		]
	])('%s, and doing it again', (_, change) => {
		rule({ place: { layer: 'page', path: '/b' }, tag: 'title', body: says('Of b') });
		const before = dump();
		change();
		const after = dump();
		expect(after).not.toBe(before);
		takeBack(store, 'S', 'last', 'bench');
		expect(dump()).toBe(before);
		const { pages } = JSON.parse(before) as { pages?: unknown[] };
		const gone = pages === undefined ? 0 : pages.length - (JSON.parse(after) as { pages: unknown[] }).pages.length;
		takeBack(store, 'S', 'again', 'bench', gone > 0 ? gone : undefined);
		expect(dump()).toBe(after);
		takeBack(store, 'S', 'last', 'bench');
		expect(dump()).toBe(before);
	});
	test('what was changed again since stays, and other edits of the same thing are left alone', () => {
		const first = settings({ layer: 'site' }, { separator: '|' });
		settings({ layer: 'site' }, { lean: true });
		takeBack(store, 'S', first.edit!, 'bench');
		expect(store.working.sites.named('S').site).toMatchObject({ separator: '·', lean: true });
		const again = settings({ layer: 'site' }, { separator: '–' });
		settings({ layer: 'site' }, { separator: '/' });
		expect(() => takeBack(store, 'S', again.edit!, 'bench')).toThrow(expect.objectContaining({ status: 409 }));
		expect(store.working.sites.named('S').site.separator).toBe('/');
		expect(() => takeBack(store, 'S', 999, 'bench')).toThrow(expect.objectContaining({ status: 404 }));
		expect(() => takeBack(store, 'S', first.edit!, 'bench')).toThrow('It is taken back already.');
	});
	test('a new edit ends what could be done again', () => {
		rule(atSite('One'));
		takeBack(store, 'S', 'last', 'bench');
		rule(atSite('Two'));
		expect(() => takeBack(store, 'S', 'again', 'bench')).toThrow('There is nothing to do again.');
	});
});

describe('the kept state', () => {
	const rows = () =>
		store.db
			.prepare(
				`SELECT p.path, s.head, s.title, s.description, s.picture, s.card, s.weight, s.differs,
					(SELECT group_concat(code || tag) FROM page_finding f WHERE f.page_id = p.id) AS findings
				FROM page_state s JOIN page p ON p.id = s.page_id ORDER BY p.path`
			)
			.all();
	const refresh = () => JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	/** Does what asks first where much goes, and says the number it asks for. */
	function sayingSo<T>(work: (removes?: number) => T): T {
		try {
			return work();
		} catch (error) {
			const asked = (error as { data?: { removes?: number } }).data?.removes;
			if (asked === undefined) throw error;
			return work(asked);
		}
	}
	const release = () =>
		sayingSo((removes) =>
			JOBS.release({ db: store.file, site: 'S', ...(removes === undefined ? {} : { removes }) }, () => undefined)
		);

	test('an edit makes stale what it could touch and no more', () => {
		refresh();
		expect(store.state.countStale(id)).toBe(0);
		rule({ place: { layer: 'page', path: '/a' }, tag: 'title', body: says('A') });
		expect(store.state.countStale(id)).toBe(1);
		rule({ place: { layer: 'type', name: 'other' }, tag: 'title', body: says('A') });
		expect(store.state.countStale(id)).toBe(1);
		rule({ place: { layer: 'type', name: 'note' }, tag: 'title', body: says('A') });
		expect(store.state.countStale(id)).toBe(PATHS.length);
	});

	const path = fc.constantFrom(...PATHS);
	const text = fc.constantFrom('{page.title}', 'x', '{page.none ?? site.tagline}', '{now | date "yyyy"}', '');
	const step = fc.oneof(
		fc.record({ do: fc.constant('rule' as const), path, text }),
		fc.record({ do: fc.constant('type' as const), text }),
		fc.record({ do: fc.constant('site' as const), text }),
		fc.record({ do: fc.constant('state' as const), path, state: fc.constantFrom('live', 'draft', 'private') }),
		fc.record({ do: fc.constant('retype' as const), path, type: fc.constantFrom('note', 'other') }),
		fc.record({ do: fc.constant('off' as const), off: fc.boolean() }),
		fc.record({ do: fc.constant('home' as const), path }),
		fc.record({ do: fc.constant('remove' as const), path }),
		fc.record({ do: fc.constant('move' as const), path }),
		fc.constant({ do: 'import' as const }),
		fc.constant({ do: 'back' as const }),
		fc.constant({ do: 'again' as const }),
		fc.constant({ do: 'refresh' as const }),
		fc.constant({ do: 'release' as const })
	);
	type Step = typeof step extends fc.Arbitrary<infer T> ? T : never;
	function walk(one: Step) {
		const body = (text: string) => (text === '' ? null : says(text));
		switch (one.do) {
			case 'rule':
				return rule({ place: { layer: 'page', path: one.path }, tag: 'title', body: body(one.text) });
			case 'type':
				return rule({ place: { layer: 'type', name: 'note' }, tag: 'description', body: body(one.text) });
			case 'site':
				return rule({ ...atSite(null), body: body(one.text) });
			case 'state':
				return settings({ layer: 'page', path: one.path }, { state: one.state });
			case 'retype':
				return settings({ layer: 'page', path: one.path }, { type: one.type });
			case 'off':
				return settings({ layer: 'type', name: 'other' }, { off: one.off });
			case 'move':
				return settings({ layer: 'page', path: one.path }, { path: `${one.path}moved` });
			case 'home':
			case 'remove':
				return act(one);
			case 'import':
				return begin();
			case 'back':
				return sayingSo((removes) => takeBack(store, 'S', 'last', 'bench', removes));
			case 'again':
				return sayingSo((removes) => takeBack(store, 'S', 'again', 'bench', removes));
			case 'refresh':
				return refresh();
			case 'release':
				return release();
		}
	}
	test('after any sequence of edits it is what a full resolution gives, and a release leaves no difference', () => {
		fc.assert(
			fc.property(fc.array(step, { minLength: 1, maxLength: 14 }), (steps) => {
				store.db.exec('DELETE FROM site');
				begin();
				id = store.working.sites.named('S').id;
				for (const one of steps)
					try {
						walk(one);
					} catch (error) {
						if (!(error instanceof Error && error.name === 'UserError')) throw error;
					}
				refresh();
				const kept = rows();
				store.db.exec('UPDATE page_state SET seen = -1');
				refresh();
				expect(kept).toEqual(rows());
				const home = store.working.pages.at(id, '/');
				if (!store.releases.head(id, { path: '/' }) || (home?.state === 'live' && home.type === 'note')) release();
				else return;
				expect(store.state.differing(id, 9)).toMatchObject({ changed: 0, added: 0, removed: 0 });
				const { number } = store.releases.latest(id)!;
				const live = [...store.working.pages.all(id, 'live')].map((one) => one.path);
				expect([...store.releases.hashes(id, number).keys()]).toEqual(live);
				expect(store.releases.latest(id)!.pages).toBe(live.length);
				expect(store.working.pages.count(id).all).toBe([...store.working.pages.all(id)].length);
			}),
			{ numRuns: 120 }
		);
	});
});
