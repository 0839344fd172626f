import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import type { Piscina } from 'piscina';
import { refuse, UserError, type RefusalCode } from '../errors';
import { log } from '../log';
import { actor } from '../people/acting';
import type { JobName, Jobs } from './kinds';
import type { Progress } from '../progress';

/** What a thread answers: errors lose their kind on the way, so those for people are told as data. */
export type Answer<T> = { readonly output: T } | { readonly refused: RefusalCode; readonly data: UserError['data'] };

/** Jobs that wait at the most; more are refused. */
const MOST_WAITING = 64;
/** The heap of a thread begun from now on (MB): one that needs more is ended, and says so. */
export const threads = { heap: 700 };
/** A thread without work is kept this long (milliseconds): one that has run is several times faster than a new one. */
const IDLE = 60_000;

/** Jobs that mostly wait for servers elsewhere, some for hours: they have threads of their own, and take none from the others. */
const WAITS: ReadonlySet<JobName> = new Set(['look', 'drift', 'signOn', 'mail', 'hook']);
/** Records of live data, while somebody waits for the page: many are on their way in one thread. None is ended from outside. */
const RECORDS_AT_ONCE = 64;
const MOST_RECORDS_WAITING = 1000;
type PoolName = 'works' | 'waits' | 'records';
const poolOf = (job: JobName): PoolName => (job === 'record' ? 'records' : WAITS.has(job) ? 'waits' : 'works');
const pools = new Map<PoolName, Promise<Piscina>>();

/** Where the thread's program lies: the command knows, and tells the web application in the environment. */
function threadPool(name: PoolName): Promise<Piscina> {
	const filename = process.env.KEPHALON_THREAD;
	if (!filename) throw new Error('KEPHALON_THREAD is not set: start through the kephalon command.');
	let pool = pools.get(name);
	if (!pool) {
		// The pool would try to start it again and again.
		if (!existsSync(filename)) throw new Error(`The program of the threads is not there: ${filename}`);
		pool = makePool(name, filename);
		pools.set(name, pool);
	}
	return pool;
}

/** Its package is loaded with the first job: many a command has none. */
async function makePool(name: PoolName, filename: string): Promise<Piscina> {
	const { Piscina } = await import('piscina');
	return new Piscina({
		filename,
		execArgv: [],
		minThreads: 0,
		maxThreads: name === 'records' ? 1 : Math.max(2, Math.min(4, availableParallelism())),
		maxQueue: name === 'records' ? MOST_RECORDS_WAITING : MOST_WAITING,
		concurrentTasksPerWorker: name === 'records' ? RECORDS_AT_ONCE : 1,
		// It rests without standing still: kept connections that a source closes meanwhile are seen to be closed.
		...(name === 'records' && { atomics: 'async' as const }),
		idleTimeout: IDLE,
		resourceLimits: { maxOldGenerationSizeMb: threads.heap }
	});
}

/** Jobs that keep something before they are done (goes of an edit, indexes put away): of one that is ended it is put right. */
const MADE_IN_GOES: ReadonlySet<JobName> = new Set(['content', 'batch', 'cells', 'csvBack', 'takeBack', 'push']);

/**
 * Runs a job in a thread. Aborting ends the thread at once; what it was writing is rolled back. What it `gives` of its
 * input goes into the thread and is not copied.
 */
export async function runJob<N extends JobName>(
	name: N,
	input: Jobs[N]['input'],
	{ progress, signal, gives = [] }: { progress?: Progress; signal?: AbortSignal; gives?: readonly ArrayBuffer[] } = {}
): Promise<Jobs[N]['output']> {
	if (signal?.aborted) throw refuse('stopped');
	const { port1, port2 } = new MessageChannel();
	port1.on('message', (told: Parameters<Progress>) => progress?.(...told));
	port1.unref();
	const ending = endOf(name, signal, () => port1.postMessage('stop'));
	try {
		const pool = await threadPool(poolOf(name));
		const answer = (await pool.run(
			{ name, input, port: port2, actor: actor() },
			{ transferList: [port2, ...gives], ...(ending.signal && { signal: ending.signal }) }
		)) as Answer<Jobs[N]['output']>;
		if ('output' in answer) return answer.output;
		throw new UserError(answer.refused, answer.data);
	} catch (error) {
		if (ending.isTooLong()) throw refuse('work-too-long', { seconds: LONGEST[name]! / 1000 });
		// A thread that has ended leaves what it had kept in goes: "nothing was changed" is said when that is gone.
		if (MADE_IN_GOES.has(name) && 'db' in input && !isFull(error) && !(error instanceof UserError))
			await runJob('mend', { db: input.db }).catch((failure: unknown) => log.error(failure));
		if (signal?.aborted) throw refuse('stopped');
		throw told(error);
	} finally {
		ending.done();
		port1.close();
	}
}

/** Jobs that read what is not ours, with the time (milliseconds) that one may take: others wait for its thread. */
const LONGEST: Partial<Record<JobName, number>> = {
	look: 120_000,
	takePicture: 120_000,
	lookAtTable: 300_000,
	media: 60_000,
	signOn: 30_000,
	mail: 60_000
};

/** Jobs that stop by themselves when they are told to, and give what they have; after so long (milliseconds) they are ended. */
const STOPS_ITSELF: ReadonlySet<JobName> = new Set(['drift']);
const GRACE = 10_000;

/** What ends a job: its asker's signal, at once or after it was told to stop, or its time. */
function endOf(name: JobName, asked: AbortSignal | undefined, tellToStop: () => void) {
	const timers: NodeJS.Timeout[] = [];
	const stop = new AbortController();
	let isTooLong = false;
	const after = (time: number, end: () => void) => void timers.push(setTimeout(end, time).unref());
	const limit = LONGEST[name];
	if (limit !== undefined)
		after(limit, () => {
			isTooLong = true;
			stop.abort();
		});
	const onStop = () => {
		if (!STOPS_ITSELF.has(name)) return stop.abort();
		tellToStop();
		after(GRACE, () => stop.abort());
	};
	asked?.addEventListener('abort', onStop, { once: true });
	return {
		signal: asked || limit !== undefined ? stop.signal : undefined,
		isTooLong: () => isTooLong,
		done() {
			timers.forEach(clearTimeout);
			asked?.removeEventListener('abort', onStop);
		}
	};
}

/** Whether the pool has taken no more work. */
const isFull = (error: unknown) => error instanceof Error && /queue/i.test(error.message);

/** The pool's own refusals, in sentences. */
function told(error: unknown): unknown {
	const code = error instanceof Error && 'code' in error ? error.code : undefined;
	if (code === 'ERR_WORKER_OUT_OF_MEMORY') return refuse('work-too-large');
	return isFull(error) ? refuse('too-much-work') : error;
}

/** Ends all threads; what they were writing is rolled back. For the end of the process. */
export async function stopJobs() {
	const all = await Promise.all(pools.values());
	pools.clear();
	await Promise.all(all.map((pool) => pool.destroy()));
}
