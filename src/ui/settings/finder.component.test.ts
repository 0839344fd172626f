import { afterEach, expect, test } from 'vitest';
import { flushSync } from 'svelte';
import { SettingsFinder, SettingsGroup, orNone } from './finder.svelte';

afterEach(() => localStorage.clear());

test('every word that is looked for must be there, in any case and order', () => {
	const finder = new SettingsFinder();
	expect(finder.fits('Account', 'gives twitter:site')).toBe(true);
	finder.text = 'SITE acc';
	flushSync();
	expect([finder.fits('Account', 'gives twitter:site'), finder.fits('Account', undefined)]).toEqual([true, false]);
});

test('a group stays closed for the next time, and is open while something is looked for', () => {
	const finder = new SettingsFinder();
	expect(finder.isOpen('Words')).toBe(true);
	finder.turn('Words', false);
	expect([finder.isOpen('Words'), new SettingsFinder().isOpen('Words'), finder.isOpen('Pictures')]).toEqual([
		false,
		false,
		true
	]);
	finder.text = 'x';
	flushSync();
	expect(finder.isOpen('Words')).toBe(true);
	// Turned while searching, it is as it was left before.
	finder.turn('Words', true);
	finder.text = '';
	flushSync();
	expect(finder.isOpen('Words')).toBe(false);
	finder.turn('Words', true);
	expect(new SettingsFinder().isOpen('Words')).toBe(true);
});

test('what others left in the browser under its name does no harm', () => {
	for (const odd of ['{', 'null', '{"a":1}', '[1,null]']) {
		localStorage.setItem('kephalon.settings-closed', odd);
		expect(new SettingsFinder().isOpen('Words')).toBe(true);
	}
});

test('a group counts what is set in it and knows whether any of it is found', () => {
	const finder = new SettingsFinder();
	const group = new SettingsGroup('Words', 'separator', finder);
	expect([group.set, group.hasFound]).toEqual([0, false]);
	group.settings.set({}, { isSet: true, isFound: false });
	group.settings.set({}, { isSet: false, isFound: true });
	expect([group.set, group.hasFound]).toEqual([1, true]);
	finder.text = 'words SEP';
	flushSync();
	expect(group.isMeant).toBe(true);
	finder.text = 'handle';
	flushSync();
	expect(group.isMeant).toBe(false);
});

test('where nothing was provided there is none', () => {
	expect(
		orNone(() => {
			throw new Error('none');
		})
	).toBeUndefined();
});
