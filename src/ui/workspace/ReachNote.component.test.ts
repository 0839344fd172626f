import { flushSync } from 'svelte';
import { afterEach, describe, expect, test, vi } from 'vitest';
import type { Reach } from '$core';
import { mountIn } from '$ui/parts/mounting';
import { Draft } from './drafts.svelte';
import ReachNote from './ReachNote.svelte';

/** What is told of an edit before it is kept. */
const edit = {
	place: { layer: 'type', name: 'isle' },
	tag: 'title',
	body: { kind: 'template', template: 'x' }
} as const;
const none: Reach = {
	...{ under: 5, changed: 3, better: 0, worse: 0, leaving: 0, entering: 0, sayThemselves: 0, worst: [] }
};
let [target, takeOut] = [document.body, () => {}] as [HTMLElement, () => void];
afterEach(() => takeOut());
const does = {
	keep: vi.fn(),
	discard: vi.fn(),
	stop: vi.fn(),
	overrule: vi.fn(),
	letWin: vi.fn(),
	addressOf: (path: string) => `/bench?page=${path}`
};
function show(change: Partial<Draft>, of: Draft['edit'] = edit) {
	const draft = Object.assign(new Draft({ edit: of, text: 'x', base: null }), change);
	({ target, takeOut } = mountIn(ReachNote, { draft, ...does }));
	return draft;
}
const says = () => target.textContent!.replace(/\s+/g, ' ').trim();
const press = (name: string) =>
	[...target.querySelectorAll('button')].find((one) => one.textContent!.trim().startsWith(name))!.click();

describe('how far it reaches', () => {
	test('while it is counted, and as it goes on', () => {
		const draft = show({ reach: { seen: 0, all: 9000 } });
		expect(says()).toContain('Counting the pages it reaches …');
		draft.reach = { seen: 4500, all: 9000 };
		flushSync();
		expect(says()).toContain('4,500 seen');
		press('Stop counting');
		expect(does.stop).toHaveBeenCalledOnce();
	});
	test('stopped, and never known', () => {
		show({ reach: 'stopped' });
		expect(says()).toContain('Counting was stopped');
		takeOut();
		show({ reach: undefined });
		expect(says()).toContain('could not be counted');
	});
	test('counted: numbers agree with their nouns', () => {
		show({ reach: { ...none, changed: 1, under: 2, worse: 1, leaving: 1, entering: 2 } });
		expect(says()).toContain(
			'1 page would change, 1 page under it would not; 1 for the worse; 1 page would leave the site; 2 pages would come to it.'
		);
		takeOut();
		show({ reach: { ...none, under: 3 } });
		expect(says()).toContain('3 pages would change.');
	});
	test('pages that say it themselves, and letting the template win', () => {
		show({ reach: { ...none, sayThemselves: 2 } });
		expect(says()).toContain('2 pages say it in their own file, and keep that.');
		press('Let the template win');
		expect(does.letWin).toHaveBeenCalledOnce();
	});
	test('the hardest hit, with why', () => {
		const gained = { code: 'no-title', weight: 6, target: { of: 'page', path: '/a' }, tag: 'title', data: {} } as const;
		const worst = ['/a', '/b', '/c', '/d'].map((path) => ({
			...{ path, tag: 'title', before: 'Before', after: '', verdict: 'worse' },
			...{ gained: path === '/a' ? [gained] : [], lost: [], kept: [] }
		}));
		show({ reach: { ...none, worst } as unknown as Reach });
		const items = [...target.querySelectorAll('li')].map((one) => one.textContent!.replace(/\s+/g, ' ').trim());
		expect(items).toEqual(['Before nothing now: it has no title /a', 'Before nothing /b', 'Before nothing /c']);
		expect(target.querySelector('li a')!.getAttribute('href')).toBe('/bench?page=/a');
	});
});

test('what was changed elsewhere stands in the place of it all, with both ways out', () => {
	show({ conflict: { current: { kind: 'template', template: 'theirs' } } });
	expect(says()).toContain('it says “theirs” now. Yours is still here.');
	press('Keep mine instead');
	press('Take theirs');
	expect([does.overrule.mock.calls.length, does.discard.mock.calls.length]).toEqual([1, 1]);
	takeOut();
	show({ conflict: { current: null } });
	expect(says()).toContain('nothing is set there any more');
});

test('a refusal is said; what touches one page is kept by itself', () => {
	show({ reach: none, refused: 'The page is gone.' });
	expect(target.querySelector('[role=alert]')!.textContent).toBe('The page is gone.');
	takeOut();
	show({ reach: none }, { ...edit, place: { layer: 'page', path: '/a' } });
	expect(says()).toContain('kept by itself in a moment');
	press('Keep');
	expect(does.keep).toHaveBeenCalledOnce();
});
