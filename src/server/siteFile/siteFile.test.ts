import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from 'vitest';
import { STARTING_LAYOUTS } from '$core';
import { Store } from '../store/store';
import { demoSite } from '../../../demo/content';
import { parseSiteFile, readSiteFile, saveSiteFile, writeSiteFile } from './siteFile';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-site-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const small = () => ({
	format: 'kephalon-site',
	version: 2,
	site: {
		name: 'S',
		base: 'https://s.example/',
		languages: ['en'],
		separator: '·',
		fields: {},
		rules: [] as unknown[]
	},
	types: [{ name: 't', fields: [] as unknown[], rules: [] as unknown[] }],
	pages: [{ path: '/', type: 't', state: 'live', fields: {}, rules: [] as unknown[] }]
});
const refusal = (change: (data: ReturnType<typeof small>) => void) => {
	const data = small();
	change(data);
	try {
		parseSiteFile(JSON.stringify(data), 'x.json');
		return 'nothing';
	} catch (error) {
		return (
			(error as Error).message
				.split('\n')
				.map((line) => line.trim())
				.slice(1)
				.join(' ') || (error as Error).message
		);
	}
};

describe('export, import, export', () => {
	test('gives the same bytes', () => {
		const stores = ['a', 'b'].map((name) => new Store(join(folder, `${name}.db`)));
		const demo = demoSite([
			{ src: '/z.jpg', width: 2, height: 1 },
			{ src: '/a.jpg', focus: [0.5, 0.25] }
		]);
		saveSiteFile(stores[0]!, demo);
		const first = [...writeSiteFile(stores[0]!, demo.site.name)].join('');
		saveSiteFile(stores[1]!, parseSiteFile(first, 'a'));
		expect([...writeSiteFile(stores[1]!, demo.site.name)].join('')).toBe(first);
		// And into a database that has an older state of it.
		stores[1]!.working.rules.set(
			stores[1]!.working.sites.named(demo.site.name).id,
			{ layer: 'site' },
			'keywords',
			undefined,
			{
				kind: 'leaveOut'
			}
		);
		saveSiteFile(stores[1]!, parseSiteFile(first, 'a'));
		expect([...writeSiteFile(stores[1]!, demo.site.name)].join('')).toBe(first);
		for (const store of stores) store.close();
	});
	test('pages that a file no longer names go', () => {
		const store = new Store(join(folder, 'c.db'));
		const data = small();
		data.pages.push({ ...data.pages[0]!, path: '/two' });
		saveSiteFile(store, parseSiteFile(JSON.stringify(data), 'x'));
		saveSiteFile(store, parseSiteFile(JSON.stringify(small()), 'x'));
		expect(store.working.pages.count(store.working.sites.named('S').id).all).toBe(1);
		store.close();
	});
});

describe('a file that cannot be read is told with the place', () => {
	test.each<[string, (data: ReturnType<typeof small>) => void, string]>([
		['a missing name', (data) => delete (data.site as { name?: string }).name, '/site: "name" is missing.'],
		[
			'a wrong base',
			(data) => (data.site.base = 'site.example'),
			'/site/base: "site.example" must match pattern "^https?://[^\\s]+$".'
		],
		[
			'a misspelt key',
			(data) => Object.assign(data.site, { langauges: [] }),
			'/site: "langauges" is not known here. Did you mean "languages"?'
		],
		[
			'a state that is none',
			(data) => (data.pages[0]!.state = 'lvie'),
			'/pages/0/state: "lvie" is not one of "live", "draft", "private". Did you mean "live"?'
		],
		['a path without its slash', (data) => (data.pages[0]!.path = 'x'), '/pages/0/path: "x" must match pattern "^/".'],
		[
			'a rule without its template',
			(data) => data.types[0]!.rules.push({ tag: 'title', kind: 'template' }),
			'/types/0/rules/0: "template" is missing.'
		],
		[
			'a rule of no kind',
			(data) => data.site.rules.push({ tag: 'title', kind: 'templat', template: 'x' }),
			'/site/rules/0/kind: "templat" is not one of "template", "borrow", "leaveOut", "pictures". Did you mean "template"?'
		],
		['a type twice', (data) => data.types.push(data.types[0]!), '/types: the type "t" stands twice.'],
		[
			'a type that is not declared',
			(data) => (data.pages[0]!.type = 'tt'),
			'/pages/0/type: the type "tt" is not declared. Did you mean "t"?'
		],
		[
			'a rule twice',
			(data) => data.site.rules.push({ tag: 'title', kind: 'leaveOut' }, { tag: 'title', kind: 'leaveOut' }),
			'/site/rules: the rule for "title" stands twice.'
		],
		[
			'a language twice',
			(data) =>
				data.site.rules.push(
					{ tag: 'title', language: 'fr-ca', kind: 'leaveOut' },
					{ tag: 'title', language: 'fr-CA', kind: 'leaveOut' }
				),
			'/site/rules: the rule for "title (fr-ca)" stands twice.'
		],
		[
			'an alternate of no language',
			(data) => Object.assign(data.pages[0]!, { alternates: { 'not a tag': '/x' } }),
			'/pages/0/alternates'
		]
	])('%s', (_name, change, told) => {
		expect(refusal(change)).toContain(told);
	});
	test('a newer version, no JSON, no file', () => {
		expect(refusal((data) => (data.version = 3))).toBe(
			'x.json is a site file of version 3; this Kephalon reads up to version 2. Update Kephalon.'
		);
		expect(() => parseSiteFile('{', 'x.json')).toThrow('x.json is not JSON');
		expect(() => readSiteFile(join(folder, 'none.json'))).toThrow('There is no file');
	});
});

describe('a file of version 1', () => {
	test('has its separator written in full, and what was found is not taken', () => {
		const data = {
			...small(),
			version: 1,
			types: [
				{
					name: 't',
					fields: [],
					rules: [],
					layout: {
						...STARTING_LAYOUTS[0]!.layout,
						title: { ...STARTING_LAYOUTS[0]!.layout.title, template: 'A {sep} B' }
					}
				}
			],
			pages: [{ ...small().pages[0]!, found: [{ name: 'description', value: 'x' }] }]
		};
		data.site.rules.push({
			tag: 'title',
			kind: 'template',
			template: '{page.title} { sep } \\{sep} {"{sep}" ?? page.x} {sepia}'
		});
		const { version, site, types } = parseSiteFile(JSON.stringify(data), 'x.json');
		expect(version).toBe(2);
		expect(site.rules[0]).toMatchObject({ template: '{page.title} { separator } \\{sep} {"{sep}" ?? page.x} {sepia}' });
		expect(types[0]!.layout!.title!.template).toBe('A {separator} B');
		expect(site.foundPolicy).toEqual({ all: 'never' });
	});
	test('without found values says nothing of them', () => {
		expect(parseSiteFile(JSON.stringify({ ...small(), version: 1 }), 'x.json').site.foundPolicy).toBeUndefined();
	});
});

test('which found values are a frame’s is counted among the pages, at its edge', () => {
	const pages = (all: number, same: number) =>
		Array.from({ length: all }, (_, at) => ({
			...small().pages[0]!,
			path: `/${at}`,
			found: [{ name: 'Description', value: at < same ? ' Same  words' : `Own ${at}` }]
		}));
	const framesOf = (all: number, same: number) =>
		parseSiteFile(JSON.stringify({ ...small(), pages: pages(all, same) }), 'x.json').site.frames;
	expect(framesOf(20, 4)).toEqual([{ tag: 'description', language: 'en', value: 'Same words', pages: 4 }]);
	expect(framesOf(21, 4)).toEqual([]);
	expect(framesOf(3, 3)).toEqual([]);
	expect(framesOf(25, 5)).toHaveLength(1);
});

test('every vector can be written as a site file', () => {
	const folder = fileURLToPath(new URL('../../../conformance/', import.meta.url));
	const refused: string[] = [];
	let seen = 0;
	for (const file of readdirSync(folder).filter((name) => name.endsWith('.json'))) {
		const group = JSON.parse(readFileSync(folder + file, 'utf8'));
		for (const vector of group.vectors) {
			seen++;
			const data = {
				...{ format: 'kephalon-site', version: 2 },
				site: { ...group.site, ...vector.site, rules: longRules(vector.site?.rules) },
				types: (vector.types ?? [{ name: 't', fields: [] }]).map((type: { rules?: [] }) => ({
					...type,
					rules: longRules(type.rules)
				})),
				pages: [
					{ path: '/p', type: 't', state: 'live', fields: {}, ...vector.page, rules: longRules(vector.page.rules) }
				],
				pictures: vector.pictures ?? []
			};
			try {
				parseSiteFile(JSON.stringify(data), file);
			} catch (error) {
				refused.push(`${file}: ${vector.name}: ${(error as Error).message.split('\n')[1]}`);
			}
		}
	}
	expect(seen).toBeGreaterThan(400);
	// These are about what no file may hold.
	expect(refused.map((one) => one.split(': ')[1])).toEqual([
		'facts that cannot be carried are left out',
		'a page of a type that nobody declared',
		'a base that is no web address'
	]);
});

type ShortRule = [tag: string, body: string | Record<string, unknown>, language?: string];
const longRules = (rules: ShortRule[] = []) =>
	rules.map(([tag, body, language]) => ({ tag, ...(language && { language }), ...longBody(body) }));
function longBody(body: ShortRule[1]) {
	if (typeof body === 'string') return { kind: 'template', template: body };
	const { borrow, pictures, leaveOut, ...more } = body;
	if (leaveOut) return { kind: 'leaveOut' };
	return borrow ? { kind: 'borrow', from: borrow, ...more } : { kind: 'pictures', sources: pictures, ...more };
}
