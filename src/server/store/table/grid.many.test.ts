import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { JOBS } from '../../jobs/jobs';
import { countGrid, gridIds, gridRows, placeInOrder, SORTS, type GridRow, type PageFilter, type Sort } from './grid';
import { Store } from '../store';

/** More pages than are walked over in their order, or gathered and sorted for a search. */
const PAGES = 5400;
const folder = mkdtempSync(join(tmpdir(), 'kephalon-'));
const store = new Store(join(folder, 'k.db'));
const id = store.working.sites.save({
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
	rules: [{ tag: 'og:type', kind: 'template', template: 'article' }]
});

beforeAll(() => {
	store.transaction(() => {
		for (const type of ['page', 'walk', 'rare']) store.working.types.ensure(id, type);
		for (let at = 0; at < PAGES; at++)
			store.working.pages.save(id, {
				path: `/p/${(at * 7919) % PAGES}`,
				type: at % 600 === 0 ? 'rare' : at % 2 ? 'walk' : 'page',
				state: at % 5 ? 'live' : 'draft',
				...(at % 3 === 0 && { language: 'fr' }),
				...(at % 500 === 0 && { key: true }),
				...(at % 13 === 0 && { target: `heath walk ${at % 17}` }),
				modified: `2026-0${1 + (at % 9)}-01T00:00:00Z`,
				fields: {
					title: at % 4 ? `Walk ${at % 90}` : `Heath ${at % 70}`,
					...(at % 7 > 0 && { summary: `A summary that all of them begin with, and number ${at % 100}.` }),
					...(at % 11 === 0 && { picture: { src: `/pictures/${at % 40}.jpg` } })
				},
				rules: at % 900 === 0 ? [{ tag: 'title', kind: 'template', template: `Own ${at}` }] : []
			});
	});
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	// Another site in the same database, whose pages have the same words.
	store.working.sites.save({
		name: 'T',
		base: 'https://t.example/',
		languages: ['en'],
		separator: '·',
		fields: {},
		rules: []
	});
	const other = store.working.sites.named('T').id;
	store.working.types.ensure(other, 'walk');
	for (let at = 0; at < 9; at++)
		store.working.pages.save(other, {
			...{ path: `/p/${at}`, type: 'walk', state: 'live', rules: [] },
			fields: { title: `Heath ${at}`, picture: { src: '/pictures/11.jpg' } }
		});
	JOBS.refresh({ db: store.file, site: 'T' }, () => undefined);
});
afterAll(() => {
	store.close();
	rmSync(folder, { recursive: true });
});

const rows = (filter: PageFilter, sort: Sort, down: boolean, offset: number, limit: number) =>
	gridRows(store.db, id, filter, { sort, down, offset, limit });

/** The order by one column, as the database orders: nothing first, numbers by size, texts by their units. */
function compare(sort: Sort) {
	const key = sort === 'findings' ? 'weight' : sort === 'key' ? 'isKey' : sort;
	return (a: GridRow, b: GridRow) => {
		const [one, other] = [a[key as keyof GridRow] ?? '', b[key as keyof GridRow] ?? ''];
		if (one !== other) return one < other ? -1 : 1;
		return ['type', 'language', 'state', 'card', 'key'].includes(sort) ? (a.path < b.path ? -1 : 1) : a.id - b.id;
	};
}

const FILTERS: PageFilter[] = [
	{},
	{ type: 'walk' },
	{ type: 'rare' },
	{ state: 'live', language: 'fr' },
	{ language: '-' },
	{ q: 'heath' },
	{ q: 'own', type: 'rare' },
	{ q: 'p' },
	{ q: 'all numb', type: 'walk' },
	{ q: 'summary 5' },
	{ q: 'nothing such' },
	{ from: 'title:page' },
	{ from: 'description:built-in' },
	{ without: 'description' },
	{ without: 'title' },
	{ finding: 'no-picture' },
	{ finding: 'no-description', of: 'description' },
	{ differs: 'new' },
	{ key: 'yes' },
	{ title: 'Walk 1' },
	{ description: 'A summary that all of them begin with, and number 5.' },
	{ picture: '/pictures/11.jpg' }
];

test.each(FILTERS)('%j: in every order, walked over or gathered, the same pages in the same order', (filter) => {
	const all = rows({}, 'path', false, 0, PAGES);
	expect(all).toHaveLength(PAGES);
	const meant = new Set(rows(filter, 'path', false, 0, PAGES).map((row) => row.id));
	expect(countGrid(store.db, id, filter)).toBe(meant.size);
	for (const sort of Object.keys(SORTS) as Sort[])
		for (const down of [false, true]) {
			const sorted = all.filter((row) => meant.has(row.id)).sort(compare(sort));
			if (down) sorted.reverse();
			const wanted = sorted.map(({ path }) => path);
			const seen = (offset: number, limit: number) => rows(filter, sort, down, offset, limit).map(({ path }) => path);
			expect(seen(0, 20), `${sort} ${down}`).toEqual(wanted.slice(0, 20));
			expect(seen(30, 20), `${sort} ${down}`).toEqual(wanted.slice(30, 50));
			expect(seen(290, 20), `${sort} ${down}`).toEqual(wanted.slice(290, 310));
			expect(seen(3100, 20), `${sort} ${down}`).toEqual(wanted.slice(3100, 3120));
			expect([...gridIds(store.db, id, filter, { sort, down })], `${sort} ${down}`).toEqual(
				sorted.map((row) => row.id)
			);
			// Near the top, far down, and near the top with what was put in order for it.
			for (const offset of [10, 2990, 280, 10])
				expect(
					store.table.lists.rows(id, filter, { sort, down, offset, limit: 20 }).map(({ path }) => path),
					`${sort} ${down} ${offset}`
				).toEqual(wanted.slice(offset, offset + 20));
			// After any of them follow those that follow it.
			for (const at of [0, 1, sorted.length >> 1, sorted.length - 1].filter((one) => sorted[one]))
				expect(
					store.table.lists
						.rowsAfter(id, filter, { sort, down, limit: 7 }, placeInOrder(store.db, sorted[at]!.id, sort)!)
						.map(({ path }) => path),
					`${sort} ${down} after ${at}`
				).toEqual(wanted.slice(at + 1, at + 8));
		}
});

test('what a filter means is what its rows say', () => {
	const of = (filter: PageFilter) => rows(filter, 'path', false, 0, PAGES);
	const all = of({});
	const paths = (list: readonly GridRow[]) => list.map(({ path }) => path);
	expect(paths(of({ type: 'rare' }))).toEqual(paths(all.filter(({ type }) => type === 'rare')));
	expect(paths(of({ q: 'heath' }))).toEqual(paths(all.filter(({ title }) => title.startsWith('Heath'))));
	expect(paths(of({ from: 'title:page' }))).toEqual(paths(all.filter(({ titleFrom }) => titleFrom === 'page')));
	expect(paths(of({ finding: 'no-picture' }))).toEqual(
		paths(all.filter(({ findings }) => findings?.split(' ').includes('no-picture')))
	);
	expect(paths(of({ description: all.find(({ description }) => description)!.description }))).toEqual(
		paths(all.filter(({ description }) => description === all.find((row) => row.description)!.description))
	);
});

test('pages are found by words that few have, the best first, and by words that very many have, titles first', () => {
	const find = (text: string, limit = 20) => store.table.listing.find(id, text, limit);
	const few = find('own');
	expect(few.map(({ title }) => title)).toHaveLength(PAGES / 900);
	const many = find('walk', 40);
	expect(many).toHaveLength(40);
	expect(many.every(({ title }) => title?.startsWith('Walk'))).toBe(true);
	// All paths have it, and no title.
	const paths = find('p', 40);
	expect(paths).toHaveLength(40);
	expect(new Set(paths.map(({ path }) => path)).size).toBe(40);
	// In no title, and in the summaries of most.
	const both = find('a', 3000);
	expect(both).toHaveLength(new Set(both.map(({ path }) => path)).size);
	expect(both.length).toBeGreaterThan(2500);
	// Those of the other site are not among them.
	expect(store.table.listing.find(store.working.sites.named('T').id, 'p', 40)).toHaveLength(9);
	expect(find('walk p')).toHaveLength(20);
	expect(find('nothing such')).toEqual([]);
});

test('parts hold every page once, and pages of every type', () => {
	const parts = [0, 1, 2].map((part) => [...store.working.pages.part(id, undefined, { part, parts: 3 })]);
	expect(new Set(parts.flat().map(({ path }) => path)).size).toBe(PAGES);
	expect(parts.flat()).toHaveLength(PAGES);
	// Types that take turns, as generated pages do, must not fall to one part each.
	for (const pages of parts)
		expect([...new Set(pages.map(({ type }) => type))]).toEqual(expect.arrayContaining(['page', 'walk']));
	store.db.exec('UPDATE page_state SET seen = -1');
	const stale = [0, 1].map((part) => store.state.stale(id, { part, parts: 2 }, PAGES));
	expect(new Set(stale.flat()).size).toBe(PAGES);
	expect(stale.flat()).toHaveLength(PAGES);
	for (const part of [0, 1]) JOBS.refresh({ db: store.file, site: 'S', part, parts: 2 }, () => undefined);
	expect(store.state.countStale(id)).toBe(0);
});

test('far down, what was changed is seen, whoever changed it', () => {
	const far = (filter: PageFilter) =>
		store.table.lists.rows(id, filter, { sort: 'path', down: false, offset: 2950, limit: 200 });
	const others = new Store(store.file);
	const before = far({ from: 'description:built-in' });
	expect(before.length).toBeGreaterThan(20);
	const [first, second] = before as [GridRow, GridRow];
	const setTitle = (by: Store, path: string, title: string) =>
		by.transaction(() => by.working.pages.save(id, { ...by.working.pages.at(id, path)!, fields: { title } }));
	setTitle(store, first.path, 'Without a summary');
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	expect(far({ from: 'description:built-in' })[0]?.path).toBe(second.path);
	setTitle(others, second.path, 'Without one, too');
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	expect(
		far({ from: 'description:built-in' })
			.map(({ path }) => path)
			.slice(0, before.length - 2)
	).toEqual(before.slice(2).map(({ path }) => path));
	others.close();
	// A page that is gone is none of them any more.
	const [gone] = far({ from: 'description:built-in' }) as [GridRow];
	store.transaction(() => store.working.pages.remove(id, gone.path));
	expect(far({ from: 'description:built-in' })[0]?.path).not.toBe(gone.path);
});
