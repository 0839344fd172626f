import { patiently } from '../store/opening/patiently';
import type { DueMessage, HookTry } from '../store/hooks/hooks';
import type { Store } from '../store/store';
import type { HookAnswer, HookTask } from './send';

const [SECOND, MINUTE, HOUR] = [1000, 60_000, 3_600_000];
/** How long (milliseconds) is waited after each try: about a day in all. */
export const WAITS = [
	...[5 * SECOND, 30 * SECOND, 2 * MINUTE, 10 * MINUTE, 30 * MINUTE],
	...[HOUR, 2 * HOUR, 4 * HOUR, 8 * HOUR, 8 * HOUR]
];
/** So many addresses are sent to at a time. */
const MOST = 8;
/** What was taken and not told of again (a killed process) is taken up after so long (milliseconds). */
const LEASE = 60_000;

/** Sends what is due, and says of each what comes next; gives how many it was. `send` runs in a thread. */
export async function sendDue(
	store: Store,
	send: (task: HookTask) => Promise<HookAnswer>,
	now: () => number = Date.now
): Promise<number> {
	// Asked each second: only what is there to be sent needs the writer.
	if (!store.hooks.hasDue(now())) return 0;
	const due = await patiently(() => store.transaction(() => store.hooks.takeDue(now(), now() + LEASE, MOST)));
	await Promise.all(
		due.map(async (message) => {
			const { address, secret, inside, id, body } = message;
			const at = now();
			const answer = await send({ address, secret, inside, id, body, at }).catch((): HookAnswer => ({
				why: 'It could not be sent.'
			}));
			await patiently(() => store.transaction(() => keep(store, message, answer, at)));
		})
	);
	return due.length;
}

function keep(store: Store, { id, webhook, tries }: DueMessage, { status, why }: HookAnswer, at: number) {
	const one: HookTry = {
		at: new Date(at).toISOString(),
		...(status !== undefined && { status }),
		...(why !== undefined && { why })
	};
	const all = [...tries, one];
	if (status !== undefined && status >= 200 && status < 300) return store.hooks.tried(id, all, undefined);
	const wait = WAITS[tries.length];
	store.hooks.tried(id, all, wait === undefined ? undefined : at + wait);
	if (status === 410) store.hooks.stop(webhook, 'It answered that it is gone for good (410).');
	// One that is sent again by hand later on says nothing of the address.
	else if (tries.length === WAITS.length) store.hooks.stop(webhook, 'It took no message for a day.');
}
