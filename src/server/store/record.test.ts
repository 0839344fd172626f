import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { keepRule } from '../edits/rules';
import { takeBack } from '../edits/takeBack';
import { Store } from './store';

/** What is remembered of edits: with what they did, the last thousand; that they were made, all. */
test('of old edits what they did is forgotten, in goes of a hundred; that they were made is not', () => {
	const folder = mkdtempSync(join(tmpdir(), 'kephalon-record-'));
	const store = new Store(join(folder, 'record.db'));
	const site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
	const id = store.saveSite(site);
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
	expect(store.siteById(id)!.site.rules[0]).toMatchObject({ template: 'Title 1098' });
	store.close();
	rmSync(folder, { recursive: true });
});
