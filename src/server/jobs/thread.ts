import type { MessagePort } from 'node:worker_threads';
import { explain } from '../store/opening/database';
import type { Actor } from '$core';
import { UserError } from '../errors';
import { actingAs } from '../people/acting';
import { JOBS } from './jobs';
import type { JobName } from './kinds';
import type { Progress } from '../progress';
import type { Answer } from './run';

interface Task {
	readonly name: JobName;
	readonly input: { readonly db?: string };
	/** Hears how far the work is. */
	readonly port: MessagePort;
	/** Whoever asked for it. */
	readonly actor: Actor;
}

/** The thread's own program: does one job. What people can mend comes back as data, all else is thrown. */
export default async function work({ name, input, port, actor }: Task): Promise<Answer<unknown>> {
	const stop = new AbortController();
	port.on('message', () => stop.abort());
	port.unref();
	try {
		const job = JOBS[name] as (input: unknown, progress: Progress, signal: AbortSignal) => unknown;
		return { output: await actingAs(actor, () => job(input, (...told) => port.postMessage(told), stop.signal)) };
	} catch (thrown) {
		const error = explain(thrown, input.db ?? 'in use');
		if (!(error instanceof UserError)) throw error;
		return { refused: error.code, data: error.data };
	} finally {
		port.close();
	}
}
