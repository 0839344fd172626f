import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { call, isRefused } from '../client';
import { Drafts } from './drafts.svelte';
import { Neighbours } from './sharing';

/** Edits of one place go one after the other; nobody is told that their own edit was another's. */
interface Sent {
	readonly body: { template: string };
	readonly expected: unknown;
	answer(status: number, data?: object): void;
}
let sent: Sent[] = [];
let took: unknown[] = [];
const edit = (template: string) =>
	({ place: { layer: 'type', name: 'isle' }, tag: 'title', body: { kind: 'template', template } }) as const;
const key = 'type isle title';
beforeEach(() => {
	[sent, took] = [[], []];
	vi.useFakeTimers();
	vi.spyOn(globalThis, 'fetch').mockImplementation((address, init) => {
		if (!String(address).endsWith('/rules')) return new Promise(() => undefined);
		const { body, expected } = JSON.parse(String(init?.body)) as Omit<Sent, 'answer'>;
		return new Promise((resolve) =>
			sent.push({
				...{ body, expected },
				answer: (status, data = {}) => resolve(new Response(JSON.stringify(data), { status }))
			})
		);
	});
});
afterEach(() => {
	vi.useRealTimers();
	vi.restoreAllMocks();
});
const drafts = () =>
	new Drafts({
		siteName: 'S',
		data: {
			count: { all: 9 },
			site: { rules: [] },
			types: [{ name: 'isle', rules: [] }],
			page: { path: '/', rules: [] },
			pictures: []
		},
		isBroken: () => false,
		took: (one: unknown) => took.push(one)
	} as never);
const settle = () => vi.advanceTimersByTimeAsync(0);
const keyOf = (all: Drafts) => Object.keys(all.all)[0] ?? key;

test('a second edit of a place waits for the answer to the first, and stands on it', async () => {
	const all = drafts();
	all.put(edit('One'), 'One', null);
	const place = keyOf(all);
	void all.keep(place);
	await settle();
	all.put(edit('One and two'), 'One and two', null);
	void all.keep(place);
	void all.keep(place);
	await settle();
	expect(sent.map(({ body }) => body.template)).toEqual(['One']);
	sent[0]!.answer(200, { revision: 2 });
	await settle();
	expect(sent.map(({ body, expected }) => [body.template, expected])).toEqual([
		['One', null],
		['One and two', { kind: 'template', template: 'One' }]
	]);
	sent[1]!.answer(200, { revision: 3 });
	await settle();
	expect(all.waiting).toBe(0);
	expect(all.saving).toBe('idle');
	expect(took).toHaveLength(2);
	expect(sent).toHaveLength(2);
});
test('one that is refused stays a draft, and the next is sent all the same', async () => {
	const all = drafts();
	all.put(edit('One'), 'One', null);
	const place = keyOf(all);
	void all.keep(place);
	await settle();
	sent[0]!.answer(400, { detail: 'It is too long.' });
	await settle();
	expect(all.saving).toBe('failed');
	expect(all.all[place]?.refused).toBe('It is too long.');
	all.put(edit('Two'), 'Two', null);
	void all.keep(place);
	await settle();
	sent[1]!.answer(200);
	await settle();
	expect([all.saving, all.waiting]).toEqual(['idle', 0]);
});
test('what another has written meanwhile is a conflict; what oneself has written is none', async () => {
	const all = drafts();
	all.put(edit('Mine'), 'Mine', null);
	const place = keyOf(all);
	void all.keep(place);
	await settle();
	sent[0]!.answer(409, { current: { kind: 'template', template: 'Another’s' } });
	await settle();
	expect(all.all[place]?.conflict).toEqual({ current: { kind: 'template', template: 'Another’s' } });
	void all.overrule(place);
	await settle();
	expect(sent[1]?.expected).toEqual({ kind: 'template', template: 'Another’s' });
	sent[1]!.answer(409, { current: { kind: 'template', template: 'Mine' } });
	await settle();
	expect(all.waiting).toBe(0);
});

test('the others are told also by who has left, and what was heard is not said again', async () => {
	vi.useRealTimers();
	const heard: string[] = [];
	const [one, other] = [new Neighbours('S'), new Neighbours('S')];
	const stop = one.listen(() => heard.push('one'));
	const stopOther = other.listen(() => heard.push('other'));
	one.tell();
	await vi.waitFor(() => expect(heard).toEqual(['other']));
	stop();
	// A save that was on its way comes back after the room was left.
	expect(() => one.tell()).not.toThrow();
	await vi.waitFor(() => expect(heard).toEqual(['other', 'other']));
	stopOther();
	const elsewhere = new Neighbours('T');
	expect(() => elsewhere.tell()).not.toThrow();
});

test('half an answer is no answer', async () => {
	const ask = () => call('GET /sites/{site}/worst', { site: 'S' });
	const answering = (text: string, status = 200) =>
		vi.spyOn(globalThis, 'fetch').mockResolvedValue(new Response(text, { status }));
	answering('{"rows":[1,');
	expect(await ask()).toEqual({ refused: expect.stringContaining('broke off') });
	answering('');
	expect(isRefused(await ask())).toBe(true);
	answering('<html>', 502);
	expect(await ask()).toEqual({ refused: 'The server answered 502. Try again; what you wrote is still here.' });
	answering('{"detail":"No.","removes":7}', 409);
	expect(await ask()).toEqual({ refused: 'No.', removes: 7 });
	answering('[]');
	expect(await ask()).toEqual([]);
	vi.spyOn(globalThis, 'fetch').mockRejectedValue(new Error('down'));
	expect(await ask()).toEqual({ refused: expect.stringContaining('does not answer') });
});
