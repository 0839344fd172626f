import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cleanText, clipText, countGraphemes, firstSentences, firstWords, isLanguageTag } from './text';

const visible = fc.string({ unit: 'grapheme', maxLength: 60 });

describe('cutting', () => {
	test('never longer than the limit, always the beginning, never inside a character', () => {
		fc.assert(
			fc.property(visible, fc.integer({ min: 1, max: 40 }), (text, limit) => {
				const clean = cleanText(text);
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
				const clean = cleanText(text);
				expect(clipText(clean, countGraphemes(clean) + 1)).toBe(clean);
			})
		);
	});
	test('words of a script without spaces are not cut in the middle', () => {
		expect(clipText('東京都渋谷区の海岸', 5)).toMatch(/^東京都?(渋谷)?…$/);
		expect(firstWords('ยินดีต้อนรับสู่ชายฝั่ง', 1, 'th').endsWith('…')).toBe(true);
	});
	test('whole sentences', () => {
		expect(firstSentences('One. Two! Three?', 9, 'en')).toBe('One. Two!');
		expect(firstSentences('A sentence that is far too long to fit. Two.', 20, 'en')).toBe('A sentence that is…');
		expect(firstSentences('', 20, 'en')).toBe('');
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
		['\u00ad', ''],
		['·', '·'],
		['e\u0301', 'e\u0301'],
		['\u202e\u202c', '']
	])('%j is %j', (text, clean) => {
		expect(cleanText(text)).toBe(clean);
	});
	test('the quick look and the long way agree, and cleaning twice is cleaning once', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'binary' }), (text) => {
				const once = cleanText(text);
				expect(cleanText(once)).toBe(once);
				expect(once).toBe(once.trim());
				expect(once).not.toMatch(/\s\s|[\n\r\t\0]/);
			}),
			{ numRuns: 500 }
		);
	});
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
