import { writeSiteFile } from '$server/siteFile/siteFile';
import { dbOption, withReader, writeOut, type Verb } from '../common';

export const addExport: Verb = (program) => {
	program
		.command('export')
		.description('Writes a site as a site file.')
		.requiredOption('--site <name>', 'the name of the site')
		.option('--out <file>', 'the file; without it, stdout')
		.addOption(dbOption())
		.action(async ({ site, out, ...options }: { site: string; out?: string; db?: string }) => {
			await withReader(options, async (store) => {
				store.working.sites.named(site);
				await writeOut(writeSiteFile(store, site), out);
			});
		});
};
