import { refuse } from '../errors';
import type { Jobs } from '../jobs/kinds';
import { runJob } from '../jobs/run';

/** A look that is on its way, and how many wait for it. */
interface UnderWay {
	readonly look: Promise<Jobs['look']['output']>;
	readonly stop: AbortController;
	waiting: number;
}
const underWay = new Map<string, UnderWay>();

/** Looks at an address as all readers would. Several who ask for the same at one time get one look; when all have gone, it ends. */
export function lookOnce(input: Jobs['look']['input'], signal: AbortSignal): Promise<Jobs['look']['output']> {
	if (signal.aborted) return Promise.reject(refuse('stopped'));
	const key = JSON.stringify([input.db, input.site, input.address.trim(), input.via]);
	const known = underWay.get(key);
	const one = known ?? begin(key, input);
	one.waiting++;
	return new Promise((done, fail) => {
		const leave = () => {
			if (--one.waiting === 0) {
				// Whoever asks now gets one of their own.
				underWay.delete(key);
				one.stop.abort();
			}
			fail(refuse('stopped'));
		};
		signal.addEventListener('abort', leave, { once: true });
		one.look.then(done, fail).finally(() => signal.removeEventListener('abort', leave));
	});
}

function begin(key: string, input: Jobs['look']['input']): UnderWay {
	const stop = new AbortController();
	const look = runJob('look', input, { signal: stop.signal }).finally(() => {
		if (underWay.get(key) === one) underWay.delete(key);
	});
	const one: UnderWay = { look, stop, waiting: 0 };
	underWay.set(key, one);
	return one;
}
