import { readFileSync, writeFileSync, existsSync } from 'node:fs';
import { Option } from 'commander';
import { describeFinding, describeMend, findInRules, findOnPage, isError, type Finding } from '$core';
import { UserError } from '$server/errors';
import { sarifOf } from '$server/findings/sarif';
import { findInWhole } from '$server/findings/whole';
import { momentOf, resolverOf } from '$server/jobs/heads';
import { runJob } from '$server/jobs/run';
import type { Store } from '$server/store/store';
import { count, databaseOf, dbOption, findingAsText, print, printJson, say, withReader, type Verb } from '../common';

interface Options {
	site: string;
	json?: boolean;
	format: 'text' | 'json' | 'sarif';
	pages?: boolean;
	only: string[];
	failOn: string[];
	baseline?: string;
	db?: string;
}

const collect = (value: string, before: string[]) => [...before, ...value.split(',').map((one) => one.trim())];

export const addCheck: Verb = (program) => {
	program
		.command('check')
		.description(
			'Checks every template and rule of a site, and with --pages every page as readers would see it; exit code 1 when a rule does not work, or --fail-on is met.'
		)
		.requiredOption('--site <name>', 'the name of the site')
		.option('--pages', 'also what is wrong or weak on each page, and what only all of them show')
		.addOption(new Option('--format <format>', 'how it is told').choices(['text', 'json', 'sarif']).default('text'))
		.option('--json', 'the same as --format json')
		.option('--only <codes>', 'only these kinds, with commas between', collect, [])
		.option('--fail-on <what>', 'exit code 1 from this weight on (1 to 10), or for these kinds', collect, [])
		.option('--baseline <file>', 'only what is new since this file; it is written when it is not there')
		.addOption(dbOption())
		.action(async ({ site, json, format, pages, only, failOn, baseline, ...options }: Options) => {
			const told = json ? 'json' : format;
			const isWhole = pages && (await isFresh(site, options));
			await withReader(options, (store) => {
				const all = findAll(store, site, pages === true, isWhole === true);
				const wanted = only.length > 0 ? all.filter(({ code }) => only.includes(code)) : all;
				const found = baseline === undefined ? wanted : newSince(baseline, wanted);
				const errors = found.filter(isError).length;
				if (told === 'json') printJson(found.map((one) => ({ ...one, message: describeFinding(one) })));
				else if (told === 'sarif') printJson(sarifOf(found.map(toSarif), __KEPHALON_VERSION__));
				else for (const one of found) print(`${findingAsText(one)}\n`);
				if (told === 'text')
					say(
						`${count(errors, 'error')}, ${count(found.length - errors, 'warning')}${baseline !== undefined ? ' that are new' : ''}.`
					);
				if (errors > 0 || found.some((one) => isMet(one, failOn))) process.exitCode = 1;
			});
		});
};

/** Brings the kept state up to date where it may be written; says whether it is. */
async function isFresh(site: string, options: { db?: string }): Promise<boolean> {
	try {
		await runJob('refresh', { db: databaseOf(options), site });
		return true;
	} catch (error) {
		if (!(error instanceof UserError)) throw error;
		say('The database cannot be written: what only all pages together show is not looked for.');
		return false;
	}
}

function findAll(store: Store, name: string, withPages: boolean, isWhole: boolean): Finding[] {
	const stored = store.site(name);
	const inRules = findInRules(stored.site, stored.types, store.pages(stored.id));
	if (!withPages) return inRules;
	const resolver = resolverOf(store, stored, momentOf(store, stored.id));
	const aside = new Set(store.asides(stored.id).map(({ code, tag, path }) => `${code} ${tag} ${path}`));
	const isAside = ({ code, tag = '', target }: Finding) =>
		aside.has(`${code} ${tag} `) || (target.of === 'page' && aside.has(`${code} ${tag} ${target.path}`));
	const unshared = new Set(stored.types.filter(({ special }) => special === 'not-found').map((type) => type.name));
	const onPages: Finding[] = [];
	for (const page of store.pages(stored.id, 'live')) {
		if (unshared.has(page.type)) continue;
		const evaluation = resolver.evaluate(page);
		onPages.push(...findOnPage(page, resolver.headOf(evaluation), evaluation));
	}
	const whole = isWhole ? findInWhole(store, stored).map(({ finding }) => finding) : [];
	return [...inRules, ...[...whole, ...onPages].filter((one) => !isAside(one))];
}

/** What a finding is known by from one run to the next. */
const keyOf = (one: Finding) => JSON.stringify([one.code, one.target, one.tag ?? '']);

function newSince(file: string, found: readonly Finding[]): Finding[] {
	if (!existsSync(file)) {
		writeFileSync(file, `${JSON.stringify([...new Set(found.map(keyOf))].sort(), null, 1)}\n`);
		say(`${file} is written: what is found from now on is compared with it.`);
		return [];
	}
	try {
		const known = new Set(JSON.parse(readFileSync(file, 'utf8')) as string[]);
		return found.filter((one) => !known.has(keyOf(one)));
	} catch {
		throw new UserError(`${file} is no baseline that can be read. Delete it to write it anew.`, 2);
	}
}

const isMet = ({ weight, code }: Finding, failOn: readonly string[]) =>
	failOn.some((what) => (/^\d+$/.test(what) ? weight >= Number(what) : what === code));

function toSarif(one: Finding) {
	const { target } = one;
	const place =
		target.of === 'page'
			? target.path.slice(1) || 'index'
			: target.of === 'type'
				? `types/${target.name}`
				: target.of === 'picture'
					? target.src
					: 'site';
	return { code: one.code, says: describeFinding(one), mend: describeMend(one), weight: one.weight, place };
}
