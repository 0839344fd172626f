import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { STARTING_LAYOUTS, type ContentType, type Page, type Picture, type Site } from '$core';
import { actOnPages } from '../edits/pages';
import { keepRule } from '../edits/rules';
import { keepSettings, readSettingsEdit } from '../edits/settings';
import { takeBack } from '../edits/takeBack';
import { JOBS } from '../jobs/jobs';
import { saveSiteFile, writeSiteFile } from '../siteFile/siteFile';
import { Store } from '../store/store';
import { readFindings } from './findings';
import type { ToldMend } from './mends';

/** Each way to mend that is offered is an edit: done, the finding is on fewer pages; taken back, all is as it was. */

const site: Site = {
	...{ name: 'Shore', base: 'https://s.example/', languages: ['en', 'fr'], separator: '·' },
	fields: {
		...{ tagline: 'Between the tides', picture: { src: '/wide.jpg' } },
		description: 'What the site is about, in a sentence that is long enough.'
	},
	rules: []
};
const types: ContentType[] = [
	{ name: 'home', special: 'home', fields: [], rules: [] },
	{
		name: 'walk',
		fields: [{ name: 'region', kind: 'text' }],
		rules: [{ tag: 'title', kind: 'template', template: '{page.title} in {page.region}' }]
	},
	{
		name: 'note',
		fields: [],
		rules: [
			{ tag: 'title', kind: 'template', template: '{page.title} {separator} {site.name}' },
			{ tag: 'og:title', kind: 'template', template: '{page.title}' }
		]
	},
	{
		name: 'badge',
		fields: [],
		rules: [{ tag: 'og:image', kind: 'pictures', sources: [{ from: 'file', src: '/logo.png' }, { from: 'lead' }] }]
	},
	{ name: 'card', fields: [], rules: [], layout: STARTING_LAYOUTS[0]!.layout }
];
const summary = (path: string) => `A summary that is long enough to say something of the page at ${path}, and fits.`;
const page = (path: string, type: string, fields: Page['fields'], more: Partial<Page> = {}): Page => ({
	...{ path, type, state: 'live', rules: [] },
	fields: { summary: summary(path), picture: { src: '/small.jpg' }, ...fields },
	...more
});
const pages = [
	page('/', 'home', { title: 'Home' }),
	page('/gap', 'walk', { title: 'A walk along the shore' }),
	page('/twice', 'note', { title: 'History · Shore' }),
	page('/long', 'note', { title: `${'A very long title that goes on and on '.repeat(4)}` }),
	page('/same', 'note', { title: 'Winter opening', section: 'Marsh' }),
	page('/same-too', 'note', { title: 'Winter opening', section: 'Heath' }),
	page('/bare', 'note', { title: 'A note without any summary', summary: '' }),
	page(
		'/over',
		'note',
		{ title: 'A note with a title for sharing' },
		{
			rules: [{ tag: 'title', kind: 'template', template: 'Words of its own for search' }]
		}
	),
	page(
		'/nowhere',
		'note',
		{ title: 'A note that says it is elsewhere' },
		{
			rules: [{ tag: 'canonical', kind: 'template', template: 'https://s.example/gone' }]
		}
	),
	page('/one', 'note', { title: 'One of two, in English' }, { alternates: { fr: '/deux' } }),
	page('/deux', 'note', { title: 'L’une des deux, en français' }, { language: 'fr' }),
	page('/badge', 'badge', { title: 'A page that shows a logo', picture: { src: '/wide.jpg' } }),
	page('/brief', 'note', { title: 'A note that says little of itself', summary: 'Brief.' }),
	page('/tide', 'note', {
		title: 'A note on the spring tide',
		summary: 'The same words stand on both of these two pages.'
	}),
	page('/neap', 'note', {
		title: 'A note on the neap tide',
		summary: 'The same words stand on both of these two pages.'
	}),
	page('/key', 'card', { title: 'A key page without a picture', picture: '' }, { key: true }),
	page('/no-key', 'card', { title: 'Another page without a picture', picture: '' }),
	page('/lost', 'note', { title: 'A note with a version that is gone' }, { alternates: { fr: '/disparu' } })
];
const pictures: Picture[] = [
	{ src: '/small.jpg', width: 300, height: 200 },
	{ src: '/wide.jpg', width: 2000, height: 1050, name: 'wide.jpg' },
	{ src: '/logo.png', width: 1200, height: 630, mark: true, plain: true }
];

let folder = '';
let store: Store;
let id = 0;
const look = () => JOBS.refresh({ db: store.file, site: 'Shore' }, () => undefined);
beforeAll(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-mends-'));
	store = new Store(join(folder, 'm.db'));
	saveSiteFile(store, { site, types, pages, pictures } as never);
	id = store.working.sites.named('Shore').id;
	store.working.redirects.replace(id, { '/old': '/never' });
	look();
});
afterAll(() => {
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

const dump = () => [...writeSiteFile(store, 'Shore')].join('');
const groups = () => readFindings(store, 'Shore');
const countOf = (code: string, tag: string) =>
	groups().find((group) => group.code === code && group.tag === tag)?.pages ?? 0;
function perform(mend: ToldMend) {
	if ('actions' in mend) return actOnPages(store, 'Shore', mend.actions, 'findings');
	if ('changes' in mend.edit) return keepSettings(store, 'Shore', readSettingsEdit(mend.edit), 'findings');
	return keepRule(store, 'Shore', mend.edit, { origin: 'findings' });
}
const waysOf = (code: string, tag: string): ToldMend[] => {
	const group = groups().find((one) => one.code === code && one.tag === tag);
	return [...(group?.mends ?? []), ...(group?.each ?? []).flatMap(({ mends }) => mends ?? [])];
};

describe('a mend of', () => {
	test.each([
		['gap', 'title'],
		['bare-title', 'title'],
		['name-twice', 'title'],
		['cut', 'title'],
		['shared-title', 'title'],
		['shared-description', 'description'],
		['short', 'description'],
		['logo-picture', 'og:image'],
		['key-no-picture', 'og:image'],
		['no-description', 'description'],
		['passed-over', 'og:title'],
		['canonical-nowhere', 'canonical'],
		['version-one-way', 'hreflang'],
		['version-nowhere', 'hreflang'],
		['redirect-nowhere', ''],
		['small-picture', 'og:image']
	])('%s of %s is an edit that mends it, and is taken back', (code, tag) => {
		const before = dump();
		const count = countOf(code, tag);
		// A site that has no such finding would make this prove nothing.
		if (count === 0) expect(groups().map((group) => `${group.code} ${group.tag}`)).toContain(`${code} ${tag}`);
		const [mend] = waysOf(code, tag);
		expect(mend).toBeDefined();
		perform(mend!);
		look();
		expect(countOf(code, tag)).toBeLessThan(count);
		takeBack(store, 'Shore', 'last', 'findings');
		look();
		expect(dump()).toBe(before);
		expect(countOf(code, tag)).toBe(count);
	});
});

describe('what a mend does, exactly', () => {
	const ruleOf = (mend: ToldMend | undefined) =>
		mend && 'edit' in mend && 'tag' in mend.edit
			? { place: mend.edit.place, tag: mend.edit.tag, body: mend.edit.body }
			: mend;
	test('of a cut title: one way, the longest that fits', () => {
		const ways = waysOf('cut', 'title');
		expect(ways).toHaveLength(1);
		const { place, body } = ruleOf(ways[0]) as { place: unknown; body: { template: string } };
		expect(place).toEqual({ layer: 'type', name: 'note' });
		expect(body.template).toMatch(/^\{page\.title \| clip \d+\} \{separator\} \{site\.name\}$/);
	});
	test('of a logo: the page’s own pictures stand before it, and nothing is lost of the rule', () => {
		expect(ruleOf(waysOf('logo-picture', 'og:image')[0])).toEqual({
			...{ place: { layer: 'type', name: 'badge' }, tag: 'og:image' },
			body: { kind: 'pictures', sources: [{ from: 'lead' }, { from: 'body' }, { from: 'file', src: '/logo.png' }] }
		});
	});
	test('of a gap: what belongs to the variable goes with it', () => {
		expect(ruleOf(waysOf('gap', 'title')[0])).toEqual({
			...{ place: { layer: 'type', name: 'walk' }, tag: 'title' },
			body: { kind: 'template', template: '{page.title}[[ in {page.region}]]' }
		});
	});
	test('of a small picture: pictures under the width that all readers want are passed over', () => {
		expect(ruleOf(waysOf('small-picture', 'og:image')[0])).toMatchObject({
			...{ place: { layer: 'site' }, tag: 'og:image' },
			body: { kind: 'pictures', limits: { minWidth: 600 } }
		});
	});
	test('of a canonical that leads nowhere: the page’s own rule goes', () => {
		expect(ruleOf(waysOf('canonical-nowhere', 'canonical')[0])).toEqual({
			...{ place: { layer: 'page', path: '/nowhere' }, tag: 'canonical', body: null }
		});
	});
	test('of a site’s name that stands twice: it is taken out of the template', () => {
		expect(ruleOf(waysOf('name-twice', 'title')[0])).toMatchObject({ body: { template: '{page.title}' } });
	});
	test('of versions and former paths: an action', () => {
		expect(waysOf('version-one-way', 'hreflang')[0]).toMatchObject({
			actions: [{ do: 'link', path: '/one', to: '/deux' }]
		});
		expect(waysOf('redirect-nowhere', '')[0]).toMatchObject({ actions: [expect.anything()] });
	});
});

describe('advice is tried before it is given', () => {
	const groupOf = (code: string, tag: string) => groups().find((group) => group.code === code && group.tag === tag);
	/** A site of its own: its pages have what their type’s rule makes of their words, and nothing else is known of them. */
	function begin(words: string, all: readonly Page[]) {
		const fresh: Site = { ...site, fields: { ...site.fields, description: words } };
		const note: ContentType = { name: 'note', fields: [], rules: [] };
		saveSiteFile(
			store,
			{ site: fresh, types: [note], pages: all, pictures } as never,
			store.working.sites.named('Shore').revision
		);
		look();
	}
	const note = (path: string, fields: Page['fields']) =>
		page(path, 'note', { picture: { src: '/wide.jpg' }, ...fields });
	let kept = '';
	beforeAll(() => (kept = dump()));
	afterAll(() => {
		saveSiteFile(store, JSON.parse(kept) as never, store.working.sites.named('Shore').revision);
		look();
	});
	test('a length that would leave a text cut is passed over for one that does not', () => {
		const wide = 'WORDS OF GREAT WIDTH '.repeat(20);
		begin(wide, [note('/none', { title: 'A note that has no words of its own', summary: '' })]);
		const [mend] = waysOf('no-description', 'description');
		expect(mend).toBeDefined();
		expect(mend?.tried).toEqual({ on: 1, mended: 1 });
		perform(mend!);
		look();
		expect(countOf('no-description', 'description')).toBe(0);
		expect(countOf('cut', 'description')).toBe(0);
	});
	test('of many pages it is said how many it mends, and what holds of one alone is said of that one', () => {
		const long = (at: number) => `A title that goes on and on for longer than any reader shows ${'and on '.repeat(at)}`;
		begin('What it is about.', [
			...Array.from({ length: 6 }, (_, at) => note(`/long-${at}`, { title: long(at + 3) })),
			note('/own', { title: long(9) })
		]);
		const group = groupOf('cut', 'title')!;
		expect(group.pages).toBe(7);
		expect(group.says).not.toMatch(/\d/);
		expect(group.example?.says).toMatch(/^The title has \d+ characters/);
		expect(group.mends?.[0]?.tried).toEqual({ on: 7, mended: 7 });
		// One page says its title itself: a rule at the site does not reach it.
		const own = { tag: 'title', kind: 'template', template: long(9) } as const;
		store.working.pages.save(id, { ...note('/own', { title: long(9) }), rules: [own] });
		look();
		const [mend] = groupOf('cut', 'title')!.mends!;
		expect(mend?.tried).toMatchObject({ on: 7 });
		expect(mend!.tried!.mended).toBeLessThan(7);
	});
});

test('where no page has a picture, one of the library is offered for the site, the widest that fits a card', () => {
	const { picture: _share, ...words } = site.fields;
	store.working.sites.save({ ...site, fields: words });
	for (const one of pages) {
		const { picture: _picture, ...fields } = one.fields;
		store.working.pages.save(id, { ...one, fields });
	}
	look();
	const [mend] = waysOf('no-picture', 'og:image');
	expect(mend).toMatchObject({ says: 'Make wide.jpg the share picture of the site' });
	perform(mend!);
	look();
	expect(countOf('no-picture', 'og:image')).toBe(0);
});
