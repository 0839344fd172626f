import type { MessagePort } from 'node:worker_threads';
import { explain } from '../store/opening/database';
import { patiently } from '../store/opening/patiently';
import type { Actor } from '$core';
import { UserError } from '../errors';
import { announceEnd } from '../hooks/announce';
import { log } from '../log';
import { actingAs } from '../people/acting';
import { JOBS } from './jobs';
import type { JobName } from './kinds';
import type { Progress } from '../progress';
import type { Answer } from './run';

interface Task {
	readonly name: JobName;
	readonly input: { readonly db?: string; readonly site?: string; readonly name?: string };
	/** Hears how far the work is. */
	readonly port: MessagePort;
	/** Whoever asked for it. */
	readonly actor: Actor;
}

/** Long work whose end other addresses can be told of. */
const TOLD: ReadonlySet<JobName> = new Set(['content', 'push', 'batch', 'csvBack', 'takeBack', 'drift']);
async function tellEnd(job: JobName, { db, site, name }: Task['input'], ended: string) {
	const at = site ?? name;
	if (!TOLD.has(job) || db === undefined || at === undefined) return;
	// The work itself is done, or refused: that it could not be told changes nothing of it.
	await patiently(() => announceEnd(db, at, job, ended)).catch((error: unknown) => log.error(error));
}

/** The thread's own program: does one job. What people can mend comes back as data, all else is thrown. */
export default async function work({ name, input, port, actor }: Task): Promise<Answer<unknown>> {
	const stop = new AbortController();
	port.on('message', () => stop.abort());
	port.unref();
	try {
		const job = JOBS[name] as (input: unknown, progress: Progress, signal: AbortSignal) => unknown;
		const output = await actingAs(actor, () => job(input, (...told) => port.postMessage(told), stop.signal));
		await tellEnd(name, input, 'done');
		return { output };
	} catch (thrown) {
		const error = explain(thrown, input.db ?? 'in use');
		await tellEnd(name, input, error instanceof UserError ? error.code : 'failed');
		if (!(error instanceof UserError)) throw error;
		return { refused: error.code, data: error.data };
	} finally {
		port.close();
	}
}
