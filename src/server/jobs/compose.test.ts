import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { RECIPE_NAME, STARTING_LAYOUTS, type ContentType, type Page } from '$core';
import { backUp } from '../backup/backup';
import { Store } from '../store/store';
import { compose } from './compose';
import { composeAll } from './composeAll';
import { releasedHead, resolverOf } from '../heads/heads';
import { JOBS } from './jobs';
import { countUses } from '../heads/uses';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-compose-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const layout = STARTING_LAYOUTS[2]!.layout;
const type: ContentType = {
	...{ name: 'isle', fields: [], layout },
	rules: [{ tag: 'og:image', kind: 'pictures', sources: [{ from: 'composed' }] }]
};
const page = (at: number, title = `Isle ${at}`): Page => ({
	...{ path: `/isle-${at}`, type: 'isle', state: 'live', rules: [] },
	fields: { title, picture: '/boat.jpg' }
});
function fill(name: string, count: number) {
	const store = new Store(join(folder, `${name}.db`));
	const site = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	});
	store.working.types.save(site, type);
	store.working.types.save(site, { name: 'bare', fields: [], rules: [] });
	for (let at = 0; at < count; at++) store.working.pages.save(site, page(at));
	return { store, site };
}
const whole = (store: Store) => ({ db: store.file, site: 'S', part: { at: 0, of: 1 } });
const drawnFiles = (store: Store) =>
	readdirSync(`${store.file}.media`)
		.filter((name) => RECIPE_NAME.test(name))
		.sort();

test('pictures are drawn once; what changed is drawn again, and nothing else', async () => {
	const { store, site } = fill('a', 5);
	const seen: number[] = [];
	expect(await compose(whole(store), (done) => seen.push(done))).toEqual({ drawn: 5, kept: 0 });
	expect(seen).toEqual([1, 2, 3, 4, 5]);
	expect(await compose(whole(store), () => undefined)).toEqual({ drawn: 0, kept: 5 });
	store.working.pages.save(site, page(2, 'Another isle'));
	expect(await compose(whole(store), () => undefined)).toEqual({ drawn: 1, kept: 4 });
	store.working.types.save(site, { ...type, layout: { ...layout, title: { ...layout.title, size: 70 } } });
	expect(await compose(whole(store), () => undefined)).toEqual({ drawn: 5, kept: 0 });
});

test('stopped in the middle, it goes on where it was; parts together are the whole', async () => {
	const { store } = fill('b', 6);
	const stop = () => {
		throw new Error('stopped');
	};
	await expect(compose(whole(store), (done) => (done === 2 ? stop() : undefined))).rejects.toThrow('stopped');
	expect(drawnFiles(store)).toHaveLength(2);
	const parts = [0, 1].map((at) => compose({ ...whole(store), part: { at, of: 2 } }, () => undefined));
	const [one, two] = await Promise.all(parts);
	expect(one!.drawn + two!.drawn).toBe(4);
	expect(one!.kept + two!.kept).toBe(2);
	expect(drawnFiles(store)).toHaveLength(6);
});

test('what heads name is what is drawn', async () => {
	const { store, site } = fill('c', 3);
	await compose(whole(store), () => undefined);
	const resolver = resolverOf(store, store.working.sites.named('S'), '');
	const named = [...store.working.pages.all(site)].map((one) => releasedHead(resolver, one));
	expect(named.map(({ share }) => share!.name).sort()).toEqual(drawnFiles(store));
	for (const { html, share } of named) expect(html).toContain(`https://s.example/media/${share!.name}`);
});

test.each([
	[{ site: 'S', type: 'isles' }, /no type "isles"/],
	[{ site: 'S', path: '/nowhere' }, /no page "\/nowhere"/],
	[{ site: 'S', type: 'bare' }, /The type "bare" has no layout/],
	[{ site: 'T' }, /no site "T"/]
])('%j is refused', async (wanted, why) => {
	const { store } = fill(`d${String(why).length}`, 1);
	await expect(composeAll(store, wanted)).rejects.toThrow(why);
});

test('where pictures are used is told by the cards and by the pages that name them', () => {
	const { store, site } = fill('e', 2);
	store.working.pages.save(site, { ...page(7), type: 'bare' });
	const pictures = [{ src: '/boat.jpg', kept: { file: `${'a'.repeat(24)}.jpg`, width: 9, height: 9 } }];
	store.pictures.save(site, pictures);
	// The share pictures of this layout show no picture; the page without one shows its own.
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	const uses = countUses(store, site);
	expect(uses['/boat.jpg']).toEqual({
		...{ shown: 1, shownOn: ['/isle-7'] },
		...{ named: 3, namedOn: ['/isle-0', '/isle-1', '/isle-7'] }
	});
});

test('a backup holds the database and the library, and writes over nothing', async () => {
	const { store } = fill('f', 2);
	await compose(whole(store), () => undefined);
	const target = join(folder, 'copy');
	expect(await backUp(store, target)).toMatchObject({ sites: 1, pages: 2, pictures: 0 });
	const copy = new Store(join(target, 'f.db'));
	expect(await compose({ ...whole(copy) }, () => undefined)).toEqual({ drawn: 0, kept: 2 });
	await expect(backUp(store, target)).rejects.toThrow(/is not empty/);
});
