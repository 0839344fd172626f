import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Page, Site } from '$core';
import { changeMany, readBatch, sampleOfBatch } from '../../edits/batch';
import { readCells, writeCells } from '../../edits/cells';
import { makeEdit } from '../../edits/edit';
import { takeBack } from '../../edits/takeBack';
import { compareCsv, readCsvBack, writeCsv } from '../../exports/csv';
import { readFindings } from '../../findings/findings';
import { JOBS } from '../../jobs/jobs';
import { readSheet } from '../../web/sheet';
import { countGrid, gridRows, pathsOfFilter, SORTS, type PageFilter, type Sort } from './grid';
import { sharedValues, tagMatrix, widths } from './counts';
import { Store } from '../store';

let folder = '';
let store: Store;
let id = 0;

const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{
		path,
		type: 'page',
		state: 'live',
		fields: { title: `Title of ${path}`, summary: `A summary that is long enough to say something of ${path}.` },
		rules: []
	},
	...more
});
const look = () => JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);

beforeAll(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-'));
	store = new Store(join(folder, 'k.db'));
	const site: Site = {
		name: 'S',
		base: 'https://s.example/',
		languages: ['en', 'fr'],
		separator: '·',
		fields: {},
		rules: []
	};
	id = store.working.sites.save(site);
	store.working.types.ensure(id, 'page');
	store.working.types.ensure(id, 'walk');
	const pages = [
		page('/', { key: true, target: 'shore birds' }),
		page('/a', { fields: { title: 'Same', summary: 'x' }, target: 'Shore birds' }),
		page('/b', { fields: { title: 'Same' }, type: 'walk', language: 'fr', alternates: { en: '/gone' } }),
		page('/c', { state: 'draft' }),
		page('/d', { rules: [{ tag: 'title', kind: 'template', template: 'Own =1+1' }], alternates: { fr: '/a' } }),
		page('/e', { found: [{ name: 'description', value: 'As its author wrote it, in words of their own.' }] }),
		page('/f', { rules: [{ tag: 'canonical', kind: 'template', template: 'https://s.example/nowhere' }] })
	];
	for (const one of pages) store.working.pages.save(id, one);
	store.working.redirects.replace(id, { '/old': '/lost' });
	look();
});
afterAll(() => {
	store.close();
	rmSync(folder, { recursive: true });
});

const paths = (filter: PageFilter, sort: Sort = 'path', down = false) =>
	gridRows(store.db, id, filter, { sort, down, offset: 0, limit: 99 }).map(({ path }) => path);

describe('the table of pages', () => {
	test.each<[PageFilter, string[]]>([
		[{}, ['/', '/a', '/b', '/c', '/d', '/e', '/f']],
		[{ q: 'same' }, ['/a', '/b']],
		[{ type: 'walk' }, ['/b']],
		[{ language: 'fr' }, ['/b']],
		[{ language: '-' }, ['/', '/a', '/c', '/d', '/e', '/f']],
		[{ state: 'draft' }, ['/c']],
		[{ from: 'title:page' }, ['/d']],
		[{ from: 'description:found' }, ['/e']],
		[{ differs: 'new' }, ['/', '/a', '/b', '/d', '/e', '/f']],
		[{ differs: 'changed' }, []],
		[{ key: 'yes' }, ['/']],
		[{ without: 'description' }, ['/b']],
		[{ title: 'Same' }, ['/a', '/b']],
		[{ finding: 'short' }, ['/a']],
		[{ finding: 'no-description,short', state: 'live' }, ['/a', '/b']],
		[{ finding: 'short', of: 'title' }, []],
		[{ q: 'same', type: 'walk' }, ['/b']]
	])('%j', (filter, wanted) => {
		expect(paths(filter)).toEqual(wanted);
		expect(countGrid(store.db, id, filter)).toBe(wanted.length);
		expect([...pathsOfFilter(store.db, id, filter)].sort()).toEqual(wanted);
	});
	test('every order holds all pages once, and down is the other way round', () => {
		for (const sort of Object.keys(SORTS) as Sort[]) {
			const up = paths({}, sort);
			expect(new Set(up).size).toBe(7);
			expect(paths({}, sort, true)).toEqual([...up].reverse());
		}
	});
	test('widths are counted in whole steps', () => {
		const steps = widths(store.db, id, 'title_width', 2000);
		expect(steps.every(({ step }) => Number.isInteger(step))).toBe(true);
		expect(steps.reduce((sum, { pages }) => sum + pages, 0)).toBe(6);
	});
	test('what is shared, and which types have which tags', () => {
		expect(sharedValues(store.db, id, 'title', 9)).toEqual([{ value: 'Same', pages: 2 }]);
		expect(tagMatrix(store.db, id, ['title', 'description', 'og:image'])).toEqual([
			{ type: 'page', pages: 5, counts: [5, 5, 0] },
			{ type: 'walk', pages: 1, counts: [1, 0, 0] }
		]);
	});
});

describe('findings of the whole', () => {
	const codes = () => readFindings(store, 'S').map(({ code }) => code);
	test('what only all pages show is told with its pages', () => {
		expect(codes()).toEqual(
			expect.arrayContaining([
				...[
					'shared-title',
					'version-nowhere',
					'version-one-way',
					'canonical-nowhere',
					'redirect-nowhere',
					'key-no-picture',
					'target-twice',
					'no-picture'
				]
			])
		);
		const shared = readFindings(store, 'S').find(({ code }) => code === 'shared-title');
		expect(shared?.each).toEqual([
			{ says: '2 pages have the title “Same”', pages: 2, mends: [], filter: { title: 'Same' } }
		]);
	});
	test('one that is set aside is told no more, until it is taken up or the edit is taken back', () => {
		const aside = { code: 'short', tag: 'description', path: '', reason: 'so be it', author: 'me', made: '2026-01-01' };
		const { edit } = makeEdit(store, 'S', { origin: 'findings', kind: 'aside', what: aside }, (site) =>
			store.state.suppressions.add(site.id, aside)
		);
		look();
		expect(codes()).not.toContain('short');
		expect(paths({ finding: 'short' })).toEqual([]);
		takeBack(store, 'S', edit as number, 'findings');
		look();
		expect(paths({ finding: 'short' })).toEqual(['/a']);
	});
});

describe('many at once', () => {
	test('is tried first, kept as one edit, and taken back as one', () => {
		const pages = { filter: { title: 'Same' } };
		const action = { do: 'text', tag: 'title', text: 'A {plain} title' } as const;
		const tried = sampleOfBatch(store, 'S', pages, action);
		expect(tried).toMatchObject({ pages: 2, lookedAt: 2, changed: 2 });
		expect(tried.sample[0]).toMatchObject({ path: '/a', before: 'Same', after: 'A {plain} title' });
		expect(store.working.pages.at(id, '/a')?.rules).toEqual([]);
		const { edit, result } = changeMany(store, 'S', pages, action, 'pages');
		expect(result).toBe(2);
		look();
		expect(paths({ title: 'A {plain} title' })).toEqual(['/a', '/b']);
		takeBack(store, 'S', edit as number, 'pages');
		look();
		expect(paths({ title: 'Same' })).toEqual(['/a', '/b']);
	});
	test.each([
		[{ do: 'type', type: 'walk' }, { type: 'walk' }],
		[{ do: 'language', language: 'fr' }, { language: 'fr' }],
		[{ do: 'state', state: 'private' }, { state: 'private' }],
		[{ do: 'hidden', on: true }, { hidden: true }],
		[{ do: 'key', on: true }, { key: true }],
		[{ do: 'found', tag: 'description', take: false }, { foundPolicy: { tags: { description: 'never' } } }],
		[{ do: 'rule', tag: 'og:title', body: { kind: 'leaveOut' } }, { rules: [{ tag: 'og:title', kind: 'leaveOut' }] }]
	] as const)('%j', (action, wanted) => {
		const { edit } = changeMany(store, 'S', { paths: ['/e'] }, action, 'pages');
		expect(store.working.pages.at(id, '/e')).toMatchObject(wanted);
		takeBack(store, 'S', edit as number, 'pages');
		expect(store.working.pages.at(id, '/e')).not.toMatchObject(wanted);
	});
	test('words are replaced in what pages say themselves', () => {
		const { edit } = changeMany(
			store,
			'S',
			{ filter: {} },
			{ do: 'replace', tag: 'title', find: 'Own', by: 'My' },
			'pages'
		);
		expect(store.working.pages.at(id, '/d')?.rules[0]).toMatchObject({ template: 'My =1+1' });
		takeBack(store, 'S', edit as number, 'pages');
	});
	test('what cannot be is refused, and nothing is kept', () => {
		expect(() => readBatch({ action: { do: 'dance' }, pages: { paths: [] } })).toThrow('"do" is one of');
		expect(() => readBatch({ action: { do: 'text', tag: 'title' }, pages: { paths: [] } })).toThrow(
			'"text" is missing'
		);
		expect(() => readBatch({ action: { do: 'state', state: 'gone' }, pages: { filter: {} } })).toThrow(
			'A state is one of'
		);
		expect(() => readBatch({ action: { do: 'language', language: 'x' }, pages: { filter: {} } })).toThrow(
			'no language tag'
		);
		expect(() => changeMany(store, 'S', { filter: {} }, { do: 'type', type: 'none' }, 'pages')).toThrow(
			'There is no type'
		);
		expect(() => changeMany(store, 'S', { filter: {} }, { do: 'state', state: 'draft' }, 'pages')).toThrow(
			'The home page is among them'
		);
		expect(() =>
			changeMany(
				store,
				'S',
				{ paths: ['/e'] },
				{ do: 'rule', tag: 'title', body: { kind: 'template', template: '{page.' } },
				'pages'
			)
		).toThrow();
		expect(store.working.pages.at(id, '/e')?.rules).toEqual([]);
	});
});

test('a batch says before how many pages would lose what they say themselves', () => {
	const { edit } = writeCells(store, 'S', [
		{ path: '/a', tag: 'description', text: 'Mine' },
		{ path: '/b', tag: 'description', text: 'Mine, too' },
		{ path: '/b', tag: 'og:title', text: 'Another tag' }
	]);
	const replacedBy = (action: Parameters<typeof sampleOfBatch>[3], paths = ['/a', '/b', '/e']) =>
		sampleOfBatch(store, 'S', { paths }, action).replaced;
	expect(replacedBy({ do: 'text', tag: 'description', text: 'For all' })).toBe(2);
	expect(replacedBy({ do: 'text', tag: 'description', text: 'For all' }, ['/a', '/e'])).toBe(1);
	expect(replacedBy({ do: 'rule', tag: 'og:title', body: null })).toBe(1);
	expect(replacedBy({ do: 'key', on: true })).toBe(0);
	takeBack(store, 'S', edit as number, 'pages');
});

test('the kinds of findings that pages have, each once', () => {
	look();
	const all = store.db
		.prepare('SELECT DISTINCT code FROM page_finding WHERE site_id = ? ORDER BY code')
		.pluck()
		.all(id);
	expect(all.length).toBeGreaterThan(2);
	expect(store.state.codes(id)).toEqual(all);
	expect(store.state.codes(id + 1)).toEqual([]);
});

describe('cells of the table', () => {
	const rules = (path: string) => store.working.pages.at(id, path)?.rules;
	test('are written as words at their pages, as one edit that is taken back as one', () => {
		const { edit, result } = writeCells(store, 'S', [
			{ path: '/a', tag: 'title', text: 'Braces {so}' },
			{ path: '/a', tag: 'description', text: 'Said' },
			{ path: '/b', tag: 'title', text: '' }
		]);
		expect(result).toBe(3);
		expect(rules('/a')).toEqual([
			{ tag: 'description', kind: 'template', template: 'Said' },
			{ tag: 'title', kind: 'template', template: 'Braces \\{so\\}' }
		]);
		expect(store.record.list(id, undefined, 1)[0]).toMatchObject({
			...{ origin: 'pages', kind: 'batch' },
			what: { action: { do: 'text', tag: 'several' }, pages: 2 }
		});
		takeBack(store, 'S', edit as number, 'pages');
		expect(rules('/a')).toEqual([]);
		const one = writeCells(store, 'S', [{ path: '/a', tag: 'title', text: 'Alone' }]);
		expect(store.record.list(id, undefined, 1)[0]!.what).toEqual({
			...{ action: { do: 'text', tag: 'title' }, pages: 1, path: '/a' }
		});
		takeBack(store, 'S', one.edit as number, 'pages');
	});
	test('one that cannot be is told, and none is kept', () => {
		const good = { path: '/a', tag: 'title', text: 'Kept?' };
		expect(() => writeCells(store, 'S', [good, { ...good, path: '/nowhere' }])).toThrow('There is no page "/nowhere"');
		expect(() => writeCells(store, 'S', [good, { ...good, tag: 'og:colour' }])).toThrow('/a, og:colour: ');
		expect(rules('/a')).toEqual([]);
		expect(() => readCells({ cells: [{ path: '/a', tag: 'title' }] })).toThrow('each needs a path, a tag and a text');
		expect(() => readCells({})).toThrow('each needs a path');
		expect(() => readCells({ cells: Array(10_001).fill(good) })).toThrow('10001 cells are more than the 10000');
		expect(readCells({ cells: [good] })).toEqual([good]);
	});
});

describe('CSV, out and in again', () => {
	const none = { count: 0, first: [] };
	const nothingLeft = { unknown: none, conflict: none, wrong: none, shown: none };
	const out = (mark = false) =>
		[...writeCsv(store, 'S', {}, { columns: ['title', 'type'], sort: 'path', down: false, mark })].join('');
	test('cells that a spreadsheet would take for formulas are harmless, and come back as they were', () => {
		makeEdit(store, 'S', { origin: 'bench', kind: 'rule', what: {} }, (site) =>
			store.working.rules.set(site.id, { layer: 'page', path: '/e' }, 'title', undefined, {
				kind: 'template',
				template: '=SUM(1,2) "x"'
			})
		);
		look();
		const text = out();
		expect(text.split('\r\n')[0]).toBe(
			'path,title,type,page says: title,page says: description,page says: og:title,page says: og:description,page says: og:image,page says: canonical,revision'
		);
		expect(text).toContain(`"'=SUM(1,2) ""x"""`);
		expect(out(true).charCodeAt(0)).toBe(0xfeff);
		expect(compareCsv(store, 'S', text)).toMatchObject({
			rows: 7,
			changes: { count: 0 },
			unchanged: 7,
			left: nothingLeft
		});
	});
	test('what was changed and taken back since is no conflict; what stands is one, also what was taken back of before', () => {
		const write = (template: string) =>
			makeEdit(store, 'S', { origin: 'bench', kind: 'rule', what: {} }, (site) =>
				store.working.rules.set(site.id, { layer: 'page', path: '/a' }, 'title', undefined, {
					kind: 'template',
					template
				})
			).edit as number;
		const earlier = write('Earlier');
		const text = out().replace('/a,Same,page,Earlier,', '/a,Same,page,From the sheet,');
		expect(text).toContain('From the sheet');
		const conflicts = () => compareCsv(store, 'S', text).left.conflict.count;
		expect(conflicts()).toBe(0);
		const later = write('Later');
		expect(conflicts()).toBe(1);
		const back = takeBack(store, 'S', later, 'pages').edit as number;
		expect(conflicts()).toBe(0);
		// Done again, it stands.
		takeBack(store, 'S', 'again', 'pages');
		expect(conflicts()).toBe(1);
		takeBack(store, 'S', later, 'pages');
		expect(conflicts()).toBe(0);
		expect(back).toBeGreaterThan(later);
		takeBack(store, 'S', earlier, 'pages');
		expect(conflicts()).toBe(1);
		// Of a table that names more revisions than are looked up, all that was touched counts as changed.
		const revision = /,(\d+)\r?\n/.exec(text.split('\r\n').slice(1).join('\r\n'))![1]!;
		const lines = text.split('\r\n');
		const odd = [
			lines[0],
			...Array.from({ length: 30 }, (_, at) => `/none-${at},x,page,,,,,,,${at}`),
			...lines.slice(1)
		];
		expect(Number(revision)).toBeGreaterThan(0);
		expect(compareCsv(store, 'S', odd.join('\r\n')).left.conflict.count).toBe(1);
	});
	test('what was changed elsewhere comes back as one edit; unknown rows and conflicts are told', () => {
		const text = out().replace('/a,Same,page,,', '/a,Same,page,From the sheet,').replace('/c,', '/nowhere,');
		makeEdit(store, 'S', { origin: 'bench', kind: 'rule', what: {} }, (site) =>
			store.working.rules.set(site.id, { layer: 'page', path: '/d' }, 'title', undefined, {
				kind: 'template',
				template: 'Changed here'
			})
		);
		const told = compareCsv(store, 'S', text);
		expect(told).toMatchObject({ rows: 7, unchanged: 4, anew: 1, setBack: 0 });
		expect(told.changes).toEqual({
			count: 1,
			first: [{ line: 3, path: '/a', tag: 'title', before: '', after: 'From the sheet' }]
		});
		expect(told.left).toMatchObject({
			...nothingLeft,
			unknown: { count: 1, first: [{ path: '/nowhere', why: 'there is no such page' }] },
			conflict: {
				count: 1,
				first: [{ path: '/d', why: 'title was changed here since: “Changed here” stays, “Own =1+1” is left' }]
			}
		});
		const { edit, result } = readCsvBack(store, 'S', text, 'pages');
		expect(result).toEqual(told);
		expect(store.working.pages.at(id, '/a')?.rules).toEqual([
			{ tag: 'title', kind: 'template', template: 'From the sheet' }
		]);
		expect(store.working.pages.at(id, '/d')?.rules[0]).toMatchObject({ template: 'Changed here' });
		takeBack(store, 'S', edit as number, 'pages');
		expect(store.working.pages.at(id, '/a')?.rules).toEqual([]);
		expect(() => compareCsv(store, 'S', 'a,b\n1,2')).toThrow('put it out from the room of pages first');
	});
	test('every tag that a page says by itself has its column', () => {
		const made = writeCells(store, 'S', [
			{ path: '/a', tag: 'twitter:title', text: 'For one reader' },
			{ path: '/b', tag: 'twitter:image', text: 'x' }
		]);
		const text = out();
		expect(text.split('\r\n')[0]).toMatch(
			/page says: og:image,page says: canonical,page says: twitter:image,page says: twitter:title,revision$/
		);
		expect(text).toContain(',For one reader,');
		takeBack(store, 'S', made.edit as number, 'pages');
		expect(out()).not.toContain('twitter:');
		const back = readCsvBack(store, 'S', text.replace(',x,', ',/p.jpg,').replace(/,\d+(?=\r)/g, ','), 'pages');
		expect(store.working.pages.at(id, '/b')?.rules).toEqual([
			{ tag: 'twitter:image', kind: 'pictures', sources: [{ from: 'file', src: '/p.jpg' }] }
		]);
		expect(back.result.changes.count).toBe(2);
		takeBack(store, 'S', back.edit as number, 'pages');
	});
	test('overrides that are no text come back, too', () => {
		const cells = (...rows: string[]) => ['path,page says: title,page says: og:image', ...rows].join('\n');
		const [title, image] = ['title', 'og:image'].map((tag) => () => {
			const found = store.working.pages.at(id, '/a')?.rules.find((rule) => rule.tag === tag);
			return found && { ...found, tag: undefined };
		}) as [() => unknown, () => unknown];
		const back = (...rows: string[]) => readCsvBack(store, 'S', cells(...rows), 'pages');
		const first = back('/a,(left out),/pictures/a.jpg');
		expect([title(), image()]).toEqual([
			{ kind: 'leaveOut' },
			{ kind: 'pictures', sources: [{ from: 'file', src: '/pictures/a.jpg' }] }
		]);
		expect(out()).toContain('/a,Same,page,(left out),,,,/pictures/a.jpg,');
		const second = back('/a,(the same as og:title),');
		expect([title(), image()]).toEqual([{ kind: 'borrow', from: 'og:title' }, undefined]);
		expect(second.result).toMatchObject({ changes: { count: 2 }, anew: 0, setBack: 1 });
		const third = back('/a,(in brackets),(picture sources)');
		expect(title()).toEqual({ kind: 'template', template: '(in brackets)' });
		expect(third.result.left.wrong.first[0]?.why).toContain('it is nothing to write');
		for (const { edit } of [third, second, first]) takeBack(store, 'S', edit as number, 'pages');
		expect(store.working.pages.at(id, '/a')?.rules).toEqual([]);
	});
	test('rows and cells that cannot be are left and told, and the others are kept', () => {
		look();
		const table = out()
			.replace('/a,Same,page,,', '/a,Same,page,{page.,')
			.replace('/c,', '/c,"too, many",')
			.replace(/\/b,Same,(\w+),,/, '/b,Same,$1,Kept,')
			.concat('/a,Same,page,Twice,,,,,9\r\n/x\r\n');
		const { edit, result } = readCsvBack(store, 'S', table, 'pages');
		const { left, changes } = result;
		expect(changes).toMatchObject({ count: 1, first: [{ path: '/b', after: 'Kept' }] });
		takeBack(store, 'S', edit as number, 'pages');
		expect(left.wrong.first.map(({ path, why }) => [path, why.slice(0, 30)])).toEqual([
			['/a', 'title: The "{" at 1:1 is never'],
			['/c', 'has 11 cells where there are 1'],
			['/a', 'stands in line 3, too, and tha'],
			['/x', 'has 1 cell where there are 10 ']
		]);
	});
	test('words written in a column that only shows are told, while nothing else has changed', () => {
		look();
		const text = out().replace('/b,Same,', '/b,Another,');
		expect(compareCsv(store, 'S', text).left.shown).toMatchObject({
			count: 1,
			first: [{ path: '/b', why: 'the column “title” only shows; what stands in “page says: title” is read' }]
		});
		const { edit, result } = readCsvBack(store, 'S', text.replace(/\/a,Same,(\w+),,/, '/a,Same,$1,Kept,'), 'pages');
		expect(result).toMatchObject({ changes: { count: 1 }, left: { shown: { count: 1 } } });
		takeBack(store, 'S', edit as number, 'pages');
		makeEdit(store, 'S', { origin: 'bench', kind: 'rule', what: {} }, (site) =>
			store.working.rules.set(site.id, { layer: 'page', path: '/d' }, 'og:title', undefined, {
				...{ kind: 'template', template: 'Of another tag' }
			})
		);
		expect(compareCsv(store, 'S', text).left.shown.count).toBe(0);
	});
	test('of many only the first are told one by one', () => {
		const rows = Array.from({ length: 70 }, (_, at) => `/none/${at},x`);
		const { left } = compareCsv(store, 'S', `path,page says: title\n${rows.join('\n')}`);
		expect(left.unknown.count).toBe(70);
		expect(left.unknown.first).toHaveLength(50);
	});
});

test('the sheet of a release: what would go out, before and after, and what stops it', () => {
	look();
	const first = readSheet(store, 'S', { limit: 9 });
	expect(first).toMatchObject({ added: 6, changed: 0, removed: 0, stops: [] });
	JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	changeMany(store, 'S', { paths: ['/e'] }, { do: 'text', tag: 'title', text: 'New words' }, 'pages');
	makeEdit(store, 'S', { origin: 'bench', kind: 'page', what: {} }, (site) =>
		store.working.pages.remove(site.id, '/b')
	);
	look();
	const sheet = readSheet(store, 'S', { limit: 9 });
	expect(sheet.pages.map(({ path, kind }) => [path, kind])).toEqual([
		['/e', 'changed'],
		['/b', 'gone']
	]);
	expect(sheet.pages[0]?.come).toContain('<title>New words</title>');
	expect(readSheet(store, 'S', { limit: 9, q: '/b' }).pages).toHaveLength(1);
	makeEdit(store, 'S', { origin: 'bench', kind: 'page', what: {} }, (site) => store.working.pages.remove(site.id, '/'));
	expect(readSheet(store, 'S', { limit: 9 }).stops).toHaveLength(1);
});
