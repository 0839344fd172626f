import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '$core';
import { actOnPage, readPageAction } from '../edits/pages';
import { keepSettings, readSettingsEdit } from '../edits/settings';
import { keepRule, readEdit } from '../edits/rules';
import { takeBack } from '../edits/takeBack';
import { readFindings } from '../findings/findings';
import { JOBS } from '../jobs/jobs';
import { countUnder } from '../jobs/reach';
import { saveSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { readBenchData } from '../web/benchData';

/** Pages that read fields of others: what each comes to, and which are looked at again when one changes. */
const folder = mkdtempSync(join(tmpdir(), 'kephalon-others-'));
let store: Store;
let made = 0;
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const say = (tag: string, template: string) => ({ tag, kind: 'template' as const, template });
const page = (path: string, type: string, fields: Page['fields'], more: Partial<Page> = {}): Page => ({
	...{ path, type, state: 'live', rules: [], fields },
	...more
});
beforeEach(() => {
	store?.close();
	store = new Store(join(folder, `${++made}.db`));
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {} },
		site: {
			...{ name: 'S', base: 'https://s.example/', languages: ['en', 'fr'], separator: '·', fields: {} },
			rules: [say('title', '{page.title}[[ in {page.parent.title}]]')]
		},
		types: [
			{
				name: 'place',
				fields: [{ name: 'level', kind: 'choice', words: [{ is: 'easy', words: { en: 'Easy', fr: 'Facile' } }] }],
				rules: []
			},
			{
				name: 'tour',
				fields: [
					{ name: 'place', kind: 'page' },
					{ name: 'stops', kind: 'pages' }
				],
				rules: [
					say(
						'description',
						'At {page.place.title} ({page.place.level})[[, by {page.stops | each "title" | join}]][[ – {page.original.title}]]'
					)
				]
			},
			{
				name: 'echo',
				fields: [{ name: 'of', kind: 'page' }],
				rules: [
					say('title', '{page.of.head.title}; {page.of.head.description}'),
					say('description', '{page.below | join}')
				]
			}
		],
		pages: [
			page('/', 'place', { title: 'Home' }),
			page('/walks/', 'place', { title: 'Walks' }),
			page('/head', 'place', { title: 'Gannet Head', level: 'easy' }),
			page('/marsh', 'place', { title: 'Marsh' }, { state: 'draft' }),
			page('/walks/one', 'tour', { title: 'One', place: '/head', stops: ['/head', '/', '/nowhere'] }),
			page('/walks/two', 'tour', { title: 'Two', place: '/marsh' }),
			page(
				'/fr/walks/un',
				'tour',
				{ title: 'Un', place: 'https://s.example/head?x#y' },
				{ language: 'fr', alternates: { en: '/walks/one' } }
			),
			page('/echo', 'echo', { title: 'Echo', of: '/walks/one' }),
			page('/echo/of', 'echo', { title: 'Echo of it', of: '/echo' })
		]
	} as never);
	refresh();
});
const id = () => store.working.sites.named('S').id;
const refresh = () => JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
const stale = () =>
	store.state
		.stale(id(), { part: 0, parts: 1 }, 100)
		.map((one) => store.working.pages.byId(one)!.path)
		.sort();
const kept = (path: string) => {
	const row = store.db
		.prepare('SELECT title, description FROM page_state WHERE site_id = ? AND path = ?')
		.get(id(), path) as { title: string; description: string };
	return `${row.title} | ${row.description}`;
};
const change = (path: string, changes: object) =>
	keepSettings(store, 'S', readSettingsEdit({ place: { layer: 'page', path }, changes }), 'bench');

describe('what a page reads of others', () => {
	test('its parent, pages that its fields name, its original, in the words of its language', () => {
		expect(kept('/walks/one')).toBe('One in Walks | At Gannet Head (Easy), by Gannet Head and Home');
		expect(kept('/fr/walks/un')).toBe('Un in Home | At Gannet Head (Facile) – One');
		expect(kept('/walks/')).toBe('Walks in Home | ');
		expect(kept('/')).toBe('Home | ');
		// Nobody sees the marsh: nothing of it is said.
		expect(kept('/walks/two')).toMatch(/^Two in Walks \| At {1,2}\(\)$/);
	});

	test('references that lead nowhere, to a draft, or to the page itself are told', () => {
		change('/walks/two', { fields: { title: 'Two', place: '/walks/two' } });
		refresh();
		const told = readFindings(store, 'S').filter(({ code }) => code === 'lost-reference');
		expect(told).toMatchObject([{ pages: 2 }]);
		const [first] = store.working.pages.all(id());
		expect(first).toBeDefined();
	});

	test('the bench knows the pages that the one in view can read', () => {
		const data = readBenchData(store, 'S', '/walks/one');
		expect('others' in data ? data.others!.map(({ path }) => path).sort() : []).toEqual(['/', '/head', '/walks/']);
		expect('readers' in data && data.readers).toBe(3);
	});
});

describe('an edit of one page', () => {
	test('brings exactly those up to date that read it', () => {
		expect(stale()).toEqual([]);
		change('/head', { fields: { title: 'The Head', level: 'easy' } });
		expect(stale()).toEqual(['/echo', '/echo/of', '/fr/walks/un', '/head', '/walks/one']);
		refresh();
		expect(kept('/walks/one')).toBe('One in Walks | At The Head (Easy), by The Head and Home');
		change('/marsh', { fields: { title: 'The Marsh' } });
		expect(stale()).toEqual(['/marsh', '/walks/two']);
	});

	test('a page that none reads brings none', () => {
		change('/walks/two', { fields: { title: 'Second' } });
		expect(stale()).toEqual(['/walks/two']);
	});

	test('one that comes, is seen, moves or goes brings those that asked for its path', () => {
		actOnPage(store, 'S', readPageAction({ do: 'add', path: '/nowhere', type: 'place', title: 'Somewhere' }), 'bench');
		expect(stale()).toContain('/walks/one');
		change('/nowhere', { state: 'live' });
		refresh();
		expect(kept('/walks/one')).toContain('by Gannet Head, Home, and Somewhere');
		change('/marsh', { state: 'live' });
		expect(stale()).toContain('/walks/two');
		refresh();
		expect(kept('/walks/two')).toContain('At Marsh');
		change('/walks/', { path: '/strolls/' });
		expect(stale()).toEqual(expect.arrayContaining(['/walks/one', '/walks/two']));
		refresh();
		expect(kept('/walks/one')).toMatch(/^One in Home/);
		actOnPage(store, 'S', readPageAction({ do: 'remove', path: '/nowhere' }), 'bench');
		refresh();
		expect(kept('/walks/one')).toContain('by Gannet Head and Home');
		const last = store.record.list(id(), undefined, 50).find(({ kind }) => kind === 'page')!;
		takeBack(store, 'S', last.id, 'bench');
		expect(stale()).toContain('/walks/one');
	});

	test('words that a type has for its fields, and switching it off, are read elsewhere too', () => {
		const type = (changes: object) =>
			keepSettings(store, 'S', readSettingsEdit({ place: { layer: 'type', name: 'place' }, changes }), 'bench');
		type({ fields: [{ name: 'level', kind: 'choice', words: [{ is: 'easy', words: { en: 'Gentle' } }] }] });
		expect(stale()).toContain('/walks/one');
		refresh();
		expect(kept('/walks/one')).toContain('(Gentle)');
		type({ off: true });
		refresh();
		expect(kept('/walks/one')).not.toContain('Gannet Head');
	});

	test('what is read no more brings nothing any more', () => {
		change('/walks/one', { fields: { title: 'One', place: '/' } });
		refresh();
		change('/head', { fields: { title: 'Elsewhere' } });
		expect(stale()).toEqual(['/fr/walks/un', '/head']);
	});

	test('what a head comes to by its text and by rules brings those that read the head, and no others', () => {
		expect(kept('/echo')).toBe('One in Walks; At Gannet Head (Easy), by Gannet Head and Home | /echo/of');
		expect(kept('/echo/of')).toBe('One in Walks; At Gannet Head (Easy), by Gannet Head and Home; /echo/of | ');
		const own = store.working.pages.at(id(), '/walks/one')!;
		change('/walks/one', { fields: { ...own.fields, body: '<p>It has a text.' } });
		expect(stale()).toEqual(['/echo', '/echo/of', '/walks/one']);
		refresh();
		store.working.pages.save(id(), { ...store.working.pages.at(id(), '/walks/one')!, rules: [say('title', 'Mine')] });
		expect(stale()).toEqual(['/echo', '/echo/of', '/walks/one']);
		refresh();
		expect(kept('/echo')).toMatch(/^Mine; At/);
		// Nothing of a pin is read.
		store.working.pages.save(id(), { ...store.working.pages.at(id(), '/walks/one')!, pinned: { title: 'Mine' } });
		expect(stale()).toEqual(['/walks/one']);
		refresh();
		const rule = { tag: 'description', body: { kind: 'template', template: 'Anew' } };
		keepRule(store, 'S', readEdit({ place: { layer: 'type', name: 'tour' }, ...rule }), { origin: 'bench' });
		expect(stale()).toContain('/echo');
		refresh();
		expect(kept('/echo')).toBe('Mine; Anew | /echo/of');
	});

	test('one that comes, is hidden or moves brings those that list what stands below', () => {
		actOnPage(store, 'S', readPageAction({ do: 'add', path: '/echo/two', type: 'place', title: 'Two' }), 'bench');
		expect(stale()).toContain('/echo');
		refresh();
		change('/echo/two', { state: 'live' });
		expect(stale()).toEqual(['/echo', '/echo/of', '/echo/two']);
		refresh();
		expect(kept('/echo')).toMatch(/ \| \/echo\/of and \/echo\/two$/);
		change('/echo/two', { path: '/elsewhere' });
		expect(stale()).toContain('/echo');
		refresh();
		expect(kept('/echo')).toMatch(/ \| \/echo\/of$/);
		expect(stale()).toEqual([]);
		// Further down is not directly below.
		actOnPage(store, 'S', readPageAction({ do: 'add', path: '/echo/of/it', type: 'place', title: 'Deep' }), 'bench');
		expect(stale()).not.toContain('/echo');
	});

	test('a page that moves is still read by those that name its former path', () => {
		change('/head', { path: '/heads/gannet' });
		refresh();
		expect(kept('/walks/one')).toBe('One in Walks | At Gannet Head (Easy), by Gannet Head and Home');
		change('/heads/gannet', { fields: { title: 'Moved Head', level: 'easy' } });
		expect(stale()).toContain('/walks/one');
		refresh();
		expect(kept('/walks/one')).toContain('At Moved Head');
		expect(readFindings(store, 'S').filter(({ code }) => code === 'lost-reference')).toMatchObject([{ pages: 2 }]);
		const data = readBenchData(store, 'S', '/walks/one');
		expect('moved' in data && data.moved).toEqual({ '/head': '/heads/gannet' });
		store.working.redirects.drop(id(), '/head');
		expect(stale()).toContain('/walks/one');
	});
});

describe('the reach of an edit', () => {
	const reach = (edit: object) =>
		JOBS.reach({ db: store.file, site: 'S', edit, part: 0, parts: 1 } as never, () => undefined);
	test('counts those that read the page', () => {
		const edit = { place: { layer: 'page', path: '/head' }, changes: { fields: { title: 'The Head', level: 'easy' } } };
		expect(reach(edit)).toMatchObject({ under: 1, changed: 5, reading: 4 });
		// Each part of the pages has its own readers, and the page itself is in one.
		const parts = [0, 1, 2].map((part) =>
			JOBS.reach({ db: store.file, site: 'S', edit, part, parts: 3 } as never, () => undefined)
		);
		expect(parts.reduce((sum, one) => sum + one.changed, 0)).toBe(5);
		expect(parts.reduce((sum, one) => sum + one.under, 0)).toBe(1);
		expect(countUnder(store, 'S', edit as never)).toBe(5);
	});
	test('counts those of other types that read pages of the type', () => {
		const edit = {
			place: { layer: 'type', name: 'tour' },
			tag: 'description',
			body: { kind: 'template', template: 'New' }
		};
		expect(reach(edit)).toMatchObject({ under: 3, changed: 5, reading: 2 });
	});
	test('names no reader where none comes to something else', () => {
		const edit = {
			place: { layer: 'page', path: '/walks/two' },
			changes: { fields: { title: 'Second', place: '/marsh' } }
		};
		const found = reach(edit);
		expect(found).toMatchObject({ under: 1, changed: 1 });
		expect(found).not.toHaveProperty('reading');
	});
	test('of a move, as those see it that name the former path', () => {
		const found = reach({ place: { layer: 'page', path: '/head' }, changes: { path: '/heads/gannet' } });
		expect(found.reading ?? 0).toBe(0);
		expect(found.changed).toBe(1);
	});
});

test('after any edits, what is kept is what a first look comes to', () => {
	const paths = ['/', '/walks/', '/head', '/marsh', '/walks/one', '/walks/two', '/fr/walks/un', '/echo', '/echo/of'];
	let seed = 7;
	const next = (below: number) => (seed = (seed * 16_807) % 2_147_483_647) % below;
	for (let round = 0; round < 80; round++) {
		const path = paths[next(paths.length)]!;
		const own = store.working.pages.at(id(), path)!;
		if (next(3) === 0 && path !== '/') change(path, { state: own.state === 'live' ? 'draft' : 'live' });
		else if (next(3) === 0 && own.type === 'tour')
			change(path, { fields: { ...own.fields, place: paths[next(paths.length)]! } });
		else if (next(3) === 0 && own.type === 'echo')
			change(path, { fields: { ...own.fields, of: paths[next(paths.length)]! } });
		else if (next(4) === 0)
			store.working.pages.save(id(), { ...own, rules: next(2) === 0 ? [] : [say('description', `D${round}`)] });
		else if (next(4) === 0) change(path, { fields: { ...own.fields, body: `<p>Text ${round} of the page.` } });
		else change(path, { fields: { ...own.fields, title: `T${round}` } });
		if (next(2) === 0) refresh();
	}
	refresh();
	const all = () => paths.map(kept);
	const before = all();
	store.db.prepare('UPDATE page_state SET seen = -1').run();
	refresh();
	expect(all()).toEqual(before);
});
