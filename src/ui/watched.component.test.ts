import { afterEach, expect, test, vi } from 'vitest';
import { ask, isRefused, NO_ANSWER, watched } from './api';

/** A long work that is followed: what is shown is what was answered, whole, in part, or not at all. */
afterEach(() => vi.restoreAllMocks());

const answer = (body: BodyInit | null, init?: ResponseInit) =>
	vi.spyOn(globalThis, 'fetch').mockResolvedValue(new Response(body, init));
async function follow(signal = new AbortController().signal) {
	const told: unknown[][] = [];
	const come = await watched<{ made: number }>(
		'/api/x',
		{ method: 'POST' },
		{ signal, progress: (...how) => told.push(how) },
		{ stopped: 'Stopped: all stays.', broken: 'It broke off.' }
	);
	return { told, come };
}

test('each line says how far it is, and what was done last where that is told; then what it came to', async () => {
	answer('{"done":1}\n{"done":2,"all":9}\n{"done":3,"all":9,"last":"/a: fetched"}\n{"made":7}\n');
	expect(await follow()).toEqual({
		told: [
			[1, 0, undefined],
			[2, 9, undefined],
			[3, 9, '/a: fetched']
		],
		come: { made: 7 }
	});
});

test('an answer that ends before its last line is not taken for one', async () => {
	answer('{"done":1}\n{"done":2}\n');
	expect((await follow()).come).toEqual({ refused: 'It broke off.' });
	answer('');
	expect((await follow()).come).toEqual({ refused: 'It broke off.' });
	answer('{"done":1}\n{"made":');
	expect((await follow()).come).toEqual({ refused: 'It broke off.' });
});

test('a refusal is told with what is to be said, before the first line as after it', async () => {
	answer(JSON.stringify({ code: 'release-removes', detail: 'Say how many.', removes: 7 }), { status: 409 });
	expect((await follow()).come).toEqual({ refused: 'Say how many.', removes: 7 });
	answer('{"done":1}\n{"code":"stopped","refused":"Stopped."}\n');
	expect((await follow()).come).toMatchObject({ refused: 'Stopped.' });
	answer('{"done":1}\n{"failed":"0a1b2c3d"}\n');
	expect((await follow()).come).toMatchObject({ refused: expect.stringContaining('0a1b2c3d') as string });
});

test('no answer is told as none, and stopping as stopping', async () => {
	vi.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('gone'));
	expect((await follow()).come).toEqual(NO_ANSWER);
	const stop = new AbortController();
	stop.abort();
	vi.spyOn(globalThis, 'fetch').mockRejectedValue(new DOMException('stopped', 'AbortError'));
	expect((await follow(stop.signal)).come).toEqual({ refused: 'Stopped: all stays.' });
});

test('half an answer to a question is none; one that is no JSON says its status', async () => {
	answer('{"groups": [');
	expect(isRefused(await ask('/api/x'))).toBe(true);
	answer('<html>', { status: 502 });
	expect(await ask('/api/x')).toEqual({ refused: expect.stringContaining('502') as string });
});
