import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import type { Picture } from '$core';
import { wholeDemoSite } from '../../demo/content';
import { authorName } from './edits/edit';
import { actOnPage, readPageAction } from './edits/pages';
import { changeMany, readBatch, sampleOfBatch } from './edits/batch';
import { keepRule, readEdit } from './edits/rules';
import { keepSettings, readSettingsEdit } from './edits/settings';
import { actOnType, editOfSet, fieldUses, readTypeAction } from './edits/types';
import { takeBack } from './edits/takeBack';
import { compareCsv, readCsvBack, writeCsv } from './exports/csv';
import { robotsOf } from './exports/robots';
import { sitemapsOf } from './exports/sitemap';
import { readFindings } from './findings/findings';
import { pagesLinking } from './findings/links';
import { countUnder } from './jobs/reach';
import { countUses } from './heads/uses';
import { JOBS } from './jobs/jobs';
import { readCards } from './readers/cards';
import { differencesBetween, goBack, refuseReleases } from './releases/releases';
import { saveSiteFile, writeSiteFile } from './siteFile/siteFile';
import { gridRows, SORTS, type Sort } from './store/table/grid';
import { Store } from './store/store';
import { readBenchData, readWhatLeads } from './web/benchData';
import { readPart } from './http/forms';
import { filterOf, readGrid, type GridWanted } from './web/grid';
import { readOverview } from './web/overview';
import { readPending } from './web/pending';
import { readRecipe } from './web/recipes';
import { readSheet } from './web/sheet';
import { readWorst } from './web/worst';

/**
 * A day's work on the demo site, from the first look to going back to an old release: what is told at each step is
 * written down in told/ and read there. Where a change is meant, `npx vitest run src/server/told -u` writes it anew.
 */
const folder = mkdtempSync(join(tmpdir(), 'kephalon-told-'));
const file = join(folder, 'told.db');
const store = new Store(file);
const NAME = 'Merrow Coast Reserves';
/** The pictures of the demo, as if they had been drawn. */
const PICTURES: Picture[] = [
	'/pictures/ember-heath.jpg',
	'/pictures/saltholm.jpg',
	'/pictures/logo.png',
	'/pictures/long-strand.jpg'
].map((src, at) => ({
	...{ src, width: [1600, 500, 400, 1200][at]!, height: [900, 800, 400, 630][at]!, bytes: 90_000 + at },
	...{ type: src.endsWith('png') ? 'image/png' : 'image/jpeg', alt: at === 1 ? '' : `Picture ${at}` },
	...(at !== 2 && {
		kept: {
			file: `${String(at).repeat(24)}.jpg`,
			width: [1600, 500, 400, 1200][at]!,
			height: [900, 800, 400, 630][at]!
		}
	})
}));
const site = () => store.working.sites.named(NAME).id;
const refresh = () => JOBS.refresh({ db: file, site: NAME }, () => undefined);
const release = (note: string) => JOBS.release({ db: file, site: NAME, note }, () => undefined);

beforeAll(() => {
	vi.useFakeTimers({ toFake: ['Date'], now: new Date('2026-05-03T10:00:00Z') });
	saveSiteFile(store, wholeDemoSite(PICTURES));
	refresh();
});
afterAll(() => {
	vi.useRealTimers();
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

/** A chapter: each step with what came of it, or with the words of its refusal. */
async function chapter(name: string, steps: readonly (readonly [string, () => unknown])[]) {
	const lines: string[] = [];
	for (const [title, work] of steps) {
		lines.push(`# ${title}`);
		try {
			const result = await work();
			lines.push(typeof result === 'string' ? result : (JSON.stringify(result, undefined, '\t') ?? 'nothing'));
		} catch (error) {
			lines.push(`! ${(error as Error).message}`);
		}
	}
	await expect(
		`${lines.join('\n')}\n`.replaceAll(folder, 'FOLDER').replaceAll(`"author": "${authorName()}"`, '"author": "ada"')
	).toMatchFileSnapshot(`told/${name}.txt`);
}
const gridQuery = (query: string) =>
	readPart('GET /sites/{site}/grid', 'query', Object.fromEntries(new URLSearchParams(query))) as GridWanted;
const rows = (query: string) => {
	const { count, rows: all, unseen } = readGrid(store, store.working.sites.named(NAME).id, gridQuery(query));
	return { count, unseen, paths: all.map(({ path }) => path) };
};

const firstLook = () =>
	chapter('first-look', [
		['overview', () => readOverview(store, NAME)],
		['pending', () => readPending(store, NAME)],
		['worst', () => readWorst(store, NAME)],
		['cards of readers', () => readCards(store, NAME, true)],
		['no readers', () => readCards(store, NAME, false)],
		...['/', '/reserves/ember-heath', '/fr/visiter', '/404', '/nothing'].map(
			(path) => [`bench ${path}`, () => readBenchData(store, NAME, path)] as const
		),
		['bench of no page', () => readBenchData(store, NAME, null)],
		['bench of no site', () => readBenchData(store, 'Nothing', null)],
		['what leads to a page', () => readWhatLeads(store, NAME, '/reserves/ember-heath')],
		['texts that link', () => pagesLinking(store, NAME, '/reserves/ember-heath')],
		['pages under the site', () => countUnder(store, NAME, { place: { layer: 'site' } } as never)],
		['pages under a type', () => countUnder(store, NAME, { place: { layer: 'type', name: 'guide' } } as never)],
		['pages under a page', () => countUnder(store, NAME, { place: { layer: 'page', path: '/about' } } as never)],
		[
			'filters with a name',
			() => {
				store.table.filters.save(site(), 'walks', 'type=walk');
				store.table.filters.save(site(), 'drafts', 'state=draft');
				store.table.filters.save(site(), 'walks', 'type=walk&q=tide');
				const all = store.table.filters.all(site());
				store.table.filters.drop(site(), 'drafts');
				return [all, store.table.filters.all(site())];
			}
		],
		['uses of pictures', () => countUses(store, site())]
	]);

const theTable = () =>
	chapter('table', [
		...Object.keys(SORTS).flatMap((sort) => [
			[`by ${sort}`, () => rows(`sort=${sort}&limit=7`)] as const,
			[
				`by ${sort}, down`,
				() =>
					gridRows(store.db, site(), {}, { sort: sort as Sort, down: true, offset: 2, limit: 4 }).map(
						({ path }) => path
					)
			] as const
		]),
		...[
			'q=heath',
			'q=he wa',
			'q=%22',
			'type=walk',
			'type=none',
			'language=fr',
			'language=-',
			'state=draft',
			'finding=cut',
			'finding=cut,short',
			'finding=cut&of=title',
			'from=title:type',
			'from=title:page',
			'from=description:found',
			'from=nothing:page',
			'differs=new',
			'differs=yes',
			'differs=what',
			'without=description',
			'without=og:image',
			'key=yes',
			'type=walk&q=tide',
			'state=live&language=en&without=og:image'
		].map((query) => [query, () => rows(`${query}&limit=30`)] as const),
		['a whole row', () => readGrid(store, store.working.sites.named(NAME).id, { q: 'ember-heath', limit: 1 }).rows],
		['filter of a query', () => filterOf({ type: 'walk', limit: 1, q: '' } as GridWanted) as object],
		[
			'as CSV',
			() =>
				[
					...writeCsv(
						store,
						NAME,
						{ type: 'reserve' },
						{
							columns: ['title', 'description', 'page says: og:title', 'page says: title', 'state', 'findings'],
							sort: 'path',
							down: true,
							mark: false
						}
					)
				].join('')
		],
		[
			'CSV back',
			() => compareCsv(store, NAME, 'path,page says: title\n/reserves/ember-heath,A new one\n/nowhere,x\n/about,\n')
		],
		['CSV without a path', () => compareCsv(store, NAME, 'title\nx\n')],
		['CSV with nothing to write', () => compareCsv(store, NAME, 'path,title\n/about,x\n')],
		['CSV kept', () => readCsvBack(store, NAME, 'path,page says: title\n/reserves/ember-heath,A new one\n', 'pages')]
	]);

const edits = () =>
	chapter('edits', [
		['release', () => release('first')],
		[
			'a rule',
			() =>
				keepRule(
					store,
					NAME,
					readEdit({
						place: { layer: 'type', name: 'walk' },
						tag: 'description',
						body: { kind: 'template', template: 'Walk it: {page.summary}' }
					}),
					{ origin: 'bench' }
				)
		],
		[
			'a rule at the site',
			() =>
				keepRule(
					store,
					NAME,
					readEdit({ place: { layer: 'site' }, tag: 'robots', body: { kind: 'template', template: 'noarchive' } }),
					{ origin: 'bench' }
				)
		],
		[
			'a rule in a language',
			() =>
				keepRule(
					store,
					NAME,
					readEdit({
						place: { layer: 'page', path: '/about' },
						tag: 'title',
						language: 'fr',
						body: { kind: 'leaveOut' }
					}),
					{ origin: 'bench' }
				)
		],
		[
			'a rule that was changed meanwhile',
			() =>
				keepRule(
					store,
					NAME,
					readEdit({ place: { layer: 'type', name: 'walk' }, tag: 'description', body: { kind: 'leaveOut' } }),
					{ expected: null, origin: 'bench' }
				)
		],
		[
			'a broken rule',
			() =>
				keepRule(
					store,
					NAME,
					readEdit({ place: { layer: 'site' }, tag: 'title', body: { kind: 'template', template: '{page.titel' } }),
					{ origin: 'bench' }
				)
		],
		[
			'a rule for no tag',
			() =>
				keepRule(
					store,
					NAME,
					readEdit({ place: { layer: 'site' }, tag: 'og:tilte', body: { kind: 'template', template: 'x' } }),
					{ origin: 'bench' }
				)
		],
		[
			'a rule for no page',
			() =>
				keepRule(store, NAME, readEdit({ place: { layer: 'page', path: '/none' }, tag: 'title', body: null }), {
					origin: 'bench'
				})
		],
		[
			'a rule for no type',
			() =>
				keepRule(store, NAME, readEdit({ place: { layer: 'type', name: 'none' }, tag: 'title', body: null }), {
					origin: 'bench'
				})
		],
		['no edit at all', () => readEdit({ place: 'here' })],
		[
			'settings of a page',
			() =>
				keepSettings(
					store,
					NAME,
					readSettingsEdit({ place: { layer: 'page', path: '/about' }, changes: { key: true, target: 'who we are' } }),
					'bench'
				)
		],
		[
			'settings of the site',
			() =>
				keepSettings(store, NAME, readSettingsEdit({ place: { layer: 'site' }, changes: { separator: '|' } }), 'bench')
		],
		['settings that are none', () => readSettingsEdit({ place: { layer: 'site' }, changes: { colour: 'red' } })],
		...[
			{ do: 'add', path: '/new', type: 'walk', title: 'New walk' },
			{ do: 'copy', path: '/new', to: '/newer' },
			{ do: 'link', path: '/new', to: '/newer' },
			{ do: 'home', path: '/newer' },
			{ do: 'home', path: '/404' },
			{ do: 'remove', path: '/new', to: '/about' },
			{ do: 'remove', path: '/none' },
			{ do: 'forget', path: '/new' },
			{ do: 'add', path: '/a b', type: 'walk', title: 'x' },
			{ do: 'add', path: '/x', type: 'none', title: 'x' },
			{ do: 'add', path: '/about', type: 'walk', title: 'x' },
			{ do: 'add', path: '/x', type: 'walk' },
			{ do: 'fly' },
			{ do: 'add', path: '/l', type: 'walk', title: 'L', language: 'nope!' }
		].map(
			(action) =>
				[`page: ${JSON.stringify(action)}`, () => actOnPage(store, NAME, readPageAction(action), 'bench')] as const
		),
		...[
			{ name: 'ferry', set: undefined },
			{ name: 'ferry', set: 'none' },
			{ name: '!' },
			{ do: 'rename', name: 'ferry', to: 'boat' },
			{ do: 'rename', name: 'boat', to: 'walk' },
			{ do: 'rename', name: 'none', to: 'x' },
			{ do: 'remove', name: 'walk' },
			{ do: 'remove', name: 'walk', to: 'walk' },
			{ do: 'remove', name: 'clip', to: 'walk' },
			{ do: 'remove', name: 'boat' },
			{ do: 'renameField', name: 'reserve', field: 'region', to: 'area' },
			{ do: 'renameField', name: 'reserve', field: 'none', to: 'x' },
			{ do: 'sing' },
			{ do: 'rename', name: 'x' }
		].map(
			(action) =>
				[`type: ${JSON.stringify(action)}`, () => actOnType(store, NAME, readTypeAction(action), 'bench')] as const
		),
		['uses of a field', () => fieldUses(store, NAME, 'reserve', 'hectares')],
		['a starting set that is none', () => editOfSet(store, NAME, { type: 'walk', set: 'none' })],
		...[
			{ do: 'text', tag: 'og:title', text: 'Changed' },
			{ do: 'replace', tag: 'og:title', find: 'Chan', by: 'Hin' },
			{ do: 'hidden', on: true },
			{ do: 'state', state: 'draft' },
			{ do: 'type', type: 'none' },
			{ do: 'language', language: '' },
			{ do: 'key', on: true },
			{ do: 'found', tag: 'title', take: false }
		].flatMap((action) => {
			const pages = { filter: { type: 'guide' } };
			return [
				[
					`sample: ${JSON.stringify(action)}`,
					() => sampleOfBatch(store, NAME, pages, readBatch({ pages, action }).action)
				] as const,
				[
					`many: ${JSON.stringify(action)}`,
					() => changeMany(store, NAME, pages, readBatch({ pages, action }).action, 'pages')
				] as const
			];
		}),
		['home among many', () => changeMany(store, NAME, { paths: ['/'] }, { do: 'state', state: 'draft' }, 'pages')],
		['many, not read', () => readBatch({ pages: {}, action: { do: 'key', on: true } })],
		['many, unknown', () => readBatch({ pages: { paths: [] }, action: { do: 'dance' } })],
		[
			'no words to replace',
			() => readBatch({ pages: { paths: [] }, action: { do: 'replace', tag: 'title', find: '', by: 'x' } })
		],
		['taken back', () => takeBack(store, NAME, 'last', 'bench')],
		['taken back, one', () => takeBack(store, NAME, 2, 'bench')],
		['taken back, one that is none', () => takeBack(store, NAME, 9999, 'bench')],
		['the record', () => store.record.list(site(), undefined, 60)],
		['before looking again', () => rows('differs=yes&limit=60')]
	]);

const releases = () =>
	chapter('releases', [
		['looked at again', () => void refresh()],
		['sheet', () => readSheet(store, NAME, { limit: 6 })],
		['sheet, searched', () => readSheet(store, NAME, { limit: 6, q: 'guides' })],
		['pending', () => readPending(store, NAME)],
		['release', () => release('second')],
		['history', () => store.releases.history(site(), 9)],
		['compared', () => [...differencesBetween(store, site(), [1, 2]).pages].slice(0, 6)],
		['compared the other way, one page', () => [...differencesBetween(store, site(), [2, 1], '/about').pages]],
		['a release that is none', () => refuseReleases(store, site(), [1, 7])],
		['sitemaps', () => [...sitemapsOf(store, NAME)]],
		['sitemaps in parts', () => [...sitemapsOf(store, NAME, 30)].map(({ name, text }) => [name, text.length])],
		['robots', () => robotsOf(store.working.sites.named(NAME).site)],
		['overview', () => readOverview(store, NAME)],
		['back to the first', () => goBack(store, NAME, 1)],
		['back to none', () => goBack(store, NAME, 9)],
		['cards of readers', () => readCards(store, NAME, true)],
		['as a site file', () => [...writeSiteFile(store, NAME)].join('').slice(0, 9000)]
	]);

const findings = () => chapter('findings', [['all', () => readFindings(store, NAME)]]);

test('a day’s work: a first look, the table, edits and refusals, a release and the way back, findings', async () => {
	// Each chapter goes on from the one before.
	for (const one of [firstLook, theTable, edits, releases, findings]) await one();
});

const RECIPE = {
	version: 2,
	language: 'en',
	background: { kind: 'gradient', from: '#112233', to: '#445566', angle: 90 },
	frame: { colour: '#ffffff', width: 20, inset: 40 },
	texts: []
};
test('recipes of share pictures as they come from outside', () =>
	chapter(
		'recipes',
		[
			...[
				null,
				[],
				{},
				RECIPE,
				{ ...RECIPE, frame: { ...RECIPE.frame, inset: 301 } },
				{ ...RECIPE, frame: { ...RECIPE.frame, inset: '4' } }
			],
			...[
				{ ...RECIPE, frame: { ...RECIPE.frame, inset: -1 } },
				{ ...RECIPE, frame: { ...RECIPE.frame, width: 201 } }
			],
			...[
				{ ...RECIPE, background: { kind: 'colour', colour: 'red' } },
				{ ...RECIPE, background: { kind: 'colour', colour: '#00ff00' } }
			],
			...[
				{ ...RECIPE, play: false },
				{ ...RECIPE, play: true },
				{ ...RECIPE, texts: [1] },
				{ ...RECIPE, more: 1 }
			]
		].map((data) => [JSON.stringify(data), () => readRecipe(data)] as const)
	));
