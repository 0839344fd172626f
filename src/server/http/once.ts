import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import type { Actor } from '$core';
import { refuse } from '../errors';
import { nameOf } from '../people/note';
import type { Asks } from './rights';

/** Work that was asked for with a key (`Idempotency-Key`): sent again, it is answered as the first time. */
interface Asked {
	/** What was asked for: another thing under the same key is a mistake. */
	readonly what: string;
	readonly answer: Promise<unknown>;
	readonly at: number;
}
const asked = new Map<string, Asked>();

/** So long (milliseconds), and so many, are remembered, by this process. */
const KEPT = 24 * 3_600_000;
const MOST = 1000;
const LONGEST_KEY = 200;

/** Whether a route is done once with a key: those that make or change something of a site, and tell no secret. */
export const isDoneOnce = (method: string, asks: Asks): boolean =>
	method !== 'GET' && ['read', 'edit', 'build', 'release', 'probe'].includes(asks);

/** What a request asks for, beside its route. */
interface Sent {
	readonly db: string;
	readonly who: Actor;
	readonly route: string;
	readonly site: string | undefined;
	readonly path: string | undefined;
	readonly query: unknown;
	readonly body: unknown;
	readonly bytes: Uint8Array | undefined;
	readonly lines: string | undefined;
}

/**
 * Does what was asked for with a key once: who asks again with it gets the same answer, also while the first is under way. What
 * failed can be asked for again. Throws a `UserError` where the key was used for something else.
 */
export async function once<T>(key: string, sent: Sent, work: () => T | Promise<T>): Promise<T> {
	if (key === '' || key.length > LONGEST_KEY) throw refuse('idempotency-key-broken', { most: LONGEST_KEY });
	const now = Date.now();
	for (const [name, { at }] of asked) if (now - at > KEPT || asked.size > MOST) asked.delete(name);
	const { db, who, route, site } = sent;
	const name = JSON.stringify([db, who.kind, nameOf(who, ''), route, site, key]);
	const what = await hashOf(sent);
	const known = asked.get(name);
	if (known && known.what !== what) throw refuse('idempotency-key-used');
	if (known) return copyOf((await known.answer) as T);
	const answer = Promise.resolve().then(work);
	asked.set(name, { what, answer, at: now });
	answer.catch(() => asked.delete(name));
	return copyOf(await answer);
}

/** An answer with headers of its own is read each time. */
const copyOf = <T>(answer: T): T => (answer instanceof Response ? (answer.clone() as T) : answer);

async function hashOf({ path, query, body, bytes, lines }: Sent): Promise<string> {
	const hash = createHash('sha256').update(JSON.stringify([path, query, body]));
	if (bytes) hash.update(bytes);
	if (lines !== undefined) await pipeline(createReadStream(lines), hash);
	return hash.digest('base64');
}
