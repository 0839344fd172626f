import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { measureText } from '../index';
import { offsetOfWidth } from './measure';

describe('how wide a text is', () => {
	test.each([
		['', 0],
		['i', 0.222],
		['W', 0.944],
		['iW', 1.166],
		['漢', 1],
		['가', 1],
		['e\u0301', 0.556],
		['\u{1F600}', 1],
		['\u{1F600}i', 1.222],
		['\ud800', 1],
		['ሀ', 1],
		['օ', 0.556]
	])('%j is %f ems', (text, ems) => {
		expect(measureText(text, 1)).toBeCloseTo(ems, 2);
		expect(measureText(text, 20)).toBeCloseTo(ems * 20, 1);
	});
});

describe('where a text is cut to a width', () => {
	const mark = measureText('…', 20);
	const letter = measureText('n', 20);
	test.each([
		[20 * letter + 0.01, -1],
		[20 * letter - 0.01, 18],
		[mark + 10 * letter + 0.01, 10],
		[mark + 10 * letter - 0.01, 9],
		[mark + 0.01, 0],
		[0, 0]
	])('twenty letters within %f are cut at %i', (width, at) => {
		expect(offsetOfWidth('n'.repeat(20), width, 20)).toBe(at);
	});
	/** As it is meant: character by character, however each is written. */
	const closely = (text: string, limit: number) => {
		if (measureText(text, 20) <= limit) return -1;
		let sum = 0;
		for (const { segment, index } of new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text))
			if ((sum += measureText(segment, 20)) > limit - mark) return index;
		return -1;
	};
	const signs = [
		'n',
		'W',
		' ',
		'é',
		'\u0301',
		'\u200d',
		'\r',
		'\n',
		'\u{1F469}',
		'\u{1F3FD}',
		'क',
		'्',
		'한',
		'…',
		'\ud800'
	];
	test('any text is cut between two characters, where it is read sign by sign as well', () => {
		fc.assert(
			fc.property(
				fc.array(fc.constantFrom(...signs), { maxLength: 40 }),
				fc.integer({ min: 0, max: 500 }),
				(parts, limit) => {
					expect(offsetOfWidth(parts.join(''), limit, 20)).toBe(closely(parts.join(''), limit));
				}
			)
		);
	});
	test('nothing needs no room', () => {
		expect(offsetOfWidth('', 0, 20)).toBe(-1);
	});
	test('what is one character to a reader is not parted, and a mark can be another or none', () => {
		const family = '👩‍👩‍👧';
		expect(offsetOfWidth(family + family, measureText(family, 20) + mark, 20)).toBe(family.length);
		expect(offsetOfWidth('nnnn', 2 * letter, 20, '')).toBe(2);
		expect(offsetOfWidth('nnnn', 3 * letter, 20, 'n')).toBe(2);
	});
});
