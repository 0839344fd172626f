import { createHash } from 'node:crypto';
import { refuse } from '../errors';
import type { Store } from '../store/store';

/** Work that was asked for with a key, by database, site and key: sent again, it is answered as the first time. */
interface Asked {
	/** What was asked for: another thing under the same key is a mistake. */
	readonly what: string;
	readonly answer: Promise<unknown>;
	readonly at: number;
}
const asked = new Map<string, Asked>();

/** So long (milliseconds), and so many, are remembered. */
const KEPT = 24 * 3_600_000;
const MOST = 1000;
const LONGEST_KEY = 200;

/**
 * Does what was asked for with a key once: who asks again with it gets the same answer, also while the first is under
 * way. What failed can be asked for again. Throws a `UserError` where the key was used for something else.
 */
export function once<T>(store: Store, site: string, key: string, input: unknown, work: () => Promise<T>): Promise<T> {
	if (key === '' || key.length > LONGEST_KEY) throw refuse('idempotency-key-broken', { most: LONGEST_KEY });
	const now = Date.now();
	for (const [name, { at }] of asked) if (now - at > KEPT || asked.size > MOST) asked.delete(name);
	const name = JSON.stringify([store.file, site, key]);
	const what = createHash('sha256').update(JSON.stringify(input)).digest('base64');
	const known = asked.get(name);
	if (known && known.what !== what) throw refuse('idempotency-key-used');
	if (known) return known.answer as Promise<T>;
	const answer = work();
	asked.set(name, { what, answer, at: now });
	answer.catch(() => asked.delete(name));
	return answer;
}
