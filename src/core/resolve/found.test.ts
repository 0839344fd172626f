import { describe, expect, test } from 'vitest';
import type { Page } from '../model';
import { countFrames, FRAME_LEAST, FRAME_SHARE } from './found';

type Read = Pick<Page, 'language' | 'found'>;
const page = (value: string, language?: string, name = 'description'): Read => ({
	...(language && { language }),
	found: [{ name, value }]
});
const times = (count: number, one: Read) => Array.from({ length: count }, () => one);

describe('a found value is a frame’s', () => {
	test('from the least number of pages on, where that is a large enough share', () => {
		const others = Array.from({ length: 3 }, (_, at) => page(`Own ${at}`));
		const count = (many: number) => countFrames([...times(many, page('Same')), ...others], 'en');
		expect(count(FRAME_LEAST - 1)).toEqual([]);
		expect(count(FRAME_LEAST)).toEqual([{ tag: 'description', language: 'en', value: 'Same', pages: FRAME_LEAST }]);
	});
	test('where the share is met to the page', () => {
		const many = 10;
		const edge = many / FRAME_SHARE;
		const among = (all: number) =>
			countFrames(
				[...times(many, page('Same')), ...Array.from({ length: all - many }, (_, at) => page(`Own ${at}`))],
				'en'
			).length;
		expect(among(edge)).toBe(1);
		expect(among(edge + 1)).toBe(0);
	});
	test('in one language by itself, and pages without one are of the usual', () => {
		const pages = [
			...times(4, page('Same', 'fr')),
			...times(3, page('Same')),
			page('Same', 'en'),
			...times(90, { found: [] })
		];
		expect(countFrames(pages, 'en')).toEqual([{ tag: 'description', language: 'fr', value: 'Same', pages: 4 }]);
		expect(countFrames(pages.slice(0, 8), 'en').map(({ language }) => language)).toEqual(['en', 'fr']);
	});
	test('once a page, as it is settled, under the tag’s own name, in a fixed order', () => {
		const twice: Read = {
			found: [
				{ name: 'description', value: ' The  same ' },
				{ name: 'description', value: 'The same' },
				{ name: 'og:image:url', value: '/a.jpg' },
				{ name: 'description', value: '\u200b' },
				{ name: 'no-such-tag', value: 'x' }
			]
		};
		expect(countFrames(times(5, twice), 'en')).toEqual([
			{ tag: 'description', language: 'en', value: 'The same', pages: 5 },
			{ tag: 'og:image', language: 'en', value: '/a.jpg', pages: 5 }
		]);
		const two = [...times(4, page('b')), ...times(4, page('a'))];
		expect(countFrames(two, 'en').map(({ value }) => value)).toEqual(['a', 'b']);
	});
});
