import { UserError } from '$server/errors';
import { injectFolder, type InjectOptions, type InjectSummary } from '$server/files/injectFolder';
import { Library, MEDIA_PATH } from '$server/pictures/library';
import { resolverOf } from '$server/jobs/heads';
import type { Store } from '$server/store/store';
import { count, dbOption, listed, printJson, progressBar, say, withStore, type Verb } from '../common';

interface Options {
	db?: string;
	site: string;
	out?: string;
	inPlace?: boolean;
	dryRun?: boolean;
	json?: boolean;
}

export const addInject: Verb = (program) => {
	program
		.command('inject')
		.description('Copies a folder and writes each page’s head into its HTML, as the working copy says it now.')
		.argument('<folder>', 'the folder of the site’s files')
		.requiredOption('--site <name>', 'the name of the site')
		.option('--out <folder>', 'where the copy goes')
		.option('--in-place', 'write over the files of the folder itself')
		.option('--dry-run', 'only say what would change')
		.option('--json', 'the summary as JSON')
		.addOption(dbOption())
		.action(async (folder: string, { site, out, inPlace, dryRun = false, json, db }: Options) => {
			if ((out === undefined) === !inPlace)
				throw new UserError('Name a folder for the copy with --out, or say --in-place.', 2);
			await withStore(db === undefined ? {} : { db }, (store) => {
				const bar = progressBar('Writing');
				const named = new Set<string>();
				const headOf = headsOf(store, site, named);
				const summary = injectFolder({ folder, out, dryRun, headOf, progress: bar.update });
				bar.stop();
				const pictures = dryRun ? 0 : new Library(store).copyInto(out ?? folder, named);
				if (json) printJson({ ...summary, pictures });
				else describe({ ...summary, pictures }, dryRun);
			});
		});
};

/** `named` gathers the pictures of the library that the heads name. */
function headsOf(store: Store, name: string, named: Set<string>): InjectOptions['headOf'] {
	const stored = store.site(name);
	const resolver = resolverOf(store, stored, new Date().toISOString());
	return (path) => {
		const page = store.page(stored.id, path);
		if (!page || page.state !== 'live') return undefined;
		const { head, traces } = resolver.resolveWithTrace(page);
		for (const { value } of traces)
			if (typeof value === 'object')
				for (const item of value)
					if (typeof item === 'object' && 'src' in item && item.src.startsWith(MEDIA_PATH)) named.add(item.src);
		const leftOut = traces.filter(
			(trace) => trace.winner < 0 && trace.steps.some((step) => step.outcome.kind === 'left-out')
		);
		return { page, head, leftOut: leftOut.map((trace) => trace.tag) };
	};
}

function describe(
	{ changed, unchanged, unknown, copied, skipped, pictures }: InjectSummary & { readonly pictures: number },
	dryRun: boolean
) {
	say(
		`${dryRun ? 'Would write' : 'Wrote'} the head of ${count(changed.length, 'page')}; ${count(unchanged, 'page')} had it already; ${count(copied, 'other file')}${dryRun ? '.' : ' copied.'}`
	);
	if (pictures > 0) say(`Copied ${count(pictures, 'picture')} of the library into media/.`);
	if (dryRun && changed.length) say(listed(changed));
	if (unknown.length)
		say(`Left as they are: ${unknown.length}\n${listed(unknown.map(({ path, why }) => `${path}: ${why}`))}`);
	if (skipped.length) say(`Links that lead out of the folder, not copied: ${skipped.length}\n${listed(skipped)}`);
}
