import { describe, expect, test } from 'vitest';
import { fitText } from '../index';
import { recipeOf, USUAL_LOOK, type Recipe } from './layout';
import { STARTING_LAYOUTS } from './layouts';

/** Every sign is as wide as the size. */
const measure = (text: string, size: number) => [...text].length * size;
const fit = (text: string, width: number, height: number, size = 20, least = 10, language = 'en') =>
	fitText(text, { width, height, size, least }, language, measure);

describe('a text in a box', () => {
	test('stands at its size where it fits, and is brought down in steps of two pixels until it does', () => {
		expect(fit('ab cd', 100, 25)).toEqual({ size: 20, lines: ['ab cd'], isCut: false });
		expect(fit('ab cd', 99, 25)).toEqual({ size: 18, lines: ['ab cd'], isCut: false });
		expect(fit('ab cd', 40, 50)).toEqual({ size: 20, lines: ['ab', 'cd'], isCut: false });
	});
	test('at its least size it is cut at a word’s end, and says so', () => {
		expect(fit('one two three', 80, 13)).toEqual({ size: 10, lines: ['one two…'], isCut: true });
		// The word's end would leave half of it.
		expect(fit('one two three', 70, 13)).toEqual({ size: 10, lines: ['one tw…'], isCut: true });
		expect(fit('one, two three', 60, 13)).toEqual({ size: 10, lines: ['one…'], isCut: true });
		expect(fit('one – two three', 60, 13).lines).toEqual(['one…']);
		expect(fit('one two three four', 80, 25)).toEqual({ size: 10, lines: ['one two', 'three…'], isCut: true });
	});
	test('what has no spaces is broken, and the next word begins with its space', () => {
		expect(fit('abcdefgh', 40, 25)).toEqual({ size: 10, lines: ['abcd', 'efgh'], isCut: false });
		expect(fit('ab cdefghi jk', 40, 50)).toEqual({ size: 10, lines: ['ab', 'cdef', 'ghi', 'jk'], isCut: false });
		expect(fit('ab cdefghij k', 40, 50).lines).toEqual(['ab', 'cdef', 'ghij', 'k']);
	});
	test('one sign that is wider than the box is not drawn; a box for no line holds none', () => {
		expect(fit('a', 5, 25)).toEqual({ size: 10, lines: [], isCut: true });
		expect(fit('ab', 100, 5)).toEqual({ size: 10, lines: [], isCut: true });
		expect(fit('', 100, 25)).toEqual({ size: 20, lines: [], isCut: false });
	});
	test('scripts without spaces are parted between words, and no line begins with a sign that clings', () => {
		const { lines } = fit('海辺の町です。港', 80, 60, 20, 20, 'ja');
		expect(lines.join('')).toBe('海辺の町です。港');
		expect(lines.every((line) => !line.startsWith('。'))).toBe(true);
	});
	test('a least size above the size counts for nothing', () => {
		expect(fit('abc', 1000, 25, 20, 40)).toEqual({ size: 20, lines: ['abc'], isCut: false });
	});
});

describe('what a share picture is drawn from', () => {
	const parts = {
		...{ title: 'T', line: 'L', language: 'en', logo: 'a'.repeat(24) + '.png', play: true },
		picture: { file: 'b'.repeat(24) + '.jpg', focus: [0.5, 0.5] as const, zoom: 1 }
	};
	test.each(STARTING_LAYOUTS.map(({ name, layout }) => [name, layout] as const))('%s', (_name, layout) => {
		const whole = recipeOf(layout, USUAL_LOOK, parts);
		const bare = recipeOf(layout, USUAL_LOOK, { ...parts, logo: undefined, picture: undefined, play: false, line: '' });
		expect(whole.play).toBe(true);
		expect(bare).not.toHaveProperty('play');
		expect(bare).not.toHaveProperty('logo');
		expect(bare).not.toHaveProperty('picture');
		expect('logo' in whole).toBe(layout.logo !== undefined);
		expect('picture' in whole).toBe(layout.picture !== undefined);
		if (layout.logo) expect((whole as Recipe).logo).toEqual({ ...layout.logo, file: parts.logo });
		expect(whole.texts.map(({ text }) => text)).toEqual(layout.line ? ['T', 'L'] : ['T']);
		expect(bare.texts.map(({ text }) => text)).toEqual(['T']);
	});
});
