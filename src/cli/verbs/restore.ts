import { restore } from '$server/backup/backup';
import { count, databaseOf, dbOption, printJson, say, type Verb } from '../common';

export const addRestore: Verb = (program) => {
	program
		.command('restore')
		.description('Puts a backup back, once it is checked. Never writes over a database.')
		.argument('<folder>', 'the folder that kephalon backup made')
		.option('--json', 'the counts as JSON')
		.addOption(dbOption())
		.action((folder: string, { json, ...options }: { db?: string; json?: boolean }) => {
			const made = restore(folder, databaseOf(options));
			if (json) return printJson(made);
			say(
				`Put back ${count(made.sites, 'site')} with ${count(made.pages, 'page')}, and ${count(made.pictures, 'picture')} of the library (${(made.bytes / 1e6).toFixed(1)} MB), as ${made.db}.`
			);
		});
};
