import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Field } from '$core';
import { message } from '../../client/panelProtocol';
import { PanelState } from './panel.svelte';
import { cameInWords, stateInWords } from './state';
import { readTyped } from './typed';

const HOST = 'https://editor.example';
let told: unknown[];
let asked: { address: string; auth: string | null }[];
let answers: (() => Response | Promise<Response>)[];
const host = { postMessage: (data: unknown, origin: unknown) => void (expect(origin).toBe(HOST), told.push(data)) };
const fields: readonly Field[] = [
	{ name: 'price', kind: 'number' },
	{ name: 'tags', kind: 'list' },
	{ name: 'sold', kind: 'flag' }
];
const bench = (path: string, more: object = {}) => ({
	...{ isThere: true, mayEdit: true, suppressed: [], standIn: null },
	types: [{ name: 'note', fields, rules: [] }],
	page: { path, type: 'note', state: 'live', fields: { title: 'Kept' }, rules: [] },
	...more
});
beforeEach(() => {
	[told, asked, answers] = [[], [], []];
	vi.spyOn(globalThis, 'fetch').mockImplementation(async (request) => {
		const { url, headers } = request as Request;
		asked.push({ address: url.replace(location.origin, ''), auth: headers.get('authorization') });
		return (answers.shift() ?? (() => new Response(JSON.stringify(bench(pathIn(url))))))();
	});
});
afterEach(() => {
	vi.restoreAllMocks();
	vi.useRealTimers();
});
const pathIn = (address: string) => new URL(address, 'http://k').searchParams.get('path') ?? '/';
const settled = () => new Promise((resolve) => setTimeout(resolve, 5));
const panelOf = (isIn = true) => {
	const panel = new PanelState('S', { origin: HOST, window: host }, isIn);
	const hear = (data: unknown, more: object = {}) =>
		panel.hear({ origin: HOST, source: host, data, ...more } as unknown as MessageEvent);
	return { panel, hear };
};
const sayOf = () => told.map((one) => (one as { say: string }).say);

describe('what is heard', () => {
	test('the page, and what is typed over it', async () => {
		const { panel, hear } = panelOf();
		panel.begin();
		expect(told).toEqual([message({ say: 'ready' })]);
		hear(message({ say: 'fields', fields: { title: 'Typed', price: '12' } }));
		expect(panel.typed).toBeUndefined();
		hear(message({ say: 'page', page: '/a' }));
		await settled();
		expect(panel.data?.page.path).toBe('/a');
		expect(panel.typed).toEqual({ title: 'Typed', price: 12 });
		// What is there already is not typed.
		hear(message({ say: 'fields', fields: { title: 'Kept', summary: '' } }));
		expect(panel.typed).toBeUndefined();
	});
	test.each([
		['another origin', { origin: 'https://evil.example' }, message({ say: 'page', page: '/a' })],
		['another window', { source: {} }, message({ say: 'page', page: '/a' })],
		['another version', {}, { ...message({ say: 'page', page: '/a' }), kephalon: 2 }],
		['no version', {}, { say: 'page', page: '/a' }],
		['no message', {}, 'page'],
		['nothing', {}, null],
		['a page that is none', {}, { kephalon: 1, say: 'page', page: ['/a'] }],
		['a word that is none', {}, { kephalon: 1, say: 'constructor' }]
	])('nothing of %s', async (_name, more, data) => {
		const { panel, hear } = panelOf();
		hear(data, more);
		await settled();
		expect([asked, panel.data, told]).toEqual([[], undefined, []]);
	});
	test('a late answer never stands over a newer one', async () => {
		const { panel, hear } = panelOf();
		let late: (answer: Response) => void = () => undefined;
		answers = [() => new Promise<Response>((resolve) => (late = resolve))];
		hear(message({ say: 'page', page: '/slow' }));
		hear(message({ say: 'page', page: '/fast' }));
		await settled();
		late(new Response(JSON.stringify(bench('/slow'))));
		await settled();
		expect(panel.data?.page.path).toBe('/fast');
	});
	test('a refusal is told, and goes with the next answer', async () => {
		const { panel, hear } = panelOf();
		answers = [() => new Response('{"detail":"There is no page /a.","code":"page-missing"}', { status: 404 })];
		hear(message({ say: 'page', page: '/a' }));
		await settled();
		expect([panel.told, panel.data]).toEqual(['There is no page /a.', undefined]);
		hear(message({ say: 'saved' }));
		await settled();
		expect([panel.told, panel.data?.page.path]).toEqual([undefined, '/a']);
	});
});

describe('being let in', () => {
	test('by what the page beside it brings, at each page anew', async () => {
		const { panel, hear } = panelOf(false);
		hear(message({ say: 'page', page: '/a' }));
		expect([sayOf(), asked]).toEqual([['token-wanted'], []]);
		hear(message({ say: 'token', token: 'kephalon_panel_1' }));
		await settled();
		expect(asked).toEqual([{ address: '/api/v1/sites/S/bench?path=%2Fa', auth: 'Bearer kephalon_panel_1' }]);
		hear(message({ say: 'page', page: '/b' }));
		expect(sayOf()).toEqual(['token-wanted', 'token-wanted']);
		hear(message({ say: 'token', token: 'kephalon_panel_2' }));
		await settled();
		expect(asked.at(-1)).toEqual({ address: '/api/v1/sites/S/bench?path=%2Fb', auth: 'Bearer kephalon_panel_2' });
		panel.end();
	});
	test.each(['', undefined, 7, null])('where it brings %j, somebody signs in by hand', (token) => {
		const { panel, hear } = panelOf(false);
		hear(message({ say: 'page', page: '/a' }));
		hear({ kephalon: 1, say: 'token', token });
		expect([panel.asksToSignIn, asked]).toEqual([true, []]);
	});
	test('by a window of our own, and by no other', async () => {
		const { panel, hear } = panelOf(false);
		hear(message({ say: 'page', page: '/a' }));
		hear(message({ say: 'token', token: '' }));
		const opened = {} as Window;
		vi.spyOn(window, 'open').mockReturnValue(opened);
		const data = { kephalonPanel: 'kephalon_panel_w', ends: new Date(Date.now() + 900_000).toISOString() };
		// Before any was opened, from another origin, another window.
		panel.hearWindow({ origin: location.origin, source: null, data });
		panel.signIn();
		panel.hearWindow({ origin: HOST, source: opened, data });
		panel.hearWindow({ origin: location.origin, source: window, data });
		expect(panel.asksToSignIn).toBe(true);
		panel.hearWindow({ origin: location.origin, source: opened, data });
		await settled();
		expect([panel.asksToSignIn, panel.data?.page.path]).toEqual([false, '/a']);
		// It is for all pages that its person may edit.
		hear(message({ say: 'page', page: '/b' }));
		await settled();
		expect(panel.data?.page.path).toBe('/b');
		panel.end();
	});
	test('what ends is had anew before it does', async () => {
		vi.useFakeTimers();
		const { panel } = panelOf(false);
		const ends = new Date(Date.now() + 900_000).toISOString();
		panel.comeIn('kephalon_panel_old', ends);
		await vi.advanceTimersByTimeAsync(770_000);
		expect(asked).toHaveLength(0);
		const later = new Date(Date.now() + 900_000).toISOString();
		answers = [() => new Response(JSON.stringify({ token: 'kephalon_panel_new', ends: later, person: 'Ed' }))];
		await vi.advanceTimersByTimeAsync(20_000);
		expect(asked).toEqual([{ address: '/api/v1/sites/S/panel/tokens', auth: 'Bearer kephalon_panel_old' }]);
		panel.end();
		await vi.advanceTimersByTimeAsync(10_000_000);
		expect(asked).toHaveLength(1);
	});
});

describe('what is typed elsewhere, as fields', () => {
	test.each([
		[
			{ title: 'T', body: '<p>x' },
			{ title: 'T', body: '<p>x' }
		],
		[
			{ title: '  ', price: '' },
			{ title: null, price: null }
		],
		[{ price: '12.5' }, { price: 12.5 }],
		[{ price: 'cheap' }, { price: 'cheap' }],
		[{ sold: 'on' }, { sold: true }],
		[{ sold: false }, { sold: false }],
		[{ tags: 'a, b\nc,,' }, { tags: ['a', 'b', 'c'] }],
		[{ tags: ['a', 2] }, { tags: ['a', 2] }],
		[{ picture: ' /p.jpg ' }, { picture: { src: '/p.jpg' } }],
		[{ picture: { src: '/p.jpg', alt: 'A', onload: 'x' } }, { picture: { src: '/p.jpg', alt: 'A' } }],
		[{ author: { name: 'Ada', handle: 1 } }, { author: { name: 'Ada' } }],
		[{ title: { a: 1 }, summary: () => 1, tags: [[1]] }, {}],
		[{ price: NaN }, {}],
		['title', {}],
		[null, {}],
		[['title'], {}],
		[JSON.parse('{"__proto__":{"title":"x"},"title":"T"}'), { title: 'T' }]
	])('%j', (said, read) => {
		expect(readTyped(said, fields)).toEqual(read);
	});
	test('whatever comes, it is read to plain fields', () => {
		fc.assert(
			fc.property(fc.anything({ withNullPrototype: true, withBigInt: true }), (said) => {
				const read = readTyped(said, fields);
				expect(() => JSON.stringify(read)).not.toThrow();
				expect(Object.getPrototypeOf(read)).toBe(Object.prototype);
			})
		);
	});
});

describe('how a page stands', () => {
	const all = { state: 'live', isThere: true, isReleased: true, differing: 0, isTyped: false } as const;
	test.each([
		[{}, /^As it is kept, it is what visitors see\.$/],
		[{ isTyped: true }, /^As typed, it is what visitors see\.$/],
		[{ differing: 1 }, /one tag differs from what visitors see/],
		[{ differing: 3, isTyped: true }, /^As typed, 3 tags differ/],
		[{ isReleased: false }, /do not see it yet/],
		[{ isReleased: false, differing: 3 }, /do not see it yet/],
		[{ state: 'draft' }, /^A draft: it is not released/],
		[{ state: 'private' }, /^Private: it is not released/],
		[{ isThere: false, isReleased: false }, /no such page yet/]
	] as const)('%j', (more, says) => {
		expect(stateInWords({ ...all, ...more })).toMatch(says);
	});
	test('where a value came from', () => {
		const signs = ['page', 'type', 'site', 'found', 'built-in', undefined] as const;
		const words = signs.map((sign) => cameInWords({ sign, value: 'x' }, 'walk'));
		expect(new Set(words).size).toBe(5);
		expect(cameInWords({ sign: 'page', value: '' }, 'walk')).toBe('');
	});
});
