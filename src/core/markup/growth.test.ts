import { describe, expect, test } from 'vitest';
import { foundBook, MOST_FOUND } from '../resolve/found';
import { clipText, settleText } from '../text/text';
import { limitExtraMarkup } from './extra';
import { looseTags } from './looseTags';
import { MOST_DEPTH, MOST_ELEMENTS, parseDocument, parsePiece } from './parseBounded';
import { htmlToText } from './plainText';
import { readPage } from './readPage';
import { readServedHead } from './served';

/**
 * What is foreign is read in time that grows with its length and no faster. Each shape is read at one size and at four
 * times as much: what grows with the square takes sixteen times as long. The processor's own time is counted, so that a
 * busy machine changes nothing, and the shortest of three runs.
 */
const spent = (work: () => unknown) =>
	Math.min(
		...Array.from({ length: 3 }, () => {
			const before = process.cpuUsage();
			work();
			const { user, system } = process.cpuUsage(before);
			return (user + system) / 1000;
		})
	);
/** Below this (milliseconds) nothing is measured but noise. */
const NOISE = 60;
const grows = (read: (text: string) => unknown, make: (size: number) => string, size: number) => {
	const [small, large] = [size, size * 4].map((of) => {
		const text = make(of);
		return spent(() => read(text));
	}) as [number, number];
	return large < NOISE ? 1 : large / Math.max(small, NOISE / 4);
};

const many = (make: (at: number) => string) => (size: number) =>
	Array.from({ length: size }, (_, at) => make(at)).join('');
const SHAPES: Readonly<Record<string, (size: number) => string>> = {
	'unclosed divisions': many(() => '<div>'),
	'unclosed emphasis': many((at) => `<b id=${at}>`),
	'paragraphs that reopen emphasis': many((at) => `<p><b id=${at}></p>`),
	'nested links': many((at) => `<a href=${at}>`),
	tables: many(() => '<table><tr><td>'),
	'meta tags': many(() => '<meta name=description content=a>'),
	'meta tags without an end': many(() => '<meta '),
	'the beginning of tags': many(() => '<'),
	references: many(() => '&amp'),
	'comments without an end': many(() => '<!--'),
	scripts: many(() => '<script>'),
	attributes: (size) => `<p ${many((at) => `a${at} `)(size)}>`,
	'one long word': many(() => 'a'),
	blanks: many(() => ' '),
	tabs: many(() => '\t'),
	'quotation marks': many(() => '"'),
	'marks that combine': many(() => 'e\u0301'),
	braces: many(() => '{[[')
};

describe.each(Object.entries(SHAPES))('%s', (_, make) => {
	test.each<[string, (text: string) => unknown, number]>([
		['as a served head', readServedHead, 15_000],
		['as a page', readPage, 15_000],
		['as text', htmlToText, 10_000],
		['for loose tags', looseTags, 15_000],
		['settled', settleText, 50_000],
		['clipped', (text) => clipText(text, 155), 50_000]
	])('%s', (_name, read, size) => expect(grows(read, make, size)).toBeLessThan(12));
});

test('extra markup is limited in the same way', () => {
	for (const make of [SHAPES['meta tags']!, SHAPES['unclosed divisions']!, SHAPES['comments without an end']!])
		expect(grows(limitExtraMarkup, make, 500)).toBeLessThan(12);
});

describe('what is built of a document has a limit', () => {
	const depthOf = (top: ReturnType<typeof parsePiece>) => {
		let depth = 0;
		for (let at = top.childNodes[0]; at && 'childNodes' in at; at = at.childNodes[0]) depth++;
		return depth;
	};
	test('of elements: what was read until then stands', () => {
		const document = parseDocument(`<title>T</title>${'<i></i>'.repeat(MOST_ELEMENTS + 10)}<b>beyond</b>`);
		const html = JSON.stringify(
			readServedHead(`<title>T</title>${'<i></i>'.repeat(MOST_ELEMENTS + 10)}`).tags[0]?.value
		);
		expect([document.childNodes.length, html]).toEqual([1, '"T"']);
	});
	test('of depth: what is deeper stands in the deepest, and its words are read', () => {
		const piece = parsePiece(`${'<div>'.repeat(5000)}words`);
		expect(depthOf(piece)).toBeLessThanOrEqual(MOST_DEPTH);
		expect(htmlToText(`${'<div>'.repeat(5000)}words`)).toBe('words');
	});
	test('of tags of one head, and of found values of one file', () => {
		expect(readServedHead('<meta name=description content=a>'.repeat(130_000)).tags.length).toBe(2000);
		const found = Array.from({ length: 130_000 }, (_, at) => ({ name: `meta:x${at}`, value: 'v' }));
		expect(foundBook(found).tags.length).toBe(MOST_FOUND);
	});
});
