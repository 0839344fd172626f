import { setTimeout as after } from 'node:timers/promises';

/** The clock that all waiting goes by; a test sets its hands. Times in milliseconds. */
export const clock = {
	now: () => Date.now(),
	/** Ends after so long, or when the signal stops it: either way without an error. */
	sleep: async (milliseconds: number, signal?: AbortSignal): Promise<void> => {
		if (milliseconds <= 0 || signal?.aborted) return;
		await after(milliseconds, undefined, signal && { signal }).catch(() => undefined);
	}
};

/** Lets what it is called for begin at most once in so many milliseconds: each call ends when its turn has come. */
export function pacer(pause: number, signal?: AbortSignal): () => Promise<void> {
	let last = Number.NEGATIVE_INFINITY;
	return async () => {
		await clock.sleep(last + pause - clock.now(), signal);
		last = clock.now();
	};
}

/** Ends with the work, or after so long; the work goes on. */
export async function awhile(work: Promise<unknown>, patience: number): Promise<void> {
	const patienceEnds = new AbortController();
	await Promise.race([work, clock.sleep(patience, patienceEnds.signal)]).finally(() => patienceEnds.abort());
}
