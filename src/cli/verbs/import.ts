import { closeSync, openSync, readFileSync, readSync, statSync } from 'node:fs';
import { InvalidArgumentError, Option } from 'commander';
import { normaliseBase } from '$core';
import { refuse } from '$server/errors';
import { isMarkdownFolder, isSiteFolder } from '$server/files/folder';
import { languagePattern, type FolderSource } from '$server/imports/folderSource';
import type { ImportSummary } from '$server/imports/importFolder';
import type { Rows } from '$server/imports/table/rows';
import type { Store } from '$server/store/store';
import { sayQuality } from './quality';
import {
	collect,
	count,
	dbOption,
	keepHeapSmall,
	listed,
	printJson,
	progressBar,
	say,
	type Verb,
	withStore
} from '../common';

interface Options {
	db?: string;
	base?: string;
	site?: string;
	type: string[];
	language: FolderSource['languages'];
	ignore: string[];
	trimTitles?: boolean;
	keepTitles?: boolean;
	linkLanguages?: boolean;
	bareAddresses?: boolean;
	keepFormulas?: boolean;
	from?: string;
	via: string[];
	limit?: number;
	depth?: number;
	rate?: number;
	include: string[];
	exclude: string[];
	map: string[];
	dates?: 'day-first' | 'month-first';
	pathFromTitle?: boolean;
	sheet?: string;
	dryRun?: boolean;
	fetchPictures?: boolean;
	revision?: number;
	json?: boolean;
}

export const addImport: Verb = (program) => {
	program
		.command('import')
		.description(
			'Reads a folder of HTML or Markdown files, a table (.xlsx, CSV, TSV, JSON, NDJSON), or a site file into the database. Rules and overrides are kept.'
		)
		.argument('[source]', 'a folder, a table, a sitemap or feed (.xml, .xml.gz), or a site file (.json)')
		.option('--from <address>', 'reads from the web instead: a page of the live site, a sitemap or a feed')
		.option(
			'--via <address>',
			'a machine at hand that stands in for the public site, such as http://127.0.0.1:5173, or HOST=ADDRESS for another; may be repeated (web)',
			collect,
			[]
		)
		.option('--limit <pages>', 'at most so many pages (web)', wholeNumber)
		.option('--depth <links>', 'at most so many links away from the first page (web)', wholeNumber)
		.option('--rate <requests>', 'requests a second (web)', positive)
		.option('--include <pattern>', "only such paths, such as '/walks/**'; may be repeated (web)", collect, [])
		.option('--exclude <pattern>', 'not such paths; may be repeated (web)', collect, [])
		.option('--base <address>', 'the public base address of the site (folder, table)')
		.option('--site <name>', 'the name of the site (folder, table)')
		.option(
			'--type <pattern=type>',
			"which files are of which content type, such as 'sql-*.html=command'; may be repeated; for a table, the type of its pages",
			collect,
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
		.option('--keep-titles', 'titles as they are written: at first, what most of them have is taken off (folder, web)')
		.option('--link-languages', 'keep pages of one name in several languages as versions of each other (folder)')
		.option(
			'--keep-formulas',
			'takes what a program wrote of each page by a formula as the author’s words (folder); --no-keep-formulas ends it'
		)
		.addOption(new Option('--no-keep-formulas').hideHelp())
		.option('--bare-addresses', 'addresses leave out the ending .html (folder)')
		.option('--fetch-pictures', 'fetch pictures that stand at other addresses, to learn their size (folder)')
		.option(
			'--map <column=field>',
			"what a column means, such as 'Überschrift=title'; nothing leaves it out; may be repeated (table)",
			collect,
			[]
		)
		.addOption(
			new Option('--dates <order>', 'how dates such as 3/4/2026 are read (table)').choices(['day-first', 'month-first'])
		)
		.option('--path-from-title', 'paths are made of the titles (table)')
		.option('--sheet <name>', 'the sheet of a workbook (.xlsx); without it the first that holds anything (table)')
		.option('--dry-run', 'only say what would come in (table)')
		.option(
			'--revision <number>',
			'the revision of the working copy that may be replaced, though things written here are lost (site file)',
			wholeNumber
		)
		.addOption(dbOption())
		.option('--json', 'the summary as JSON')
		.action(read);
};

/** Each kind of source brings its own readers along, and only those that are wanted are loaded. */
const read = (source: string | undefined, options: Options) =>
	withStore({ ...options, create: true }, async (store) => {
		if (options.from !== undefined) return fromWeb(store, options.from, options);
		if (source === undefined) throw refuse('nothing-to-read');
		if (/\.xml(\.gz)?$/i.test(source) && !isFolder(source))
			return fromWeb(store, source, options, readFileSync(source));
		if (isFolder(source) && isSiteFolder(source)) return fromFile(store, source, options);
		if (isFolder(source) && isMarkdownFolder(source)) {
			const { readMarkdownFolder } = await import('$server/imports/markdown/markdownFolder');
			return fromTable(store, readMarkdownFolder(source, options.bareAddresses), options);
		}
		if (isFolder(source)) return fromFolder(store, source, options);
		return isSiteFile(source) ? fromFile(store, source, options) : fromTable(store, source, options);
	});

function wholeNumber(text: string): number {
	const number = Number(text);
	if (!Number.isInteger(number) || number < 1) throw new InvalidArgumentError('Write a whole number from 1.');
	return number;
}
function positive(text: string): number {
	const number = Number(text);
	if (!(number > 0)) throw new InvalidArgumentError('Write a number above 0.');
	return number;
}
function typePattern(text: string): FolderSource['types'][number] {
	const at = text.lastIndexOf('=');
	if (at < 1 || at === text.length - 1) throw refuse('type-pattern-broken', { text });
	return { pattern: text.slice(0, at), type: text.slice(at + 1) };
}

/** A site file says what it is in its first lines; any other JSON is a table. */
function isSiteFile(file: string): boolean {
	if (!file.toLowerCase().endsWith('.json')) return false;
	const start = Buffer.alloc(2000);
	const handle = openSync(file, 'r');
	const length = readSync(handle, start);
	closeSync(handle);
	const text = start.subarray(0, length).toString('utf8');
	return /"(kephalon-site|format|site|types)"/.test(text) || !/^[\s\uFEFF]*\[/.test(text);
}

function isFolder(source: string): boolean {
	const found = statSync(source, { throwIfNoEntry: false });
	if (!found) throw refuse('source-missing', { source });
	return found.isDirectory();
}

async function fromFolder(store: Store, folder: string, options: Options) {
	const { base, site, type, language, ignore, json, fetchPictures } = options;
	if (!base || !site)
		throw refuse('folder-needs', {
			needs: !base ? '--base, the public address of its pages' : '--site, a name for the site'
		});
	keepHeapSmall();
	const bar = progressBar('Reading');
	const [{ importFolder }, { runJob }, { measureQuality }] = await Promise.all([
		import('$server/imports/importFolder'),
		import('$server/jobs/run'),
		import('$server/imports/quality')
	]);
	const fetcher = fetchPictures ? new (await import('$server/fetching/fetch')).GuardedFetcher() : undefined;
	const source: Partial<FolderSource> = {
		...(type.length > 0 && { types: type.map(typePattern) }),
		...(language.length > 0 && { languages: language }),
		...(ignore.length > 0 && { ignore }),
		...(options.linkLanguages && { link: true }),
		...(options.bareAddresses && { bare: true }),
		...(options.keepFormulas !== undefined && { keepFormulas: options.keepFormulas })
	};
	const summary = await importFolder(store, {
		...{ folder, base, site, source, progress: bar.update },
		readFiles: (files, bare) => runJob('readFiles', { files, bare }),
		...(options.trimTitles && { trimTitles: true }),
		...(options.keepTitles && { keepTitles: true }),
		...(fetcher && { fetcher })
	}).finally(() => {
		bar.stop();
		return fetcher?.close();
	});
	if (json) printJson(summary);
	else {
		describe(summary, site);
		sayQuality(measureQuality(store, site));
	}
}

function describe(summary: ImportSummary, site: string) {
	const { read, added, changed, pictures, titles, formulas, languages, versions, skipped, retired, warnings } = summary;
	for (const warning of warnings) say(warning);
	say(`Read ${count(read, 'page')} and ${count(pictures, 'picture')} into "${site}".`);
	if (added < read) say(`New: ${added}. Changed: ${changed}. As they were: ${read - added - changed}.`);
	const spoken = Object.entries(languages);
	const unknown = read - spoken.reduce((sum, [, pages]) => sum + pages, 0);
	say(
		`Languages: ${[...spoken.map(([tag, pages]) => `${tag} ${pages}`), ...(unknown ? [`not known ${unknown}`] : [])].join(', ')}.`
	);
	if (versions.pages && !versions.linked)
		say(
			`${count(versions.pages, 'page')} have the same name in several languages. Keep them as versions of each other with --link-languages.`
		);
	const partsIn = ({ parts, numbered }: Pick<ImportSummary['titles'], 'parts' | 'numbered'>) => [
		...parts.map(({ at, text, pages }) => `${pages} ${at} with “${text.trim()}”`),
		...(numbered ? [`${numbered} begin with a number of a chapter or section`] : [])
	];
	const [taken, common] = [partsIn(titles.taken), partsIn(titles)];
	if (taken.length) say(`Taken off the titles; --keep-titles sets them back:\n${listed(taken)}`);
	if (common.length)
		say(
			`Titles have parts in common, which a template would say twice. Take them off with --trim-titles:\n${listed(common)}`
		);
	if (formulas.length)
		say(
			`Written by a program, by a formula; what is written of a page alone goes before it. --keep-formulas takes it as it is:\n${listed(formulas.map(({ tag, formula, pages }) => `${count(pages, 'page')}, ${tag}: “${formula}”`))}`
		);
	if (skipped.length) say(`Skipped ${skipped.length}:\n${listed(skipped.map(({ path, why }) => `${path}: ${why}`))}`);
	if (retired.length) say(`No longer in the folder, set to draft: ${retired.length}\n${listed(retired)}`);
}

/** Ctrl+C stops the reading: what was read is kept, and the next time goes on from there. */
async function fromWeb(store: Store, from: string, options: Options, file?: Buffer) {
	const { site, base, via, limit, depth, rate, include, exclude, keepTitles, json } = options;
	if (!site) throw refuse('web-needs-site');
	const [{ importWeb }, { readVia }, { NO_TRIMS }] = await Promise.all([
		import('$server/imports/web/importWeb'),
		import('$server/fetching/via'),
		import('$server/imports/titles')
	]);
	const stop = new AbortController();
	const onStop = () => stop.abort();
	process.once('SIGINT', onStop);
	const bar = progressBar('Reading');
	const summary = await importWeb(store, {
		...{ site, base, signal: stop.signal, progress: bar.update },
		...(file && { file }),
		source: {
			from,
			...(limit !== undefined && { limit }),
			...(depth !== undefined && { depth }),
			...(rate !== undefined && { rate }),
			...(include.length > 0 && { include }),
			...(exclude.length > 0 && { exclude }),
			...(keepTitles && { trims: NO_TRIMS })
		},
		via: readVia(via, base ?? store.working.sites.find(site)?.site.base ?? from)
	}).finally(() => {
		bar.stop();
		process.off('SIGINT', onStop);
	});
	if (json) return printJson(summary);
	const { kind, read, added, changed, pictures, skipped, told, trimmed, retired, waiting } = summary;
	say(
		`Read ${count(read, 'page')} into "${site}" from ${kind === 'site' ? 'the live site' : `a ${kind}`}: ${added} new, ${changed} there before.${pictures ? ` ${count(pictures, 'picture')} looked at.` : ''}`
	);
	if (waiting)
		say(`${count(waiting, 'address')} more wait: say it again to go on, with a higher --limit if it was reached.`);
	if (skipped.length) say(`Not read: ${skipped.length}\n${listed(skipped.map(({ path, why }) => `${path}: ${why}`))}`);
	if (trimmed.length) say(`Taken off the titles; --keep-titles sets them back:\n${listed(trimmed)}`);
	if (told.length)
		say(
			`What servers say beside the pages: ${told.length}\n${listed(told.map(({ path, what }) => `${path}: ${what}`))}`
		);
	if (retired.length) say(`No longer there, set to draft: ${retired.length}\n${listed(retired)}`);
}

async function fromTable(
	store: Store,
	source: string | Rows,
	{ base, site, type, map, dates, sheet: named, pathFromTitle, dryRun = false, json }: Options
) {
	if (!site) throw refuse('table-needs-site');
	const [{ asRows }, { openTable }, { sheetOf }, { takeTable, MARKDOWN_SAID }, { linesOfTable }] = await Promise.all([
		import('$server/imports/table/rows'),
		import('$server/imports/table/workbook'),
		import('$server/imports/table/table'),
		import('$server/imports/takeTable'),
		import('$server/imports/content')
	]);
	const whole = normaliseBase(base ?? store.working.sites.find(site)?.site.base ?? '');
	if (!whole) throw refuse('new-site-needs-base');
	if (type.length > 1) throw refuse('table-needs-type');
	const isFolderOfFiles = typeof source !== 'string';
	const mapping = Object.fromEntries(
		map.map((text) => {
			const at = text.lastIndexOf('=');
			if (at < 1) throw refuse('map-broken', { text });
			return [text.slice(0, at), text.slice(at + 1).trim()];
		})
	);
	keepHeapSmall();
	const table = typeof source === 'string' ? asRows(await openTable(readFileSync(source), named)) : source;
	if (isFolderOfFiles) Object.assign(mapping, MARKDOWN_SAID.mapping);
	const sheet = sheetOf(table, { mapping, ...(pathFromTitle && { pathFromTitle }) }, whole);
	const unknown = Object.keys(mapping).find((column) => !sheet.columns.includes(column));
	if (unknown !== undefined) throw refuse('column-missing', { column: unknown, columns: sheet.columns });
	const readings = Object.fromEntries(
		Object.entries(sheet.readings)
			.filter(([, { kind }]) => kind === 'date' && dates !== undefined)
			.map(([column, reading]) => [column, { kind: reading.kind, dayFirst: dates === 'day-first' }])
	);
	const said = {
		...{ mapping, readings },
		...(type[0] !== undefined && { type: type[0] }),
		...(named !== undefined && { sheet: named }),
		...(isFolderOfFiles && type[0] === undefined && { typeColumn: MARKDOWN_SAID.typeColumn }),
		...(pathFromTitle && { pathFromTitle })
	};
	const taken = takeTable(store, { name: site, base: whole, origin: 'command' }, table, said, dryRun);
	if (json) return printJson(taken);
	const asked = Object.entries(sheet.readings).filter(
		([column, { ambiguous }]) => ambiguous !== undefined && !Object.hasOwn(readings, column)
	);
	for (const [column, { ambiguous, kind }] of asked)
		say(
			`${column}: ${ambiguous}.${kind === 'date' ? ' It is read with the day first; say --dates month-first for the other.' : ''}`
		);
	say(
		`${dryRun ? 'Would read' : 'Read'} ${count(taken.pages, 'page')}, ${taken.added} of them new, into "${site}" from ${taken.encoding}.`
	);
	say(
		`Columns:\n${listed(Object.entries(taken.mapping).map(([column, field]) => `${column}: ${field || 'left out'}`))}`
	);
	const odd = linesOfTable(taken);
	if (odd.length) say(`Odd:\n${listed(odd, 40)}`);
}

async function fromFile(store: Store, file: string, { json, type, base, site, fetchPictures, revision }: Options) {
	if (base || site || type.length || fetchPictures) throw refuse('flags-of-folder');
	const [{ readSiteFolder }, { readSiteFile, saveSiteFile }] = await Promise.all([
		import('$server/siteFile/siteFolder'),
		import('$server/siteFile/siteFile')
	]);
	const data = isFolder(file) ? readSiteFolder(file) : readSiteFile(file);
	saveSiteFile(store, data, revision);
	const summary = { site: data.site.name, pages: data.pages.length, types: data.types.length };
	if (json) printJson(summary);
	else say(`Read "${summary.site}" with ${count(summary.pages, 'page')} and ${count(summary.types, 'content type')}.`);
}
