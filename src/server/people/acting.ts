import { AsyncLocalStorage } from 'node:async_hooks';
import { ALONE, type Actor } from '$core';

const acting = new AsyncLocalStorage<Actor>();

/** Does work as someone: whatever it asks for and changes, now and later, is theirs. */
export const actingAs = <T>(actor: Actor, work: () => T): T => acting.run(actor, work);

/** Whoever does what is being done; the one at this machine where nobody said otherwise (a command, a test). */
export const actor = (): Actor => acting.getStore() ?? ALONE;

const seen = new AsyncLocalStorage<number>();

/** Does work on a site as it was seen at a revision: an edit of one that has gone on since is refused. */
export const workingOn = <T>(revision: number | undefined, work: () => T): T =>
	revision === undefined ? work() : seen.run(revision, work);

/** The revision that the site was seen at, where whoever asks said so. */
export const revisionSeen = (): number | undefined => seen.getStore();
