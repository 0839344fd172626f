import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import type { Page, Picture, Rule, Site } from '$core';
import { JOBS } from '../jobs/jobs';
import { countUses } from '../heads/uses';
import { Store } from '../store/store';
import { manifestOf } from './manifest';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-'));
afterAll(() => rmSync(folder, { recursive: true }));
const HASH = 'c'.repeat(24);
const square: Picture = {
	...{ src: '/icon.png', width: 512, height: 512, type: 'image/png' },
	kept: { file: `${HASH}.png`, width: 512, height: 512 }
};
let made = 0;
let store: Store;
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	return () => store.close();
});

function siteWith(more: Partial<Site>, pictures: readonly Picture[] = [square]) {
	const id = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['fr'], separator: '·', fields: {}, rules: [] },
		...more
	});
	store.pictures.save(id, pictures, true);
	return store.working.sites.named('S');
}
const colour = (template: string): Rule => ({ tag: 'theme-color', kind: 'template', template });

describe('the manifest of a site', () => {
	test.each([['/icon.png'], [{ src: '/icon.png' }]])('names the sizes made of its icon %j', (icon) => {
		const told = manifestOf(store, siteWith({ fields: { icon } }))!;
		expect(told.files).toEqual(['192', '512', '512-safe'].map((size) => `${HASH}-icon-${size}.png`));
		const {
			name,
			lang,
			icons,
			theme_color: theme
		} = JSON.parse(typeof told.content === 'string' ? told.content : JSON.stringify(told.content)) as Record<
			string,
			unknown
		>;
		expect([name, lang, theme]).toEqual(['S', 'fr', undefined]);
		expect(icons).toHaveLength(3);
	});
	test('has the colour of the site’s rule, where that is one', () => {
		const colourOf = (...rules: Rule[]) =>
			/"theme_color": ?"([^"]*)"/.exec(
				JSON.stringify(manifestOf(store, siteWith({ fields: { icon: '/icon.png' }, rules }))!.content).replaceAll(
					'\\"',
					'"'
				)
			)?.[1];
		expect(colourOf(colour('#0a5'))).toBe('#0a5');
		expect(colourOf(colour('#00aa55'))).toBe('#00aa55');
		expect(colourOf(colour('{site.colour}'))).toBeUndefined();
		expect(colourOf(colour('x#0a5'))).toBeUndefined();
		expect(colourOf({ tag: 'theme-color', kind: 'leaveOut' })).toBeUndefined();
		expect(colourOf({ tag: 'title', kind: 'template', template: '#0a5' })).toBeUndefined();
	});
	test('is not there without an icon, or with one that is not square or not held', () => {
		expect(manifestOf(store, siteWith({}))).toBeUndefined();
		expect(manifestOf(store, siteWith({ fields: { icon: '/other.png' } }))).toBeUndefined();
		expect(manifestOf(store, siteWith({ fields: { icon: ['/icon.png'] } }))).toBeUndefined();
		const wide = { ...square, kept: { ...square.kept!, height: 300 } };
		expect(manifestOf(store, siteWith({ fields: { icon: '/icon.png' } }, [wide]))).toBeUndefined();
	});
});

test('where pictures are used: on cards, and named by fields', () => {
	const { id } = siteWith({}, [square, { src: '/a.jpg', width: 1200, height: 630 }]);
	store.working.types.ensure(id, 'page');
	const page = (path: string, fields: Page['fields']): Page => ({
		path,
		type: 'page',
		state: 'live',
		fields,
		rules: []
	});
	for (let at = 0; at < 8; at++) store.working.pages.save(id, page(`/${at}`, { title: 'T', picture: '/a.jpg' }));
	store.working.pages.save(id, page('/named', { title: 'T', logo: '/icon.png' }));
	JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
	const uses = countUses(store, id);
	expect(uses['/a.jpg']).toEqual({
		...{ shown: 8, shownOn: ['/0', '/1', '/2', '/3', '/4', '/5'] },
		...{ named: 8, namedOn: ['/0', '/1', '/2', '/3', '/4', '/5'] }
	});
	expect(uses['/icon.png'] ?? { shown: 0 }).toMatchObject({ shown: 0 });
});
