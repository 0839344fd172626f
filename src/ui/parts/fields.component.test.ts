import { afterEach, expect, test } from 'vitest';
import { comeBackTo, leaveField } from './fields';

afterEach(() => (document.body.innerHTML = ''));

test('a field that is left takes what was typed; the one of its name has the focus when another page is in view', () => {
	document.body.innerHTML = '<label>Region <input></label><input aria-label="Habitat">';
	const taken: string[] = [];
	for (const [label, selector] of [
		['Region', 'label input'],
		['Habitat', '[aria-label]']
	] as const) {
		const field = document.querySelector<HTMLInputElement>(selector)!;
		field.addEventListener('blur', () => taken.push(label));
		field.focus();
		const name = leaveField();
		expect(taken.at(-1)).toBe(label);
		document.body.innerHTML = '<input aria-label="Habitat"><label>Region <input></label>';
		comeBackTo(name);
		expect(document.activeElement).toBe(document.querySelector(selector));
		document.body.innerHTML = '<label>Region <input></label><input aria-label="Habitat">';
	}
});

test('no field is none, and a focus that stands somewhere stays there', () => {
	document.body.innerHTML = '<button>One</button><input aria-label="Other">';
	const button = document.querySelector('button')!;
	button.focus();
	expect(leaveField()).toBeUndefined();
	comeBackTo('Other');
	expect(document.activeElement).toBe(button);
	button.blur();
	comeBackTo('Nowhere');
	expect(document.activeElement).toBe(document.body);
});
