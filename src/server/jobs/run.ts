import { Worker } from 'node:worker_threads';
import { UserError } from '../errors';
import type { JobName, Jobs, Progress } from './jobs';

type Message<T> = { progress: number } | { output: T } | { refused: string; exitCode: 1 | 2 };

/** Where the thread's program lies: the command knows, and tells the web application in the environment. */
function threadFile(): string {
	const file = process.env.KEPHALON_THREAD;
	if (!file) throw new Error('KEPHALON_THREAD is not set: start through the kephalon command.');
	return file;
}

/** Runs a job in a thread of its own. Aborting ends the thread at once; what it was writing is rolled back. */
export function runJob<N extends JobName>(
	name: N,
	input: Jobs[N]['input'],
	{ progress, signal }: { progress?: Progress; signal?: AbortSignal } = {}
): Promise<Jobs[N]['output']> {
	return new Promise((resolve, reject) => {
		const worker = new Worker(threadFile(), { workerData: { name, input }, execArgv: [] });
		const stop = () => void worker.terminate().then(() => reject(new UserError('Stopped.')));
		signal?.addEventListener('abort', stop, { once: true });
		worker.on('message', (message: Message<Jobs[N]['output']>) => {
			if ('progress' in message) progress?.(message.progress);
			else if ('output' in message) resolve(message.output);
			else reject(new UserError(message.refused, message.exitCode));
		});
		worker.on('error', reject);
		worker.on('exit', (code) => {
			signal?.removeEventListener('abort', stop);
			if (code !== 0) reject(new Error(`The thread of the job "${name}" ended with code ${code}.`));
		});
	});
}
