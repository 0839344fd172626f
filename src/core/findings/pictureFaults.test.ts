import { describe, expect, test } from 'vitest';
import { weaknessesOf, type JudgedPicture } from '../index';

const good: JudgedPicture = { width: 1200, height: 630, bytes: 180_000, type: 'image/jpeg', alt: 'A pier' };

describe('what is weak in a picture', () => {
	test.each<[string, Partial<JudgedPicture>, RegExp[]]>([
		['nothing', {}, []],
		['too small for some', { width: 450, height: 236 }, [/^Too small for Gangway: 450 pixels wide, 600 would do/]],
		['too small for all', { width: 90, height: 60 }, [/^Too small for Gangway, .* and Wrack/]],
		['too heavy for the messenger', { bytes: 700_000 }, [/^Too heavy for Bottle: 700 kB, at most 600 kB/]],
		['too heavy for several', { bytes: 6_000_000 }, [/Headland, Ropewalk, Galley, and Bottle: 6,000 kB/]],
		['tall', { width: 800, height: 1200 }, [/800 × 1200: wide cards cut much of its top/]],
		['a strip', { width: 1800, height: 300 }, [/1800 × 300: cards cut much of its sides/]],
		['no alt text', { alt: '' }, [/no alt text/]],
		['transparent', { alpha: true }, [/transparent/]],
		['animated', { animated: true }, [/first frame/]],
		['on many pages', { repeated: 40 }, [/on 40 pages/]],
		['a logo', { mark: true }, [/logo/]]
	])('%s', (_, more, expected) => {
		const found = weaknessesOf({ ...good, ...more });
		expect(found).toHaveLength(expected.length);
		expected.forEach((sentence, at) => expect(found[at]).toMatch(sentence));
	});
	test('what is not known is not held against it', () => {
		expect(weaknessesOf({ alt: 'A pier' })).toEqual([]);
	});
});
