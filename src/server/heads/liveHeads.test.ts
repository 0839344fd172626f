import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { keepRule } from '../edits/rules';
import { JOBS } from '../jobs/jobs';
import { goBack } from '../releases/releases';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { LiveHeadMaker, type HeadForm, type LivePage } from './liveHeads';
import { fieldsOfRecord, readerOf } from './records';

/** Heads of pages that stand nowhere: by the rules as they are released, and nothing of them is kept. */
let folder = '';
let store: Store;
beforeAll(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-live-'));
	store = new Store(join(folder, 'l.db'));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: { name: 'S', base: 'https://s.example/', languages: ['en', 'fr'], separator: '·', fields: {}, rules: [] },
		types: [
			{ name: 'home', special: 'home', fields: [], rules: [] },
			{
				...{ name: 'boat', fields: [{ name: 'harbour', kind: 'text' }] },
				mapping: { title: '/name', harbour: '/lies/0', picture: '$.photos[0]' },
				rules: [
					{ tag: 'title', kind: 'template', template: '{page.title}[[ at {page.harbour}]]' },
					{ tag: 'title', kind: 'template', template: '{page.title}[[ à {page.harbour}]]', language: 'fr' }
				]
			}
		],
		pages: [
			{ path: '/', type: 'home', state: 'live', rules: [], fields: { title: 'Home' } },
			{ path: '/boats/1', type: 'boat', state: 'live', rules: [], fields: { title: 'Tern', harbour: 'Long Strand' } }
		]
	} as never);
});
afterAll(() => {
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

const release = (only?: readonly string[]) =>
	JOBS.release({ db: store.file, site: 'S', ...(only && { only }) }, () => undefined);
const made = (pages: readonly LivePage[], form: HeadForm = {}) => new LiveHeadMaker(store).make('S', pages, form);
const tern: LivePage = { path: '/boats/1', type: 'boat', fields: { title: 'Tern', harbour: 'Long Strand' } };
const say = (template: string) =>
	keepRule(
		store,
		'S',
		{ place: { layer: 'type', name: 'boat' }, tag: 'title', body: { kind: 'template', template } },
		{ origin: 'bench' }
	);

describe('rules', () => {
	test('before a release has any, none are in force; those of the working copy are asked for by name', () => {
		expect(() => made([tern])).toThrow(/Release it once/);
		expect(made([tern], { rules: 'working' }).heads[0]?.html).toContain('<title>Tern at Long Strand</title>');
	});

	test('are those of the release, byte for byte what it holds of the same page, until the next', () => {
		release();
		const { id } = store.working.sites.named('S');
		const held = () => store.releases.head(id, { path: '/boats/1' });
		expect(made([tern])).toEqual({ release: 1, heads: [{ path: '/boats/1', html: held()?.html }] });
		expect(made([tern], { as: 'json' }).heads[0]?.json).toEqual(JSON.parse(held()!.json));
		say('Boat {page.title}');
		expect(made([tern]).heads[0]?.html).toContain('<title>Tern at Long Strand</title>');
		release();
		expect(made([tern])).toMatchObject({ release: 2 });
		expect(made([tern]).heads[0]?.html).toContain('<title>Boat Tern</title>');
	});

	test('a release of single pages leaves them, and going back brings the old ones', () => {
		say('Ship {page.title}');
		release(['/boats/1']);
		expect(made([{ ...tern, path: '/boats/2' }]).heads[0]?.html).toContain('<title>Boat Tern</title>');
		goBack(store, 'S', 1);
		expect(made([tern]).heads[0]?.html).toContain('<title>Tern at Long Strand</title>');
	});

	test('one maker follows what is released and written while it stands', () => {
		const maker = new LiveHeadMaker(store);
		const title = (rules: 'released' | 'working') =>
			/<title>(.*)<\/title>/.exec(maker.make('S', [tern], { rules }).heads[0]!.html!)?.[1];
		say('Kept {page.title}');
		expect([title('working'), title('released')]).toEqual(['Kept Tern', 'Tern at Long Strand']);
		say('Again {page.title}');
		release();
		expect([title('working'), title('released')]).toEqual(['Again Tern', 'Again Tern']);
	});
});

test('what holds of the day is by the clock as it goes on, though nothing is written', () => {
	vi.useFakeTimers({ toFake: ['Date'] });
	try {
		vi.setSystemTime('2029-12-31T12:00:00Z');
		say('[[{page.harbour | coming?}Coming: ]]{page.title}');
		release();
		const maker = new LiveHeadMaker(store);
		const page = { ...tern, fields: { title: 'Tern', harbour: '2030-01-01' } };
		const title = () => /<title>(.*)<\/title>/.exec(maker.ready('S', {}, 7).headOf(page).html!)?.[1];
		expect(title()).toBe('Coming: Tern');
		vi.setSystemTime('2030-01-02T12:00:00Z');
		expect(title()).toBe('Tern');
	} finally {
		vi.useRealTimers();
	}
});

describe('a page', () => {
	test('is refused by itself, with why; what is weak in it is told where that is asked', () => {
		const { heads } = made([{ path: 'x' }, { path: '/y', type: 'none' }, { ...tern, fields: {} }, tern], {
			findings: true
		});
		expect(heads.map(({ code, findings }) => code ?? findings?.map((one) => one.code).includes('no-picture'))).toEqual([
			...['path-broken', 'type-missing', true, true]
		]);
	});

	test('is read out of a record by the mapping of its type, or one that comes with it', () => {
		say('{page.title}[[ at {page.harbour}]]');
		release();
		const record = { name: 'Gull', lies: ['Inner Merrow', 'Ember'], photos: [{ url: 'https://s.example/gull.jpg' }] };
		const html = (more: Partial<LivePage> = {}) => made([{ path: '/g', type: 'boat', record, ...more }]).heads[0]?.html;
		expect(html()).toContain('<title>Gull at Inner Merrow</title>');
		expect(html()).toContain('content="https://s.example/gull.jpg"');
		expect(html({ language: 'fr' })).toContain('Gull à Inner Merrow');
		expect(html({ mapping: { title: '$.lies[1]' } })).toContain('<title>Ember</title>');
		// Fields that are sent beside it go before.
		expect(html({ fields: { title: 'Mine' } })).toContain('<title>Mine at Inner Merrow</title>');
		expect(made([{ path: '/h', type: 'home', record }]).heads[0]).toMatchObject({ code: 'mapping-missing' });
	});
});

describe('where a field stands', () => {
	test.each([
		['/a', { a: 'x' }, 'x'],
		['/a~1b', { 'a/b': 7 }, 7],
		['$.a[*].b', { a: [{ b: 'x' }, { b: 'y' }, {}] }, ['x', 'y']],
		['$..b', { a: { b: true } }, true],
		['/a', { a: ['x', ['y']] }, ['x', 'y']],
		['/a', { a: { src: '/p.jpg', alt: 'P' } }, { src: '/p.jpg', alt: 'P' }],
		['/a', { a: { name: 'Isla', url: 'https://s.example/isla' } }, { name: 'Isla', address: 'https://s.example/isla' }],
		['/a', { a: { other: 1 } }, undefined],
		['/a', { a: null }, undefined],
		['/a/b', {}, undefined],
		['/a', 'no record', undefined]
	])('%s in %j', (where, record, value) => {
		expect(fieldsOfRecord({ f: where }, record)).toEqual(value === undefined ? {} : { f: value });
	});

	test('nested however deep, and of whatever shape, a record never ends more than itself', () => {
		const deep = JSON.parse(`${'['.repeat(200_000)}${']'.repeat(200_000)}`) as unknown;
		const pages = [{ path: '/d', type: 'boat', record: { name: deep, lies: deep, photos: deep } }, tern];
		const { heads } = made([...pages, { path: '/e', type: 'boat', record: deep, mapping: { title: '$..name' } }]);
		expect(heads[1]?.html).toContain('<title>');
		expect(heads.every(({ html, code }) => html !== undefined || code === 'mapping-broken')).toBe(true);
	});

	test.each(['a', '$.[', '$[?match(@.a, "(a+)+$")]', '$[?search(@.a, "x")]', '/a~2', '$..a..b', '$..a[?@..b]'])(
		'%s is refused',
		(where) => {
			expect(() => readerOf(where)).toThrow(/leads to no field/);
		}
	);
});
