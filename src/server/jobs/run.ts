import { Worker } from 'node:worker_threads';
import { UserError } from '../errors';
import type { JobName, Jobs, Progress } from './jobs';

type Refused = { refused: string; exitCode: UserError['exitCode']; status: UserError['status'] };
type Message<T> = { progress: number } | { output: T } | Refused;

/** Where the thread's program lies: the command knows, and tells the web application in the environment. */
function threadFile(): string {
	const file = process.env.KEPHALON_THREAD;
	if (!file) throw new Error('KEPHALON_THREAD is not set: start through the kephalon command.');
	return file;
}

/** A thread that waits for its next job: one that has run is several times faster than a new one. */
let spare: Worker | undefined;
function forget(this: Worker) {
	if (spare === this) spare = undefined;
}

/** Runs a job in a thread. Aborting ends the thread at once; what it was writing is rolled back. */
export function runJob<N extends JobName>(
	name: N,
	input: Jobs[N]['input'],
	{ progress, signal }: { progress?: Progress; signal?: AbortSignal } = {}
): Promise<Jobs[N]['output']> {
	return new Promise((resolve, reject) => {
		if (signal?.aborted) return reject(new UserError('Stopped.'));
		const worker = spare ?? new Worker(threadFile(), { execArgv: [] });
		spare = undefined;
		worker.off('exit', forget).ref();
		const finish = (end: () => void, isSpare: boolean) => {
			signal?.removeEventListener('abort', stop);
			worker.off('message', heard).off('error', failed).off('exit', gone);
			if (isSpare && !spare) {
				// It does not keep the process alive while it waits.
				spare = worker;
				worker.unref();
				worker.on('exit', forget);
			} else void worker.terminate();
			end();
		};
		const stop = () => finish(() => reject(new UserError('Stopped.')), false);
		const failed = (error: unknown) => finish(() => reject(error as Error), false);
		const gone = (code: number) => failed(new Error(`The thread of the job "${name}" ended with code ${code}.`));
		const heard = (message: Message<Jobs[N]['output']>) => {
			if ('progress' in message) progress?.(message.progress);
			else if ('output' in message) finish(() => resolve(message.output), true);
			else finish(() => reject(new UserError(message.refused, message.exitCode, message.status)), true);
		};
		signal?.addEventListener('abort', stop, { once: true });
		worker.on('message', heard).on('error', failed).on('exit', gone);
		worker.postMessage({ name, input });
	});
}
