import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { firstSentences } from '../markup/reading';
import {
	clipText,
	countGraphemes,
	firstWords,
	isBlank,
	isLanguageTag,
	isSpace,
	settleAndClip,
	settleText,
	trimSpace
} from './text';

const visible = fc.string({ unit: 'grapheme', maxLength: 60 });

test('white space is what Unicode calls so, unit by unit', () => {
	for (let unit = 0; unit <= 0xffff; unit++)
		if (isSpace(unit) !== /^\p{White_Space}$/u.test(String.fromCharCode(unit))) expect.fail(`U+${unit.toString(16)}`);
});

describe('cutting', () => {
	test('never longer than the limit, always the beginning, never inside a character', () => {
		fc.assert(
			fc.property(visible, fc.integer({ min: 1, max: 40 }), (text, limit) => {
				const clean = settleText(text);
				const cut = clipText(clean, limit);
				expect(countGraphemes(cut)).toBeLessThanOrEqual(limit);
				const kept = cut.endsWith('…') && cut !== clean ? cut.slice(0, -1) : cut;
				expect(clean.startsWith(kept)).toBe(true);
				expect(cut.isWellFormed()).toBe(true);
			})
		);
	});
	test('a text that fits is left alone', () => {
		fc.assert(
			fc.property(visible, (text) => {
				const clean = settleText(text);
				expect(clipText(clean, countGraphemes(clean) + 1)).toBe(clean);
			})
		);
	});
	test('words of a script without spaces are not cut in the middle', () => {
		expect(clipText('東京都渋谷区の海岸', 5)).toMatch(/^東京都?(渋谷)?…$/);
		expect(firstWords('ยินดีต้อนรับสู่ชายฝั่ง', 1, 'th').endsWith('…')).toBe(true);
	});
	const within = (graphemes: number) => ({ graphemes, ems: 1000 });
	test('whole sentences', () => {
		expect(firstSentences('One. Two! Three?', within(9), 'en')).toBe('One. Two!');
		expect(firstSentences('A sentence that is far too long to fit. Two.', within(20), 'en')).toBe(
			'A sentence that is…'
		);
		expect(firstSentences('', within(20), 'en')).toBe('');
	});
});

describe('cleaning', () => {
	test.each([
		['  a  b ', 'a b'],
		['a\u2028b', 'a b'],
		['a\ufdd0b\ufffe', 'ab'],
		['\ud83f\udfff', ''],
		['\udc00x', '\ufffdx'],
		['\u00a0x\u00a0', 'x'],
		['1\u202f234,50\u00a0€  now', '1\u202f234,50\u00a0€ now'],
		['a\u00a0b', 'a\u00a0b'],
		['a\u3000b\n', 'a\u3000b'],
		['a \u00a0 b', 'a \u00a0 b'],
		['a\u0085b\u000bc', 'a b c'],
		['\u0007', ''],
		['\u00a0\u2003', ''],
		['a\u200bb', 'a\u200bb'],
		['\ufeff\u2060', ''],
		['\u00ad', ''],
		['·', '·'],
		['e\u0301', 'e\u0301'],
		['\u202e\u202c', '']
	])('%j is %j', (text, clean) => {
		expect(settleText(text)).toBe(clean);
	});
	test('the quick look and the long way agree, and cleaning twice is cleaning once', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'binary' }), (text) => {
				const once = settleText(text);
				expect(settleText(once)).toBe(once);
				expect(once).toBe(trimSpace(once));
				expect(once).not.toMatch(/ {2}|[\n\r\t\0]/);
				expect(isBlank(text)).toBe(once === '');
			}),
			{ numRuns: 500 }
		);
	});
});

test('a text that is settled and clipped at once comes to the same as one after the other', () => {
	const part = fc.constantFrom(
		'a',
		'é',
		'.',
		', ',
		' ',
		'  ',
		'\n',
		'\u00ad',
		'\u0301',
		'…',
		'\u200b',
		'don’t',
		'ж',
		'文'
	);
	fc.assert(
		fc.property(fc.array(part, { maxLength: 40 }), fc.integer({ min: 0, max: 30 }), (parts, limit) => {
			const text = parts.join('');
			expect(settleAndClip(text, limit)).toBe(clipText(settleText(text), limit));
		}),
		{ numRuns: 5000 }
	);
});

test('what is done to one character does not depend on what stands elsewhere', () => {
	const part = fc.constantFrom(
		'a',
		'b',
		'\u00a0',
		'\u202f',
		'\u3000',
		'\u2003',
		' ',
		'\n',
		'\u0007',
		'\ud800',
		'\u200b',
		'\ufdd0'
	);
	const text = fc.array(part, { maxLength: 12 }).map((parts) => parts.join(''));
	fc.assert(
		fc.property(text, text, (one, other) => {
			// Between two letters nothing is at an edge, and no run of white space goes on from one part into the other.
			expect(settleText(`x${one}x${other}x`)).toBe(settleText(`x${one}x`) + settleText(`x${other}x`).slice(1));
		}),
		{ numRuns: 500 }
	);
});

test('long runs of white space take no time', () => {
	const text = `a${'\u00a0'.repeat(200_000)}b`;
	expect(settleText(text)).toBe(text);
});

test.each([
	['en', true],
	['zh-Hant-TW', true],
	['not a tag', false],
	['', false],
	['x', false]
])('%s is a language tag: %s', (tag, is) => {
	expect(isLanguageTag(tag)).toBe(is);
});
