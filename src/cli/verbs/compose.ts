import { gatherPictures } from '$server/pictures/gather';
import { composeAll } from '$server/jobs/composeAll';
import { count, dbOption, printJson, progressBar, say, withStore, type Verb } from '../common';

interface Options {
	db?: string;
	site: string;
	type?: string;
	page?: string;
	json?: boolean;
}

export const addCompose: Verb = (program) => {
	program
		.command('compose')
		.description('Draws the share pictures of pages whose type has a layout; those that have not changed are left.')
		.requiredOption('--site <name>', 'the name of the site')
		.option('--type <name>', 'only the pages of this content type')
		.option('--page <path>', 'only this page')
		.option('--json', 'the counts as JSON')
		.addOption(dbOption())
		.action(({ site, type, page: path, json, ...options }: Options) =>
			withStore(options, async (store) => {
				await gatherPictures(store, site);
				const bar = progressBar('Drawing');
				const { drawn, kept } = await composeAll(store, { site, type, path, progress: bar.update }).finally(bar.stop);
				if (json) return printJson({ drawn, kept });
				say(`Drew ${count(drawn, 'share picture')} of "${site}"; ${count(kept, 'other')} had not changed.`);
			})
		);
};
