/** The thread's own program: one job, then it ends. */
import { parentPort, workerData } from 'node:worker_threads';
import { UserError } from '../errors';
import { JOBS, type JobName, type Progress } from './jobs';

const { name, input } = workerData as { name: JobName; input: never };
const progress: Progress = (done) => parentPort?.postMessage({ progress: done });
try {
	parentPort?.postMessage({ output: (JOBS[name] as (input: never, progress: Progress) => unknown)(input, progress) });
} catch (error) {
	if (!(error instanceof UserError)) throw error;
	parentPort?.postMessage({ refused: error.message, exitCode: error.exitCode });
}
