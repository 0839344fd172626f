import { writeFragments } from '$server/files/fragments';
import { headSource } from '$server/releases/headSource';
import {
	count,
	dbOption,
	listed,
	printJson,
	progressBar,
	releaseOption,
	say,
	withReader,
	workingOption,
	type Verb
} from '../common';

interface Options {
	readonly db?: string;
	readonly site: string;
	readonly release?: number | 'latest';
	readonly working?: boolean;
	readonly json?: boolean;
}

export const addFragments: Verb = (program) => {
	program
		.command('fragments')
		.description('Writes each page’s head to a file of its own, for a web server to include.')
		.argument('<folder>', 'where they go: a new folder, or one that this made, which is replaced as a whole')
		.requiredOption('--site <name>', 'the name of the site')
		.addOption(releaseOption())
		.addOption(workingOption())
		.option('--json', 'the count as JSON')
		.addOption(dbOption())
		.action((folder: string, { site, json, release, working, ...options }: Options) =>
			withReader(options, (store) => {
				const source = headSource(store, store.working.sites.named(site), {
					...(release !== undefined && { release }),
					...(working !== undefined && { working })
				});
				const bar = progressBar('Writing');
				const { written, left } = writeFragments(folder, source, bar.update);
				bar.stop();
				if (json) return printJson({ written, left, heads: source.said });
				say(`Wrote the ${count(written, 'head')} of ${source.said} into ${folder}, each at its page’s path.`);
				if (left.length > 0)
					say(`Not written: ${left.length}\n${listed(left.map(({ path, why }) => `${path}: ${why}`))}`);
			})
		);
};
