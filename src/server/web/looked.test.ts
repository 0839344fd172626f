import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Page } from '$core';
import { JOBS } from '../jobs/jobs';
import type { JobName } from '../jobs/kinds';
import { keepRule } from '../edits/rules';
import { readCounted, saveCounted } from '../findings/counted';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { readFindingsRoom } from './findings';
import { readOverview } from './overview';

/** What the rooms say of all pages: of none that was looked at, of half, of all, and where looking fails. */
let fails: string | undefined;
vi.mock('../jobs/run', () => ({
	runJob: async (name: JobName, input: never) => {
		if (fails === name) throw new Error('It broke.');
		// A thread of its own answers later than it was asked.
		await new Promise((resolve) => setTimeout(resolve, 1));
		return (JOBS[name] as (...all: unknown[]) => unknown)(input, () => undefined);
	}
}));
const folder = mkdtempSync(join(tmpdir(), 'kephalon-looked-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let [store, id, made] = [undefined as unknown as Store, 0, 0];
const sound = (path: string): Page => ({
	...{ path, type: 'note', state: 'live', rules: [] },
	fields: {
		title: `A title of some length for ${path}`,
		summary: `What the page at ${path} is about, in a sentence that is as long as one should be.`,
		picture: { src: '/p.jpg' }
	}
});
beforeEach(() => {
	fails = undefined;
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, {
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'note', fields: [], rules: [] }],
		pages: ['/', '/a', '/b'].map(sound),
		pictures: [{ src: '/p.jpg', width: 1200, height: 630, alt: 'A shore' }],
		redirects: {}
	} as never);
	({ id } = store.working.sites.named('S'));
});
const checks = () =>
	Object.fromEntries(readOverview(store, 'S').checks.map((check) => [check.id, check.isDone ?? 'by hand']));
const ofAllPages = ['no-picture', 'no-title', 'no-description', 'gap', 'local-address'] as const;
const each = <T>(value: T) => Object.fromEntries(ofAllPages.map((code) => [code, value]));
const whole = async () => {
	for (let tries = 0; tries < 200; tries++) {
		const told = await readFindingsRoom(store, 'S', true);
		if (told.isNow) return told;
	}
	throw new Error('It does not come to rest.');
};

describe('nothing has been looked at', () => {
	test('no check is done, no count is told, and nothing is said to be how it stands', () => {
		expect(store.state.countStale(id)).toBe(3);
		expect(checks()).toMatchObject(each('unknown'));
	});
	test('a site without pages has every page of nothing', async () => {
		store.db.exec('DELETE FROM page');
		await whole();
		expect(checks()).toMatchObject(each(false));
		const { checks: all } = readOverview(store, 'S');
		expect(all.find((check) => check.id === 'no-title')?.missing).toBe('There is no public page yet');
		expect(all.find((check) => check.id === 'languages')?.isDone).toBe(false);
		expect(all.find((check) => check.id === 'home')?.isDone).toBe(false);
	});
});

test('all were looked at, and counted as they stand: only then are they done', async () => {
	const told = await whole();
	expect(told).toMatchObject({ isNow: true, unseen: 0, all: 3, counted: { groups: [], unknownPictures: 0 } });
	expect(checks()).toMatchObject(each(true));
});

test('half were looked at since: what was counted is told as that, and the checks are not known', async () => {
	await whole();
	const edit = { place: { layer: 'page', path: '/a' }, tag: 'description', body: { kind: 'template', template: 'X' } };
	keepRule(store, 'S', edit as never, { origin: 'bench' });
	expect(store.state.countStale(id)).toBe(1);
	expect(checks()).toMatchObject(each('unknown'));
	const told = await readFindingsRoom(store, 'S', false);
	expect(told).toMatchObject({ isNow: false, all: 3 });
	expect(told.counted?.groups).toEqual([]);
	const after = await whole();
	expect(after.counted?.groups.map(({ code }) => code)).toContain('short');
});

test('a count that was kept as sentences, by a version before, is none: it is counted anew', async () => {
	await whole();
	const kept = readCounted(store, id)!;
	const groups = [{ code: 'short', tag: 'title', weight: 1, pages: 1, says: 'Too short', mend: 'Say more.' }];
	const { form: _form, ...sentences } = kept;
	saveCounted(store, id, { ...sentences, groups } as never);
	expect(readCounted(store, id)).toBeUndefined();
	expect(checks()).toMatchObject(each('unknown'));
	const told = await whole();
	expect(told).toMatchObject({ isNow: true, counted: { groups: [] } });
});

test('looked at, but counted before the last edit: no check stands on the old count', async () => {
	await whole();
	keepRule(store, 'S', { place: { layer: 'site' }, tag: 'description', body: { kind: 'leaveOut' } } as never, {
		origin: 'bench'
	});
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	expect(store.state.countStale(id)).toBe(0);
	expect(checks()).toMatchObject(each('unknown'));
	await whole();
	expect(checks()).toMatchObject({ ...each(true), 'no-description': false });
	const { checks: all } = readOverview(store, 'S');
	expect(all.find((check) => check.id === 'no-description')?.missing).toBe('All 3 pages have no description');
});

test.each(['refresh', 'count'])(
	'looking fails (%s): that is said, and nothing else; the next look is as any other',
	async (job) => {
		fails = job;
		const told = await readFindingsRoom(store, 'S', true);
		expect(told).toMatchObject({ counted: null, isNow: false, failed: 'Kephalon failed; its log says why.' });
		expect(checks()).toMatchObject(each('unknown'));
		fails = undefined;
		const after = await whole();
		expect(after.failed).toBeUndefined();
		expect(checks()).toMatchObject(each(true));
	}
);

test('a picture that nobody has looked at is counted as that', async () => {
	store.working.pages.save(id, {
		...sound('/b'),
		fields: { ...sound('/b').fields, picture: { src: 'https://far.example/x.jpg' } }
	});
	expect((await whole()).counted?.unknownPictures).toBe(1);
	store.pictures.save(id, [{ src: 'https://far.example/x.jpg', width: 900, height: 600 }] as never, false);
	store.working.pages.save(id, { ...sound('/a'), key: true });
	expect((await whole()).counted?.unknownPictures).toBe(0);
});
