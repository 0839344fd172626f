import { flushSync } from 'svelte';
import { expect, test, vi } from 'vitest';
import { mountIn, press } from './mounting';
import Toggles from './Toggles.svelte';

/** One of a few, by keys: something is always shown. */
test('the arrows go from one to the next, and Enter shows it; what is shown is not let go; an empty value is one', () => {
	const set = vi.fn();
	const { target, takeOut } = mountIn(
		Toggles as never,
		{
			...{ label: 'Languages', value: 'fr', set },
			choices: [
				['', 'English'],
				['fr', 'French'],
				['de', 'German']
			]
		} as never
	);
	const all = [...target.querySelectorAll('button')];
	expect(all.map((one) => [one.textContent, one.dataset.state, one.tabIndex])).toEqual([
		['English', 'off', 0],
		['French', 'on', -1],
		['German', 'off', -1]
	]);
	expect(target.firstElementChild!.getAttribute('aria-label')).toBe('Languages');
	all[1]!.click();
	flushSync();
	expect(set).not.toHaveBeenCalled();
	all[1]!.focus();
	press('ArrowLeft');
	expect(document.activeElement).toBe(all[0]);
	press('Enter');
	expect(set.mock.calls).toEqual([['']]);
	all[2]!.click();
	flushSync();
	expect(set).toHaveBeenLastCalledWith('de');
	takeOut();
});
