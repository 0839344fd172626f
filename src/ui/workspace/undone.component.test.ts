import { afterEach, expect, test, vi } from 'vitest';
import { Bench } from './bench.svelte';

/** What was taken back is said where it stands: the tag and the layer are the ones in view then. */
afterEach(() => void vi.restoreAllMocks());

const data = {
	site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
	types: [{ name: 'walk', fields: [], rules: [] }],
	page: { path: '/a', type: 'walk', state: 'live' as const, fields: { title: 'A' }, rules: [] },
	...{ pictures: [], released: null, versions: [], count: { all: 1, live: 1, byType: { walk: 1 } } }
};
const rule = (place: object, tag = 'og:title') => ({ kind: 'rule', what: { place, tag, before: null, after: null } });
async function undo(of: object, which: 'undo' | 'redo' = 'undo') {
	vi.spyOn(globalThis, 'fetch').mockImplementation(
		async () => new Response(`${JSON.stringify({ revision: 2, taken: 1, of })}\n`)
	);
	const bench = new Bench('S', data);
	await bench.history[which]();
	return bench;
}

test.each([
	[{ layer: 'page', path: '/a' }, 'page'],
	[{ layer: 'type', name: 'walk' }, 'type'],
	[{ layer: 'site' }, 'site']
])('a rule at %j is in view', async (place, layer) => {
	const bench = await undo(rule(place));
	expect([bench.tag, bench.undoneAt, bench.undone?.isAgain]).toEqual(['og:title', { layer, tag: 'og:title' }, false]);
	bench.write('page', 'x');
	expect(bench.undone).toBeUndefined();
});
test.each([
	rule({ layer: 'page', path: '/b' }),
	rule({ layer: 'type', name: 'other' }),
	{ kind: 'settings', what: { place: { layer: 'site' } } },
	{ kind: 'batch', what: null }
])('what stands elsewhere is said, and nothing else is chosen: %j', async (of) => {
	const bench = await undo(of, 'redo');
	expect([bench.tag, bench.undoneAt, bench.undone]).toEqual(['title', undefined, { ...of, isAgain: true }]);
});
test('one that is refused undid nothing', async () => {
	vi.spyOn(globalThis, 'fetch').mockImplementation(
		async () => new Response('{"detail":"There is nothing."}', { status: 422 })
	);
	const bench = new Bench('S', data);
	await bench.history.undo();
	expect([bench.undone, bench.message]).toEqual([undefined, 'There is nothing.']);
});
