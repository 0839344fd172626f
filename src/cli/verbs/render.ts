import { Option } from 'commander';
import { pagesIn, headToJson, PageRenderer, renderHead, Resolver, type Page } from '$core';
import { refuse } from '$server/errors';
import { resolverOf } from '$server/heads/heads';
import { readSiteFile } from '$server/siteFile/siteFile';
import type { Store } from '$server/store/store';
import { traceAsText } from '../traceText';
import { dbOption, print, printJson, withReader, type Verb } from '../common';

interface Options {
	db?: string;
	site?: string;
	file?: string;
	path?: string;
	all?: boolean;
	format: 'html' | 'json';
	trace?: boolean;
	now?: string;
}

export const addRender: Verb = (program) => {
	program
		.command('render')
		.description('Prints the head of a page, as the working copy says it now.')
		.option('--site <name>', 'the name of the site')
		.option('--file <site.json>', 'a site file instead of a database')
		.option('--path <path>', 'the path of the page, such as /x.html')
		.option('--all', 'every page of the site, one JSON document a line')
		.addOption(new Option('--format <format>', 'how a head is written').choices(['html', 'json']).default('html'))
		.option('--trace', 'also say where each tag came from and what it passed over')
		.option('--now <time>', 'the moment that {now} names, ISO 8601')
		.addOption(dbOption())
		.action(async (options: Options) => {
			if ((options.all === true) === (options.path !== undefined)) throw refuse('name-the-pages');
			if (options.file !== undefined) return renderFromFile(options.file, options);
			if (options.site === undefined) throw refuse('name-site-or-file');
			await withReader(options, (store) => renderFromStore(store, options.site as string, options));
		});
};

const momentOf = ({ now }: Options) => now ?? new Date().toISOString();

async function renderFromFile(file: string, options: Options) {
	const { site, types, pages, pictures = [], redirects } = readSiteFile(file);
	const resolver = new Resolver({ site, types, pictures, others: pagesIn(pages, redirects) }, momentOf(options));
	if (options.all) return renderAll(resolver, pages, options);
	renderOne(
		resolver,
		pages.find((page) => page.path === options.path),
		options
	);
}

async function renderFromStore(store: Store, name: string, options: Options) {
	const site = store.working.sites.named(name);
	const resolver = resolverOf(store, site, momentOf(options));
	if (options.all) await renderAll(resolver, store.working.pages.all(site.id), options);
	else renderOne(resolver, store.working.pages.at(site.id, options.path as string), options);
}

/** How much is gathered before it is handed on, in UTF-16 code units. */
const CHUNK = 1 << 16;

async function renderAll(resolver: Resolver, pages: Iterable<Page>, options: Options) {
	const lineOf = linesFor(resolver, options);
	let waiting = '';
	for (const page of pages) {
		waiting += JSON.stringify({ path: page.path, ...lineOf(page) }) + '\n';
		if (waiting.length < CHUNK) continue;
		await write(waiting);
		waiting = '';
	}
	await write(waiting);
}

/** What stands on a page's line beside its path: the head, as markup or as JSON, and the traces when they are wanted. */
function linesFor(resolver: Resolver, { format, trace }: Options): (page: Page) => object {
	if (format === 'html') {
		const renderer = new PageRenderer(resolver);
		if (!trace) return (page) => ({ head: renderer.render(page) });
		return (page) => {
			const { markup, traces } = renderer.renderWithTrace(page);
			return { head: markup, traces };
		};
	}
	if (!trace) return (page) => ({ head: headToJson(resolver.resolveHead(page)) });
	return (page) => {
		const { head, traces } = resolver.resolveWithTrace(page);
		return { head: headToJson(head), traces };
	};
}

/** Waits until the reader has taken what was written, so that nothing piles up. */
const write = (text: string) =>
	new Promise<void>((resolve, reject) => process.stdout.write(text, (error) => (error ? reject(error) : resolve())));

function renderOne(resolver: Resolver, page: Page | undefined, { path, format, trace }: Options) {
	if (!page) throw refuse('path-not-of-site', { path: path ?? '' });
	const { head, traces } = trace
		? resolver.resolveWithTrace(page)
		: { head: resolver.resolveHead(page), traces: undefined };
	if (format === 'json') return printJson(headToJson(head, { traces }));
	print(renderHead(head));
	if (traces) print(`\n${traceAsText(traces)}`);
}
