import { Option } from 'commander';
import { differencesBetween, goBack, refuseReleases } from '$server/releases/releases';
import { count, dbOption, print, say, withReader, withStore, type Verb, releaseNumber, removesOption } from '../common';

interface Options {
	readonly db?: string;
	readonly site: string;
	readonly path?: string;
	readonly format: 'text' | 'json';
}

export const addDiff: Verb = (program) => {
	program
		.command('diff')
		.description('What differs between two releases, page by page and tag by tag.')
		.argument('<from>', 'the number of a release', releaseNumber)
		.argument('<to>', 'the number of another', releaseNumber)
		.requiredOption('--site <name>', 'the name of the site')
		.option('--path <path>', 'one page alone')
		.addOption(
			new Option('--format <format>', 'how it is written: json is one line for each page')
				.choices(['text', 'json'])
				.default('text')
		)
		.addOption(dbOption())
		.action((from: number, to: number, { site, path, format, ...options }: Options) =>
			withReader(options, (store) => {
				const { id } = store.working.sites.named(site);
				refuseReleases(store, id, [from, to]);
				const differing = differencesBetween(store, id, [from, to], path);
				for (const { before: _before, after: _after, ...difference } of differing.pages) {
					if (format === 'json') print(`${JSON.stringify(difference)}\n`);
					else {
						print(`${difference.kind} ${difference.path}\n`);
						for (const line of difference.gone) print(`  - ${line}\n`);
						for (const line of difference.come) print(`  + ${line}\n`);
					}
				}
				say(differing.count === 0 ? 'Nothing differs.' : `${count(differing.count, 'page differs', 'pages differ')}.`);
			})
		);
};

interface RollbackOptions {
	readonly db?: string;
	readonly site: string;
	readonly note?: string;
	readonly removes?: number;
}

export const addRollback: Verb = (program) => {
	program
		.command('rollback')
		.description('Makes a new release of what an old one served. The working copy stays as it is.')
		.argument('<number>', 'the number of the release to go back to', releaseNumber)
		.requiredOption('--site <name>', 'the name of the site')
		.option('--note <text>', 'why')
		.addOption(removesOption())
		.addOption(dbOption())
		.action((to: number, { site, note, removes, ...options }: RollbackOptions) =>
			withStore(options, (store) => {
				const { number, changed, added, removed } = goBack(store, site, to, { note, removes });
				say(
					`Release ${number} serves what release ${to} did: ${count(changed, 'page')} changed back, ${added} came back, ${removed} left.`
				);
			})
		);
};
