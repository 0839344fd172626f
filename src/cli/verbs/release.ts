import { runJob } from '$server/jobs/run';
import { count, databaseOf, dbOption, printJson, progressBar, say, sayFaulty, withReader, type Verb } from '../common';

export const addRelease: Verb = (program) => {
	program
		.command('release')
		.description('Renders every live page and makes that what the site serves, wholly or not at all.')
		.requiredOption('--site <name>', 'the name of the site')
		.option('--json', 'the release as JSON')
		.addOption(dbOption())
		.action(async ({ site, json, ...options }: { site: string; json?: boolean; db?: string }) => {
			const { live } = await withReader(options, (store) => store.countPages(store.site(site).id));
			const bar = progressBar('Rendering');
			const release = await runJob(
				'release',
				{ db: databaseOf(options), site },
				{ progress: (done) => bar.update(done, live) }
			).finally(bar.stop);
			if (json) printJson(release);
			else {
				say(`Release ${release.number} of "${site}": ${count(release.pages, 'page')}.`);
				sayFaulty(release.faulty);
			}
		});
};
