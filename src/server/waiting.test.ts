import { afterEach, expect, test, vi } from 'vitest';
import { awhile, clock, pacer } from './waiting';

afterEach(() => vi.restoreAllMocks());

/** A clock whose hands move by what is slept. */
function setClock() {
	let now = 1000;
	const slept: number[] = [];
	vi.spyOn(clock, 'now').mockImplementation(() => now);
	vi.spyOn(clock, 'sleep').mockImplementation((milliseconds) => {
		if (milliseconds > 0) {
			slept.push(milliseconds);
			now += milliseconds;
		}
		return Promise.resolve();
	});
	return { slept, pass: (milliseconds: number) => (now += milliseconds) };
}

test('the first goes at once, each after it when its turn has come, one that comes late at once', async () => {
	const { slept, pass } = setClock();
	const turn = pacer(100);
	await turn();
	expect(slept).toEqual([]);
	await turn();
	pass(30);
	await turn();
	pass(250);
	await turn();
	expect(slept).toEqual([100, 70]);
});

test('sleeping ends when it is stopped, without an error; no time is none', async () => {
	const stop = new AbortController();
	const sleeping = clock.sleep(60_000, stop.signal);
	stop.abort();
	await sleeping;
	await clock.sleep(60_000, stop.signal);
	await clock.sleep(0);
	await clock.sleep(-5);
	await clock.sleep(1);
});

test('work is waited for a while, and its error is heard only then', async () => {
	let end = () => {};
	const work = new Promise<void>((resolve) => (end = resolve));
	await awhile(work, 1);
	end();
	await awhile(work, 60_000);
	await expect(awhile(Promise.reject(new Error('no')), 60_000)).rejects.toThrow('no');
});
