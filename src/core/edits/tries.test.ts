import { describe, expect, test } from 'vitest';
import type { ContentType, Page, Site } from '../model';
import { checkTemplate } from '../template/check';
import { compileTemplate } from '../template/compile';
import { proposeTemplate } from './proposal';
import type { Edit } from './reach';
import { countGivenWay, joinGivenWay, tryEdits } from './tries';

const NOW = '2026-05-01T10:00:00Z';
const site: Site = {
	...{ name: 'Merrow Coast', base: 'https://merrow.example/', languages: ['en'], separator: '·', fields: {} },
	rules: [{ tag: 'title', kind: 'template', template: '{page.title}' }]
};
const walk: ContentType = { name: 'walk', fields: [{ name: 'region', kind: 'text' }], rules: [] };
const other: ContentType = {
	name: 'other',
	fields: [],
	rules: [{ tag: 'title', kind: 'template', template: 'Other' }]
};
const page = (path: string, fields: Page['fields'], type = 'walk'): Page => ({
	path,
	type,
	state: 'live',
	rules: [],
	fields
});
const PAGES = [
	page('/long', {
		title: 'A walk along the cliffs from Gannet Head to Saltholm Marsh and back by the ferry house before dark',
		region: 'Ember'
	}),
	page('/short', { title: 'Up', region: 'Ember' }),
	page('/plain', { title: 'Down the valley', region: 'Merrow' }),
	page('/other', { title: 'Nothing to do with it' }, 'other')
];
const model = { site, types: [walk, other], pictures: [] };
const edit = (template: string, layer: 'site' | 'type' = 'type'): Edit => ({
	place: layer === 'site' ? { layer } : { layer, name: 'walk' },
	tag: 'title',
	body: { kind: 'template', template }
});

test('two templates are held against each other on the hard pages, as each would come out', () => {
	const found = tryEdits(
		model,
		PAGES.slice(0, 3),
		[edit('{page.title}'), edit('{fit 30}{page.title}[[ in {page.region}]]')],
		NOW
	);
	const long = found.find(({ path }) => path === '/long')!;
	expect(long.kinds).toContain('longest');
	expect(long.values.map(({ value }) => value)).toEqual([PAGES[0]!.fields.title, 'A walk along the cliffs from…']);
	expect(long.values[0]!.findings.map(({ code }) => code)).toContain('cut');
	expect(long.values[1]!.findings.map(({ code }) => code)).not.toContain('cut');
	const short = found.find(({ path }) => path === '/short')!;
	expect(short.values.map(({ value }) => value)).toEqual(['Up', 'Up in Ember']);
	// A page that is hard in several ways comes once.
	expect(new Set(found.map(({ path }) => path)).size).toBe(found.length);
	expect(tryEdits(model, [], [edit('x')], NOW)).toEqual([]);
});

describe('on how many pages stretches give way', () => {
	const template = '{fit 30}{page.title}[[ in {page.region}]][[ – {site.name}]]';
	const place = (part: string) => ({ start: template.indexOf(part), end: template.indexOf(part) + part.length });

	test('is counted where the template is what the tag comes from', () => {
		expect(countGivenWay(model, PAGES, edit(template), NOW)).toEqual({
			pages: 3,
			stretches: [
				{ ...place('[[ in {page.region}]]'), pages: 1 },
				{ ...place('[[ – {site.name}]]'), pages: 2 }
			]
		});
		// At the site, the type's own rule goes before it.
		expect(countGivenWay(model, PAGES, edit(template, 'site'), NOW).pages).toBe(3);
	});

	test('none are looked at, none are said to', () => {
		expect(countGivenWay(model, [], edit(template), NOW)).toEqual({ pages: 0, stretches: [] });
		expect(countGivenWay(model, PAGES, { ...edit(template), body: { kind: 'leaveOut' } }, NOW)).toEqual({
			pages: 0,
			stretches: []
		});
		expect(countGivenWay(model, PAGES, edit('{page.title}'), NOW)).toEqual({ pages: 3, stretches: [] });
	});

	test('a template of a piece of the type gives way as its pages have it', () => {
		const types = [{ ...walk, pieces: { far: ' far from the town of the same name' } }, other];
		expect(
			countGivenWay({ ...model, types }, PAGES, edit('{fit 40}{page.title}[[{piece.far}]]'), NOW).stretches
		).toMatchObject([{ pages: 2 }]);
	});

	test('parts of the pages together come to what all do', () => {
		const whole = countGivenWay(model, PAGES, edit(template), NOW);
		const parts = PAGES.map((one) => countGivenWay(model, [one], edit(template), NOW));
		expect(joinGivenWay(parts)).toEqual(whole);
		expect(joinGivenWay([])).toEqual({ pages: 0, stretches: [] });
	});
});

describe('a first template for a type, from its records', () => {
	const propose = (tag: string, fields: ContentType['fields'], records: readonly Page['fields'][]) =>
		proposeTemplate(
			tag,
			{ name: 't', fields, rules: [] },
			records.map((one, at) => page(`/${at}`, one, 't'))
		);
	const REGIONS = ['Ember', 'Merrow', 'Ember', 'Saltholm', 'Merrow'];

	test('takes up what most have and several share', () => {
		const found = propose(
			'title',
			[
				{ name: 'region', kind: 'text', label: 'Region' },
				{ name: 'code', kind: 'text' },
				{ name: 'seldom', kind: 'text' },
				{ name: 'hectares', kind: 'number' }
			],
			REGIONS.map((region, at) => ({
				title: `T${at}`,
				region,
				code: `c${at}`,
				hectares: at,
				...(at === 0 && { seldom: 'x' })
			}))
		);
		expect(found).toEqual({
			template: '{fit 60}{page.title}[[ – {page.region}]][[{goes 1}{separator}{site.name | unless page.title}]]',
			reasons: ['Region: on 5 of 5, short, shared by several']
		});
	});

	test('dates from one to another, prices in their currency, other pages by their title', () => {
		const fields: ContentType['fields'] = [
			{ name: 'starts', kind: 'date' },
			{ name: 'ends', kind: 'date' },
			{ name: 'price', kind: 'number' },
			{ name: 'currency', kind: 'text' },
			{ name: 'guide', kind: 'page' },
			{ name: 'species', kind: 'list' }
		];
		const records = [1, 2, 3, 4].map((at) => ({
			...{ starts: `2026-05-0${at}`, ends: `2026-05-1${at}`, price: at * 10, currency: 'EUR', guide: '/ada' },
			species: ['seal']
		}));
		expect(propose('title', fields, records)!.template).toBe(
			'{fit 60}{page.title}[[ – {page.guide.title}]][[ – {page.starts | to page.ends | date "medium"}]][[ – {page.price | money page.currency "short"}]][[{goes 1}{separator}{site.name | unless page.title}]]'
		);
		expect(propose('og:description', fields, records)!.template).toBe(
			'{fit 155}{page.summary ?? page.title | stop}[[ {page.guide.title}.]][[ {page.starts | to page.ends | date "long"}.]][[ {page.price | money page.currency "short"}.]]'
		);
	});

	test('every one is right, and nothing is proposed where nothing speaks for it', () => {
		const kinds = [
			'text',
			'date',
			'number',
			'choice',
			'page',
			'pages',
			'people',
			'list',
			'flag',
			'rich',
			'picture'
		] as const;
		const fields = kinds.map((kind) => ({ name: kind, kind }));
		const records = [1, 2, 3, 4, 5].map(() => ({
			...{ text: 'Ember', date: '2026-05-01', number: 3, choice: 'a', page: '/x', pages: ['/x'] },
			...{ people: [{ name: 'Ada Marrow' }], list: ['a', 'b'], flag: true, rich: '<p>x', picture: '/a.jpg' }
		}));
		for (const kind of fields)
			for (const tag of ['title', 'description']) {
				const found = propose(tag, [kind], records);
				if (!found) continue;
				expect(checkTemplate(found.template, { fields: [kind], tagNames: [] }), found.template).toEqual([]);
				expect(compileTemplate(found.template).fault).toBeUndefined();
			}
		expect(propose('title', [], records)).toBeUndefined();
		expect(propose('robots', fields, records)).toBeUndefined();
		expect(propose('title', fields, [])).toBeUndefined();
		expect(propose('title', fields, [{}, {}])).toBeUndefined();
	});
});
