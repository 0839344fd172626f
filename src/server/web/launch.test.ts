import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { readOverview } from './overview';

/** Whether the heads are in the site is told by the last look at what is served, and by nothing else. */
let folder: string;
let store: Store;
beforeEach(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-launch-'));
	store = new Store(join(folder, 'l.db'));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'note', fields: [], rules: [] }],
		pages: [{ path: '/', type: 'note', state: 'live', rules: [], fields: { title: 'Home' } }]
	} as never);
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
});
afterEach(() => {
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

const LATER = '2099-01-01T00:00:00.000Z';
test.each([
	['nobody looked', undefined, false, /Nobody has looked yet/],
	['none was looked at', { made: LATER, pages: 0, counts: {}, waiting: 9 }, false, /Nobody has looked yet/],
	[
		'all are',
		{ made: LATER, pages: 60, counts: { same: 60 }, waiting: 0 },
		true,
		/60 pages looked at: in the page itself on 60\)/
	],
	[
		'by two ways',
		{ made: LATER, pages: 60, counts: { same: 60 }, waiting: 0, ways: { front: 12, middleware: 3 } },
		true,
		/by the front on 12, by the middleware on 3, in the page itself on 45/
	],
	[
		'all by one',
		{ made: LATER, pages: 2, counts: { same: 2 }, waiting: 0, ways: { front: 2 } },
		true,
		/: by the front on 2\)$/
	],
	[
		'half of them',
		{ made: LATER, pages: 60, counts: { same: 30, missing: 30 }, waiting: 0 },
		false,
		/30 of 60 pages looked at are not/
	],
	[
		'stopped half-way',
		{ made: LATER, pages: 30, counts: { same: 30 }, waiting: 30 },
		false,
		/30 are yet to be looked at/
	],
	[
		'released since',
		{ made: '2020-01-01T00:00:00.000Z', pages: 1, counts: { same: 1 }, waiting: 0 },
		false,
		/released since/
	]
] as const)('%s', (_name, look, isDone, says) => {
	const { id } = store.working.sites.named('S');
	if (look) store.working.sources.saveSettings(id, 'drift', { drifted: [], came: [], went: [], ...look });
	const check = readOverview(store, 'S').checks.find((one) => one.id === 'written')!;
	expect(check.isDone).toBe(isDone);
	expect(isDone ? check.says : check.missing).toMatch(says);
});
