import { watch } from 'chokidar';
import { UserError } from '$server/errors';
import { log } from '$server/log';
import { runJob } from '$server/jobs/run';

/** Changes that come within so many milliseconds are read together: a checkout writes many files. */
const TOGETHER = 300;

/**
 * Reads a folder of small files into its site at once, and whenever something in it changes, until it is stopped. What
 * came in or was refused is said: where the site was changed here as well, nothing of the folder is taken.
 */
export function watchSiteFolder(db: string, folder: string, say: (text: string) => void) {
	let [timer, reading]: [NodeJS.Timeout | undefined, Promise<void>] = [undefined, Promise.resolve()];
	const read = async () => {
		try {
			const { site, pages } = await runJob('siteFolder', { db, folder });
			say(`Read ${folder} into "${site}": ${pages} ${pages === 1 ? 'page' : 'pages'}.`);
		} catch (error) {
			if (!(error instanceof UserError)) log.error(error);
			say(`${folder} was not read. ${(error as Error).message}`);
		}
	};
	const soon = () => {
		clearTimeout(timer);
		timer = setTimeout(() => {
			reading = reading.then(read);
		}, TOGETHER);
	};
	const watcher = watch(folder, {
		ignoreInitial: true,
		awaitWriteFinish: { stabilityThreshold: 100, pollInterval: 20 }
	});
	watcher.on('all', soon);
	watcher.on('error', (error) => say(`${folder} cannot be watched: ${String(error)}`));
	reading = read();
	return {
		async close() {
			clearTimeout(timer);
			await watcher.close();
			await reading;
		}
	};
}
