import { InvalidArgumentError, type Command } from 'commander';
import { refuse } from '$server/errors';
import { count, dbOption, print, printJson, say, withReader, withStore, type Verb } from '../common';

interface Options {
	readonly db?: string;
	readonly site: string;
	readonly json?: boolean;
}

export const addReleases: Verb = (program) => {
	const releases = program
		.command('releases')
		.description('Lists the releases of a site, the newest first.')
		.option('--site <name>', 'the name of the site')
		.option('--json', 'the list as JSON')
		.addOption(dbOption())
		.action(({ site, json, ...options }: Partial<Options>) =>
			withReader(options, (store) => {
				const all = store.releases.history(store.working.sites.named(named(site)).id, Number.MAX_SAFE_INTEGER);
				if (json) return printJson(all);
				if (all.length === 0) return say(`Nothing of "${site}" is released yet.`);
				for (const { number, created, pages, changed, added, removed, note } of all)
					print(
						`${String(number).padStart(5)}  ${created}  ${count(pages, 'page')}: ${changed} changed, ${added} new, ${removed} gone${note && `  ${note}`}\n`
					);
			})
		);
	releases
		.command('prune')
		.description('Takes away old releases; what is served, and what the kept ones hold, stays.')
		.requiredOption('--keep <number>', 'how many of the newest are kept', atLeastTwo)
		.action((_: unknown, command: Command) => {
			// The site and the database are options of the list as well, which takes them wherever they stand.
			const { site, keep, ...options } = command.optsWithGlobals<Partial<Options> & { readonly keep: number }>();
			return withStore(options, (store) => {
				const gone = store.releases.prune(store.working.sites.named(named(site)).id, keep);
				say(gone === 0 ? 'There was nothing to take away.' : `Took away ${count(gone, 'release')}.`);
			});
		});
};

function named(site: string | undefined): string {
	if (site === undefined) throw refuse('name-the-site');
	return site;
}

/** Pictures that the last two releases name are still asked for. */
function atLeastTwo(text: string): number {
	const number = Number(text);
	if (!Number.isInteger(number) || number < 2) throw new InvalidArgumentError('At least the newest two are kept.');
	return number;
}
