import { afterEach, expect, test } from 'vitest';
import { mountIn, write } from '$ui/parts/mounting';
import RobotsChoice from './RobotsChoice.svelte';

/** What robots are told, as choices. */
let [target, takeOut] = [document.body, () => {}] as [HTMLElement, () => void];
let set: string[] = [];
afterEach(() => {
	takeOut();
	set = [];
});
function show(text: string) {
	({ target, takeOut } = mountIn(RobotsChoice, { text, set: (next: string) => void set.push(next), label: 'robots' }));
}
const box = (name: string) =>
	[...target.querySelectorAll('label')].find((one) => one.textContent!.includes(name))!.querySelector('input')!;

test('each is ticked as it is said, and said as it is ticked', () => {
	show('noindex, max-snippet:50');
	expect([box('noindex').checked, box('nofollow').checked]).toEqual([true, false]);
	box('noindex').click();
	box('nofollow').click();
	expect(set).toEqual(['max-snippet:50', 'noindex, max-snippet:50, nofollow']);
});

test('one that takes a choice begins with the most, and one that asks takes what is written', () => {
	show('max-snippet:50');
	box('max-image-preview').click();
	write(target.querySelector('input[aria-label^=max-snippet]'), ' 120 ');
	expect(set).toEqual(['max-snippet:50, max-image-preview:large', 'max-snippet:120']);
});

test('nothing said, it is closed and asks for it', () => {
	show('');
	const line = () => target.querySelector('[data-disclosure] > button')!;
	expect([line().getAttribute('aria-expanded'), line().textContent.trim()]).toEqual([
		'false',
		'▶Say what robots may do'
	]);
	takeOut();
	show('noindex');
	expect([line().getAttribute('aria-expanded'), line().textContent.trim()]).toEqual(['true', '▶noindex']);
});
