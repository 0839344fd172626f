import fc from 'fast-check';
import { expect, test } from 'vitest';
import { replaceInText, replaceWords } from './replace';

/** Words that stand for others: everywhere, or where they are words by themselves. */
test.each([
	['art and party art', 'art', 'craft', 'craft and party craft'],
	['art, (art) art’s', 'art', 'x', 'x, (x) x’s'],
	['Straße Straßen', 'Straße', 'Weg', 'Weg Straßen'],
	['e\u0301t e', 'e', 'x', 'e\u0301t x'],
	['a𝒳 𝒳', '𝒳', 'x', 'a𝒳 x'],
	['C++ C', 'C++', 'Rust', 'Rust C'],
	['C++C', 'C++', 'Rust', 'RustC'],
	['(sic) x(sic)y', '(sic)', '', ' xy'],
	['aa aaa', 'aa', 'b', 'b aaa'],
	['4 44', '4', 'four', 'four 44'],
	['', 'a', 'b', ''],
	['a', '', 'b', 'a']
])('%j: %j by %j, whole words', (text, find, by, wanted) => expect(replaceInText(text, find, by, true)).toBe(wanted));

test('whole words are among those that are replaced everywhere, and what is not found is left', () => {
	fc.assert(
		fc.property(fc.string({ unit: 'grapheme' }), fc.stringMatching(/^[a-z0-9]{1,3}$/), (text, find) => {
			expect(replaceInText(text, find, find, true)).toBe(text);
			expect(replaceInText(text, find, find)).toBe(text);
			if (!text.includes(find)) expect(replaceInText(text, find, 'x', true)).toBe(text);
			// Between signs that are no letters it is a word by itself.
			expect(replaceInText(` ${find} `, find, 'x', true)).toBe(' x ');
		})
	);
});

test('in a template the words alone', () => {
	expect(replaceWords('art {page.art} party[[ art]]', 'art', 'craft', true)).toBe('craft {page.art} party[[ craft]]');
	expect(replaceWords('art {page.art} party', 'art', 'craft')).toBe('craft {page.art} pcrafty');
});
