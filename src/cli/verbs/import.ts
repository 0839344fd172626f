import { statSync } from 'node:fs';
import { InvalidArgumentError } from 'commander';
import { UserError } from '$server/errors';
import { GuardedFetcher } from '$server/fetching/fetch';
import { languagePattern, type FolderSource } from '$server/imports/folderSource';
import { importFolder, type ImportSummary } from '$server/imports/importFolder';
import { readSiteFile, saveSiteFile } from '$server/siteFile/siteFile';
import { count, dbOption, listed, printJson, progressBar, say, withStore, type Verb } from '../common';

interface Options {
	db?: string;
	base?: string;
	site?: string;
	type: { pattern: string; type: string }[];
	language: FolderSource['languages'];
	ignore: string[];
	trimTitles?: boolean;
	linkLanguages?: boolean;
	bareAddresses?: boolean;
	fetchPictures?: boolean;
	json?: boolean;
}

export const addImport: Verb = (program) => {
	program
		.command('import')
		.description('Reads a folder of HTML files, or a site file, into the database. Rules and overrides are kept.')
		.argument('<source>', 'a folder, or a site file (.json)')
		.option('--base <address>', 'the public base address of the site (folder)')
		.option('--site <name>', 'the name of the site (folder)')
		.option(
			'--type <pattern=type>',
			"which files are of which content type, such as 'sql-*.html=command'; may be repeated",
			typePattern,
			[]
		)
		.option('--ignore <pattern>', "files that are no pages, such as 'src/**'; may be repeated (folder)", collect, [])
		.option(
			'--language <pattern=tag>',
			"which files are in which language, such as 'fr/**=fr'; may be repeated (folder)",
			(text: string, before: Options['language']) => [...before, languagePattern(text)],
			[]
		)
		.option('--trim-titles', 'take off titles what many of them have in common, and their numbers (folder)')
		.option('--link-languages', 'keep pages of one name in several languages as versions of each other (folder)')
		.option('--bare-addresses', 'addresses leave out the ending .html (folder)')
		.option('--fetch-pictures', 'fetch pictures that stand at other addresses, to learn their size (folder)')
		.addOption(dbOption())
		.option('--json', 'the summary as JSON')
		.action((source: string, options: Options) =>
			withStore({ ...options, create: true }, (store) =>
				isFolder(source) ? fromFolder(store, source, options) : fromFile(store, source, options)
			)
		);
};

const collect = (value: string, before: string[]) => [...before, value];

function typePattern(text: string, before: Options['type']): Options['type'] {
	const at = text.lastIndexOf('=');
	if (at < 1 || at === text.length - 1) throw new InvalidArgumentError(`Write a pattern, "=" and the name of a type.`);
	return [...before, { pattern: text.slice(0, at), type: text.slice(at + 1) }];
}

function isFolder(source: string): boolean {
	const found = statSync(source, { throwIfNoEntry: false });
	if (!found) throw new UserError(`There is no file or folder ${source}. Check the path.`);
	return found.isDirectory();
}

async function fromFolder(store: Parameters<typeof importFolder>[0], folder: string, options: Options) {
	const { base, site, type, language, ignore, json, fetchPictures } = options;
	if (!base || !site)
		throw new UserError(
			`A folder needs ${!base ? '--base, the public address of its pages' : '--site, a name for the site'}.`,
			2
		);
	const bar = progressBar('Reading');
	const fetcher = fetchPictures ? new GuardedFetcher() : undefined;
	const source: Partial<FolderSource> = {
		...(type.length > 0 && { types: type }),
		...(language.length > 0 && { languages: language }),
		...(ignore.length > 0 && { ignore }),
		...(options.linkLanguages && { link: true }),
		...(options.bareAddresses && { bare: true })
	};
	const summary = await importFolder(store, {
		...{ folder, base, site, source, progress: bar.update },
		...(options.trimTitles && { trimTitles: true }),
		...(fetcher && { fetcher })
	}).finally(() => {
		bar.stop();
		return fetcher?.close();
	});
	if (json) printJson(summary);
	else describe(summary, site);
}

function describe(summary: ImportSummary, site: string) {
	const { read, added, changed, pictures, found, titles, languages, versions, skipped, retired, warnings } = summary;
	for (const warning of warnings) say(warning);
	say(`Read ${count(read, 'page')} and ${count(pictures, 'picture')} into "${site}".`);
	if (added < read) say(`New: ${added}. Changed: ${changed}. As they were: ${read - added - changed}.`);
	const tags = Object.entries(found).sort(([, a], [, b]) => b - a);
	if (tags.length)
		say(
			`What the pages say themselves is kept:\n${listed(tags.map(([tag, pages]) => `${tag} on ${count(pages, 'page')}`))}`
		);
	const spoken = Object.entries(languages);
	const unknown = read - spoken.reduce((sum, [, pages]) => sum + pages, 0);
	say(
		`Languages: ${[...spoken.map(([tag, pages]) => `${tag} ${pages}`), ...(unknown ? [`not known ${unknown}`] : [])].join(', ')}.`
	);
	if (versions.pages && !versions.linked)
		say(
			`${count(versions.pages, 'page')} have the same name in several languages. Keep them as versions of each other with --link-languages.`
		);
	const common = [
		...titles.parts.map(({ at, text, pages }) => `${pages} ${at} with “${text.trim()}”`),
		...(titles.numbered ? [`${titles.numbered} begin with a number of a chapter or section`] : [])
	];
	if (common.length)
		say(
			`Titles have parts in common, which a template would say twice. Take them off with --trim-titles:\n${listed(common)}`
		);
	if (skipped.length) say(`Skipped ${skipped.length}:\n${listed(skipped.map(({ path, why }) => `${path}: ${why}`))}`);
	if (retired.length) say(`No longer in the folder, set to draft: ${retired.length}\n${listed(retired)}`);
}

function fromFile(
	store: Parameters<typeof saveSiteFile>[0],
	file: string,
	{ json, type, base, site, fetchPictures }: Options
) {
	if (base || site || type.length || fetchPictures)
		throw new UserError(
			'--base, --site, --type and --fetch-pictures go with a folder; a site file says these itself.',
			2
		);
	const data = readSiteFile(file);
	saveSiteFile(store, data);
	const summary = { site: data.site.name, pages: data.pages.length, types: data.types.length };
	if (json) printJson(summary);
	else say(`Read "${summary.site}" with ${count(summary.pages, 'page')} and ${count(summary.types, 'content type')}.`);
}
