import { existsSync, readFileSync } from 'node:fs';
import { InvalidArgumentError, Option } from 'commander';
import { refuse } from '$server/errors';
import { COLUMNS, compareCsv, readCsvBack, writeCsv, writeTableWorkbook, type CsvTold } from '$server/exports/csv';
import { openTable } from '$server/imports/table/workbook';
import { refreshAll } from '$server/jobs/parts';
import { FILTER_NAMES, SORTS, type PageFilter, type Sort } from '$server/store/table/grid';
import {
	count,
	databaseOf,
	dbOption,
	keepHeapSmall,
	listed,
	printJson,
	progressBar,
	say,
	withReader,
	withStore,
	writeOut,
	type Verb
} from '../common';

interface Options {
	readonly db?: string;
	readonly site: string;
	readonly filter: PageFilter;
	readonly columns: readonly string[];
	readonly sort: Sort;
	readonly down?: boolean;
	readonly mark?: boolean;
	readonly out?: string;
	readonly read?: string;
	readonly sheet?: string;
	readonly takeRewritten?: boolean;
	readonly dryRun?: boolean;
	readonly json?: boolean;
}

export const addPages: Verb = (program) => {
	program
		.command('pages')
		.description(
			'Writes the table of pages as CSV or .xlsx, what they say by themselves in columns of its own; or reads one back that was changed.'
		)
		.requiredOption('--site <name>', 'the name of the site')
		.option(
			'--filter <name=value>',
			`which pages, such as 'state=live' or 'finding=no-picture'; may be repeated: ${FILTER_NAMES.join(', ')}`,
			filterWith,
			{}
		)
		.option('--columns <list>', `what is shown beside: ${Object.keys(COLUMNS).join(', ')}`, columnsOf, [
			'title',
			'description'
		])
		.addOption(new Option('--sort <by>', 'the order').choices(Object.keys(SORTS)).default('path'))
		.option('--down', 'the last first')
		.option('--mark', 'with a byte order mark, for spreadsheets that ask for one')
		.option('--out <file>', 'the file, a workbook where it ends in .xlsx; without it, CSV to stdout')
		.option(
			'--read <file>',
			'reads a table back instead, as one edit; what cannot be, or is in conflict, is left and told'
		)
		.option('--sheet <name>', 'the sheet of a workbook; without it the first that holds anything')
		.option('--take-rewritten', 'takes cells, too, that look rewritten by a spreadsheet, such as 7 for 007')
		.option('--dry-run', 'only say what reading it back would change')
		.addOption(dbOption())
		.option('--json', 'what a table came to, as JSON')
		.action((options: Options) => {
			keepHeapSmall();
			if (options.read === undefined) return putOut(options);
			return readIn(options, options.read);
		});
};

async function putOut({ site, filter, columns, sort, down = false, mark = false, out, ...options }: Options) {
	const { live } = await withReader(options, (store) => store.working.pages.count(store.working.sites.named(site).id));
	const bar = progressBar('Looking');
	const progress = (done: number) => bar.update(done, live);
	await refreshAll(databaseOf(options), site, { progress }).finally(bar.stop);
	const table = { columns, sort, down };
	const isWorkbook = out !== undefined && /\.xlsx$/i.test(out);
	await withReader(options, (store) =>
		writeOut(
			isWorkbook ? writeTableWorkbook(store, site, filter, table) : writeCsv(store, site, filter, { ...table, mark }),
			out
		)
	);
}

async function readIn({ site, ...options }: Options, name: string) {
	if (!existsSync(name)) throw refuse('file-missing', { name });
	const file = readFileSync(name);
	const bar = progressBar('Reading');
	// About as many as there are lines.
	const lines = file.reduce((sum, byte) => sum + (byte === 10 ? 1 : 0), 0);
	const progress = (done: number) => bar.update(done, lines);
	const table = await openTable(file, options.sheet);
	const takes = { rewritten: options.takeRewritten ?? false };
	const told = await (
		options.dryRun
			? withReader(options, (store) => compareCsv(store, site, table, takes, progress))
			: withStore(options, (store) => readCsvBack(store, site, table, 'command', takes, progress).result)
	).finally(bar.stop);
	tell(told, options);
}

function tell(told: CsvTold, { json, dryRun }: Pick<Options, 'json' | 'dryRun'>) {
	const left = Object.values(told.left);
	const all = left.reduce((sum, { count }) => sum + count, 0);
	if (all > 0) process.exitCode = 1;
	if (json) return printJson(told);
	const { rows, unchanged, changes, anew, setBack } = told;
	const kinds = [
		[anew, 'written where there was none'],
		[changes.count - anew - setBack, 'written anew'],
		[setBack, 'taken away']
	] as const;
	const how = kinds.filter(([number]) => number > 0).map(([number, what]) => `${number.toLocaleString('en')} ${what}`);
	say(
		`${count(rows, 'row')}: ${count(changes.count, 'override')} ${dryRun ? 'would be' : changes.count === 1 ? 'was' : 'were'} changed${how.length > 0 ? ` (${how.join(', ')})` : ''}, ${count(unchanged, 'row is as it was', 'rows are as they were')}.`
	);
	for (const [reason, { count: number, first }] of Object.entries(told.left)) {
		const lines = first.map(({ line, path, why }) => `line ${line}, ${path}: ${why}`);
		if (number === 0) continue;
		const what =
			reason === 'rewritten'
				? `${number === 1 ? 'looks' : 'look'} rewritten by a spreadsheet, left as ${number === 1 ? 'it was' : 'they were'}; --take-rewritten takes ${number === 1 ? 'it' : 'them'}`
				: `left as ${number === 1 ? 'it is' : 'they are'}`;
		say(`${count(number, 'cell')} ${what}:\n${listed(lines, 12, number)}`);
	}
}

function filterWith(text: string, before: PageFilter): PageFilter {
	const at = text.indexOf('=');
	const name = text.slice(0, at);
	if (at < 1 || !(FILTER_NAMES as readonly string[]).includes(name))
		throw new InvalidArgumentError(`Write one of ${FILTER_NAMES.join(', ')}, "=" and what it is.`);
	return { ...before, [name]: text.slice(at + 1) };
}

function columnsOf(text: string): string[] {
	const all = text.split(',').map((column) => column.trim());
	const unknown = all.find((column) => !Object.hasOwn(COLUMNS, column));
	if (unknown !== undefined)
		throw new InvalidArgumentError(`There is no column “${unknown}”. There are ${Object.keys(COLUMNS).join(', ')}.`);
	return all;
}
