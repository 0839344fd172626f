import { checkSite } from '$core';
import { count, dbOption, print, printJson, say, withStore, type Verb } from '../common';

export const addCheck: Verb = (program) => {
	program
		.command('check')
		.description('Checks every template and rule of a site; exit code 1 when one has an error.')
		.requiredOption('--site <name>', 'the name of the site')
		.option('--json', 'the findings as JSON')
		.addOption(dbOption())
		.action(async ({ site, json, ...options }: { site: string; json?: boolean; db?: string }) => {
			await withStore(options, (store) => {
				const stored = store.site(site);
				const found = checkSite(stored.site, stored.types, store.pages(stored.id));
				const errors = found.filter(({ issue }) => issue.severity === 'error').length;
				if (json) printJson(found);
				else
					for (const { layer, owner, tag, language, issue, message } of found)
						print(
							`${issue.severity}: ${layer}${owner ? ` ${owner}` : ''}, ${tag}${language ? ` (${language})` : ''}: ${message}\n`
						);
				if (!json) say(`${count(errors, 'error')}, ${count(found.length - errors, 'warning')}.`);
				if (errors > 0) process.exitCode = 1;
			});
		});
};
