import { createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { writeSiteFile } from '$server/siteFile/siteFile';
import { dbOption, say, withReader, type Verb } from '../common';

export const addExport: Verb = (program) => {
	program
		.command('export')
		.description('Writes a site as a site file.')
		.requiredOption('--site <name>', 'the name of the site')
		.option('--out <file>', 'the file; without it, stdout')
		.addOption(dbOption())
		.action(async ({ site, out, ...options }: { site: string; out?: string; db?: string }) => {
			await withReader(options, async (store) => {
				store.site(site);
				const text = Readable.from(writeSiteFile(store, site));
				if (out === undefined) return pipeline(text, process.stdout, { end: false });
				// Written beside and renamed: an interrupted export leaves the old file.
				const beside = `${out}.kephalon-new`;
				await pipeline(text, createWriteStream(beside)).catch(async (error: unknown) => {
					await rm(beside, { force: true });
					throw error;
				});
				await rename(beside, out);
				say(`Wrote ${out}.`);
			});
		});
};
