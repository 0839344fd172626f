/** So often what is rehearsed is tried. */
const REHEARSALS = 60;
/** In milliseconds. */
const TURN = 8;

/**
 * Tries something many times while nobody does anything: a browser runs fast what it has run often. A key that comes
 * meanwhile waits no longer than for one turn. `done` is called behind the last time.
 */
export function rehearsing(once: (times: number) => void | Promise<void>, done: () => void = () => undefined) {
	let times = 0;
	const later = () => void globalThis.requestIdleCallback?.(() => void go());
	const go = async () => {
		for (const until = performance.now() + TURN; times < REHEARSALS && performance.now() < until; times++) {
			const trying = once(times);
			if (trying) await trying;
		}
		if (times < REHEARSALS) later();
		else done();
	};
	later();
}
