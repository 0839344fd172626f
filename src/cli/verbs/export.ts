import { statSync } from 'node:fs';
import { FRONT_MATTER_TAGS } from '$server/exports/frontMatterTags';
import { writeSiteFile } from '$server/siteFile/siteFile';
import { writeSiteFolder } from '$server/siteFile/siteFolder';
import { count, dbOption, listed, say, withReader, writeOut, type Verb } from '../common';

interface Options {
	readonly site: string;
	readonly out?: string;
	readonly frontMatter?: string;
	readonly tags: readonly string[];
	readonly bareAddresses?: boolean;
	readonly dryRun?: boolean;
	readonly db?: string;
}

export const addExport: Verb = (program) => {
	program
		.command('export')
		.description(
			'Writes a site as a site file; or what its pages say by themselves into the front matter of their files.'
		)
		.requiredOption('--site <name>', 'the name of the site')
		.option(
			'--out <file>',
			'the file, or a folder of small files where it ends in a slash or is one; without it, stdout'
		)
		.option(
			'--front-matter <folder>',
			'writes overrides into the Markdown files of this folder instead; everything else in them stays'
		)
		.option(
			'--tags <list>',
			`whose overrides: of ${FRONT_MATTER_TAGS.join(', ')}`,
			(text: string) => text.split(',').map((tag) => tag.trim()),
			['title', 'description']
		)
		.option('--bare-addresses', 'addresses of pages leave out the last slash')
		.option('--dry-run', 'only say which files would change')
		.addOption(dbOption())
		.action(({ site, out, frontMatter, ...options }: Options) =>
			withReader(options, async (store) => {
				store.working.sites.named(site);
				if (frontMatter === undefined && out !== undefined && isFolderName(out)) {
					const { written, removed } = writeSiteFolder(store, site, out);
					return say(`Wrote ${count(written, 'file')} of ${out}, took ${removed} away; the others are as they were.`);
				}
				if (frontMatter === undefined) return writeOut(writeSiteFile(store, site), out);
				const { tags, bareAddresses: bare = false, dryRun = false } = options;
				const { writeOverridesBack } = await import('$server/exports/frontMatterOut');
				const { changed, left } = writeOverridesBack(store, site, frontMatter, { tags, bare, dryRun });
				say(`${dryRun ? 'Would write' : 'Wrote'} ${count(changed.length, 'file')}.`);
				if (dryRun && changed.length > 0) say(listed(changed));
				if (left.length > 0)
					say(`Left as they are: ${left.length}\n${listed(left.map(({ name, why }) => `${name}: ${why}`))}`);
			})
		);
};

const isFolderName = (name: string) =>
	/[\\/]$/.test(name) || statSync(name, { throwIfNoEntry: false })?.isDirectory() === true;
