import { describeFinding, findInRules, isError } from '$core';
import { count, dbOption, findingAsText, print, printJson, say, withReader, type Verb } from '../common';

export const addCheck: Verb = (program) => {
	program
		.command('check')
		.description('Checks every template and rule of a site; exit code 1 when one has an error.')
		.requiredOption('--site <name>', 'the name of the site')
		.option('--json', 'the findings as JSON')
		.addOption(dbOption())
		.action(async ({ site, json, ...options }: { site: string; json?: boolean; db?: string }) => {
			await withReader(options, (store) => {
				const stored = store.site(site);
				const found = findInRules(stored.site, stored.types, store.pages(stored.id));
				const errors = found.filter(isError).length;
				if (json) printJson(found.map((one) => ({ ...one, message: describeFinding(one) })));
				else for (const one of found) print(`${findingAsText(one)}\n`);
				if (!json) say(`${count(errors, 'error')}, ${count(found.length - errors, 'warning')}.`);
				if (errors > 0) process.exitCode = 1;
			});
		});
};
