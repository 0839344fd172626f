import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { describeFinding, type Edit, type Page, type Rule } from '$core';
import { keepRule } from '../edits/rules';
import { JOBS } from '../jobs/jobs';
import { Suppressed } from '../store/state/suppressions';
import { Store } from '../store/store';
import { readFindings } from './findings';
import { findInWhole, groupsOfWhole } from './whole';

/** What only all pages together show, kind by kind. */

let [folder, store, id] = ['', undefined as unknown as Store, 0];
beforeEach(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-whole-'));
	store = new Store(join(folder, 'whole.db'));
	id = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en', 'fr'], separator: '·', fields: {}, rules: [] }
	});
	store.working.types.save(id, { name: 'page', fields: [], rules: [] });
});
afterEach(() => {
	store.close();
	rmSync(folder, { recursive: true });
});
const page = (path: string, more: Partial<Page> = {}) =>
	store.working.pages.save(id, {
		...{ path, type: 'page', state: 'live', rules: [] },
		fields: { title: `Title of ${path}`, summary: `What stands at ${path}, in a sentence.` },
		...more
	} as Page);
function found(code: string) {
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	return findInWhole(store, store.working.sites.named('S')).filter((one) => one.finding.code === code);
}
const data = (code: string) => found(code).map((one) => one.finding.data);
const canonical = (to: string): Rule => ({ tag: 'canonical', kind: 'template', template: to });

describe('texts and pictures that pages share', () => {
	test('with how many, and the filter that shows them', () => {
		for (const path of ['/a', '/b', '/c']) page(path, { fields: { title: 'The same', summary: 'The same sentence.' } });
		page('/d');
		expect(found('shared-title')).toMatchObject([
			{ pages: 3, filter: { title: 'The same' }, finding: { tag: 'title', data: { value: 'The same', pages: 3 } } }
		]);
		expect(data('shared-description')).toEqual([{ value: 'The same sentence.', pages: 3 }]);
	});
	test('a picture is shared from five pages on', () => {
		for (let at = 0; at < 4; at++) page(`/p${at}`, { fields: { title: `T${at}`, picture: '/boat.jpg' } });
		expect(found('shared-picture')).toEqual([]);
		page('/p4', { fields: { title: 'T4', picture: '/boat.jpg' } });
		expect(data('shared-picture')).toMatchObject([{ pages: 5 }]);
	});
});

describe('versions', () => {
	test('that are no page, not public, or the page itself', () => {
		page('/a', { alternates: { fr: '/none' } });
		page('/b', { alternates: { fr: '/draft' } });
		page('/draft', { state: 'draft', alternates: { en: '/b' } });
		page('/c', { alternates: { fr: '/c' } });
		page('/d', { alternates: { fr: 'https://other.example/fr' } });
		store.working.types.save(id, { name: 'resting', off: true, fields: [], rules: [] });
		page('/e', { alternates: { fr: '/resting' } });
		page('/resting', { type: 'resting', alternates: { en: '/e' } });
		expect(data('version-nowhere')).toEqual([
			{ path: '/a', language: 'fr', to: '/none', why: { is: 'no-page' } },
			{ path: '/b', language: 'fr', to: '/draft', why: { is: 'state', state: 'draft' } },
			{ path: '/c', language: 'fr', to: '/c', why: { is: 'itself' } },
			{ path: '/e', language: 'fr', to: '/resting', why: { is: 'type-off' } }
		]);
		expect(found('version-one-way')).toEqual([]);
	});
	test('that do not name the page back; those of pages that are not public are nobody’s concern', () => {
		page('/a', { alternates: { fr: '/fr' } });
		page('/fr', { language: 'fr' });
		page('/two', { alternates: { fr: '/deux' } });
		page('/deux', { language: 'fr', alternates: { en: '/two' } });
		page('/hush', { state: 'private', alternates: { fr: '/none' } });
		expect(found('version-one-way')).toMatchObject([
			{ pages: 1, paths: ['/a'], finding: { target: { of: 'page', path: '/a' }, tag: 'hreflang' } }
		]);
		expect(found('version-nowhere')).toEqual([]);
	});
});

describe('canonical addresses', () => {
	test('that lead to no page, to one that is not public, or on to another', () => {
		page('/');
		page('/none', { rules: [canonical('https://s.example/gone')] });
		page('/hidden', { rules: [canonical('https://s.example/draft')] });
		page('/draft', { state: 'draft' });
		page('/first', { rules: [canonical('https://s.example/second')] });
		page('/second', { rules: [canonical('https://s.example/')] });
		page('/away', { rules: [canonical('https://elsewhere.example/x')] });
		expect(data('canonical-nowhere')).toEqual([
			{ path: '/none', to: 'https://s.example/gone', why: { is: 'no-page', of: 'site' } },
			{ path: '/hidden', to: 'https://s.example/draft', why: { is: 'not-public' } },
			{ path: '/first', to: 'https://s.example/second', why: { is: 'elsewhere', at: 'https://s.example/' } }
		]);
		const [first] = found('canonical-nowhere');
		expect(first).toMatchObject({
			...{ pages: 1, paths: ['/none'] },
			finding: { target: { of: 'page', path: '/none' }, tag: 'canonical' }
		});
		expect(describeFinding(first!.finding)).toContain('https://s.example/gone');
	});
});

test('former paths that lead to no page; those that lead on, or outside, do not', () => {
	page('/new');
	store.working.redirects.leadOn(id, '/old', '/new');
	expect(found('redirect-nowhere')).toEqual([]);
	store.working.redirects.leadOn(id, '/older', '/gone');
	store.working.redirects.leadOn(id, '/away', 'https://elsewhere.example/');
	expect(found('redirect-nowhere')).toMatchObject([{ pages: 0, finding: { data: { path: '/older', to: '/gone' } } }]);
});

test('key pages without a picture of their own', () => {
	page('/bare', { key: true });
	page('/shared', { key: true, fields: { title: 'S', picture: '/boat.jpg' } });
	page('/other', { fields: { title: 'O', picture: '/boat.jpg' } });
	page('/own', { key: true, fields: { title: 'W', picture: '/own.jpg' } });
	page('/draft', { key: true, state: 'draft' });
	expect(found('key-no-picture').flatMap(({ paths }) => paths)).toEqual(['/bare', '/shared']);
});

test('target phrases that two pages are written for, however they are written', () => {
	page('/a', { target: 'Tide tables' });
	page('/b', { target: 'tide TABLES' });
	page('/c', { target: 'Walks' });
	page('/d', { target: 'walks', state: 'draft' });
	expect(found('target-twice')).toMatchObject([
		{ pages: 2, paths: ['/a', '/b'], finding: { data: { value: 'tide tables', pages: 2 } } }
	]);
});

test('gathered by kind, without what was set aside', () => {
	page('/a', { alternates: { fr: '/none' } });
	page('/b', { alternates: { fr: '/none' } });
	for (const path of ['/x', '/y']) page(path, { fields: { title: 'Same' } });
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	const all = findInWhole(store, store.working.sites.named('S'));
	const groups = groupsOfWhole(all, new Suppressed([]), () => []);
	expect(groups.map(({ code, pages, each }) => [code, pages, each?.length])).toEqual([
		['shared-title', 2, 1],
		['version-nowhere', 2, 2]
	]);
	expect(groups[0]!.each![0]).toMatchObject({ pages: 2, filter: { title: 'Same' }, mends: [] });
	expect(
		groupsOfWhole(all, new Suppressed([{ code: 'shared-title', tag: 'title', path: '' }]), () => []).map(
			({ code }) => code
		)
	).toEqual(['version-nowhere']);
});

describe('words of one language on pages of another', () => {
	const say = (tag: string, template: string, language?: string): Rule => ({
		...{ tag, kind: 'template', template },
		...(language && { language })
	});
	const place = (rules: readonly Rule[]) =>
		store.working.types.save(id, { name: 'place', label: 'Place', fields: [], rules });
	const french = (path: string, more: Partial<Page> = {}) => page(path, { type: 'place', language: 'fr', ...more });
	const told = () => found('words-elsewhere').map((one) => describeFinding(one.finding));

	test('are told with the words, the place, and how many pages go out with them', () => {
		place([say('description', '[[{page.title} to visit: ]]{page.summary}')]);
		page('/en', { type: 'place' });
		french('/fr/a');
		french('/fr/b');
		french('/fr/draft', { state: 'draft' });
		expect(told()).toEqual([
			'The description of every place says “to visit:” in words of its own, and 2 pages in French go out with it'
		]);
		expect(found('words-elsewhere')[0]?.paths).toEqual(['/fr/a', '/fr/b']);
	});

	test('not where a page, or a rule for its language, says it; nor where the stretch with the words is gone', () => {
		place([say('description', '[[{page.region} to visit: ]]{page.summary}')]);
		page('/en', { type: 'place' });
		french('/fr/without-a-region');
		expect(told()).toEqual([]);
		french('/fr/own', { rules: [say('description', 'À elle')], fields: { title: 'T', region: 'R', summary: 'S.' } });
		expect(told()).toEqual([]);
		french('/fr/taken', { fields: { title: 'T', region: 'R', summary: 'S.' } });
		expect(told()).toHaveLength(1);
		place([
			say('description', '[[{page.region} to visit: ]]{page.summary}'),
			say('description', '[[{page.region} à visiter : ]]{page.summary}', 'fr')
		]);
		expect(told()).toEqual([]);
	});

	test('a rule that was begun and says the same still is told as begun', () => {
		const template = '[[{page.title} to visit: ]]{page.summary}';
		place([say('description', template), say('description', template, 'fr')]);
		page('/en', { type: 'place' });
		french('/fr/a');
		expect(told()).toEqual([
			'The description of every place for pages in French still says “to visit:”, as the one for all languages does'
		]);
	});

	test('a mend begins the rule for the language with the words; translated, the finding is gone', () => {
		place([say('description', '[[{page.title} to visit: ]]{page.summary}')]);
		page('/en', { type: 'place' });
		french('/fr/a');
		const group = () => {
			JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
			return readFindings(store, 'S').find(({ code }) => code === 'words-elsewhere');
		};
		const [mend] = group()!.each![0]!.mends!;
		expect(mend).toMatchObject({
			edit: {
				...{ place: { layer: 'type', name: 'place' }, tag: 'description', language: 'fr' },
				body: { kind: 'template', template: '[[{page.title} to visit: ]]{page.summary}' }
			}
		});
		keepRule(store, 'S', (mend as { edit: Edit }).edit, { origin: 'findings' });
		expect(group()).toMatchObject({ says: expect.stringContaining('still says “to visit:”'), mends: [] });
		const body = { kind: 'template', template: '[[{page.title} à visiter : ]]{page.summary}' } as const;
		keepRule(store, 'S', { ...(mend as { edit: Edit }).edit, body }, { origin: 'findings' });
		expect(group()).toBeUndefined();
	});

	test('a type all of whose pages are in that language is written in it; names are no words', () => {
		place([say('description', 'à visiter : {page.summary}')]);
		french('/fr/a');
		page('/en');
		expect(told()).toEqual([]);
		place([say('title', '{page.title} | Acme Handbook')]);
		page('/en/b', { type: 'place' });
		expect(told()).toEqual([]);
	});

	test('at the site too, where it is in force; of many pages so many as were looked at', () => {
		const stored = store.working.sites.named('S');
		store.working.sites.save({ ...stored.site, rules: [say('title', 'All about {page.title}')] });
		place([]);
		page('/en', { type: 'place' });
		for (let at = 0; at < 51; at++) french(`/fr/${at}`);
		expect(found('words-elsewhere').map((one) => one.finding.data)).toMatchObject([
			{ pages: 50, isMore: true, of: 'the whole site', words: 'All about' }
		]);
	});
});
