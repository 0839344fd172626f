import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import type { Page, Site } from '$core';
import { JOBS } from '../jobs/jobs';
import { goBack } from './releases';
import { Store } from '../store/store';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-alone-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
};
const page = (path: string, title: string): Page => ({
	path,
	type: 'page',
	state: 'live',
	fields: { title },
	rules: []
});

test('one page is released alone: the others stay as they are released, and still differ', () => {
	const store = new Store(join(folder, 'a.db'));
	const id = store.working.sites.save(site);
	store.working.types.ensure(id, 'page');
	const release = (only?: readonly string[]) =>
		JOBS.release({ db: store.file, site: 'S', ...(only && { only }) }, () => undefined);
	for (const path of ['/', '/a', '/b', '/gone']) store.working.pages.save(id, page(path, 'First'));
	expect(release()).toMatchObject({ number: 1, added: 4 });
	for (const path of ['/', '/a', '/b']) store.working.pages.save(id, page(path, 'Second'));
	store.working.pages.remove(id, '/gone');
	expect(release(['/a'])).toMatchObject({ number: 2, changed: 1, added: 0, removed: 0, pages: 4 });
	expect(store.releases.history(id, 1)[0]?.author).not.toBe('');
	const titleAt = (path: string) => /<title>(.*)<\/title>/.exec(store.releases.head(id, { path })?.html ?? '')?.[1];
	expect(['/', '/a', '/b', '/gone'].map(titleAt)).toEqual(['First', 'Second', 'First', 'First']);
	expect(store.state.differing(id, 9)).toMatchObject({ changed: 2, removed: 1 });
	expect(release()).toMatchObject({ number: 3, changed: 2, removed: 1, pages: 3 });
	expect(['/', '/a', '/b', '/gone'].map(titleAt)).toEqual(['Second', 'Second', 'Second', undefined]);
	store.close();
});

test('so many releases are kept as the site says, and what they hold stays', () => {
	const store = new Store(join(folder, 'kept.db'));
	const id = store.working.sites.save({ ...site, keepReleases: 2 });
	store.working.types.ensure(id, 'page');
	const release = () => JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	const numbers = () => store.releases.history(id, 9).map(({ number }) => number);
	store.working.pages.save(id, page('/same', 'Same'));
	for (const title of ['One', 'Two', 'Three']) {
		store.working.pages.save(id, page('/', title));
		release();
	}
	expect(numbers()).toEqual([3, 2]);
	expect([...store.releases.hashes(id, 2).keys()]).toEqual(['/', '/same']);
	expect(store.releases.headIn(id, 2, '/')?.html).toContain('Two');
	expect(() => goBack(store, 'S', 1)).toThrow('There is no release 1');
	goBack(store, 'S', 2);
	expect(numbers()).toEqual([4, 3]);
	expect(store.releases.head(id, { path: '/' })?.html).toContain('Two');
	store.working.sites.save({ ...site });
	store.working.pages.save(id, page('/', 'Five'));
	release();
	expect(numbers()).toEqual([5, 4, 3]);
	store.close();
});
