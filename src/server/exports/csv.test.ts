import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { makeEdit } from '../edits/edit';
import { takeBack } from '../edits/takeBack';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
import { compareCsv } from './csv';

/** A table that comes back, by the revisions at which its rows were put out. */
const MOST_REVISIONS = 20;
let folder: string;
let store: Store;
let id: number;

beforeAll(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-csv-'));
	store = new Store(join(folder, 'csv.db'));
	id = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	});
	store.working.types.save(id, { name: 'page', fields: [], rules: [] });
	for (let at = 0; at < MOST_REVISIONS + 2; at++)
		store.working.pages.save(id, { path: `/${at}`, type: 'page', state: 'live', fields: { title: 'T' }, rules: [] });
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	// Every page is changed, and the change is taken back: nothing stands.
	for (let at = 0; at < MOST_REVISIONS + 2; at++) {
		const { edit } = makeEdit(store, 'S', { origin: 'bench', kind: 'rule', what: {} }, (site) =>
			store.working.rules.set(site.id, { layer: 'page', path: `/${at}` }, 'title', undefined, {
				kind: 'template',
				template: 'For a moment'
			})
		);
		takeBack(store, 'S', edit!, 'bench');
	}
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
});
afterAll(() => {
	store.close();
	rmSync(folder, { recursive: true });
});

const tableOf = (revisions: readonly number[]) =>
	['path,page says: title,revision', ...revisions.map((revision, at) => `/${at},From the sheet,${revision}`)].join(
		'\n'
	);
const conflictsOf = (revisions: readonly number[]) => {
	const { left, changes } = compareCsv(store, 'S', tableOf(revisions));
	return { conflicts: left.conflict.first.map(({ path }) => path), changes: changes.count };
};

test('of so many revisions it is looked up what changed since; beyond them all that was touched counts as changed', () => {
	const different = Array.from({ length: MOST_REVISIONS + 2 }, (_, at) => at + 1 - (MOST_REVISIONS + 2));
	expect(conflictsOf(different.slice(0, MOST_REVISIONS))).toEqual({ conflicts: [], changes: MOST_REVISIONS });
	expect(conflictsOf(different)).toEqual({
		conflicts: [`/${MOST_REVISIONS}`, `/${MOST_REVISIONS + 1}`],
		changes: MOST_REVISIONS
	});
	// Those that are known are known also after that.
	const again = [...different.slice(0, MOST_REVISIONS + 1), different[0]!];
	expect(conflictsOf(again).conflicts).toEqual([`/${MOST_REVISIONS}`]);
});
