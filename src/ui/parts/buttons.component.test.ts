import { createRawSnippet, flushSync } from 'svelte';
import { afterEach, expect, test, vi } from 'vitest';
import Button from './Button.svelte';
import { button, over } from './looks';
import { mountIn } from './mounting';
import Refused from './Refused.svelte';
import Told from './Told.svelte';

afterEach(() => (document.body.innerHTML = ''));
const words = (text: string) => createRawSnippet(() => ({ render: () => `<span>${text}</span>` }));

test('a button is pressed, sends its form unless it says otherwise, and leads where it has an address', () => {
	const pressed = vi.fn();
	const { target } = mountIn(Button, { onclick: pressed, children: words('Keep') });
	const one = target.querySelector('button')!;
	expect([one.type, one.textContent, one.dataset.button]).toEqual(['submit', 'Keep', 'plain']);
	one.click();
	expect(pressed).toHaveBeenCalledTimes(1);
	const other = mountIn(Button, { type: 'button', disabled: true, onclick: pressed, children: words('Stop') }).target;
	other.querySelector('button')!.click();
	expect([pressed.mock.calls.length, other.querySelector('button')!.type]).toEqual([1, 'button']);
	const link = mountIn(Button, { href: '/sites', look: 'link', children: words('Sites') }).target.querySelector('a')!;
	expect([link.getAttribute('href'), link.hasAttribute('type'), link.dataset.button]).toEqual([
		'/sites',
		false,
		'link'
	]);
});

test('each look is another, and what is added to one stands beside it', () => {
	const looks = ['plain', 'small', 'main', 'link'] as const;
	expect(new Set(looks.map((look) => button({ look }))).size).toBe(looks.length);
	expect(button({})).toBe(button({ look: 'plain' }));
	for (const look of looks) {
		const { target } = mountIn(Button, { look, class: 'ml-auto', children: words('x') });
		const classes = target.querySelector('button')!.className;
		expect(classes).toContain('ml-auto');
		for (const one of button({ look }).split(' ')) expect(classes).toContain(one);
	}
	expect(new Set((['small', 'middle', 'wide'] as const).map((size) => over({ size }))).size).toBe(3);
});

test('what was refused is told at once, what was done when there is time', () => {
	const refused = mountIn(Refused, { children: words('It is no address.') }).target.firstElementChild!;
	expect([refused.getAttribute('role'), refused.textContent]).toEqual(['alert', 'It is no address.']);
	const told = mountIn(Told, { children: words('Kept.') }).target.firstElementChild!;
	expect([told.getAttribute('role'), told.textContent]).toEqual(['status', 'Kept.']);
	flushSync();
});
