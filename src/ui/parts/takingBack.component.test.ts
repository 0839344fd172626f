import { afterEach, expect, test, vi } from 'vitest';
import { TakingBack } from './takingBack.svelte';

afterEach(() => vi.restoreAllMocks());
/** A stream whose lines come when they are told to. */
function streaming() {
	let write: (line: object) => void = () => undefined;
	let end = () => undefined as void;
	let isGone = false;
	let sent: unknown;
	vi.spyOn(globalThis, 'fetch').mockImplementation(async (_, init) => {
		sent = JSON.parse(String(init?.body));
		const body = new ReadableStream<Uint8Array>({
			start(stream) {
				write = (line) => stream.enqueue(new TextEncoder().encode(`${JSON.stringify(line)}\n`));
				end = () => stream.close();
				init?.signal?.addEventListener('abort', () => {
					isGone = true;
					stream.error(new DOMException('gone', 'AbortError'));
				});
			}
		});
		return new Response(body);
	});
	return { write: (line: object) => write(line), end: () => end(), isGone: () => isGone, sent: () => sent };
}

test('it says how far it is from its first moment on, and only one is taken back at a time', async () => {
	const { write, end, sent } = streaming();
	const taking = new TakingBack();
	const running = taking.run('S', 7, 4100);
	await vi.waitFor(() => expect(taking.far).toEqual({ done: 0, all: 0 }));
	expect([taking.says, taking.isLong]).toEqual(['Taking back …', false]);
	await vi.waitFor(() => expect(sent()).toEqual({ takeBack: 7, removes: 4100 }));
	write({ done: 4000, all: 25_000 });
	await vi.waitFor(() => expect(taking.says).toBe('Taking back: 4,000 of 25,000 changes …'));
	expect(taking.isLong).toBe(true);
	expect(await taking.run('S', 8)).toEqual({ refused: 'An edit is being taken back already.' });
	write({ taken: 7, revision: 9 });
	end();
	expect(await running).toBeUndefined();
	expect(taking.far).toBeUndefined();
});
test('a fast hand takes back several, one after the other', async () => {
	const sent: unknown[] = [];
	const answers: (() => void)[] = [];
	vi.spyOn(globalThis, 'fetch').mockImplementation((_, init) => {
		sent.push((JSON.parse(String(init?.body)) as { takeBack: unknown }).takeBack);
		return new Promise((resolve) => answers.push(() => resolve(new Response(`{"taken":${sent.length}}\n`))));
	});
	const taking = new TakingBack();
	const all = [taking.run('S', 'last'), taking.run('S', 'last'), taking.run('S', 'again')];
	for (const count of [1, 2, 3]) {
		await vi.waitFor(() => expect(answers).toHaveLength(count));
		expect(sent).toEqual(['last', 'last', 'again'].slice(0, count));
		answers[count - 1]!();
	}
	expect(await Promise.all(all)).toEqual([undefined, undefined, undefined]);
	expect(taking.far).toBeUndefined();
});
test('stopped, it says that nothing is taken back', async () => {
	const { isGone, sent } = streaming();
	const taking = new TakingBack();
	const running = taking.run('S', 'last');
	await vi.waitFor(() => expect(sent()).toBeDefined());
	taking.stop();
	expect(await running).toEqual({ refused: 'Stopped: nothing is taken back.' });
	expect([isGone(), taking.far]).toEqual([true, undefined]);
});
test('a refusal, and an answer that breaks off, are told as that', async () => {
	const taking = new TakingBack();
	const { write, end, sent } = streaming();
	const refused = taking.run('S', 'last');
	await vi.waitFor(() => expect(sent()).toBeDefined());
	write({ refused: '41 of 50 pages would go.', removes: 41 });
	end();
	expect(await refused).toEqual({ refused: '41 of 50 pages would go.', removes: 41 });
	const other = streaming();
	const broken = taking.run('S', 'last');
	await vi.waitFor(() => expect(other.sent()).toBeDefined());
	other.write({ done: 1, all: 2 });
	await vi.waitFor(() => expect(taking.far?.done).toBe(1));
	other.end();
	expect(await broken).toEqual({ refused: expect.stringContaining('broke off') });
});
