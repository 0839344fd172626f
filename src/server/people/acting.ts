import { AsyncLocalStorage } from 'node:async_hooks';
import { ALONE, type Actor } from '$core';

const acting = new AsyncLocalStorage<Actor>();

/** Does work as someone: whatever it asks for and changes, now and later, is theirs. */
export const actingAs = <T>(actor: Actor, work: () => T): T => acting.run(actor, work);

/** Whoever does what is being done; the one at this machine where nobody said otherwise (a command, a test). */
export const actor = (): Actor => acting.getStore() ?? ALONE;
