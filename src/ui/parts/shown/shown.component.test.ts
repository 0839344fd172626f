import { createRawSnippet, flushSync } from 'svelte';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { mountIn } from '../mounting';
import Disclosure from './Disclosure.svelte';
import { keepFocus, takeFocus } from './focus';
import { landmarkOf } from './landmark';
import Leaf from './Leaf.svelte';
import { tipOfFocused, tipUnder } from './tips';
import Tips from './Tips.svelte';

afterEach(() => (document.body.innerHTML = ''));
const field = createRawSnippet(() => ({ render: () => '<input aria-label="Name">' }));
const tip = () => document.querySelector('[role=tooltip]');
const placed = (html: string) => {
	const place = document.createElement('div');
	place.innerHTML = html;
	document.body.append(place);
	return place;
};
/** Says of an element that its text is wider than it is. */
const cut = (one: Element) => Object.defineProperty(one, 'scrollWidth', { value: 200 });

test('what is behind a line opens and closes by it, and keeps what was typed', () => {
	const { target } = mountIn(Disclosure, { label: 'Pieces', children: field });
	const [button, input] = [target.querySelector('button')!, target.querySelector('input')!];
	const isShown = () => !input.closest('[hidden]');
	expect([button.textContent.trim(), button.ariaExpanded ?? button.getAttribute('aria-expanded'), isShown()]).toEqual([
		'▶Pieces',
		'false',
		false
	]);
	button.click();
	flushSync();
	expect([button.getAttribute('aria-expanded'), isShown()]).toEqual(['true', true]);
	input.value = 'half a word';
	button.click();
	flushSync();
	button.click();
	flushSync();
	expect(target.querySelector('input')!.value).toBe('half a word');
});

test('a leaf opens over the room and closes by Escape', async () => {
	mountIn(Leaf, { label: 'Columns', children: field });
	expect(document.querySelector('[data-testid=leaf]')).toBeNull();
	document.querySelector('button')!.click();
	flushSync();
	await vi.waitFor(() => expect(document.querySelector('[data-testid=leaf] input')).not.toBeNull(), 60_000);
	document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
	await vi.waitFor(() => expect(document.querySelector('[data-testid=leaf]')).toBeNull());
});

test('a sign says its words, a cut text itself; what is whole says nothing', () => {
	const place = placed(
		'<button><i data-tip="The site">•</i><b class="truncate">A long name</b></button><a href="/">Whole</a><table tabindex="0"><td data-tip="Cell">x</td></table>'
	);
	const [sign, text, button] = [place.querySelector('i')!, place.querySelector('b')!, place.querySelector('button')!];
	expect(tipUnder(sign)).toEqual({ at: sign, says: 'The site' });
	expect(tipUnder(text)).toBeUndefined();
	cut(text);
	expect(tipUnder(text)).toEqual({ at: text, says: 'A long name' });
	expect(tipUnder(null)).toBeUndefined();
	expect(tipOfFocused(button)).toEqual({ at: sign, says: 'The site' });
	sign.remove();
	expect(tipOfFocused(button)?.says).toBe('A long name');
	expect(tipOfFocused(place.querySelector('a'))).toBeUndefined();
	expect(tipOfFocused(place.querySelector('table'))).toBeUndefined();
});

test('it is shown where a pointer rests, describes what it stands beside, and goes by Escape', async () => {
	const place = placed('<button data-tip="Keeps it (Ctrl+S)" aria-describedby="other">Keep</button>');
	const button = place.querySelector('button')!;
	mountIn(Tips, {});
	button.dispatchEvent(new PointerEvent('pointerover', { bubbles: true }));
	await vi.waitFor(() => expect(tip()?.textContent.trim()).toBe('Keeps it (Ctrl+S)'), 60_000);
	await vi.waitFor(() => expect(button.getAttribute('aria-describedby')).toBe(`other ${tip()!.id}`));
	document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
	await vi.waitFor(() => expect(tip()).toBeNull());
	expect(button.getAttribute('aria-describedby')).toBe('other');
});

test('a finger that rests shows it, one that taps does not', async () => {
	const button = placed('<button data-tip="Words">•</button>').querySelector('button')!;
	mountIn(Tips, {});
	const touch = (type: string) => button.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerType: 'touch' }));
	vi.useFakeTimers();
	touch('pointerdown');
	touch('pointerup');
	vi.advanceTimersByTime(1000);
	vi.useRealTimers();
	await new Promise((done) => setTimeout(done, 50));
	expect(tip()).toBeNull();
	touch('pointerdown');
	await vi.waitFor(() => expect(tip()?.textContent.trim()).toBe('Words'), 60_000);
	button.dispatchEvent(new PointerEvent('pointercancel', { bubbles: true }));
	await vi.waitFor(() => expect(tip()).toBeNull());
});

test('what opens over the room stands in the landmark of its opener; over a dialog, at the end', () => {
	const place = placed('<main><b></b><div role="dialog"><i></i></div></main><p></p>');
	const at = (selector: string) => landmarkOf(place.querySelector(selector));
	expect([at('b'), at('i'), at('p'), landmarkOf(null)]).toEqual([place.querySelector('main'), 'body', 'body', 'body']);
});

describe('the focus', () => {
	const focused = () => document.activeElement?.id;

	test('goes on to what comes in place of what had it, once no dialog is open', async () => {
		const place = placed('<button id="first"></button>');
		place.querySelector('button')!.focus();
		const dialog = document.createElement('div');
		dialog.setAttribute('role', 'dialog');
		place.replaceChildren(dialog);
		void keepFocus('#second');
		const second = document.createElement('button');
		second.id = 'second';
		place.append(second);
		await new Promise((done) => setTimeout(done, 100));
		expect(focused()).not.toBe('second');
		dialog.remove();
		await vi.waitFor(() => expect(focused()).toBe('second'));
	});

	test('stays where it is while that is there; the last call counts', async () => {
		const place = placed('<button id="first"></button><button id="second"></button><button id="third"></button>');
		place.querySelector('button')!.focus();
		await keepFocus('#second');
		expect(focused()).toBe('first');
		document.querySelector('#first')!.remove();
		void keepFocus('#second');
		await keepFocus('#third');
		expect(focused()).toBe('third');
	});

	test('is taken from wherever it is where somebody asked for that', async () => {
		const place = placed('<button id="first"></button><button id="second"></button>');
		place.querySelector('button')!.focus();
		await takeFocus('#second');
		expect(focused()).toBe('second');
	});

	test('goes to another place where the first is not there', async () => {
		placed('<button id="second"></button>');
		await keepFocus('#first', '#second');
		expect(focused()).toBe('second');
	});

	test('what never comes is not waited for for ever', async () => {
		placed('');
		await keepFocus('#nowhere');
		expect(focused()).toBe('');
	});
});
