import { describe, expect, test } from 'vitest';
import { findFormulas, isMadeBy } from './formulas';
import { countFrames as count, FRAME_LEAST, FRAME_SHARE, FrameBook, type FramedPage } from './frames';

type Read = Pick<FramedPage, 'language' | 'found'> & Partial<FramedPage>;
/** Pages in a row, each at a path of its own at the top of the site. */
const countFrames = (pages: readonly Read[], usual: string) =>
	count(() => pages.map((page, at) => ({ path: `/${at}`, type: 'page', ...page })), usual);
const page = (value: string, language?: string, name = 'description'): Read => ({
	...(language && { language }),
	found: [{ name, value }]
});
const times = (count: number, one: Read) => Array.from({ length: count }, () => one);

describe('a found value is a frame’s', () => {
	test('from the least number of pages on, where that is a large enough share', () => {
		const others = Array.from({ length: 3 }, (_, at) => page(`Own ${at}`));
		const among = (many: number) => countFrames([...times(many, page('Same')), ...others], 'en');
		expect(among(FRAME_LEAST - 1)).toEqual([]);
		expect(among(FRAME_LEAST)).toEqual([{ tag: 'description', language: 'en', value: 'Same', pages: FRAME_LEAST }]);
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

describe('a part of a site has a frame of its own', () => {
	const others = Array.from({ length: 190 }, (_, at) => page(`Own ${at}`, undefined, 'abstract'));
	const own = (at: number, more: Partial<Read> = {}): Read => ({
		path: `/hand/${at}`,
		...page('Of the hand-written part'),
		...more
	});
	const tell = (pages: readonly Read[]) =>
		countFrames([...others, ...pages], 'en').map(({ value, pages: on }) => [value, on]);
	test('told by its folder', () => {
		const ten = times(10, page('x')).map((_, at) =>
			own(at, { found: [...own(at).found!, { name: `meta:${at}`, value: 'x' }] })
		);
		expect(tell(ten)).toEqual([['Of the hand-written part', 10]]);
		// Too few, or less than half of the folder.
		expect(tell(ten.slice(0, 7))).toEqual([]);
		const half = Array.from({ length: 11 }, (_, at) => ({ ...page(`Its own ${at}`), path: `/hand/own-${at}` }));
		expect(tell([...ten, ...half])).toEqual([]);
	});
	test('told by its type, and by how its heads are built', () => {
		expect(tell(times(9, page('x')).map((_, at) => own(at, { path: `/${1000 + at}`, type: 'made' })))).toHaveLength(1);
		const built = (at: number) =>
			own(at, { path: `/${1000 + at}`, found: [...own(at).found!, { name: 'author', value: 'Ada' }] });
		expect(tell(times(9, page('x')).map((_, at) => built(at)))).toEqual([['Of the hand-written part', 9]]);
	});
	test('only what a page says by itself; what robots are told is meant wherever it stands', () => {
		const said = (name: string, value: string) =>
			times(10, page('x')).map((_, at) => own(at, { found: [{ name, value }] }));
		expect(tell(said('author', 'Ada'))).toEqual([]);
		expect(tell(said('og:url', 'https://s.example/'))).toEqual([['https://s.example/', 10]]);
		expect(countFrames(said('robots', 'noindex'), 'en')).toEqual([]);
	});
});

describe('formulas', () => {
	const classes = ['String', 'List of things', 'Map', 'Set', 'Queue', 'Stack', 'Tree', 'Graph', 'Node'];
	const made = classes.map((name, at) => `declaration: module: m.${at % 3}, package: a.b${at}, class: ${name}`);
	const prose = [
		'The walk begins at the harbour and leads along the cliffs.',
		'The tide comes in faster than one walks, so mind the table.',
		'The lamp was lit in 1871 and has been out for two nights since.',
		'The ferry takes bicycles but no dogs, and leaves twice a day.',
		'The bell of the chapel is rung by hand at every low water.',
		'The moss on the northern side tells how old the wall is.',
		'The ropes were made in the long shed behind the inn.',
		'The herring came back in the year that the school was built.',
		'The slate of the roofs is from the quarry above the bay.'
	];
	test('are told by the words that all have, whatever stands between', () => {
		expect(findFormulas(made)).toEqual([{ formula: 'declaration: module: * package: * class: *', texts: 9 }]);
		const ends = classes.map((name) => `${name} – the documentation of the Acme library`);
		expect(findFormulas(ends)[0]).toEqual({ formula: '* – the documentation of the Acme library', texts: 9 });
	});
	test('of several forms that begin alike each is told', () => {
		const filled = (kind: string) =>
			times(12, page('x')).map((_, at) => `declaration: module: acme.m${at}, package: acme.p${at}, ${kind}: Name${at}`);
		const texts = [...filled('class'), ...filled('interface').slice(0, 9), ...filled('enum').slice(0, 3)];
		const found = findFormulas([...texts, 'declaration: by hand']);
		for (const text of texts)
			expect(
				found.some(({ formula }) => isMadeBy(text, formula)),
				text
			).toBe(true);
		expect(found.some(({ formula }) => isMadeBy('declaration: by hand', formula))).toBe(false);
	});
	test('of two words where most of all texts are made by it', () => {
		const names = times(40, page('x')).map((_, at) => `Reference for Acme.Name${at}`);
		expect(findFormulas(names)).toEqual([{ formula: 'Reference for *', texts: 40 }]);
		expect(findFormulas(names.slice(0, 20))).toEqual([]);
	});
	test('not in prose, nor of a few, nor of one text that many have', () => {
		expect(findFormulas(prose)).toEqual([]);
		expect(findFormulas(made.slice(0, 7))).toEqual([]);
		expect(findFormulas(times(20, page('x')).map(() => made[0]!))).toEqual([]);
		expect(findFormulas(classes)).toEqual([]);
		expect(findFormulas([])).toEqual([]);
	});
	test('are found among prose, and hold what they made', () => {
		const [one] = findFormulas([...prose, ...made]);
		for (const text of made) expect(isMadeBy(text, one!.formula)).toBe(true);
		for (const text of prose) expect(isMadeBy(text, one!.formula)).toBe(false);
	});
	test.each([
		['a x b', 'a * b', true],
		['a x y b', 'a * b', true],
		['a b', 'a * b', false],
		['a x b c', 'a * b', false],
		['x a b', 'a * b', false],
		['a b b', 'a * b', true],
		['a x c y b', 'a * c * b', true],
		['a c c b', 'a * c * b', false],
		['a c c c b', 'a * c * b', true],
		['a', 'a *', false],
		['a b', 'a *', true],
		['b a', '* a', true],
		['a b c', 'a b c', true],
		['a b', '*', true],
		['', '*', false]
	])('%j is made by %j: %s', (text, formula, is) => {
		expect(isMadeBy(text, formula)).toBe(is);
	});
	test('long texts take time in proportion', () => {
		const long = `a ${'b '.repeat(200_000)}c`;
		expect(isMadeBy(long, 'a * b * b * b * d')).toBe(false);
	});
	test('a description made by one is a frame’s, and its pages are told', () => {
		const frames = countFrames(
			[...made, ...prose].map((text) => page(text)),
			'en'
		);
		expect(frames).toEqual([
			{
				tag: 'description',
				language: 'en',
				value: 'declaration: module: * package: * class: *',
				pages: 9,
				formula: true
			}
		]);
		const book = new FrameBook(frames);
		expect(book.countOf('description', 'EN', ` ${made[0]!} `)).toBe(9);
		expect(book.countOf('description', 'en', prose[0]!)).toBeUndefined();
		expect(book.countOf('og:title', 'en', made[0]!)).toBeUndefined();
		expect(book.countOf('description', 'fr', made[0]!)).toBeUndefined();
		// Without the word, it is a value like any other.
		const plain = new FrameBook(frames.map(({ formula: _, ...one }) => one));
		expect(plain.countOf('description', 'en', made[0]!)).toBeUndefined();
	});
});
