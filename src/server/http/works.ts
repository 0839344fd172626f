import { randomUUID } from 'node:crypto';
import type { Actor } from '$core';
import { refuse } from '../errors';
import type { WorkTold } from './contract/shared';
import { refusedAs } from './events';
import type { Say } from './route';

/** Long works that go on by themselves: asked for with `Prefer: respond-async` (RFC 7240), looked at and stopped by a number. */

interface Work {
	told: WorkTold;
	readonly site: string;
	readonly whose: string;
	readonly stop: AbortController;
	readonly ended: Promise<void>;
	readonly watchers: Set<Say>;
}

/** So many are remembered; those that ended first go first. */
const MOST = 500;
/** So many of one person, key or address go on at once. */
const MOST_AT_ONCE = 8;
const works = new Map<string, Work>();

const whoseOf = (who: Actor): string => {
	if (who.kind === 'person') return `person ${who.id}`;
	return who.kind === 'key' ? `key ${who.site} ${who.name}` : who.kind;
};

/** Begins one. Throws a `UserError` where too many of theirs go on. */
export function beginWork(
	{ who, site, route }: { readonly who: Actor; readonly site: string; readonly route: string },
	run: (signal: AbortSignal, say: Say) => Promise<unknown>
): WorkTold {
	const whose = whoseOf(who);
	const theirs = [...works.values()].filter((one) => one.whose === whose && one.told.state === 'running');
	if (theirs.length >= MOST_AT_ONCE) throw refuse('too-much-at-once', { most: MOST_AT_ONCE });
	const id = randomUUID();
	const stop = new AbortController();
	const watchers = new Set<Say>();
	const told: WorkTold = { id, route, begun: new Date().toISOString(), state: 'running' };
	const change = (more: Partial<WorkTold>) => (work.told = { ...work.told, ...more });
	const goOn = async () => {
		try {
			const result = await run(stop.signal, (line) => {
				change({ done: line.done, ...(line.all !== undefined && { all: line.all }) });
				for (const watch of watchers) watch(line);
			});
			change({ state: 'done', result });
		} catch (error) {
			change(stop.signal.aborted ? { state: 'stopped' } : { state: 'refused', problem: refusedAs(error) });
		}
	};
	// It begins once it can be found.
	const work: Work = { told, site, whose, stop, watchers, ended: Promise.resolve().then(goOn) };
	works.set(id, work);
	forgetOld();
	return told;
}

function forgetOld() {
	for (const [id, { told }] of works) {
		if (works.size <= MOST) return;
		if (told.state !== 'running') works.delete(id);
	}
}

/** Those of somebody at a site, the newest first; without what they came to. */
export const worksOf = (who: Actor, site: string): Omit<WorkTold, 'result'>[] =>
	[...works.values()]
		.filter((one) => one.site === site && one.whose === whoseOf(who))
		.map(({ told: { result: _result, ...told } }) => told)
		.reverse();

function workOf(who: Actor, site: string, id: string): Work {
	const work = works.get(id);
	// Of somebody else's no more is told than of one that is not there.
	if (work?.site !== site || work.whose !== whoseOf(who)) throw refuse('work-missing');
	return work;
}

/** One, as it is; with `say`, once it has ended, and told on its way. Going away stops nothing. */
export async function lookAtWork(
	who: Actor,
	site: string,
	id: string,
	{ say, signal }: { readonly say: Say | undefined; readonly signal: AbortSignal }
): Promise<WorkTold> {
	const work = workOf(who, site, id);
	if (!say) return work.told;
	const { done, all } = work.told;
	if (done !== undefined) say({ done, ...(all !== undefined && { all }) });
	work.watchers.add(say);
	const away = new Promise<void>((resolve) => signal.addEventListener('abort', () => resolve(), { once: true }));
	await Promise.race([work.ended, away]).finally(() => work.watchers.delete(say));
	return work.told;
}

/** Stops one, and gives it as it ended. */
export async function stopWork(who: Actor, site: string, id: string): Promise<WorkTold> {
	const work = workOf(who, site, id);
	work.stop.abort();
	await work.ended;
	return work.told;
}
