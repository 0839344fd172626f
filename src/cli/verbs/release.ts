import { refreshAll } from '$server/jobs/parts';
import { runJob } from '$server/jobs/run';
import {
	count,
	databaseOf,
	dbOption,
	listed,
	printJson,
	progressBar,
	removesOption,
	say,
	sayFaulty,
	withReader,
	type Verb
} from '../common';

interface Options {
	readonly db?: string;
	readonly site: string;
	readonly note?: string;
	readonly only: string[];
	readonly removes?: number;
	readonly dryRun?: boolean;
	readonly json?: boolean;
}

export const addRelease: Verb = (program) => {
	program
		.command('release')
		.description('Makes the working copy what the site serves, wholly or not at all.')
		.requiredOption('--site <name>', 'the name of the site')
		.option('--note <text>', 'what it is about; it stands in the list of releases')
		.option(
			'--only <path>',
			'this page alone; may be repeated: the others stay as they are released',
			(path: string, before: string[]) => [...before, path],
			[]
		)
		.addOption(removesOption())
		.option('--dry-run', 'only say what would change')
		.option('--json', 'the release, or what would change, as JSON')
		.addOption(dbOption())
		.action(async ({ site, json, note, only, removes, dryRun, ...options }: Options) => {
			const { live } = await withReader(options, (store) =>
				store.working.pages.count(store.working.sites.named(site).id)
			);
			const bar = progressBar('Looking');
			const progress = (done: number) => bar.update(done, live);
			const input = { db: databaseOf(options), site };
			if (dryRun) {
				await refreshAll(input.db, site, { progress }).finally(bar.stop);
				return withReader(options, (store) => {
					const differing = store.state.differing(store.working.sites.named(site).id, json ? -1 : 50);
					if (json) return printJson(differing);
					const { changed, added, removed, paths } = differing;
					say(
						`A release would change ${count(changed, 'page')}, add ${added} and take ${removed} away.${paths.length ? `\n${listed(paths, 50)}` : ''}`
					);
				});
			}
			await runJob('gather', input);
			const release = await runJob(
				'release',
				{
					...input,
					...(note !== undefined && { note }),
					...(only.length > 0 && { only }),
					...(removes !== undefined && { removes })
				},
				{ progress }
			).finally(bar.stop);
			if (json) return printJson(release);
			say(
				`Release ${release.number} of "${site}": ${count(release.pages, 'page')}, ${release.changed} changed, ${release.added} new, ${release.removed} gone.`
			);
			sayFaulty(release.faulty);
		});
};
