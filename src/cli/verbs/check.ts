import { existsSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { Option } from 'commander';
import {
	pagesIn,
	brokenPins,
	describeFinding,
	describeMany,
	describeMend,
	findInRules,
	findOnPage,
	isError,
	isSure,
	publicIn,
	Resolver,
	type ContentType,
	type Finding,
	type Page
} from '$core';
import { UserError, refuse } from '$server/errors';
import { findInFolder } from '$server/findings/folder';
import type { FileFinding } from '$server/findings/folderLinks';
import { readSiteFile } from '$server/siteFile/siteFile';
import { causesOf, type Cause } from '$server/findings/causes';
import { sarifOf, type SarifFinding } from '$server/findings/sarif';
import { findInWhole } from '$server/findings/whole';
import { workingResolver } from '$server/heads/heads';
import { refreshAll } from '$server/jobs/parts';
import type { Store } from '$server/store/store';
import { count, databaseOf, dbOption, findingAsText, print, printJson, say, withReader, type Verb } from '../common';

interface Options {
	site?: string;
	json?: boolean;
	format: 'text' | 'json' | 'sarif';
	pages?: boolean;
	pins?: boolean;
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
			'Checks every template and rule of a site, and with --pages every page as readers would see it; or a folder of HTML, or a site file. Exit code 1 when a rule does not work, or --fail-on is met.'
		)
		.argument(
			'[folder]',
			'a folder of HTML, or a site file: its heads are looked at as they stand, without any database'
		)
		.option('--site <name>', 'the name of a site of the database')
		.option('--pages', 'also what is wrong or weak on each page, and what only all of them show')
		.option('--pins', 'only whether pinned pages still say what they were pinned to; exit code 1 where one does not')
		.addOption(new Option('--format <format>', 'how it is told').choices(['text', 'json', 'sarif']).default('text'))
		.option('--json', 'the same as --format json')
		.option('--only <codes>', 'only these kinds, with commas between', collect, [])
		.option('--fail-on <what>', 'exit code 1 from this weight on (1 to 10), or for these kinds', collect, [])
		.option('--baseline <file>', 'only what is new since this file; it is written when it is not there')
		.addOption(dbOption())
		.action(async (folder: string | undefined, { site, pages, pins, ...options }: Options) => {
			if ((folder === undefined) === (site === undefined)) throw refuse('nothing-to-check');
			const withPins = { ...options, failOn: [...options.failOn, ...(pins ? ['pin-broken'] : [])] };
			if (folder !== undefined)
				return tell(pins ? findPinsInFile(folder) : findInPath(folder, pages === true), withPins);
			const name = site as string;
			if (pins) return withReader(options, (store) => tell(findPinsOf(store, name), withPins));
			const isWhole = pages && (await isFresh(name, options));
			await withReader(options, (store) => tell(findAll(store, name, pages === true, isWhole === true), options));
		});
};

/** A finding with the file and the line that it is about, where it is of a file. */
type Placed = Pick<FileFinding, 'finding'> & Partial<FileFinding>;
const inDatabase = (finding: Finding): Placed => ({ finding });

/** What was found, and in what, in a sentence. */
interface Found {
	readonly placed: readonly Placed[];
	readonly looked: string;
}
const RULES_ALONE = 'Looked at the rules alone; --pages looks at what comes out as well.';
const lookedAt = (pages: number) => `Looked at the rules and ${count(pages, 'public page')}.`;
const unsharedIn = (types: readonly ContentType[]) =>
	new Set(types.filter(({ special }) => special === 'not-found').map(({ name }) => name));

function tell(
	{ placed: all, looked }: Found,
	{ json, format, only, failOn, baseline }: Omit<Options, 'site' | 'pages' | 'pins'>
) {
	const told = json ? 'json' : format;
	const wanted = only.length > 0 ? all.filter(({ finding }) => only.includes(finding.code)) : all;
	const found = baseline === undefined ? wanted : newSince(baseline, wanted);
	const causes = causesOf(found);
	const errors = causes.filter(({ first }) => isError(first.finding)).length;
	if (told === 'json') printJson(causes.map(causeAsJson));
	else if (told === 'sarif') printJson(sarifOf(causes.map(toSarif), __KEPHALON_VERSION__));
	else for (const line of inWords(causes)) print(line);
	if (told === 'text')
		say(
			`${count(errors, 'error')}, ${count(causes.length - errors, 'warning')}${baseline !== undefined ? ' that are new' : ''}. ${looked}`
		);
	if (errors > 0 || found.some(({ finding }) => isMet(finding, failOn))) process.exitCode = 1;
}

const placeOf = ({ finding: { target }, file, line, column }: Placed) =>
	file === undefined
		? target.of === 'page'
			? target.path
			: ''
		: `${file}${line === undefined ? '' : `:${line}${column === undefined ? '' : `:${column}`}`}`;

/** So many causes of one kind are told in words: those of the most pages. */
const CAUSES_TOLD = 20;

/** The causes in their order, of very many of one kind the largest, and how many others there are. */
function* inWords(causes: readonly Cause<Placed>[]): Generator<string> {
	const byCode = new Map<string, Cause<Placed>[]>();
	for (const cause of causes) {
		const { code } = cause.first.finding;
		const known = byCode.get(code);
		if (known) known.push(cause);
		else byCode.set(code, [cause]);
	}
	const told = new Map(
		[...byCode].map(([code, all]) => [
			code,
			new Set(all.toSorted((a, b) => b.all.length - a.all.length).slice(0, CAUSES_TOLD))
		])
	);
	for (const cause of causes) if (told.get(cause.first.finding.code)!.has(cause)) yield causeAsText(cause);
	for (const [code, all] of byCode) {
		const others = all.filter((cause) => !told.get(code)!.has(cause));
		if (others.length === 0) continue;
		const pages = others.reduce((sum, one) => sum + one.all.length, 0);
		yield `and ${count(others.length, 'more', 'more')} of the kind ${code}, on ${count(pages, 'page')}: --only ${code} --format json lists all\n`;
	}
}

/** So many places of one cause are told in words. */
const PLACES_TOLD = 4;

/** One cause in words: where it is one page's, with its place before it; where many have it, with the first of them behind. */
function causeAsText({ first, all }: Cause<Placed>): string {
	const likely = isSure(first.finding) ? '' : ' (likely)';
	if (all.length === 1)
		return `${first.file === undefined ? '' : `${placeOf(first)}: `}${findingAsText(first.finding)}${likely}\n`;
	const { tag, code } = first.finding;
	const rest = all.length - PLACES_TOLD;
	const places = `${all.slice(0, PLACES_TOLD).map(placeOf).join(', ')}${rest > 0 ? ` and ${count(rest, 'more', 'more')}` : ''}`;
	return `warning: ${count(all.length, 'page')}, ${tag ?? code}: ${describeMany(first.finding)}${likely}\n    ${places}\n`;
}

/** One cause as data: the first finding, and each place with what is said of it. */
const causeAsJson = ({ first, all }: Cause<Placed>) => ({
	...first.finding,
	...placeAsJson(first),
	...{ message: describeMany(first.finding), mend: describeMend(first.finding), sure: isSure(first.finding) },
	pages: all.length,
	places: all.map((one) => ({ ...placeAsJson(one), target: one.finding.target, message: describeFinding(one.finding) }))
});
const placeAsJson = ({ file, line, column }: Placed) => (file === undefined ? {} : { file, line, column });

/** A folder of HTML as it stands, or the rules, and with `--pages` the pages, of a site file. */
function findInPath(path: string, withPages: boolean): Found {
	const found = statSync(path, { throwIfNoEntry: false });
	if (!found) throw refuse('path-missing', { path });
	if (found.isDirectory()) {
		const { findings, files } = findInFolder(path);
		return { placed: findings, looked: `Looked at ${count(files, 'file')} of HTML.` };
	}
	const file = readSiteFile(path);
	const text = readFileSync(path, 'utf8').split('\n');
	const place = (finding: Finding): Placed => {
		const line = lineInSiteFile(text, finding);
		return { file: path, finding, ...(line !== undefined && { line }) };
	};
	const inRules = findInRules(file.site, file.types, file.pages);
	if (!withPages) return { placed: inRules.map(place), looked: RULES_ALONE };
	const resolver = resolverOfFile(file);
	const isPublic = publicIn(file.types);
	const unshared = unsharedIn(file.types);
	let looked = 0;
	const onPages = file.pages.flatMap((page) => {
		if (!isPublic(page) || unshared.has(page.type)) return [];
		looked++;
		const evaluation = resolver.evaluate(page);
		return findOnPage(page, resolver.headOf(evaluation), evaluation);
	});
	return { placed: [...inRules, ...onPages].map(place), looked: lookedAt(looked) };
}

/** The line where what a finding is about is named: its page or type, and behind that its tag. */
function lineInSiteFile(lines: readonly string[], { target, tag }: Finding): number | undefined {
	const named = target.of === 'page' ? target.path : target.of === 'type' ? target.name : undefined;
	const begins = named === undefined ? 0 : lines.findIndex((line) => line.includes(JSON.stringify(named)));
	if (begins < 0) return undefined;
	const at =
		tag === undefined ? -1 : lines.findIndex((line, index) => index >= begins && line.includes(JSON.stringify(tag)));
	return (at < 0 ? begins : at) + 1;
}

/** Brings the kept state up to date where it may be written; says whether it is. */
async function isFresh(site: string, options: { db?: string }): Promise<boolean> {
	try {
		await refreshAll(databaseOf(options), site);
		return true;
	} catch (error) {
		if (!(error instanceof UserError)) throw error;
		say('The database cannot be written: what only all pages together show is not looked for.');
		return false;
	}
}

/** Whether pinned pages still say what they were pinned to; what nobody sees says nothing to anyone. */
function findPins(pages: Iterable<Page>, types: readonly ContentType[], resolver: Resolver): Found {
	const isPublic = publicIn(types);
	const broken: Finding[] = [];
	let [pinned, pins] = [0, 0];
	for (const page of pages) {
		const here = Object.keys(page.pinned ?? {}).length;
		if (here === 0 || !isPublic(page)) continue;
		pinned++;
		pins += here;
		broken.push(...brokenPins(page, resolver.resolveHead(page)));
	}
	const looked =
		pinned === 0
			? 'No public page is pinned: nothing was looked at.'
			: `Looked at ${count(pins, 'pin')} on ${count(pinned, 'page')}.`;
	return { placed: broken.map(inDatabase), looked };
}

function findPinsOf(store: Store, name: string): Found {
	const stored = store.working.sites.named(name);
	const resolver = workingResolver(store, stored);
	return findPins(store.working.pages.all(stored.id), stored.types, resolver);
}

/** Pins stand in a site file; a folder that holds none is refused as such a file. */
function findPinsInFile(path: string): Found {
	const file = readSiteFile(path);
	return findPins(file.pages, file.types, resolverOfFile(file));
}

const resolverOfFile = ({ site, types, pictures = [], pages, redirects }: ReturnType<typeof readSiteFile>) =>
	new Resolver({ site, types, pictures, others: pagesIn(pages, redirects) }, new Date().toISOString());

function findAll(store: Store, name: string, withPages: boolean, isWhole: boolean): Found {
	const stored = store.working.sites.named(name);
	const inRules = findInRules(stored.site, stored.types, store.working.pages.all(stored.id));
	if (!withPages) return { placed: inRules.map(inDatabase), looked: RULES_ALONE };
	const resolver = workingResolver(store, stored);
	const suppressed = store.state.suppressions.of(stored.id);
	const isAside = (found: Finding) => suppressed.has(found, found.target.of === 'page' ? found.target.path : '');
	const unshared = unsharedIn(stored.types);
	const onPages: Finding[] = [];
	let looked = 0;
	for (const page of store.working.pages.all(stored.id, 'live')) {
		if (unshared.has(page.type)) continue;
		looked++;
		const evaluation = resolver.evaluate(page);
		onPages.push(...findOnPage(page, resolver.headOf(evaluation), evaluation));
	}
	const whole = isWhole ? findInWhole(store, stored).map(({ finding }) => finding) : [];
	const found = [...inRules, ...[...whole, ...onPages].filter((one) => !isAside(one))];
	return { placed: found.map(inDatabase), looked: lookedAt(looked) };
}

/** What a finding is known by from one run to the next. */
const keyOf = ({ finding: one }: Placed) => JSON.stringify([one.code, one.target, one.tag ?? '']);

function newSince(file: string, found: readonly Placed[]): Placed[] {
	if (!existsSync(file)) {
		writeFileSync(file, `${JSON.stringify([...new Set(found.map(keyOf))].sort(), null, 1)}\n`);
		say(`${file} is written: what is found from now on is compared with it.`);
		return [];
	}
	try {
		const known = new Set(JSON.parse(readFileSync(file, 'utf8')) as string[]);
		return found.filter((one) => !known.has(keyOf(one)));
	} catch {
		throw refuse('baseline-broken', { file });
	}
}

const isMet = ({ weight, code }: Finding, failOn: readonly string[]) =>
	failOn.some((what) => (/^\d+$/.test(what) ? weight >= Number(what) : what === code));

function toSarif({ first, all }: Cause<Placed>): SarifFinding {
	const { finding } = first;
	const says = all.length === 1 ? describeFinding(finding) : `${count(all.length, 'page')}: ${describeMany(finding)}`;
	const others = all.slice(1).map((one) => ({ ...sarifPlaceOf(one), says: describeFinding(one.finding) }));
	return {
		...{
			code: finding.code,
			says,
			mend: describeMend(finding),
			weight: finding.weight,
			isSure: isSure(finding),
			others
		},
		...sarifPlaceOf(first)
	};
}

function sarifPlaceOf({ finding: { target }, file, line, column }: Placed) {
	const place =
		file ??
		(target.of === 'page'
			? target.path.slice(1) || 'index'
			: target.of === 'type'
				? `types/${target.name}`
				: target.of === 'picture'
					? target.src
					: 'site');
	return { place, line, column };
}
