import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync, existsSync, mkdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { replaceWords, toTemplate, type Page, type Site, type Actor } from '$core';
import { changeMany, readBatch } from './edits/batch';
import { makeEdit } from './edits/edit';
import { keepRule } from './edits/rules';
import { takeBack } from './edits/takeBack';
import { UserError } from './errors';
import { removeUnused } from './edits/removePicture';
import { writeCsv } from './exports/csv';
import { codingFor } from './delivery/keptAnswer';
import { toDate } from './imports/table/values';
import { hasLateQuote, readRows } from './imports/table/rows';
import { sheetOf } from './imports/table/table';
import { readPageList } from './imports/web/lists';
import { JOBS } from './jobs/jobs';
import { Library } from './pictures/library';
import { goBack } from './releases/releases';
import { parseSiteFile, saveSiteFile, writeSiteFile } from './siteFile/siteFile';
import { backUp, restore } from './backup/backup';
import { countGrid } from './store/table/grid';
import { Store } from './store/store';
import { once } from './http/once';
import { withoutPaths } from './http/paths';
import { readBytes, readRecord, readWithFile } from './http/body';
import { refusalOf } from './http/problem';

/** What harms: much that goes by one word, what strangers can ask for, what is half done, what is taken for something else. */

const folder = mkdtempSync(join(tmpdir(), 'kephalon-harm-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const site: Site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{ path, type: 'note', state: 'live', rules: [] },
	fields: { title: `Title of ${path}`, summary: `What ${path} is about, in a sentence of some length.` },
	...more
});
const PATHS = ['/', '/a', '/b', '/c', '/d', '/e', '/f', '/g', '/h', '/i'];
const fileOf = (pages: readonly Page[], more: object = {}) =>
	({
		format: 'kephalon-site',
		version: 2,
		site,
		types: [{ name: 'note', fields: [], rules: [] }],
		pages,
		pictures: [],
		...more
	}) as never;

let [store, id, made] = [undefined as unknown as Store, 0, 0];
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, fileOf(PATHS.map((path) => page(path))));
	id = store.working.sites.named('S').id;
});
const look = () => JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
const release = (more: object = {}) => JOBS.release({ db: store.file, site: 'S', ...more }, () => undefined);
const refusal = (work: () => unknown): UserError => {
	try {
		work();
	} catch (error) {
		return error as UserError;
	}
	throw new Error('Nothing was refused.');
};

describe('what takes much of a site away is said twice', () => {
	test('a release', () => {
		release();
		for (const path of ['/a', '/b', '/c']) store.working.pages.remove(id, path);
		const refused = refusal(() => release());
		expect([refused.code, refused.data.removes, store.releases.latest(id)?.number]).toEqual(['release-removes', 3, 1]);
		expect(refused.message).toContain('3 of 10 pages');
		// Another number is not what was asked.
		expect(refusal(() => release({ removes: 2 })).data).toMatchObject({ removes: 3 });
		expect(release({ removes: 3 })).toMatchObject({ number: 2, removed: 3 });
	});
	test('but not where it is little, or where single pages go out', () => {
		release();
		for (const path of ['/a', '/b']) store.working.pages.remove(id, path);
		expect(release()).toMatchObject({ removed: 2 });
		for (const path of ['/c', '/d', '/e']) store.working.pages.remove(id, path);
		expect(release({ only: ['/c'] })).toMatchObject({ removed: 1 });
	});
	test('going back', () => {
		store.working.pages.remove(id, '/a');
		for (const path of ['/b', '/c']) store.working.pages.remove(id, path);
		release();
		for (const path of ['/x', '/y', '/z']) store.working.pages.save(id, page(path));
		release();
		expect(refusal(() => goBack(store, 'S', 1)).data).toMatchObject({ removes: 3 });
		expect(goBack(store, 'S', 1, { removes: 3 })).toMatchObject({ number: 3, removed: 3 });
	});
	test('taking back what brought it, and nothing goes before', () => {
		const refused = refusal(() => takeBack(store, 'S', 'last', 'bench'));
		expect([refused.status, refused.code, refused.data]).toEqual([409, 'take-back-removes', { removes: 10, all: 10 }]);
		expect(refused.message).toContain('10 of 10 pages would go');
		expect(store.working.pages.count(id).all).toBe(10);
		takeBack(store, 'S', 'last', 'bench', 10);
		expect(store.working.pages.count(id).all).toBe(0);
	});
});

describe('a request says what it means', () => {
	const asked = (body: BodyInit | null) =>
		readRecord(
			new Request('http://k/', {
				method: 'POST',
				body,
				...(body instanceof ReadableStream && { duplex: 'half' })
			} as RequestInit)
		).then(() => new Response('taken'), refusalOf);
	test.each<[string, BodyInit | null, number]>([
		['no body', null, 422],
		['an empty one', '', 422],
		['blanks', '  \n', 422],
		['half of one', '{"only": ["/a"', 400],
		['a list', '[]', 422],
		['null', 'null', 422],
		['a record', '{}', 200]
	])('%s', async (_, body, status) => expect((await asked(body)).status).toBe(status));
	test('one that breaks off on its way', async () => {
		const broken = new ReadableStream({
			start(stream) {
				stream.enqueue(new TextEncoder().encode('{"only": ["/a"]'));
				stream.error(new Error('gone'));
			}
		});
		expect((await asked(broken)).status).toBe(422);
	});
	test.each([
		['a record', readRecord],
		['bytes', readBytes],
		['a record with a file', readWithFile]
	])('%s that breaks off, or is longer than is taken, is told as that', async (_, read) => {
		const failing = (error: Error) =>
			new Request('http://k/', {
				...{ method: 'POST', headers: { 'content-type': 'application/octet-stream' }, duplex: 'half' },
				body: new ReadableStream({ start: (stream) => stream.error(error) })
			} as RequestInit);
		await expect(read(failing(new Error('gone')))).rejects.toMatchObject({ code: 'body-broken-off' });
		const tooLong = Object.assign(new Error('too long'), { status: 413 });
		await expect(read(failing(tooLong))).rejects.toBe(tooLong);
	});
	test('work that was asked for with a key is done once; what failed can be asked for again', async () => {
		const work = vi.fn(() => Promise.resolve(store.releases.latest(id)?.number ?? 0));
		const ask = (key: string, body: unknown = {}, who: Actor = { kind: 'alone' }) =>
			once(
				key,
				{
					...{ db: store.file, who, route: 'POST /x', site: 'S', path: undefined, query: undefined, body },
					...{ bytes: undefined, lines: undefined }
				},
				work
			);
		expect(await Promise.all([ask('a'), ask('a'), ask('b')])).toEqual([0, 0, 0]);
		expect(work).toHaveBeenCalledTimes(2);
		await expect(ask('a', { only: ['/a'] })).rejects.toThrow('was sent with something else');
		await expect(ask('')).rejects.toThrow('1 to 200 characters');
		// Somebody else's key of the same name is another.
		await ask('a', { only: ['/a'] }, { kind: 'key', name: 'k', site: 'S', scopes: ['release'] });
		expect(work).toHaveBeenCalledTimes(3);
		work.mockRejectedValueOnce(new UserError('too-much-work'));
		await expect(ask('c')).rejects.toThrow('Too much is being worked on');
		expect(await ask('c')).toBe(0);
	});
	test('sentences go out without where files lie on this machine', () => {
		const before = process.env.KEPHALON_DB;
		process.env.KEPHALON_DB = store.file;
		expect(withoutPaths(`The database ${store.file} is locked.`)).toBe(`The database ${made}.db is locked.`);
		expect(withoutPaths(`${join(tmpdir(), 'x.png')} is gone; /walks/fox is not.`)).toBe(
			'x.png is gone; /walks/fox is not.'
		);
		process.env.KEPHALON_DB = before;
	});
});

describe('words replaced by others in many rules', () => {
	test.each([
		['The {page.title} fox', 'fox', '$& $1 hare', 'The {page.title} $& $1 hare'],
		['{page.fox} fox', 'fox', 'hare', '{page.fox} hare'],
		['{page.x ?? "fox"} fox[[ fox {page.fox}]]', 'fox', 'hare', '{page.x ?? "fox"} hare[[ hare {page.fox}]]'],
		['a fox', 'fox', '{page.title}', 'a \\{page.title\\}'],
		['a \\{fox\\}', '{fox}', 'b', 'a b'],
		['a [[x', 'x', 'y', 'a [[x'],
		['aaa', 'a', 'aa', 'aaaaaa'],
		['plain', '', 'x', 'plain']
	])('%s: %s by %s', (template, find, by, wanted) => expect(replaceWords(template, find, by)).toBe(wanted));

	const rule = (path: string, template: string) =>
		keepRule(
			store,
			'S',
			{ place: { layer: 'page', path }, tag: 'title', body: { kind: 'template', template } },
			{ origin: 'bench' }
		);
	const replace = (find: string, by: string) =>
		changeMany(store, 'S', { paths: PATHS }, { do: 'replace', tag: 'title', find, by }, 'pages').result;
	const titleOf = (path: string) => store.working.pages.at(id, path)?.rules[0];
	test('goes through the gate of a single edit, page by page; where one is refused, nothing is kept', () => {
		rule('/a', 'x'.repeat(1000));
		rule('/b', 'one x');
		expect(() => replace('x', 'yyy')).toThrow(/^\/a: /);
		expect(titleOf('/b')).toMatchObject({ template: 'one x' });
		expect(replace('x', 'y')).toBe(2);
		expect(titleOf('/b')).toMatchObject({ template: 'one y' });
	});
	test('and so does every text and rule of a batch', () => {
		const change = (action: object) => changeMany(store, 'S', { paths: ['/a'] }, action as never, 'pages');
		expect(() => change({ do: 'text', tag: 'title', text: '{'.repeat(1500) })).toThrow();
		expect(() =>
			readBatch({ pages: { paths: ['/a'] }, action: { do: 'text', tag: 'title', text: 'x'.repeat(3000) } })
		).toThrow('at most 2000');
		rule('/a', '{head.description}');
		expect(() =>
			change({ do: 'rule', tag: 'description', body: { kind: 'template', template: '{head.title}' } })
		).toThrow(/^\/a: /);
		expect(store.working.pages.at(id, '/a')?.rules).toHaveLength(1);
	});
});

describe('a site file that is read over a site at work', () => {
	const file = () => parseSiteFile([...writeSiteFile(store, 'S')].join(''), 'x.json');
	const says = (path: string, template: string) =>
		keepRule(
			store,
			'S',
			{ place: { layer: 'page', path }, tag: 'title', body: { kind: 'template', template } },
			{ origin: 'bench' }
		);
	test('says what it would lose of what was written here since, and takes the revision', () => {
		const before = file();
		says('/a', 'Mine');
		says('/b', 'Mine too');
		const refused = refusal(() => saveSiteFile(store, before));
		expect(refused.message).toContain('2 things that were written here would be lost');
		expect(refused.message).toContain('/a: the rule for title');
		const { revision } = store.working.sites.named('S');
		expect(refused.message).toContain(`--revision ${revision}`);
		expect(refusal(() => saveSiteFile(store, before, revision - 1)).message).toContain(`at revision ${revision}`);
		expect(store.working.pages.at(id, '/a')?.rules).toHaveLength(1);
		saveSiteFile(store, before, revision);
		expect(store.working.pages.at(id, '/a')?.rules).toEqual([]);
	});
	test('a file that says it all, a new file, and one of a site nobody wrote at are read without a word', () => {
		says('/a', 'Mine');
		saveSiteFile(store, file());
		expect(store.working.pages.at(id, '/a')?.rules).toHaveLength(1);
		saveSiteFile(store, fileOf([page('/')]));
		expect(store.working.pages.count(id).all).toBe(1);
	});
	test('pages and fields that were written here count too', () => {
		const before = file();
		makeEdit(store, 'S', { origin: 'bench', kind: 'page', what: null }, () => {
			store.working.pages.save(id, page('/new'));
			store.working.pages.save(id, page('/c', { fields: { title: 'Other' } }));
		});
		const { message } = refusal(() => saveSiteFile(store, before));
		expect(message).toContain('/new: it is not in the file and goes');
		expect(message).toContain('/c: its settings or fields');
	});
	test.each(['https://x.example:99999/', 'ftp://x.example/', 'https://', 'https://u:p@x.example/'])(
		'a base that is none is refused: %s',
		(base) => {
			expect(() =>
				parseSiteFile(
					JSON.stringify({ format: 'kephalon-site', version: 2, site: { ...site, base }, types: [], pages: [] }),
					'x.json'
				)
			).toThrow('/site/base');
			expect(() => store.working.sites.save({ ...site, name: 'New', base })).toThrow('is no public base address');
		}
	);
	test('what has an order of its own keeps it', () => {
		const alternates = { fr: '/fr', FR: '/other', de: '/de' };
		const found = [{ name: 'icon', value: '/i', attributes: { sizes: 'any', type: 'image/png', media: 'print' } }];
		store.working.pages.save(id, page('/a', { alternates, found }));
		const again = file().pages.find(({ path }) => path === '/a');
		expect(Object.keys(again?.alternates ?? {})).toEqual(Object.keys(alternates));
		expect(Object.keys(again?.found?.[0]?.attributes ?? {})).toEqual(['sizes', 'type', 'media']);
	});
});

describe('pictures that strangers ask for', () => {
	const HASH = 'a'.repeat(24);
	const square = () =>
		sharp({ create: { width: 800, height: 800, channels: 3, background: '#369' } })
			.jpeg()
			.toBuffer();
	test('are drawn where a released head names them, or as drafts of those who work here, and never else', async () => {
		const library = new Library(store);
		const { src } = await library.take('S', await square(), 'x.jpg');
		const hash = src.slice('/media/'.length, -4);
		const name = `${hash}-wide-500-500.jpg`;
		const ask = (one: string, mayDraft: boolean) => JOBS.media({ db: store.file, name: one, mayDraft });
		const cuts = () => readdirSync(library.folder).filter((one) => one.includes('-'));
		const named =
			(await import('$core')).cutOf({ src, width: 800, height: 800 } as never, 'wide', [] as never, false)?.file ??
			name;
		expect(await ask(named, false)).toBeUndefined();
		expect(cuts()).toEqual([]);
		expect(await ask(named, true)).toContain('drafts');
		expect(cuts()).toEqual([]);
		// A head that names it goes out.
		keepRule(
			store,
			'S',
			{
				place: { layer: 'page', path: '/a' },
				tag: 'og:image',
				body: { kind: 'pictures', sources: [{ from: 'file', src }], shapes: ['wide'] }
			},
			{ origin: 'bench' }
		);
		release();
		const json = store.releases.head(id, { path: '/a' })?.json ?? '';
		const out = /\/media\/([0-9a-f]{24}-[^"]+)"/.exec(json)?.[1] as string;
		expect(store.releases.knowsMedia(out)).toBe(true);
		expect(await ask(out, false)).toBe(join(library.folder, out));
		expect(await ask(`${HASH}-wide-1-1.jpg`, true)).toBeUndefined();
	});
	test('one that is used since it was counted stays', () => {
		store.pictures.save(id, [{ src: '/p.jpg', width: 1200, height: 630 }]);
		let counts = 0;
		const counting = () => {
			if (counts++ === 0)
				keepRule(
					store,
					'S',
					{
						place: { layer: 'page', path: '/a' },
						tag: 'og:image',
						body: { kind: 'pictures', sources: [{ from: 'file', src: '/p.jpg' }] }
					},
					{ origin: 'bench' }
				);
			return counts === 1 ? {} : { '/p.jpg': { shown: 0, shownOn: [], named: 1, namedOn: ['/a'] } };
		};
		expect(() => removeUnused(store, 'S', '/p.jpg', counting)).toThrow('It is used on /a');
		expect([counts, store.pictures.all(id).length]).toEqual([2, 1]);
	});
});

test.each<[string, string]>([
	['', ''],
	['gzip, deflate, br', 'br'],
	['gzip', 'gzip'],
	['br;q=0', ''],
	['br;q=0, gzip', 'gzip'],
	['gzip;q=1, br;q=0.1', 'gzip'],
	['gzip;q=0.5, br;q=0.5', 'br'],
	['*', 'br'],
	['*;q=0', ''],
	['identity;q=1, br;q=0.5', ''],
	['deflate', ''],
	['x'.repeat(5000), '']
])('Accept-Encoding “%.40s” is answered in “%s”', (accepted, coding) => expect(codingFor(accepted)).toBe(coding));

describe('a backup', () => {
	test('that was put back half-way stands under no name, and the next restore goes on', async () => {
		await new Library(store).take(
			'S',
			await sharp({ create: { width: 400, height: 300, channels: 3, background: '#936' } })
				.png()
				.toBuffer()
		);
		const target = join(folder, `backup-${made}`);
		await backUp(store, target);
		const to = join(folder, `restored-${made}.db`);
		// Ended between the library's name and the database's; and in the middle of copying.
		mkdirSync(`${to}.media`);
		for (const name of readdirSync(`${join(target, `${made}.db`)}.media`))
			writeFileSync(join(`${to}.media`, name), 'half');
		writeFileSync(`${to}.restoring-0000`, 'half');
		expect(restore(target, to)).toMatchObject({ pages: 10, pictures: 1 });
		expect(existsSync(`${to}.restoring-0000`)).toBe(false);
		expect(() => restore(target, to)).toThrow('stands where the backup would go');
	});
	test('with rows that belong to nothing is refused', async () => {
		store.db.pragma('foreign_keys = OFF');
		store.db.exec("INSERT INTO page_body (page_id, body) VALUES (99999, 'lost')");
		await expect(backUp(store, join(folder, `bad-${made}`))).rejects.toThrow('rows that belong to nothing');
	});
	test('into a folder that cannot be made says so', async () => {
		writeFileSync(join(folder, `file-${made}`), '');
		await expect(backUp(store, join(folder, `file-${made}`, 'x'))).rejects.toThrow(UserError);
	});
});

test('an empty file is no database, and stays empty', () => {
	const file = join(folder, 'empty.db');
	writeFileSync(file, '');
	for (const options of [{ readonly: true }, { create: false }])
		expect(() => new Store(file, options)).toThrow('is empty');
	expect(readFileSync(file).length).toBe(0);
});

test('the record keeps a stated number of edits', () => {
	const insert = store.db.prepare(
		`INSERT INTO edit (site_id, revision, made, author, origin, kind, what) VALUES (?, 1, '', 'a', 'bench', 'rule', 'null')`
	);
	store.db.transaction(() => {
		for (let at = 0; at < 20_400; at++) insert.run(id);
	})();
	for (let at = 0; at < 101; at++)
		makeEdit(store, 'S', { origin: 'bench', kind: 'page', what: null }, () =>
			store.working.pages.save(id, page(`/n${at}`))
		);
	const count = store.db.prepare('SELECT count(*) FROM edit').pluck().get() as number;
	expect(count).toBeLessThanOrEqual(20_100);
	expect(count).toBeGreaterThanOrEqual(20_000);
});

test.each(['=1+1', ' =1', '\n=1', '\t=1', '＝1', '＋1', '－1', '＠x', '  -x', "'=1", "''＝1", "'plain"])(
	'the cell %j is no formula on its way out, and comes back as it was',
	(text) => {
		store.working.pages.save(
			id,
			page('/a', { rules: [{ tag: 'title', kind: 'template', template: toTemplate(text) }] })
		);
		look();
		const csv = [
			...writeCsv(store, 'S', { q: 'a' }, { columns: ['title'], sort: 'path', down: false, mark: false })
		].join('');
		const { rows } = readRows(Buffer.from(csv));
		for (const { cells } of rows)
			for (const cell of Object.values(cells)) expect(String(cell)).not.toMatch(/^\s*[=+\-@＝＋－＠]|^[\t\r\n]/);
	}
);

describe('search', () => {
	test('finds a page by its path from the moment it is in', () => {
		store.working.pages.save(id, page('/walks/dawn-chorus'));
		expect(store.table.listing.find(id, 'dawn', 5).map(({ path }) => path)).toEqual(['/walks/dawn-chorus']);
		expect(countGrid(store.db, id, { q: 'cho walk' })).toBe(1);
		expect(
			store.table.lists
				.rows(id, { q: 'dawn' }, { sort: 'path', down: false, offset: 0, limit: 5 })
				.map(({ path }) => path)
		).toEqual(['/walks/dawn-chorus']);
		store.working.pages.move(id, '/walks/dawn-chorus', '/walks/evening');
		expect(store.table.listing.find(id, 'dawn', 5)).toEqual([]);
		expect(store.table.listing.find(id, 'evening', 5)).toHaveLength(1);
		look();
		expect(store.table.listing.find(id, 'evening', 5)).toHaveLength(1);
		store.working.pages.remove(id, '/walks/evening');
		expect(countGrid(store.db, id, { q: 'evening' })).toBe(0);
	});
	test('for a page of text searches for its beginning', () => {
		look();
		const began = process.cpuUsage();
		store.table.listing.find(id, 'a b c d e '.repeat(1000), 5);
		countGrid(store.db, id, { q: `${'x'.repeat(3000)} ${'y '.repeat(3000)}` });
		expect(process.cpuUsage(began).user / 1000).toBeLessThan(500);
	});
});

describe('dates of people', () => {
	test.each([
		['0050-03-01', '0050-03-01'],
		['1/3/0050', '0050-03-01'],
		['1/3/50', '2050-03-01'],
		['29/2/0004', '0004-02-29'],
		['2026-03-29T02:30', '2026-03-29T02:30']
	])('%s is %s in a table', (text, wanted) => expect(toDate(text, true)).toBe(wanted));
	test.each([
		['2026-03-29T00:30:00', '2026-03-29T00:30:00'],
		['2026-03-29T00:30:00Z', '2026-03-29T00:30:00.000Z'],
		['2026-03-29T00:30:00+02:00', '2026-03-28T22:30:00.000Z'],
		['Sun, 29 Mar 2026 00:30:00', '2026-03-29T00:30:00'],
		['Sun, 29 Mar 2026 00:30:00 GMT', '2026-03-29T00:30:00.000Z'],
		['Sun, 29 Mar 2026 00:30:00 +0200', '2026-03-28T22:30:00.000Z'],
		['2026-03', '2026-03-01'],
		['soon', undefined]
	])('%s is %s in a feed, wherever this runs', (text, wanted) => {
		const feed = `<rss><channel><item><title>T</title><link>https://s.example/a</link><pubDate>${text}</pubDate></item></channel></rss>`;
		const list = readPageList(Buffer.from(feed), 'x');
		expect(list.kind === 'feed' && list.pages[0]?.published).toBe(wanted);
	});
});

describe('odd files', () => {
	test('a list that nests deeper than lists do is refused, or read as far as it goes', () => {
		const deep = '<a>'.repeat(50_000);
		expect(() => readPageList(Buffer.from(`<urlset>${deep}`), 'x')).toThrow('deep in each other');
		const whole = readPageList(Buffer.from(`<urlset><url><loc>https://s.example/</loc></url>${deep}`), 'x');
		expect(whole.kind === 'sitemap' && whole.pages).toHaveLength(1);
	});
	test.each<[string, boolean]>([
		['a, "b"', true],
		['a,"b"', false],
		['  "b"', true],
		['a\t\t"b"', true],
		['a\t"b"', false],
		['a, ""b', false],
		['x "b"', false],
		['a\n "b"', true]
	])('late quotes in %j: %s', (text, is) => expect(hasLateQuote(text)).toBe(is));
	test('a column may be called as anything is', () => {
		const names = ['path', '__proto__', 'constructor', 'toString', 'title'];
		const table = readRows(Buffer.from(`${names.join(',')}\n/x,one,two,three,T\n`));
		expect(Object.keys(table.rows[0]!.cells)).toEqual(names);
		const mapping = Object.fromEntries(names.map((name) => [name, name]));
		const { columns } = sheetOf(table, { mapping }, 'https://s.example/');
		expect(columns).toEqual(names);
	});
});
