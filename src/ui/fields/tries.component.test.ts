import { afterEach, expect, test, vi } from 'vitest';
import type { Edit } from '$core';
import { betterOf, Tries } from './tries.svelte';

/** What is said of templates on hard pages, from what was looked at: nothing yet, none, a late answer, a look that failed. */
afterEach(() => {
	vi.restoreAllMocks();
	vi.useRealTimers();
});
const editOf = (template: string): Edit => ({
	place: { layer: 'type', name: 'walk' },
	tag: 'title',
	body: { kind: 'template', template }
});
const wrong = { code: 'cut', tag: 'title', weight: 2, target: { of: 'page', path: '/a' } };
const value = (text: string, ...findings: object[]) => ({ value: text, findings });
const page = (path: string, ...values: object[]) => ({ path, kinds: ['longest'], values }) as never;

type Sent = { readonly address: string; readonly body: { edits?: { body: { template: string } }[] } };
/** Answers each ask by what is made of it. */
function answering(make: (sent: Sent) => unknown) {
	const asked: Sent[] = [];
	vi.spyOn(globalThis, 'fetch').mockImplementation(async (address, init) => {
		const sent = { address: String(address), body: JSON.parse(String(init?.body)) as Sent['body'] };
		asked.push(sent);
		const made = await make(sent);
		return typeof made === 'number'
			? new Response('{"detail":"The database is locked."}', { status: made })
			: new Response(`${JSON.stringify(made)}\n`);
	});
	return asked;
}
const templatesOf = ({ body }: Sent) => body.edits?.map((edit) => edit.body.template);

test('before anything was looked at nothing is said', () => {
	const tries = new Tries('S', 'walk', 'A', editOf);
	expect([tries.pages, tries.given, tries.isCurrent, tries.score]).toEqual([
		...[undefined, undefined, false],
		{ first: 0, second: 0, alike: 0 }
	]);
});

test('one template alone is looked at, and where it gives way is asked only where it says how much room there is', async () => {
	const asked = answering(() => [page('/a', value('A'))]);
	const tries = new Tries('S', 'walk', 'A', editOf);
	await tries.begin();
	expect(asked.map((sent) => [sent.address.split('/').at(-1), templatesOf(sent)])).toEqual([['tries', ['A']]]);
	expect(tries.isCurrent).toBe(true);
	expect(tries.score).toEqual({ first: 0, second: 0, alike: 0 });
	const other = new Tries('S', 'walk', '{fit 60}A', editOf);
	const more = answering(({ address }) => (address.endsWith('given-way') ? { pages: 9, stretches: [] } : []));
	await other.begin();
	expect(more.map(({ address }) => address.split('/').at(-1)).sort()).toEqual(['given-way', 'tries']);
	expect(other.given).toEqual({ pages: 9, stretches: [] });
});

test('which comes out better is told by what is wrong with each', () => {
	expect(betterOf(page('/a', value('A', wrong), value('B')))).toBe('second');
	expect(betterOf(page('/a', value('A'), value('B', wrong)))).toBe('first');
	expect(betterOf(page('/a', value('A', wrong), value('B', wrong)))).toBe('alike');
	expect(betterOf(page('/a', value('A')))).toBe('alike');
});

test('what is typed is not what is shown until it was looked at, and a late answer never takes the place of a newer', async () => {
	vi.useFakeTimers();
	const answers: ((made: unknown) => void)[] = [];
	const asked = answering(() => new Promise((resolve) => answers.push(resolve)));
	const tries = new Tries('S', 'walk', 'A', editOf);
	tries.write('B');
	expect(tries.isCurrent).toBe(false);
	await vi.advanceTimersByTimeAsync(301);
	tries.write('BC');
	await vi.advanceTimersByTimeAsync(301);
	expect(asked.map(templatesOf)).toEqual([
		['A', 'B'],
		['A', 'BC']
	]);
	answers[1]!([page('/a', value('A', wrong), value('BC'))]);
	await vi.advanceTimersByTimeAsync(1);
	answers[0]!([page('/a', value('A'), value('B', wrong))]);
	await vi.advanceTimersByTimeAsync(1);
	expect(tries.pages![0]!.values[1]!.value).toBe('BC');
	expect(tries.score).toEqual({ first: 0, second: 1, alike: 0 });
});

test('a look that failed says so, and shows no pages', async () => {
	answering(() => 503);
	const tries = new Tries('S', 'walk', '{fit 60}A', editOf);
	await tries.begin();
	expect([tries.refused, tries.pages, tries.given, tries.isCurrent]).toEqual([
		...['The database is locked.', undefined, undefined, false]
	]);
});

test('closed, nothing that comes later is shown', async () => {
	let answer: (made: unknown) => void = () => undefined;
	answering(() => new Promise((resolve) => (answer = resolve)));
	const tries = new Tries('S', 'walk', 'A', editOf);
	const begun = tries.begin();
	tries.end();
	answer([page('/a', value('A'))]);
	await begun;
	expect(tries.pages).toBeUndefined();
});
