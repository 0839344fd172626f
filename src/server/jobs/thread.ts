/** The thread's own program: jobs one after the other, as they are sent. */
import { parentPort } from 'node:worker_threads';
import { UserError } from '../errors';
import { JOBS, type JobName, type Progress } from './jobs';

const progress: Progress = (done) => parentPort?.postMessage({ progress: done });

parentPort?.on('message', async ({ name, input }: { name: JobName; input: never }) => {
	try {
		const work = JOBS[name] as (input: never, progress: Progress) => unknown;
		parentPort?.postMessage({ output: await work(input, progress) });
	} catch (error) {
		if (!(error instanceof UserError)) throw error;
		const { message, exitCode, status } = error;
		parentPort?.postMessage({ refused: message, exitCode, status });
	}
});
