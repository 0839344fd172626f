import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Page } from '$core';
import { JOBS } from '../jobs/jobs';
import { differencesBetween } from './releases';
import { Store } from '../store/store';

/** Two releases compared page by page, and going back to an old one. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-between-'));
afterAll(() => rmSync(folder, { recursive: true }));
let [store, id] = [undefined as unknown as Store, 0];
const save = (path: string, title: string, state: Page['state'] = 'live') =>
	store.working.pages.save(id, { path, type: 'page', state, fields: { title }, rules: [] });
function release() {
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	return JOBS.release({ db: store.file, site: 'S' }, () => undefined);
}
beforeAll(async () => {
	store = new Store(join(folder, 'between.db'));
	id = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	});
	store.working.types.save(id, { name: 'page', fields: [], rules: [] });
	save('/', 'Home');
	save('/a', 'First');
	save('/gone', 'Gone soon');
	release();
	save('/a', 'Second');
	save('/gone', 'Gone soon', 'draft');
	save('/new', 'New');
	release();
});
afterAll(() => store.close());

const between = (from: number, to: number, only?: string) => [...differencesBetween(store, id, [from, to], only).pages];

test('what came, went and changed, with the lines that did', () => {
	const all = between(1, 2);
	expect(all.map(({ path, kind }) => [path, kind])).toEqual([
		['/a', 'changed'],
		['/gone', 'removed'],
		['/new', 'added']
	]);
	const [changed, removed, added] = all;
	expect(changed!.gone).toEqual([
		'<title>First</title>',
		'<meta property="og:title" content="First">',
		'<meta name="twitter:title" content="First">'
	]);
	expect(changed!.come).toEqual([
		'<title>Second</title>',
		'<meta property="og:title" content="Second">',
		'<meta name="twitter:title" content="Second">'
	]);
	expect([removed!.come, added!.gone]).toEqual([[], []]);
	expect(removed!.gone).toContain('<title>Gone soon</title>');
	expect(added!.come).toContain('<title>New</title>');
});

test('the other way round, of one page, and of a release with itself', () => {
	expect(between(2, 1).map(({ path, kind }) => [path, kind])).toEqual([
		['/a', 'changed'],
		['/gone', 'added'],
		['/new', 'removed']
	]);
	expect(between(1, 2, '/new').map(({ path }) => path)).toEqual(['/new']);
	expect(between(1, 2, '/')).toEqual([]);
	expect(between(2, 2)).toEqual([]);
});

test('going back makes a new release of the old heads: what came since goes, what went comes back', () => {
	const revision = store.working.sites.named('S').revision;
	const made = store.releases.goBack({ site: id, revision, created: '2026-11-26T00:00:00Z' }, 1);
	expect(made).toMatchObject({ number: 3, pages: 3, changed: 1, added: 1, removed: 1 });
	expect(between(1, 3)).toEqual([]);
	expect(store.releases.head(id, { path: '/new' })).toBeUndefined();
	expect(store.releases.head(id, { path: '/gone' })?.html).toContain('<title>Gone soon</title>');
	expect(() => store.releases.goBack({ site: id, revision, created: '2026-11-26T00:00:00Z' }, 3)).toThrow();
	expect(() => store.releases.goBack({ site: id, revision, created: '2026-11-26T00:00:00Z' }, 99)).toThrow();
});
