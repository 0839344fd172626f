import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { makeEdit } from '../../edits/edit';
import { keepRule } from '../../edits/rules';
import { takeBack } from '../../edits/takeBack';
import { Store } from '../store';

/** A body that comes right with its page is one row of the record with it. */
test('a page that came with its body is taken back and done again with it, and not over what another wrote into it', () => {
	const folder = mkdtempSync(join(tmpdir(), 'kephalon-record-'));
	const store = new Store(join(folder, 'body.db'));
	const page = (path: string, body: string) => ({
		...{ path, type: 'page', state: 'live' as const, fields: { title: path, body }, rules: [] }
	});
	const id = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	});
	store.working.types.ensure(id, 'page');
	const put = (path: string, body: string) =>
		makeEdit(store, 'S', { origin: 'bench', kind: 'page', what: { path } }, () =>
			store.working.pages.save(id, page(path, body))
		);
	const changes = () => store.record.countChanges(store.record.list(id, undefined, 1)[0]!.id);
	const bodyOf = (path: string) => store.working.pages.at(id, path)?.fields.body;

	put('/a', '<p>One.');
	expect(changes()).toBe(1);
	takeBack(store, 'S', 'last', 'bench');
	expect(store.working.pages.at(id, '/a')).toBeUndefined();
	expect(store.db.prepare('SELECT count(*) FROM page_body').pluck().get()).toBe(0);
	takeBack(store, 'S', 'again', 'bench');
	expect(bodyOf('/a')).toBe('<p>One.');

	const { id: first } = store.record.list(id, undefined, 9).at(-1)!;
	put('/a', '<p>Two.');
	expect(changes()).toBe(1);
	expect(() => takeBack(store, 'S', first, 'bench')).toThrow('It stays: what it changed was changed');
	expect(bodyOf('/a')).toBe('<p>Two.');
	takeBack(store, 'S', 'last', 'bench');
	expect(bodyOf('/a')).toBe('<p>One.');

	// One that comes afterwards is a change of its own.
	const bare = page('/b', '');
	makeEdit(store, 'S', { origin: 'bench', kind: 'page', what: { path: '/b' } }, () => {
		store.working.pages.save(id, { ...bare, fields: { title: 'B' } });
		store.working.pages.save(id, { ...bare, path: '/c', fields: { title: 'C' } });
		store.working.pages.save(id, page('/b', '<p>Late.'));
	});
	expect(changes()).toBeGreaterThan(2);
	takeBack(store, 'S', 'last', 'bench');
	expect(store.working.pages.at(id, '/b')).toBeUndefined();
	expect(store.working.pages.at(id, '/c')).toBeUndefined();
	store.close();
	rmSync(folder, { recursive: true });
});

/** What is remembered of edits: with what they did, the last thousand; that they were made, all. */
test('of old edits what they did is forgotten, in goes of a hundred; that they were made is not', () => {
	const folder = mkdtempSync(join(tmpdir(), 'kephalon-record-'));
	const store = new Store(join(folder, 'record.db'));
	const site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
	const id = store.working.sites.save(site);
	const write = (text: string) =>
		keepRule(
			store,
			'S',
			{ place: { layer: 'site' }, tag: 'title', body: { kind: 'template', template: text } },
			{ origin: 'bench' }
		);
	for (let at = 0; at < 1100; at++) write(`Title ${at}`);
	const count = (sql: string) => store.db.prepare(sql).pluck().get() as number;
	const edits = count('SELECT count(*) FROM edit');
	expect(edits).toBe(1100);
	const remembered = count('SELECT count(DISTINCT edit_id) FROM edit_change');
	expect(remembered).toBeGreaterThanOrEqual(1000);
	expect(remembered).toBeLessThanOrEqual(1100);
	expect(count('SELECT min(edit_id) FROM edit_change')).toBeGreaterThan(count('SELECT min(id) FROM edit'));
	// What is remembered is taken back as ever.
	takeBack(store, 'S', 'last', 'bench');
	expect(store.working.sites.byId(id)!.site.rules[0]).toMatchObject({ template: 'Title 1098' });
	store.close();
	rmSync(folder, { recursive: true });
});
