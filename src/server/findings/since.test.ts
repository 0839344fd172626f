import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '$core';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
import { readFindings } from './findings';

/** Since which release a finding has been there, and how many there were in each. */

let [folder, store, id] = ['', undefined as unknown as Store, 0];
beforeEach(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-since-'));
	store = new Store(join(folder, 'since.db'));
	const site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
	id = store.working.sites.save(site);
	store.working.types.save(id, { name: 'page', fields: [], rules: [] });
	save('/', 'What the shore is about, in a sentence of some length.');
});
afterEach(() => {
	store.close();
	rmSync(folder, { recursive: true });
});
function save(path: string, summary?: string) {
	const page: Page = {
		path,
		type: 'page',
		state: 'live',
		fields: { title: path, ...(summary && { summary }) },
		rules: []
	};
	store.working.pages.save(id, page);
}
function release(only?: string[]) {
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	return JOBS.release({ db: store.file, site: 'S', ...(only && { only }) }, () => undefined);
}
function since(code: string) {
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	const group = readFindings(store, 'S').find((one) => one.code === code);
	return group && (group.isNew ? 'new' : group.since);
}

test('without a release nothing is said of it', () => {
	save('/a');
	expect(since('no-description')).toBeUndefined();
	expect(store.releases.findingsSince(id)).toBeUndefined();
	expect(store.releases.findingsOver(id, 9)).toEqual([]);
});

test('new, since a release, and anew after it was away', async () => {
	release();
	save('/a');
	expect([since('no-picture'), since('no-description')]).toEqual([1, 'new']);
	release();
	save('/b', 'What this page is about, in a sentence of some length.');
	release();
	expect([since('no-picture'), since('no-description')]).toEqual([1, 2]);
	save('/a', 'What the marsh is about, in a sentence of some length.');
	release();
	expect(since('no-description')).toBeUndefined();
	save('/c');
	release();
	expect(since('no-description')).toBe(5);
});

test('counted for each release by weight, the oldest first; one of single pages is passed over', async () => {
	release();
	save('/a');
	release();
	save('/b');
	release(['/b']);
	save('/c');
	release();
	const [first, ...others] = store.releases.findingsOver(id, 9);
	expect(first).toMatchObject({ number: 1, grave: 1, mending: 0 });
	expect(others.map(({ number, grave, mending }) => [number, grave, mending])).toEqual([
		[2, 2, 1],
		[4, 4, 3]
	]);
	expect(store.releases.findingsOver(id, 1).map(({ number }) => number)).toEqual([4]);
	expect(since('no-description')).toBe(2);
});
