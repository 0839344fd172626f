import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { goBack } from './releases';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-trail-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('releases and ways back stand in the trail, whichever way they come, and with them or not at all', () => {
	const store = new Store(join(folder, 'k.db'));
	const page = { path: '/', type: 'note', state: 'live', fields: { title: 'Home' }, rules: [] };
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {}, pages: [page] },
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'note', fields: [], rules: [] }]
	} as never);
	const { id } = store.working.sites.named('S');
	const release = () => JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	const told = () => [...store.trail.all()].map(({ what, site, data }) => [what, site, data]);
	release();
	store.working.pages.save(id, { ...page, fields: { title: 'Anew' } } as never);
	release();
	goBack(store, 'S', 1);
	expect(told()).toEqual([
		['released', 'S', { number: 1, pages: 1 }],
		['released', 'S', { number: 2, pages: 1 }],
		['rolled-back', 'S', { number: 3, to: 1 }]
	]);
	// Where the line cannot be written, nothing goes out.
	store.db.exec(`CREATE TRIGGER full BEFORE INSERT ON trail BEGIN SELECT RAISE(ABORT, 'full'); END`);
	store.working.pages.save(id, { ...page, fields: { title: 'Third' } } as never);
	expect(release).toThrow();
	expect(store.releases.latest(id)!.number).toBe(3);
	expect(told()).toHaveLength(3);
	store.close();
});
