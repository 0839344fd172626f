import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import { Store } from '../store/store';
import { demoSite } from '../../../demo/content';
import { parseSiteFile, readSiteFile, saveSiteFile, writeSiteFile } from './siteFile';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-site-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const small = () => ({
	format: 'kephalon-site',
	version: 1,
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
		stores[1]!.setRule(stores[1]!.site(demo.site.name).id, { layer: 'site' }, 'keywords', undefined, {
			kind: 'leaveOut'
		});
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
		expect(store.countPages(store.site('S').id).all).toBe(1);
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
		]
	])('%s', (_name, change, told) => {
		expect(refusal(change)).toContain(told);
	});
	test('a newer version, no JSON, no file', () => {
		expect(refusal((data) => (data.version = 2))).toBe(
			'x.json is a site file of version 2; this Kephalon reads version 1. Update Kephalon.'
		);
		expect(() => parseSiteFile('{', 'x.json')).toThrow('x.json is not JSON');
		expect(() => readSiteFile(join(folder, 'none.json'))).toThrow('There is no file');
	});
});
