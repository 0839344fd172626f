import { backUp } from '$server/backup/backup';
import { count, dbOption, printJson, say, withReader, type Verb } from '../common';

export const addBackup: Verb = (program) => {
	program
		.command('backup')
		.description('Copies the database and the library of pictures beside it into a folder, also while they are in use.')
		.argument('<folder>', 'an empty folder, or one that is not there yet')
		.option('--json', 'the counts as JSON')
		.addOption(dbOption())
		.action((folder: string, { json, ...options }: { db?: string; json?: boolean }) =>
			withReader(options, async (store) => {
				const made = await backUp(store, folder);
				if (json) return printJson(made);
				say(
					`Copied ${count(made.sites, 'site')} with ${count(made.pages, 'page')}, and ${count(made.pictures, 'picture')} of the library (${(made.bytes / 1e6).toFixed(1)} MB). To work on the copy: --db ${made.db}`
				);
			})
		);
};
