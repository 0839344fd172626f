import { describe, expect, test } from 'vitest';
import {
	cardOf,
	LEAST_SIDE,
	measureText,
	READERS,
	Resolver,
	type Page,
	type Picture,
	type PictureSeen
} from '../index';

const resolver = new Resolver(
	{
		site: { name: 'Site', base: 'https://site.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [],
		pictures: [
			{ src: '/wide.jpg', width: 1200, height: 630, alt: 'Wide' },
			{ src: '/small.jpg', width: 300, height: 200 }
		] satisfies Picture[]
	},
	''
);
const [feed, search] = READERS;
const headOf = (fields: Page['fields'], rules: Page['rules'] = [], path = '/a%20b/c') =>
	resolver.resolveHead({ path, type: '', state: 'live', fields, rules });

describe('a card', () => {
	test('is made of the tags its reader asks for, first found first used', () => {
		const card = cardOf(
			feed!,
			headOf({ title: 'T', summary: 'S', picture: { src: '/wide.jpg' } }, [
				{ tag: 'og:title', kind: 'template', template: 'O' }
			])
		);
		expect(card).toMatchObject({
			title: { shown: 'O', cut: '', from: 'og:title' },
			description: { shown: 'S', from: 'og:description' },
			picture: { address: 'https://site.example/wide.jpg', width: 1200, alt: 'Wide', small: false },
			host: 'site.example',
			crumbs: ['a b', 'c'],
			siteName: 'Site'
		});
		expect(
			cardOf(search!, headOf({ title: 'T' }, [{ tag: 'og:title', kind: 'template', template: 'O' }])).title
		).toMatchObject({ shown: 'T', from: 'title' });
	});
	test('falls back to what there is', () => {
		const card = cardOf(
			feed!,
			headOf({ title: 'T' }, [
				{ tag: 'og:title', kind: 'leaveOut' },
				{ tag: 'twitter:title', kind: 'leaveOut' }
			])
		);
		expect(card.title).toEqual({ shown: 'T', cut: '', from: 'title' });
		expect(card.picture).toBeUndefined();
		expect(card.description).toEqual({ shown: '', cut: '', from: undefined });
	});
	test('tells a picture that is too small for its large form', () => {
		expect(cardOf(feed!, headOf({ picture: '/small.jpg' })).picture?.small).toBe(true);
	});
	describe('of pictures that were fetched takes the first that its reader can show', () => {
		const head = resolver.resolveHead({
			path: '/p',
			type: '',
			state: 'live',
			fields: { title: 'T', picture: { src: '/wide.jpg' } },
			rules: [
				{ tag: 'twitter:image', kind: 'pictures', sources: [{ from: 'file', src: '/small.jpg' }] },
				{ tag: 'twitter:card', kind: 'template', template: 'summary_large_image' }
			]
		});
		const [wide, small] = ['https://site.example/wide.jpg', 'https://site.example/small.jpg'];
		const sound = { type: 'image/jpeg', width: 1200, height: 630, bytes: 90_000 };
		const readerOf = (id: string) => READERS.find((reader) => reader.id === id)!;
		const card = (id: string, seen: Record<string, PictureSeen>) =>
			cardOf(readerOf(id), head, (address) => (Object.hasOwn(seen, address) ? seen[address] : undefined));
		test('at the word of its tags where nobody has looked', () => {
			expect(card('headland', {}).picture).toMatchObject({ address: small, from: 'twitter:image' });
			expect(card('headland', {}).passedOver).toEqual([]);
		});
		test.each<[string, PictureSeen, string | undefined]>([
			['gone', { why: { is: 'answers', status: 404 } }, 'cannot be fetched: its server answers with 404'],
			['of a form it cannot read', { ...sound, type: 'image/avif' }, 'is AVIF, which it cannot read'],
			['a drawing', { ...sound, type: 'image/svg+xml' }, 'is SVG, which it cannot read'],
			['too heavy', { ...sound, bytes: 5_000_001 }, 'has 5.0 MB, and it fetches 5.0 MB at the most'],
			['a mark', { ...sound, width: 1, height: 1 }, 'is 1 × 1, a mark and no picture'],
			['just no mark', { ...sound, width: LEAST_SIDE, height: LEAST_SIDE }, undefined],
			['just light enough', { ...sound, bytes: 5_000_000 }, undefined]
		])('%s', (_what, seen, why) => {
			const made = card('headland', { [small!]: seen, [wide!]: sound });
			expect(made.passedOver).toEqual(
				why === undefined ? [] : [{ address: small, from: 'twitter:image', because: expect.any(Object) as object, why }]
			);
			expect(made.picture?.address).toBe(why === undefined ? small : wide);
		});
		test('with what it is, whatever its tags say', () => {
			expect(card('gangway', { [wide!]: { ...sound, width: 320, height: 200 } }).picture).toMatchObject({
				...{ address: wide, width: 320, height: 200, small: true },
				why: expect.stringContaining('320 pixels wide') as string
			});
		});
		test('and none where none of them is one', () => {
			const none = { why: { is: 'empty' } } as const;
			const made = card('headland', { [small!]: none, [wide!]: none });
			expect(made.picture).toBeUndefined();
			expect(made.passedOver.map(({ from }) => from)).toEqual(['twitter:image', 'og:image']);
		});
	});
	test('nothing is lost where a text is cut, and no character is split', () => {
		const title = '👩‍👩‍👧'.repeat(200);
		for (const reader of READERS) {
			const { shown, cut } = cardOf(reader, headOf({ title })).title;
			expect(cut).not.toBe('');
			expect(shown + cut).toBe(title);
			expect(shown.length % '👩‍👩‍👧'.length).toBe(0);
		}
	});
	test('a path that cannot be decoded is shown as it stands', () => {
		expect(cardOf(feed!, headOf({}, [], '/%E0%A4%A')).crumbs).toEqual(['%E0%A4%A']);
	});
});

describe('measuring', () => {
	test.each([
		['', 0],
		['i', 4.44],
		['W', 18.88],
		['Merrow', 66.66],
		['漢', 20]
	])('%s at 20 pixels', (text, pixels) => {
		expect(measureText(text, 20)).toBeCloseTo(pixels, 1);
	});
	test('a text that fits by its pixels is not cut, however many characters it has', () => {
		const thin = 'i'.repeat(130);
		expect(cardOf(search!, headOf({ title: thin })).title.cut).toBe('');
		const wide = 'W'.repeat(40);
		const { shown } = cardOf(search!, headOf({ title: wide })).title;
		expect(measureText(`${shown}…`, 20)).toBeLessThanOrEqual(580);
		expect(measureText(`${shown}W…`, 20)).toBeGreaterThan(580);
	});
});

describe('what readers do differently', () => {
	const card = (id: string, head: ReturnType<typeof headOf>) =>
		cardOf(
			READERS.find((reader) => reader.id === id)!,
			head
		);
	const say = (tag: string, template: string) => ({ tag, kind: 'template', template }) as const;

	test('a timeline reads Twitter card tags first, and takes its size from twitter:card', () => {
		const rules = [say('og:title', 'O'), say('twitter:title', 'T')];
		const large = card('headland', headOf({ picture: '/wide.jpg' }, rules));
		expect(large.title).toMatchObject({ shown: 'T', from: 'twitter:title' });
		expect(large.picture).toMatchObject({ small: false, width: 1200, alt: 'Wide' });
		const small = card('headland', headOf({ picture: '/wide.jpg' }, [say('twitter:card', 'summary')]));
		expect(small.picture).toMatchObject({ small: true, why: 'twitter:card says summary' });
	});
	test('a work network shows no description', () => {
		expect(card('ropewalk', headOf({ title: 'T', summary: 'S' })).description.shown).toBe('');
	});
	test('a chat shows the label/data pairs that are whole', () => {
		const rules = [say('twitter:label1', 'When'), say('twitter:data1', 'Noon'), say('twitter:label2', 'Alone')];
		expect(card('galley', headOf({}, rules)).pairs).toEqual([{ label: 'When', data: 'Noon' }]);
		expect(card('gangway', headOf({}, rules)).pairs).toEqual([]);
	});
	test('a pin board takes every picture, each with its own facts', () => {
		const rules = [
			{ tag: 'og:image', kind: 'pictures', count: 2, sources: [{ from: 'lead' }, { from: 'file', src: '/small.jpg' }] }
		] as const;
		const { pictures } = card('wrack', headOf({ picture: '/wide.jpg' }, rules as never));
		expect(pictures.map(({ width, alt }) => [width, alt])).toEqual([
			[1200, 'Wide'],
			[300, undefined]
		]);
		expect(card('gangway', headOf({ picture: '/wide.jpg' }, rules as never)).pictures).toHaveLength(1);
	});
	test('every reader has a form, a name of its own, and never throws on a bare head', () => {
		expect(new Set(READERS.map(({ id }) => id)).size).toBe(READERS.length);
		const bare = headOf({}, [{ tag: 'title', kind: 'leaveOut' }]);
		for (const reader of READERS) expect(cardOf(reader, bare).picture).toBeUndefined();
	});
});
