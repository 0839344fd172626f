import { afterEach, expect, test, vi } from 'vitest';
import { comes, mountIn, press, write } from '../mounting';
import { foundIn, nextBy, SEARCHED_ABOVE, valueOf, wordsFor, wordsOf, type Choice } from './choices';
import Select from './Select.svelte';

const mounted: { takeOut: () => void }[] = [];
const mountSelect = (props: Parameters<typeof Select>[1]) => void mounted.push(mountIn(Select, { ...props }));
afterEach(async () => {
	for (const one of mounted.splice(0)) one.takeOut();
	await vi.waitFor(() => expect(document.querySelector('[data-select]')).toBeNull());
	document.body.innerHTML = '';
});

const COLOURS: Choice[] = [['', 'No colour'], 'red', ['blue', 'Blue as the sea']];
const MANY: Choice[] = Array.from({ length: SEARCHED_ABOVE + 1 }, (_, at) => [`v${at}`, `Number ${at}`] as const);
const trigger = () => document.querySelector<HTMLElement>('[data-select]')!;
const choice = (value: string) => document.querySelector<HTMLElement>(`[data-choice="${value}"]`);
test('a choice is a value that says itself or one with words; one that is none of them says itself', () => {
	expect(COLOURS.map(valueOf)).toEqual(['', 'red', 'blue']);
	expect(COLOURS.map(wordsOf)).toEqual(['No colour', 'red', 'Blue as the sea']);
	expect([wordsFor(COLOURS, 'blue'), wordsFor(COLOURS, ''), wordsFor(COLOURS, 'green')]).toEqual([
		'Blue as the sea',
		'No colour',
		'green'
	]);
	expect([foundIn(COLOURS, 'SEA bl'), foundIn(COLOURS, ''), foundIn(COLOURS, 'sky')]).toEqual([[2], [0, 1, 2], []]);
});

test('it says what is chosen before its list is there, opens by a key, and takes what one goes to', async () => {
	const set = vi.fn();
	mountSelect({ value: '', choices: COLOURS, set, 'aria-label': 'Colour' });
	expect([trigger().textContent.trim(), trigger().getAttribute('role'), trigger().ariaLabel]).toEqual([
		'No colour▾',
		'combobox',
		'Colour'
	]);
	press('ArrowDown', trigger());
	await comes(() => choice('blue'));
	expect([...document.querySelectorAll('[role=option]')].map((one) => one.textContent.trim())).toEqual([
		'✓No colour',
		'red',
		'Blue as the sea'
	]);
	// It took the focus over from what stood there.
	expect(document.activeElement).toBe(trigger());
	press('ArrowDown');
	press('ArrowDown');
	press('Enter');
	expect(set.mock.calls).toEqual([['blue']]);
	await vi.waitFor(() => expect(choice('blue')).toBeNull());
});

test('Escape leaves it as it was; the value of nothing can be chosen, too', async () => {
	const set = vi.fn();
	mountSelect({ value: 'red', choices: COLOURS, set });
	press('Enter', trigger());
	await comes(() => choice('red'));
	press('Escape');
	await vi.waitFor(() => expect(choice('red')).toBeNull());
	expect(set).not.toHaveBeenCalled();
	press('Enter');
	await comes(() => choice(''));
	press('ArrowUp');
	press('Enter');
	expect(set.mock.calls).toEqual([['']]);
});

test('a finger that scrolls past opens nothing; one that taps does', async () => {
	mountSelect({ value: 'red', choices: COLOURS, set: vi.fn() });
	const touch = (type: string) =>
		trigger().dispatchEvent(new PointerEvent(type, { pointerType: 'touch', bubbles: true, cancelable: true }));
	touch('pointerdown');
	touch('pointercancel');
	await new Promise((done) => setTimeout(done, 100));
	expect([trigger().getAttribute('aria-expanded'), choice('red')]).toEqual(['false', null]);
	touch('pointerdown');
	touch('pointerup');
	touch('click');
	await comes(() => choice('red'));
});

test('one that is switched off does not open', async () => {
	mountSelect({ value: 'red', choices: COLOURS, set: vi.fn(), disabled: true });
	expect(trigger().hasAttribute('disabled')).toBe(true);
});

test('many are searched: what is typed leaves those that have it, Enter takes the first', async () => {
	const set = vi.fn();
	mountSelect({ value: 'v3', choices: MANY, set });
	expect(trigger().textContent.trim()).toBe('Number 3▾');
	press('ArrowDown', trigger());
	await comes(() => choice('v3'));
	const field = document.querySelector('input')!;
	expect(field.placeholder).toBe(`Search among ${MANY.length}`);
	write(field, '10');
	await comes(() => (choice('v3') ? null : true));
	press('Enter', field);
	expect(set.mock.calls).toEqual([['v10']]);
	await vi.waitFor(() => expect(choice('v10')).toBeNull());
	press('ArrowDown', trigger());
	await comes(() => choice('v3'));
	write(document.querySelector('input')!, 'nowhere');
	await comes(() => document.body.textContent.includes('Nothing has that in its name.') || null);
});

test('a letter goes to the next that begins with it, round and round, before the list is there', () => {
	const of = (value: string, letter: string) => nextBy(['live', 'draft', 'left out', ['d', 'Done']], value, letter);
	expect([of('live', 'l'), of('left out', 'L'), of('draft', 'd'), of('d', 'd'), of('live', 'x')]).toEqual([
		'left out',
		'live',
		'd',
		'draft',
		undefined
	]);
	const set = vi.fn();
	mountSelect({ value: '', choices: COLOURS, set });
	press('b', trigger());
	expect(set.mock.calls).toEqual([['blue']]);
});

test('a key that is held with another is left to the room', async () => {
	const [set, room] = [vi.fn(), vi.fn()];
	mountSelect({ value: '', choices: COLOURS, set });
	const hear = (event: Event) => event.defaultPrevented || room();
	document.addEventListener('keydown', hear);
	const withControl = () =>
		trigger().dispatchEvent(
			new KeyboardEvent('keydown', { key: 'Enter', ctrlKey: true, bubbles: true, cancelable: true })
		);
	withControl();
	trigger().focus();
	await comes(() => document.querySelector('[data-select-trigger]'));
	withControl();
	document.removeEventListener('keydown', hear);
	expect([room.mock.calls.length, set.mock.calls.length, choice('red')]).toEqual([2, 0, null]);
});
