import { flushSync } from 'svelte';
import { afterEach, expect, test, vi } from 'vitest';
import type { BenchData } from './data';
import { watch } from '$ui/parts/watching.svelte';
import { WorkingPage } from './working.svelte';

const data: BenchData = {
	site: {
		...{ name: 'Marl', base: 'https://marl.example/', languages: ['en'], separator: '·', fields: {} },
		rules: [{ tag: 'title', kind: 'template', template: '{page.title} {separator} {site.name}' }]
	},
	types: [{ name: 'isle', fields: [], rules: [] }],
	page: { path: '/pier', type: 'isle', state: 'live', fields: { title: 'The pier' }, rules: [] },
	...{ pictures: [], released: null, versions: [] },
	count: { all: 3, live: 3, byType: { isle: 3 } }
};

afterEach(() => vi.unstubAllGlobals());

/** The page, and every title that its first card was drawn with. */
function drawn() {
	const working = new WorkingPage(
		() => data,
		() => []
	);
	const seen: string[] = [];
	const stop = watch(() => seen.push(working.cards[0]!.title.shown));
	flushSync();
	return { working, seen, stop };
}

test('what is rehearsed while nobody does anything is drawn for an instant, and all is as it was', () => {
	const turns: (() => void)[] = [];
	vi.stubGlobal('requestIdleCallback', (turn: () => void) => turns.push(turn));
	const { working, seen, stop } = drawn();
	expect(seen).toEqual(['The pier · Marl']);
	working.rehearse();
	expect(seen).toHaveLength(1);
	for (let turn = turns.shift(); turn; turn = turns.shift()) {
		turn();
		// Before the browser could paint.
		expect(seen.at(-1)).toBe('The pier · Marl');
		expect(working.cards[0]!.title.shown).toBe('The pier · Marl');
	}
	stop();
	expect(seen).toContain('The pier words');
	expect(seen.length).toBeGreaterThan(100);
});

test('where no browser tells of idle time, nothing is rehearsed', () => {
	vi.stubGlobal('requestIdleCallback', undefined);
	const { working, seen, stop } = drawn();
	working.rehearse();
	stop();
	expect(seen).toHaveLength(1);
});
