import { mkdirSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Page } from '$core';
import { Conflict } from '../edits/edit';
import { keepSettings, readSettingsEdit } from '../edits/settings';
import { refuse } from '../errors';
import { JOBS } from '../jobs/jobs';
import { log } from '../log';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { readBenchData, readWhatLeads } from './benchData';
import { refuseFolder } from './contentFolders';
import { readPart } from '../http/forms';
import { cursorOf } from './cursor';
import { filterOf, readGrid, type GridWanted } from './grid';
import { readRecord } from '../http/body';
import { answerOnItsWay } from '../http/events';
import { readOverview } from './overview';
import { problem, refusalOf } from '../http/problem';
import { found } from './roomData';
import { readSheet } from './sheet';

/** What fills the rooms, and how requests are answered. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-rooms-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

let [store, made, id] = [undefined as unknown as Store, 0, 0];
const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{ path, type: 'note', state: 'live', rules: [] },
	fields: { title: `Title of ${path}`, summary: `What ${path} is about, in a sentence of some length.` },
	...more
});
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, {
		site: { name: 'S', base: 'https://s.example/', languages: ['en', 'fr'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'note', fields: [], rules: [] }],
		pages: [
			page('/'),
			page('/a', { alternates: { fr: '/b' }, key: true }),
			page('/b', { language: 'fr', alternates: { en: '/a' } }),
			page('/draft', { state: 'draft' })
		],
		pictures: [{ src: '/p.jpg', width: 1200, height: 630 }],
		redirects: { '/old': '/a' }
	} as never);
	id = store.working.sites.named('S').id;
	look();
});
const look = () => JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
const count = () => JOBS.count({ db: store.file, site: 'S', tags: ['title'], step: 2000 });
const release = () => JOBS.release({ db: store.file, site: 'S' }, () => undefined);
const change = (path: string, changes: unknown) =>
	keepSettings(store, 'S', readSettingsEdit({ place: { layer: 'page', path }, changes }), 'bench');

describe('the overview', () => {
	test('says what is live, what waits, and what is wrong', () => {
		release();
		change('/a', { fields: { title: 'Another' } });
		look();
		const overview = readOverview(store, 'S');
		expect(overview).toMatchObject({
			site: { name: 'S', base: 'https://s.example/' },
			...{ standIn: null, live: 3, drafts: 1, unseen: 0, ticked: [] },
			release: { number: 1 },
			differing: { changed: 1, added: 0, removed: 0 }
		});
		expect(overview.cards.map(({ path, card }) => `${path} ${card.title.shown}`)).toEqual([
			'/ Title of /',
			'/a Another'
		]);
		expect(overview.edits.map(({ kind }) => kind)).toEqual(['settings', 'import']);
	});
	test('has a list for a launch: what the program can tell is told, with the pages it is about', () => {
		const checks = () => Object.fromEntries(readOverview(store, 'S').checks.map((one) => [one.says, one]));
		count();
		expect(Object.fromEntries(Object.entries(checks()).map(([says, { isDone }]) => [says, isDone]))).toEqual({
			'The address is one that the public can reach': true,
			'There is a home page, and it is live': true,
			'The site has a share picture for pages that have none': false,
			'The site has an icon': false,
			'Every page has a picture': false,
			'Every page has a title': true,
			'Every page has a description': true,
			'No text has a gap where a variable was empty': true,
			'No page says that it stands at a local address': true,
			'The language of every page is known': true,
			'The pages that matter most are marked as key pages': true,
			'The heads are in the site': false,
			'The most important addresses were pasted where they will be shared, and looked right': undefined,
			'Somebody else has read the titles and descriptions of the key pages': undefined
		});
		expect(checks()['Every page has a picture']).toMatchObject({
			missing: 'All 3 pages have no picture',
			filter: { finding: 'no-picture', state: 'live' }
		});
		keepSettings(
			store,
			'S',
			readSettingsEdit({
				place: { layer: 'site' },
				changes: { base: 'http://localhost/', fields: { picture: '/p.jpg', logo: '/l.png' } }
			}),
			'bench'
		);
		change('/', { state: 'draft' });
		change('/b', { language: 'und' });
		change('/a', { key: null });
		look();
		count();
		const later = checks();
		expect(later['The address is one that the public can reach']).toMatchObject({
			isDone: false,
			missing: 'http://localhost/ is one that only this machine or a network of its own can reach'
		});
		expect(later['There is a home page, and it is live']?.isDone).toBe(false);
		expect(later['The site has a share picture for pages that have none']?.isDone).toBe(true);
		expect(later['The site has an icon']?.isDone).toBe(true);
		expect(later['Every page has a picture']).not.toHaveProperty('filter');
		expect(later['The language of every page is known']).toMatchObject({ isDone: false });
		expect(later['The pages that matter most are marked as key pages']?.isDone).toBe(false);
	});
});

describe('the sheet before a release', () => {
	const sheet = (more: Partial<Parameters<typeof readSheet>[2]> = {}) => readSheet(store, 'S', { limit: 50, ...more });
	test('tells each page that changes, comes and goes, line by line', () => {
		expect(sheet()).toMatchObject({ changed: 0, added: 3, removed: 0, stops: [] });
		release();
		expect(sheet().pages).toEqual([]);
		change('/a', { fields: { title: 'Another' } });
		change('/draft', { state: 'live' });
		store.working.pages.remove(id, '/b');
		look();
		const { pages, ...counts } = sheet();
		expect(counts).toMatchObject({ changed: 1, added: 1, removed: 1 });
		expect(pages.map(({ path, kind }) => `${path} ${kind}`)).toEqual(['/a changed', '/draft new', '/b gone']);
		expect(pages[0]!.gone).toContain('<title>Title of /a</title>');
		expect(pages[0]!.come).toContain('<title>Another</title>');
		expect(pages[0]!.come).not.toContain('<meta property="og:type" content="website">');
		expect(pages.map(({ before, after }) => [before !== null, after !== null])).toEqual([
			[true, true],
			[false, true],
			[true, false]
		]);
		expect(pages[2]!.come).toEqual([]);
		expect(sheet({ q: 'draft' }).pages.map(({ path }) => path)).toEqual(['/draft']);
		// One after another, those that leave as well; what is released meanwhile takes nothing from what follows.
		const first = sheet({ limit: 1 });
		store.db.prepare('UPDATE page_state SET differs = 0 WHERE path = ?').run('/a');
		const second = sheet({ limit: 1, after: first.next! });
		const third = sheet({ limit: 1, after: second.next! });
		expect([first, second, third].map((one) => [one.pages[0]!.path, one.next === undefined])).toEqual([
			['/a', false],
			['/draft', false],
			['/b', true]
		]);
		for (const after of [
			'',
			'x',
			cursorOf(['sheet', 1]),
			cursorOf(['sheet', '1', 1, '']),
			cursorOf(['path 0', 1, 1, ''])
		])
			expect(() => sheet({ after })).toThrow(/no place of this list/);
	});
	test('says what stops it, and what only warns', () => {
		release();
		change('/', { state: 'draft' });
		look();
		expect(sheet().stops).toEqual([expect.stringContaining('The home page would go')]);
		expect(sheet().warns).toEqual(['The key page /a would be shared without a picture, a title or a description.']);
		store.transaction(() => {
			const edit = store.record.begin({
				site: id,
				revision: 99,
				made: '',
				author: 'ada',
				origin: 'command',
				kind: 'import',
				what: null
			});
			store.record.beginLong(edit, false);
		});
		expect(sheet().stops).toHaveLength(2);
	});
});

describe('the table of pages', () => {
	const queryOf = (query: string) =>
		readPart('GET /sites/{site}/grid', 'query', Object.fromEntries(new URLSearchParams(query))) as GridWanted;
	const grid = (query: string) => readGrid(store, id, queryOf(query));
	test('is asked for by its address', () => {
		expect(grid('count=1')).toMatchObject({ count: 4, unseen: 0 });
		expect(grid('').rows.map(({ path }) => path)).toEqual(['/', '/a', '/b', '/draft']);
		expect(grid('')).not.toHaveProperty('count');
		expect(grid('down=1&limit=2').rows.map(({ path }) => path)).toEqual(['/draft', '/b']);
		expect(grid('row=3').rows.map(({ path }) => path)).toEqual(['/draft']);
		expect(grid('state=draft&count=1')).toMatchObject({ count: 1, rows: [{ path: '/draft' }] });
		expect(grid('language=fr').rows.map(({ path }) => path)).toEqual(['/b']);
	});
	test('is gone through by cursors, whatever is written meanwhile', () => {
		const { next, rows } = grid('limit=2&sort=title');
		expect(rows.map(({ path }) => path)).toEqual(['/', '/a']);
		// What was seen goes, and another comes before it: none that stays is passed over, none comes twice.
		store.working.pages.remove(id, '/a');
		change('/draft', { fields: { title: 'A first' } });
		look();
		const rest = grid(`limit=2&sort=title&after=${next}`);
		expect([rest.rows.map(({ path }) => path), rest.next]).toEqual([['/b'], undefined]);
		expect(grid('limit=200')).not.toHaveProperty('next');
		expect(() => grid(`sort=path&after=${next}`)).toThrow(/no place of this list in this order/);
		expect(() => grid(`sort=title&down=1&after=${next}`)).toThrow(/no place of this list in this order/);
		expect(() => grid('after=%00')).toThrow(/no place of this list/);
	});
	test.each([
		['sort=nothing', 'sort', 'path, '],
		['row=x', 'row', 'must be integer'],
		['row=-1', 'row', '>= 0'],
		['limit=0', 'limit', '>= 1'],
		['limit=201', 'limit', '<= 200'],
		['down=yes', 'down', '0, 1'],
		['colour=red', 'colour', 'is not known here; there is ']
	])('what is no order, no number or nothing to ask for is refused: %s', (query, at, why) => {
		expect(() => grid(query)).toThrow(`“${at}” `);
		expect(() => grid(query)).toThrow(why);
	});
	test('takes what it knows as a filter and nothing else', () => {
		expect(filterOf({ q: 'x', type: '', state: 'live', limit: 1, key: 'yes' } as GridWanted)).toEqual({
			...{ q: 'x', state: 'live', key: 'yes' }
		});
	});
});

describe('the bench', () => {
	test('has what a page needs, with its versions and what leads to it', () => {
		release();
		const data = readBenchData(store, 'S', '/a');
		expect(data).toMatchObject({
			path: '/a',
			page: { path: '/a' },
			count: { all: 4 },
			beside: expect.anything() as unknown
		});
		expect('versions' in data && data.versions).toEqual([
			{
				language: 'fr',
				path: '/b',
				state: 'live',
				title: 'Title of /b',
				description: expect.stringContaining('/b') as string,
				picture: '',
				namesBack: true
			}
		]);
		expect('released' in data && data.released?.tags[0]?.value).toBe('Title of /a');
		const gap = readBenchData(store, 'S', '/');
		expect('versions' in gap && gap.versions).toEqual([{ language: 'fr' }]);
		expect(readBenchData(store, 'S', '/none')).toEqual({ path: '/none', page: undefined });
		expect(readBenchData(store, 'S', null)).toMatchObject({ path: '/' });
		expect(readWhatLeads(store, 'S', '/a')).toEqual({ former: ['/old'], naming: ['/b'], isHome: false });
		expect(readWhatLeads(store, 'S', '/')).toEqual({ former: [], naming: [], isHome: true });
	});
	test('says of a version that is not there, or does not name back', () => {
		store.working.pages.save(id, page('/a', { alternates: { fr: '/nowhere', de: '/draft' } }));
		const data = readBenchData(store, 'S', '/a');
		expect('versions' in data && data.versions).toMatchObject([
			{ language: 'fr', path: '/nowhere' },
			{ language: 'de', path: '/draft', state: 'draft', namesBack: false }
		]);
	});
});

describe('answers', () => {
	const told = async (work: () => Response) => {
		const answer = answering(work);
		return [answer.status, answer.headers.get('content-type'), (await answer.json()) as object] as const;
	};
	const throwing = (error: unknown) => () => {
		throw error;
	};
	const answering = (work: () => Response) => {
		try {
			return work();
		} catch (error) {
			return refusalOf(error);
		}
	};
	test.each([
		[refuse('stopped'), 422, { title: 'Refused', code: 'stopped', detail: 'Stopped.' }],
		[
			refuse('page-missing', { path: '/x' }),
			404,
			{ title: 'Not found', code: 'page-missing', path: '/x', detail: 'There is no page "/x" in this site.' }
		],
		[new Conflict('changed-meanwhile', { now: 1 }), 409, { title: 'Conflict', current: { now: 1 } }],
		[refuse('site-being-edited'), 503, { title: 'Not now' }],
		[
			new SyntaxError('Unexpected token'),
			400,
			{ title: 'Bad request', code: 'body-not-json', detail: expect.stringContaining('is not JSON') as string }
		],
		[{ status: 413, message: 'x' }, 413, { title: 'Too large', code: 'body-too-large' }],
		[
			Object.assign(new Error('busy'), { code: 'SQLITE_BUSY' }),
			503,
			{ code: 'database-busy', detail: expect.stringContaining('is locked by another program') as string }
		]
	])('%s is told as problem details', async (error, status, body) => {
		expect(await told(throwing(error))).toEqual([
			status,
			'application/problem+json',
			expect.objectContaining({ ...body, status, type: 'about:blank' })
		]);
	});
	test('what nobody foresaw is no answer', () => {
		expect(() => refusalOf(new TypeError('a fault'))).toThrow('a fault');
		expect(() => refusalOf({ status: 500 })).toThrow(expect.objectContaining({ status: 500 }));
		expect(problem(refuse('stopped')).headers.get('cache-control')).toBe('no-store');
	});
	test.each([
		['{"a":1}', undefined],
		['null', 'null'],
		['[1]', 'a list'],
		['"x"', 'a string'],
		['7', 'a number']
	])('%s as what was sent', async (text, wrong) => {
		const reading = readRecord(new Request('http://x.invalid', { method: 'POST', body: text }));
		if (wrong === undefined) expect(await reading).toEqual({ a: 1 });
		else await expect(reading).rejects.toThrow(`What was sent is ${wrong};`);
	});
	test('a room of what is not there says so', () => {
		expect(found(() => 7)).toBe(7);
		expect(() => found(throwing(refuse('site-missing', { site: 'S', sites: [] })))).toThrow(
			expect.objectContaining({ status: 404 })
		);
		expect(() => found(throwing(new TypeError('a fault')))).toThrow('a fault');
	});

	const linesOf = async (answer: Response) =>
		(await answer.text())
			.split('\n')
			.filter(Boolean)
			.map((line) => JSON.parse(line) as unknown);
	const request = () => new Request('http://x.invalid');
	test('in lines: what is said on the way, then what it came to or why not', async () => {
		const answer = answerOnItsWay(request(), 'lines', (say) => {
			say({ done: 1 });
			say({ done: 2 });
			return Promise.resolve({ whole: true });
		});
		expect(answer.headers.get('content-type')).toBe('application/x-ndjson');
		expect(await linesOf(answer)).toEqual([{ done: 1 }, { done: 2 }, { whole: true }]);
		const refused = answerOnItsWay(request(), 'lines', () => Promise.reject(refuse('stopped')));
		expect(await linesOf(refused)).toEqual([{ code: 'stopped', refused: 'Stopped.' }]);
		const logged = vi.spyOn(log, 'error').mockImplementation(() => undefined);
		const failed = await linesOf(answerOnItsWay(request(), 'lines', () => Promise.reject(new TypeError('a fault'))));
		expect(failed).toEqual([{ failed: expect.stringMatching(/^[0-9a-f]{8}$/) as string }]);
		// The number leads to what the log has of it.
		expect(logged.mock.calls[0]?.[0]).toBeInstanceOf(TypeError);
		expect(String(logged.mock.calls[0]?.[1])).toContain((failed[0] as { failed: string }).failed);
		logged.mockRestore();
	});
	test('going away stops the work', async () => {
		let stopped: AbortSignal | undefined;
		const answer = answerOnItsWay(request(), 'lines', (say, signal) => {
			stopped = signal;
			say({ done: 1 });
			return new Promise(() => undefined);
		});
		await answer.body!.cancel();
		await vi.waitFor(() => expect(stopped!.aborted).toBe(true));
	});
});

describe('folders that may be read over the web', () => {
	const before = process.env.KEPHALON_CONTENT;
	afterEach(() => {
		if (before === undefined) delete process.env.KEPHALON_CONTENT;
		else process.env.KEPHALON_CONTENT = before;
	});
	test('are those that were named at the start, and those in them', () => {
		const top = join(folder, 'content');
		mkdirSync(join(top, 'site'), { recursive: true });
		mkdirSync(join(folder, 'content-of-others'));
		symlinkSync(join(folder, 'content-of-others'), join(top, 'way-out'));
		delete process.env.KEPHALON_CONTENT;
		expect(() => refuseFolder(top)).toThrow('No folder may be read over the web');
		process.env.KEPHALON_CONTENT = JSON.stringify([top, '/not/there']);
		for (const fine of [top, join(top, 'site'), join(top, 'site', '..')])
			expect(() => refuseFolder(fine)).not.toThrow();
		for (const wrong of [
			join(folder, 'content-of-others'),
			join(top, '..'),
			join(top, 'way-out'),
			join(top, 'none'),
			'/',
			'/not/there'
		])
			expect(() => refuseFolder(wrong)).toThrow(`The folder ${wrong} may not be read, or is not there.`);
		for (const relative of ['content', '..', ''])
			expect(() => refuseFolder(relative)).toThrow('Name the folder by its whole path.');
	});
});
