import { expect, test } from 'vitest';
import { brokenPins, joinReaches, measureReach, pinsOf, Resolver, type Edit, type Page, type Site } from '../index';

const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
	rules: [{ tag: 'title', kind: 'template', template: '{page.title} {separator} {site.name}' }]
};
const model = { site, types: [{ name: 't', fields: [], rules: [] }], pictures: [] };
const NOW = '2026-05-01T10:00:00Z';
const page = (path: string, more: Partial<Page> = {}): Page => ({
	...{ path, type: 't', state: 'live', fields: { title: `Page ${path}` }, rules: [] },
	...more
});
const headOf = (one: Page) => new Resolver(model, NOW).resolveHead(one);

test('a page keeps what it came to; what it no longer says is told, tag by tag', () => {
	const pinned = { ...page('/a'), pinned: pinsOf(headOf(page('/a'))) };
	expect(pinned.pinned).toEqual({
		...{ title: 'Page /a · S', description: '', 'og:title': 'Page /a · S', 'og:description': '', 'og:image': '' }
	});
	expect(brokenPins(pinned, headOf(pinned))).toEqual([]);
	expect(brokenPins(page('/b'), headOf(page('/b')))).toEqual([]);
	const changed = { ...pinned, fields: { title: 'Other', summary: 'Now there is something to say of it.' } };
	expect(brokenPins(changed, headOf(changed)).map(({ code, tag }) => `${code} ${tag}`)).toEqual([
		...['pin-broken title', 'pin-broken description', 'pin-broken og:title', 'pin-broken og:description']
	]);
});

test('the reach of an edit says how many pinned pages it breaks, and shows them first', () => {
	const pages = ['/a', '/b', '/c'].map((path) => page(path));
	const pinned = [
		{ ...pages[0]!, pinned: { title: 'Page /a · S' } },
		pages[1]!,
		{ ...pages[2]!, pinned: { title: 'broken already' } }
	];
	const edit: Edit = {
		place: { layer: 'site' },
		tag: 'title',
		body: { kind: 'template', template: '{page.title} at {site.name}' }
	};
	const reach = measureReach(model, pinned, edit, NOW);
	expect(reach).toMatchObject({ changed: 3, worse: 1, pinned: 1 });
	expect(reach.worst[0]).toMatchObject({ path: '/a', verdict: 'worse', gained: [{ code: 'pin-broken' }] });
	expect(joinReaches([reach, reach]).pinned).toBe(2);
	// One pin that holds again does not make up for another that breaks.
	const two = [page('/d', { pinned: { title: 'Page /d at S', 'og:title': 'Page /d · S' } })];
	expect(measureReach(model, two, edit, NOW)).toMatchObject({ changed: 1, pinned: 1 });
	const same: Edit = { ...edit, body: { kind: 'template', template: '{page.title}[[{separator}{site.name}]]' } };
	expect(measureReach(model, pinned, same, NOW)).not.toHaveProperty('pinned');
	expect(joinReaches([])).not.toHaveProperty('pinned');
});
