import { describe, expect, test } from 'vitest';
import { cardOf, READERS, findTag, type Head, type HeadTag, type ReaderProfile } from '../index';

/** A head of the tags named, each with a text of its own; pictures with an address. */
function headOf(names: readonly string[], more: readonly (readonly [name: string, value: string])[] = []): Head {
	const tag = (name: string, value: string): HeadTag => ({ tag: findTag(name)!, value, attributes: undefined });
	return {
		html: { prefix: '' },
		before: [],
		after: [],
		tags: [
			...names.map((name) => tag(name, /image|url|canonical/.test(name) ? addressOf(name) : `text of ${name}`)),
			...more.map(([name, value]) => tag(name, value))
		]
	} as unknown as Head;
}
const addressOf = (name: string) => `https://site.example/${name.replace(':', '-')}`;

/** What each reader asks for, in its order, written down once more: a tag that moves or goes is noticed. */
const OPEN_GRAPH = {
	title: ['og:title', 'twitter:title', 'title'],
	description: ['og:description', 'twitter:description', 'description'],
	picture: ['og:image', 'twitter:image'],
	place: ['og:url', 'canonical']
};
const SEARCH = {
	title: ['title', 'og:title'],
	description: ['description', 'og:description'],
	picture: [],
	place: ['canonical', 'og:url']
};
const ORDERS: Readonly<Record<string, Pick<ReaderProfile, 'title' | 'description' | 'picture' | 'place'>>> = {
	gangway: OPEN_GRAPH,
	fathom: SEARCH,
	'fathom-narrow': SEARCH,
	headland: {
		title: ['twitter:title', 'og:title', 'title'],
		description: ['twitter:description', 'og:description', 'description'],
		picture: ['twitter:image', 'og:image'],
		place: ['og:url', 'canonical']
	},
	ropewalk: { ...OPEN_GRAPH, description: [] },
	galley: OPEN_GRAPH,
	bottle: OPEN_GRAPH,
	wrack: OPEN_GRAPH,
	porthole: { ...SEARCH, description: [] }
};
const PICTURE_LIMITS: Readonly<
	Record<string, readonly [shape: number | undefined, minWidth: number, maxBytes?: number]>
> = {
	gangway: [1.91, 600],
	headland: [2, 300, 5_000_000],
	ropewalk: [1.91, 401, 5_000_000],
	galley: [undefined, 200, 2_000_000],
	bottle: [1, 100, 600_000],
	wrack: [undefined, 200]
};

test('every reader is in the table', () => {
	expect(READERS.map(({ id }) => id)).toEqual(Object.keys(ORDERS));
});

describe.each(READERS.map((reader) => [reader.id, reader] as const))('%s', (id, reader) => {
	const order = ORDERS[id]!;
	// Of the tags it asks for, those before the one tried are taken away one by one.
	const tries = (part: keyof typeof order) => order[part].map((name, at) => [name, order[part].slice(at)] as const);

	test.each(tries('title'))('takes its title from %s where nothing before it speaks', (name, names) => {
		expect(cardOf(reader, headOf([...names].reverse())).title).toMatchObject({ from: name });
	});
	test.each(tries('description'))('takes its text from %s where nothing before it speaks', (name, names) => {
		expect(cardOf(reader, headOf([...names].reverse())).description).toMatchObject({ from: name });
	});
	test.each(tries('picture'))('takes its picture from %s where nothing before it speaks', (name, names) => {
		expect(cardOf(reader, headOf([...names].reverse())).pictures).toMatchObject([
			{ from: name, address: addressOf(name) }
		]);
	});
	test.each(tries('place'))('takes its place from %s where nothing before it speaks', (name, names) => {
		expect(cardOf(reader, headOf([...names].reverse()))).toMatchObject({ placeFrom: name, host: 'site.example' });
	});
	test('asks for nothing else', () => {
		const asked = new Set(Object.values(order).flat());
		const all = [...Object.values(OPEN_GRAPH), ...Object.values(SEARCH)].flat();
		const card = cardOf(reader, headOf(all.filter((name) => !asked.has(name))));
		expect(card).toMatchObject({ pictures: [], placeFrom: undefined, host: '', crumbs: [], siteName: '' });
		expect([card.title.from, card.description.from, card.picture]).toEqual([undefined, undefined, undefined]);
	});
	test('shows the icon, and label/data pairs, where it says so', () => {
		const card = cardOf(
			reader,
			headOf(
				[],
				[
					['icon', 'https://site.example/i.png'],
					['twitter:label1', 'Tide'],
					['twitter:data1', 'low'],
					['twitter:label2', 'Wind'],
					['twitter:data2', 'west']
				]
			)
		);
		expect(card.icon).toBe(
			['fathom-narrow', 'galley', 'porthole'].includes(id) ? 'https://site.example/i.png' : undefined
		);
		expect(card.pairs).toEqual(
			id === 'galley'
				? [
						{ label: 'Tide', data: 'low' },
						{ label: 'Wind', data: 'west' }
					]
				: []
		);
	});
	test('has the limits on pictures that stand in the table', () => {
		const { frame } = reader;
		const [shape, minWidth, maxBytes] = PICTURE_LIMITS[id] ?? [];
		expect(frame && [frame.shape, frame.minWidth, frame.maxBytes]).toEqual(
			PICTURE_LIMITS[id] && [shape, minWidth, maxBytes]
		);
	});
});

describe('a picture in a form that a reader cannot read', () => {
	const reader = (id: string) => READERS.find((one) => one.id === id)!;
	const said = (type: string | undefined, address: string) =>
		headOf(
			[],
			[
				['og:image', address],
				...(type ? ([['og:image:type', type]] as const) : []),
				['twitter:image', 'https://site.example/second.jpg']
			]
		);

	test.each([
		['image/webp', 'https://site.example/a'],
		['image/svg+xml', 'https://site.example/a.jpg'],
		[undefined, 'https://site.example/a.webp'],
		[undefined, 'https://site.example/a.SVG?v=1'],
		[undefined, 'https://site.example/a.avif#b'],
		[undefined, 'https://site.example/a.tiff']
	])('%s at %s gives way to the next tag it asks for', (type, address) => {
		expect(cardOf(reader('bottle'), said(type, address)).picture).toMatchObject({
			from: 'twitter:image',
			address: 'https://site.example/second.jpg'
		});
	});
	test.each([
		['image/jpeg', 'https://site.example/a.webp'],
		['image/jpg', 'https://site.example/a'],
		[undefined, 'https://site.example/a.JPG'],
		[undefined, 'https://site.example/a.gif'],
		[undefined, 'https://site.example/a']
	])('%s at %s is taken', (type, address) => {
		expect(cardOf(reader('bottle'), said(type, address)).picture).toMatchObject({ from: 'og:image', address });
	});
	test('the type that is declared with the Open Graph picture counts for the same picture in a Twitter card', () => {
		const address = 'https://site.example/a';
		const head = headOf(
			[],
			[
				['og:image', address],
				['og:image:type', 'image/svg+xml'],
				['og:image:width', '1200'],
				['og:image:alt', 'A sail'],
				['twitter:image', address],
				['twitter:card', 'summary_large_image']
			]
		);
		expect(cardOf(reader('headland'), head).pictures).toEqual([]);
		expect(
			cardOf(
				reader('headland'),
				headOf(
					[],
					head.tags
						.filter(({ tag }) => tag.name !== 'og:image:type')
						.map(({ tag, value }) => [tag.name, value] as const)
				)
			).picture
		).toEqual({ address, from: 'twitter:image', width: 1200, alt: 'A sail', small: false });
	});
	test('one that every picture is wanted of takes those it can read', () => {
		const head = headOf(
			[],
			[
				['og:image', 'https://site.example/a.svg'],
				['og:image', 'https://site.example/b.jpg'],
				['og:image:height', '900'],
				['og:image', 'https://site.example/c.png'],
				['og:image:width', '10']
			]
		);
		expect(cardOf(reader('wrack'), head).pictures).toEqual([
			{ address: 'https://site.example/b.jpg', from: 'og:image', height: 900, small: false },
			{
				address: 'https://site.example/c.png',
				from: 'og:image',
				width: 10,
				small: true,
				because: { is: 'narrow', width: 10, least: 200 },
				why: 'the picture is 10 pixels wide; from 200 it would fill the card'
			}
		]);
	});
	test.each([
		[599, true],
		[600, false]
	])('at %s pixels wide the feed’s card is small: %s', (width, small) => {
		const head = headOf(
			[],
			[
				['og:image', 'https://site.example/a.jpg'],
				['og:image:width', String(width)]
			]
		);
		expect(cardOf(reader('gangway'), head).picture?.small).toBe(small);
	});
	test('the timeline’s card is small where twitter:card says nothing', () => {
		const head = headOf([], [['og:image', 'https://site.example/a.jpg']]);
		expect(cardOf(reader('headland'), head).picture).toMatchObject({ small: true, why: 'twitter:card says nothing' });
	});
});
