import { closeSync, existsSync, openSync, readFileSync, writeFileSync, writeSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { refuse } from '$server/errors';
import { wasWritten, WrittenNotes } from '$server/files/written';
import { injectFolder, type GoneValue, type InjectOptions, type InjectSummary } from '$server/files/injectFolder';
import { csvLine } from '$server/exports/csvLine';
import { ROBOTS_MARK, robotsOf } from '$server/exports/robots';
import { SITEMAP_MARK, sitemapsOf } from '$server/exports/sitemap';
import { gatherPictures } from '$server/pictures/gather';
import { Library } from '$server/pictures/library';
import { manifestOf } from '$server/pictures/manifest';
import { MANIFEST_PATH, MEDIA_PATH, normaliseBase, type Recipe } from '$core';
import { faultyRules } from '$server/jobs/faultyRules';
import { headSource, type HeadSource } from '$server/releases/headSource';
import type { Store, StoredSite } from '$server/store/store';
import {
	count,
	dbOption,
	keepHeapSmall,
	listed,
	printJson,
	progressBar,
	releaseOption,
	say,
	sayFaulty,
	withStore,
	workingOption,
	type Verb
} from '../common';

interface Options {
	db?: string;
	site: string;
	out?: string;
	inPlace?: boolean;
	release?: number | 'latest';
	working?: boolean;
	dryRun?: boolean;
	report?: string;
	json?: boolean;
}

export const addInject: Verb = (program) => {
	program
		.command('inject')
		.description(
			'Copies a folder and writes each page’s head into its HTML, of a release or as the working copy says it now.'
		)
		.argument('<folder>', 'the folder of the site’s files')
		.requiredOption('--site <name>', 'the name of the site')
		.option('--out <folder>', 'where the copy goes')
		.option('--in-place', 'write over the files of the folder itself')
		.addOption(releaseOption())
		.addOption(workingOption())
		.option('--dry-run', 'only say what would change')
		.option('--report <file>', 'lists each value that an author wrote and that goes out of a file, as CSV')
		.option('--json', 'the summary as JSON')
		.addOption(dbOption())
		.action(async (folder: string, options: Options) => {
			const { site, out, inPlace, dryRun = false, report, json, db } = options;
			if ((out === undefined) === !inPlace) throw refuse('copy-needs-folder');
			await withStore(db === undefined ? {} : { db }, async (store) => {
				keepHeapSmall();
				await gatherPictures(store, site);
				const bar = progressBar('Writing');
				const written = dryRun ? undefined : new WrittenNotes(store, store.working.sites.named(site).id);
				const named: Named = { files: new Set(), recipes: new Map(), manifest: false, written };
				const stored = store.working.sites.named(site);
				const source = headSource(store, stored, options);
				const heads = headsOf(store, stored, source, named);
				// What is refused before the first page was looked at has broken nothing off.
				let hasBegun = dryRun;
				const headOf: typeof heads = (path) => {
					if (!hasBegun) noteBegun(store, site, out ?? folder);
					hasBegun = true;
					return heads(path);
				};
				const list = report === undefined ? undefined : openReport(report);
				const summary = injectFolder({
					...{ folder, out, dryRun, headOf, progress: bar.update },
					...(list && { onGone: list.add })
				});
				bar.stop();
				list?.close();
				const pictures = dryRun ? 0 : await bringAlong(store, site, out ?? folder, named);
				if (!dryRun) store.working.sources.forget(store.working.sites.named(site).id, INJECTING);
				const faulty = faultyRules(store, store.working.sites.named(site));
				if (json) return printJson({ ...summary, heads: source.said, pictures, faulty });
				describe({ ...summary, pictures }, source.said, dryRun);
				sayFaulty(faulty);
			});
		});
};

/** An injection that is under way, or was broken off. */
const INJECTING = 'injecting';
interface Begun {
	readonly folder: string;
	/** ISO 8601. */
	readonly at: string;
}

/** Notes that an injection begins; one before it that never ended is told. */
function noteBegun(store: Store, name: string, folder: string) {
	const { id } = store.working.sites.named(name);
	const before = store.working.sources.settings<Begun>(id, INJECTING);
	if (before)
		say(
			`The injection into ${before.folder} that began at ${before.at} was broken off: some of its pages may have the heads of before. ${before.folder === resolve(folder) ? 'This one writes them all.' : 'Run it again for that folder.'}`
		);
	store.working.sources.saveSettings(id, INJECTING, {
		folder: resolve(folder),
		at: new Date().toISOString()
	} satisfies Begun);
}

/** A CSV file (RFC 4180), a row for each value. */
function openReport(file: string) {
	const handle = openSync(file, 'w');
	const row = (cells: readonly string[]) => writeSync(handle, csvLine(cells));
	row(['path', 'tag', 'was', 'now']);
	return {
		add: ({ path, tag, value, now = '' }: GoneValue) => void row([path, tag, value, now]),
		close: () => closeSync(handle)
	};
}

/** What heads name that Kephalon makes: files of the library, what share pictures are drawn from, the web manifest. */
interface Named {
	readonly files: Set<string>;
	readonly recipes: Map<string, Recipe>;
	manifest: boolean;
	/** Undefined when nothing is written. */
	readonly written: WrittenNotes | undefined;
}

/** The heads of a source; what they name is noted in `named`. */
function headsOf(store: Store, { id, site }: StoredSite, source: HeadSource, named: Named): InjectOptions['headOf'] {
	const base = normaliseBase(site.base) ?? site.base;
	const media = base + MEDIA_PATH.slice(1);
	return (path) => {
		const known = source.at(path);
		if (typeof known === 'string') return known;
		const { head, leftOut, share } = known;
		for (const { value } of head.tags) {
			if (value.startsWith(media)) named.files.add(value.slice(media.length));
			if (value === base + MANIFEST_PATH.slice(1)) named.manifest = true;
		}
		if (share) named.recipes.set(...share);
		const wasOurs = wasWritten(store, id, path);
		named.written?.add(path, head);
		return { head, leftOut, wasOurs };
	};
}

/** Puts what the heads name beside the pages; says how many pictures. */
async function bringAlong(store: Store, name: string, folder: string, named: Named): Promise<number> {
	const library = new Library(store);
	const stored = store.working.sites.named(name);
	const manifest = named.manifest && manifestOf(store, stored);
	if (manifest) {
		writeFileSync(join(folder, MANIFEST_PATH), `${JSON.stringify(manifest.content, null, 2)}\n`);
		for (const file of manifest.files) named.files.add(file);
	}
	store.transaction(() => store.pictures.saveRecipes(stored.id, named.recipes, new Date().toISOString()));
	writeSitemaps(store, stored.id, name, folder);
	named.written?.flush();
	return library.copyInto(folder, named.files);
}

/** What search engines are told of the released pages. What somebody else wrote stays. */
function writeSitemaps(store: Store, site: number, name: string, folder: string) {
	if (!store.releases.latest(site)) return;
	const foreign: string[] = [];
	const write = (file: string, text: string, mark: string) => {
		const to = join(folder, file);
		if (existsSync(to) && !readFileSync(to, 'utf8').includes(mark)) foreign.push(file);
		else writeFileSync(to, text);
	};
	for (const { name: file, text } of sitemapsOf(store, name)) write(file, text, SITEMAP_MARK);
	const { site: settings } = store.working.sites.named(name);
	// It is asked for at the root of the host: a site under a path has none of its own.
	if (new URL(settings.base).pathname === '/') write('robots.txt', robotsOf(settings), ROBOTS_MARK);
	if (foreign.length > 0) say(`Left as it is, since it was not written by Kephalon: ${foreign.join(', ')}.`);
}

function describe(
	{
		gone,
		changed,
		unchanged,
		unknown,
		copied,
		skipped,
		pictures,
		unsaid
	}: InjectSummary & { readonly pictures: number },
	from: string,
	dryRun: boolean
) {
	say(
		`${dryRun ? 'Would write' : 'Wrote'} the head of ${count(changed.length, 'page')}, from ${from}; ${count(unchanged, 'page')} had it already; ${count(copied, 'other file')}${dryRun ? '.' : ' copied.'}`
	);
	if (pictures > 0) say(`Copied ${count(pictures, 'picture')} of the library into media/.`);
	const tags = Object.entries(gone).sort(([, a], [, b]) => b - a);
	if (tags.length)
		say(
			`${dryRun ? 'Would go' : 'Went'} out of the files, as their authors wrote them (--report FILE lists each):\n${listed(tags.map(([tag, pages]) => `${tag} on ${count(pages, 'page')}`))}`
		);
	if (unsaid.references + unsaid.stated > 0)
		say(
			`${count(unsaid.references + unsaid.stated, 'file')} did not say an encoding: letters beyond ASCII are written as references${unsaid.stated > 0 ? `, and where extra markup cannot hold them, on ${count(unsaid.stated, 'page')}, UTF-8 is stated` : ''}.`
		);
	if (dryRun && changed.length) say(listed(changed));
	if (unknown.length)
		say(`Left as they are: ${unknown.length}\n${listed(unknown.map(({ path, why }) => `${path}: ${why}`))}`);
	if (skipped.length) say(`Links that lead out of the folder, not copied: ${skipped.length}\n${listed(skipped)}`);
}
