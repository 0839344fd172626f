import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, expect, test, vi } from 'vitest';
import type { Page } from '$core';
import { keepRule } from '../edits/rules';
import { keepSettings, readSettingsEdit } from '../edits/settings';
import { takeBack } from '../edits/takeBack';
import { JOBS } from '../jobs/jobs';
import type { JobName } from '../jobs/kinds';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { readSheet } from './sheet';
import { removePicture, usesOf } from './pictures';

/** What holds a picture in the library. The jobs run here, in no thread of their own. */
vi.mock('../jobs/run', () => ({
	runJob: (name: JobName, input: never) =>
		Promise.resolve((JOBS[name] as (...all: unknown[]) => unknown)(input, () => undefined))
}));

const folder = mkdtempSync(join(tmpdir(), 'kephalon-pictures-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

let [store, made] = [undefined as unknown as Store, 0];
const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{ path, type: 'note', state: 'live', rules: [] },
	fields: { title: `Title of ${path}`, summary: `What ${path} is about, in a sentence of some length.` },
	...more
});
const look = () => JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, {
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'note', fields: [], rules: [] }],
		pages: [
			page('/', { key: true }),
			page('/boat', { fields: { title: 'Boat', summary: 'About a boat.', picture: { src: '/boat.jpg' } } })
		],
		pictures: ['/boat.jpg', '/free.jpg', '/site.jpg'].map((src) => ({ src, width: 1200, height: 630 })),
		redirects: {}
	} as never);
	look();
});
const sources = () => store.pictures.all(store.working.sites.named('S').id).map(({ src }) => src);

test('one that nothing uses goes, as an edit that is taken back', async () => {
	await removePicture(store, 'S', '/free.jpg');
	expect(sources()).toEqual(['/boat.jpg', '/site.jpg']);
	const [edit] = store.record.list(store.working.sites.named('S').id, undefined, 1);
	expect(edit).toMatchObject({ origin: 'bench', kind: 'picture', what: { src: '/free.jpg', do: 'remove' } });
	takeBack(store, 'S', 'last', 'bench');
	expect(sources()).toContain('/free.jpg');
});

test('one that is not there is said to be missing', async () => {
	await expect(removePicture(store, 'S', '/none.jpg')).rejects.toMatchObject({
		message: 'There is no picture "/none.jpg" in this site.',
		status: 404
	});
});

test('one that a page, the site or a release shows stays, and it is said where', async () => {
	await expect(removePicture(store, 'S', '/boat.jpg')).rejects.toThrow('It is used on /boat: remove it there first.');
	const change = (place: object, changes: object) =>
		keepSettings(store, 'S', readSettingsEdit({ place, changes }), 'bench');
	change({ layer: 'site' }, { fields: { logo: { src: '/site.jpg' } } });
	await expect(removePicture(store, 'S', '/site.jpg')).rejects.toThrow('The site or one of its types uses it');
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	change({ layer: 'page', path: '/boat' }, { fields: { title: 'Boat', summary: 'About a boat.' } });
	look();
	await expect(removePicture(store, 'S', '/boat.jpg')).rejects.toThrow(/^Release 1 still shows it on \/boat\. Release/);
	expect(sources()).toEqual(['/boat.jpg', '/free.jpg', '/site.jpg']);
});

test('uses are counted once for each state of the working copy', async () => {
	const first = usesOf(store, 'S');
	expect(usesOf(store, 'S')).toBe(first);
	expect((await first)['/boat.jpg']).toMatchObject({ shownOn: ['/boat'] });
	await removePicture(store, 'S', '/free.jpg');
	expect(usesOf(store, 'S')).not.toBe(first);
});

test('a sheet warns of grave findings and of key pages that would be blank', () => {
	const leaveOut = { kind: 'leaveOut' } as const;
	keepRule(store, 'S', { place: { layer: 'page', path: '/' }, tag: 'title', body: leaveOut }, { origin: 'bench' });
	look();
	const warns = () => readSheet(store, 'S', { limit: 10 }).warns;
	expect(warns()).toEqual([
		'The key page / would be shared without a picture, a title or a description.',
		'1 page has a grave finding: no title.'
	]);
	keepRule(store, 'S', { place: { layer: 'site' }, tag: 'title', body: leaveOut }, { origin: 'bench' });
	look();
	expect(warns()[1]).toBe('2 pages have a grave finding: no title.');
});
