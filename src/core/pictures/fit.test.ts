import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { fitText, LINE_HEIGHT, type Measure } from './fit';

/** Every sign is half its size wide, those of dense scripts a whole. */
const measure: Measure = (text, size) => {
	let width = 0;
	for (const sign of text) width += sign.codePointAt(0)! >= 0x3000 ? size : size / 2;
	return width;
};
const room = { width: 400, height: 200, size: 80, least: 20 };
const fit = (text: string, change: Partial<typeof room> = {}, language = 'en') =>
	fitText(text, { ...room, ...change }, language, measure);

describe('a text in its box', () => {
	test.each<[string, string, Partial<typeof room>, object]>([
		['short: as large as it may be', 'Dusk', {}, { size: 80, lines: ['Dusk'], isCut: false }],
		['wraps before it shrinks', 'Dusk on heath', {}, { size: 80, lines: ['Dusk on', 'heath'] }],
		[
			'shrinks until it wraps into the box',
			'Dusk on the old heath',
			{},
			{ size: 72, lines: ['Dusk on the', 'old heath'], isCut: false }
		],
		['a long word shrinks', 'Rhododendronweg', { height: 90 }, { size: 52, lines: ['Rhododendronweg'] }],
		['at the least size its end goes', 'one two three four', { width: 60, height: 50 }, { size: 20, isCut: true }],
		['a box for no line at all', 'Dusk', { height: 10 }, { lines: [], isCut: true }],
		['nothing', '', {}, { lines: [], isCut: false }],
		['spaces are one', ' Dusk   on \n heath ', {}, { lines: ['Dusk on', 'heath'] }]
	])('%s', (_, text, change, wanted) => expect(fit(text, change)).toMatchObject(wanted));

	test('what is cut ends in an ellipsis, at a word’s end where there is one', () => {
		const { lines } = fit('one two three four five', { width: 100, height: 26, least: 20 });
		expect(lines).toEqual(['one two…']);
		expect(fit('Rhododendronweg', { width: 60, height: 26 }).lines).toEqual(['Rhodo…']);
	});
	test('a script without spaces breaks between words, and no line begins with what clings', () => {
		const { lines } = fit('冬の海辺、鳥を見に行く。', { width: 240, height: 320, size: 60 }, 'ja');
		expect(lines.length).toBeGreaterThan(1);
		expect(lines.join('')).toBe('冬の海辺、鳥を見に行く。');
		for (const line of lines) expect(line).not.toMatch(/^[、。]/);
	});

	test('never spills, says all unless it is cut', () => {
		const words = fc.array(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 14 }), { maxLength: 12 });
		const side = fc.integer({ min: 1, max: 500 });
		fc.assert(
			fc.property(words, side, side, fc.integer({ min: 10, max: 90 }), (parts, width, height, size) => {
				const text = parts.join(' ').normalize();
				const { lines, isCut, ...fitted } = fit(text, { width, height, size, least: 10 });
				for (const line of lines) expect(measure(line, fitted.size)).toBeLessThanOrEqual(width);
				expect(lines.length * fitted.size * LINE_HEIGHT).toBeLessThanOrEqual(height + 1e-6 * fitted.size * LINE_HEIGHT);
				const bare = (of: string) => of.replace(/\s+/gu, '');
				const isDrawable = [...bare(text)].every((sign) => measure(sign, fitted.size) <= width);
				if (!isCut && isDrawable) expect(bare(lines.join(''))).toBe(bare(text));
			}),
			{ numRuns: 300 }
		);
	});

	test('is no smaller than it must be: the next larger size would have spilled', () => {
		const words = fc.array(fc.string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 9 }), {
			minLength: 1,
			maxLength: 9
		});
		fc.assert(
			fc.property(
				words,
				fc.integer({ min: 60, max: 500 }),
				fc.integer({ min: 30, max: 300 }),
				(parts, width, height) => {
					const text = parts.join(' ');
					const { size } = fit(text, { width, height, size: 90, least: 10 });
					if (size === 90 || size === 10) return;
					const larger = size + 2;
					const perLine = Math.floor(width / (larger / 2));
					const all = text.split(/\s+/u).filter(Boolean);
					let [lines, used] = [1, 0];
					for (const word of all) {
						if (used > 0 && used + 1 + word.length > perLine) [lines, used] = [lines + 1, word.length];
						else used += (used > 0 ? 1 : 0) + word.length;
					}
					const spills = all.some((word) => word.length > perLine) || lines * larger * LINE_HEIGHT > height;
					expect(spills).toBe(true);
				}
			)
		);
	});
});
