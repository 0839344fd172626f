import { flushSync } from 'svelte';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Field, FieldValue } from '$core';
import { choose, mountIn, write } from '$ui/parts/mounting';
import FieldInputAlone from './FieldInputAlone.svelte';

/** One field of a page by its kind: what is written in it, and what comes of that. */
let [set, target, takeOut] = [[] as (FieldValue | undefined)[], document.body, () => {}] as [
	(FieldValue | undefined)[],
	HTMLElement,
	() => void
];
beforeEach(() => void (set = []));
afterEach(() => takeOut());
function show(field: Partial<Field>, value?: FieldValue, timeZone?: string) {
	const props = {
		field: { name: 'tide', kind: 'text', ...field } as Field,
		value,
		timeZone,
		set: (next: FieldValue | undefined) => set.push(next)
	};
	({ target, takeOut } = mountIn(FieldInputAlone, props));
}
const at = (selector: string) => target.querySelector<HTMLInputElement>(selector);
const alert = () => target.querySelector('[role=alert]')?.textContent;

test('a text is taken with every sign; empty, it is taken out', () => {
	show({ label: 'Tide' }, 'high');
	expect(at('label')?.textContent).toBe('Tide');
	write(at('input'), 'low');
	write(at('input'), '');
	expect(set).toEqual(['low', undefined]);
});

describe('a number', () => {
	test('with either mark for decimals', () => {
		show({ kind: 'number' }, 3);
		write(at('input'), '2,5');
		write(at('input'), '1 200.75');
		expect(set).toEqual([2.5, 1200.75]);
	});
	test('that is none is said, and changes nothing', () => {
		show({ kind: 'number' }, 3);
		write(at('input'), 'three');
		expect(set).toEqual([]);
		expect(alert()).toContain('“three” is no number');
		write(at('input'), '');
		expect([set, alert()]).toEqual([[undefined], undefined]);
	});
});

describe('yes and no', () => {
	test.each([
		['yes', true],
		['no', false],
		['', undefined]
	] as const)('%j', async (chosen, value) => {
		show({ kind: 'flag' }, chosen === '' ? true : undefined);
		await choose(target.querySelector('[data-select]'), chosen);
		expect(set).toEqual([value]);
	});
});

describe('a date', () => {
	test('by day and time, in the zone of the site', () => {
		show({ kind: 'date' }, '2026-05-03', 'Europe/Paris');
		expect(at('input[type=date]')?.value).toBe('2026-05-03');
		expect(target.textContent).toContain('Europe/Paris');
		write(at('input[type=time]'), '08:30');
		expect(set).toEqual(['2026-05-03T08:30']);
	});
	test('keeps its own offset', () => {
		show({ kind: 'date' }, '2026-05-03T08:30+02:00');
		expect(target.textContent).toContain('+02:00');
		write(at('input[type=date]'), '2026-06-01');
		expect(set).toEqual(['2026-06-01T08:30+02:00']);
	});
	test('that is none is shown as it is, with what to do', () => {
		show({ kind: 'date' }, 'next spring');
		expect(alert()).toContain('“next spring” is no date');
		expect(at('input')?.value).toBe('next spring');
	});
});

test('a list is one on a line', () => {
	show({ kind: 'list' }, ['marsh', 'tides']);
	expect(target.querySelector('textarea')!.value).toBe('marsh\ntides');
	write(target.querySelector('textarea'), 'marsh\n\n birds \n');
	expect(set).toEqual([['marsh', 'birds']]);
});

test('an address that is none is said', () => {
	show({ kind: 'link' });
	write(at('input'), 'javascript:alert(1)');
	expect(set).toEqual([]);
	expect(alert()).toBeTruthy();
	write(at('input'), ' https://marl.example/a ');
	expect(set).toEqual(['https://marl.example/a']);
});

test('a person by parts; the last one empty, nobody is named', () => {
	show({ kind: 'person' }, { name: 'Ada Marsh', handle: '@ada' });
	const [name, handle] = [...target.querySelectorAll('input')];
	write(handle!, '');
	write(name!, 'A. Marsh');
	expect(set).toEqual([{ name: 'Ada Marsh' }, { name: 'A. Marsh', handle: '@ada' }]);
	takeOut();
	set = [];
	show({ kind: 'person' }, 'Ada');
	write(target.querySelector('input'), '');
	expect(set).toEqual([undefined]);
});

describe('pictures', () => {
	const two = [{ src: '/a.jpg', alt: 'A' }, { src: '/b.jpg' }];
	const button = (name: string) => [...target.querySelectorAll('button')].find((one) => one.ariaLabel?.includes(name))!;
	test('are moved, taken out, added and described', () => {
		show({ kind: 'pictures', label: 'Views' }, two);
		button('2: further up').click();
		button('Remove picture 1').click();
		write(target.querySelectorAll('input')[3]!, 'The weir');
		write(at('form input'), '/c.jpg');
		target.querySelector('form')!.requestSubmit();
		flushSync();
		expect(set).toEqual([
			[{ src: '/b.jpg' }, { src: '/a.jpg', alt: 'A' }],
			[{ src: '/b.jpg' }],
			[
				{ src: '/a.jpg', alt: 'A' },
				{ src: '/b.jpg', alt: 'The weir' }
			],
			[...two, { src: '/c.jpg' }]
		]);
	});
	test('the last one taken out leaves nothing', () => {
		show({ kind: 'pictures' }, [{ src: '/a.jpg' }]);
		button('Remove picture 1').click();
		expect(set).toEqual([undefined]);
	});
});
