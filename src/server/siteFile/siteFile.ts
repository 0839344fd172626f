import type { ErrorObject } from 'ajv';
import { readFileSync } from 'node:fs';
import {
	checkBase,
	countFrames,
	nearestName,
	sameJson,
	type ContentType,
	type Page,
	type Picture,
	type Rule,
	type Site
} from '$core';
import { makeLongEdit, type LongWork } from '../edits/longEdit';
import { refuse } from '../errors';
import { Library } from '../pictures/library';
import type { Store, StoredSite } from '../store/store';
import { refuseSource } from '../sources/sources';
import { checkOfFile } from '../schemas/schemas';
import { SITE_FILE_VERSION, upgradeSiteFile } from './upgrade';

/** A whole site in one JSON document; the schema beside this file is its contract. */
export interface SiteFile {
	readonly format: 'kephalon-site';
	readonly version: typeof SITE_FILE_VERSION;
	readonly site: Site;
	readonly types: readonly ContentType[];
	readonly pages: readonly Page[];
	readonly pictures?: readonly Picture[];
	/** Where pages used to be, and where they are. */
	readonly redirects?: Readonly<Record<string, string>>;
}

/** Reads and checks a site file. Throws a `UserError` that names the place of everything that is wrong. */
export function readSiteFile(file: string): SiteFile {
	let text: string;
	try {
		text = readFileSync(file, 'utf8');
	} catch (error) {
		const { code } = error as NodeJS.ErrnoException;
		throw code === 'ENOENT'
			? refuse('site-file-missing', { file })
			: refuse('site-file-unreadable', { file, why: code ?? '' });
	}
	return parseSiteFile(text, file);
}

const isSiteFile = checkOfFile<SiteFile>();

export function parseSiteFile(text: string, file: string): SiteFile {
	let data: unknown;
	try {
		data = JSON.parse(text.replace(/^\uFEFF/, ''));
	} catch (error) {
		throw refuse('file-not-json', { file, why: (error as Error).message });
	}
	return readSiteData(data, file);
}

/** Checks what a site file holds, brought up to date. `named` says how a place in it is called for people. */
export function readSiteData(
	data: unknown,
	file: string,
	named: (place: string) => string = (place) => place
): SiteFile {
	if (
		typeof data === 'object' &&
		data !== null &&
		'version' in data &&
		typeof data.version === 'number' &&
		data.version > SITE_FILE_VERSION
	)
		throw refuse('site-file-newer', { file, version: data.version, known: SITE_FILE_VERSION });
	upgradeSiteFile(data);
	if (!isSiteFile(data)) {
		const places = describe(isSiteFile.errors ?? []).map(named);
		throw refuse('site-file-broken', { file, places });
	}
	refuseDoubles(data, file, named);
	for (const type of data.types) refuseSource(type);
	return withFrames(data);
}

/** At most this many places are named. */
const NAMED = 12;

/** The errors at the deepest places: those above them only repeat that nothing fitted. */
function describe(errors: readonly ErrorObject[]): string[] {
	const own = errors.filter((error) => error.keyword !== 'oneOf' && error.keyword !== 'anyOf');
	const sentences = [
		...new Set((own.length ? own : errors).filter((error) => !isOtherBranch(error, own)).map(sentence))
	];
	return sentences.length > NAMED
		? [...sentences.slice(0, NAMED), `… and ${sentences.length - NAMED} more.`]
		: sentences;
}

/** Of the forms a rule can take, only the one that its `kind` names is of interest. */
function isOtherBranch(error: ErrorObject, all: readonly ErrorObject[]): boolean {
	const branch = /^(.*\/oneOf\/\d+)\//.exec(error.schemaPath)?.[1];
	if (!branch) return false;
	const misses = (path: string) =>
		all.some(
			(other) =>
				other.keyword === 'const' &&
				other.schemaPath.startsWith(`${path}/`) &&
				other.instancePath.startsWith(parentOf(error))
		);
	return misses(branch);
}

const parentOf = (error: ErrorObject) =>
	/^(\/(?:site|types\/\d+|pages\/\d+)\/rules\/\d+)/.exec(error.instancePath)?.[1] ?? error.instancePath;

function sentence(error: ErrorObject): string {
	const place = error.instancePath || '/';
	const seen = JSON.stringify(error.data) ?? 'nothing';
	const short = seen.length > 60 ? `${seen.slice(0, 57)}…` : seen;
	switch (error.keyword) {
		case 'required':
			return `${place}: "${error.params.missingProperty}" is missing.`;
		case 'additionalProperties': {
			const nearest = nearestName(
				error.params.additionalProperty as string,
				Object.keys((error.parentSchema?.properties as object) ?? {})
			);
			return `${place}: "${error.params.additionalProperty}" is not known here.${nearest ? ` Did you mean "${nearest}"?` : ''}`;
		}
		case 'const':
			return `${place}: ${short} stands where ${JSON.stringify(error.params.allowedValue)} is expected.`;
		case 'enum': {
			const allowed = error.params.allowedValues as unknown[];
			const nearest = typeof error.data === 'string' ? nearestName(error.data, allowed.map(String)) : undefined;
			return `${place}: ${short} is not one of ${allowed.map((value) => JSON.stringify(value)).join(', ')}.${nearest ? ` Did you mean "${nearest}"?` : ''}`;
		}
		default:
			return `${place}: ${short} ${error.message}.`;
	}
}

/** What the schema cannot say: names and paths stand once, and every page's type is declared. */
function refuseDoubles(data: SiteFile, file: string, named: (place: string) => string) {
	const base = checkBase(data.site.base);
	const faults = [
		...(base.refused === undefined
			? []
			: [
					`/site/base: ${JSON.stringify(data.site.base)}: ${base.refused}${base.guess ? ` Did you mean "${base.guess}"?` : ''}`
				]),
		...doubles(data.types.map((type) => type.name)).map((name) => `/types: the type "${name}" stands twice.`),
		...doubles(data.pages.map((page) => page.path)).map((path) => `/pages: the path "${path}" stands twice.`),
		...doubles((data.pictures ?? []).map((picture) => picture.src)).map(
			(src) => `/pictures: the picture "${src}" stands twice.`
		),
		...rulesOf(data).flatMap(([place, rules]) =>
			doubles(rules.map(ruleKey)).map((key) => `${place}: the rule for "${key}" stands twice.`)
		)
	];
	const types = new Set(data.types.map((type) => type.name));
	data.pages.forEach((page, index) => {
		if (types.has(page.type)) return;
		const nearest = nearestName(page.type, types);
		faults.push(
			`/pages/${index}/type: the type "${page.type}" is not declared.${nearest ? ` Did you mean "${nearest}"?` : ''}`
		);
	});
	if (faults.length) throw refuse('site-file-contradicts', { file, faults: faults.slice(0, NAMED).map(named) });
}

const rulesOf = (data: SiteFile): [string, readonly Rule[]][] => [
	['/site/rules', data.site.rules],
	...data.types.map((type, index): [string, readonly Rule[]] => [`/types/${index}/rules`, type.rules]),
	...data.pages.map((page, index): [string, readonly Rule[]] => [`/pages/${index}/rules`, page.rules])
];
/** Language tags that differ by case alone are the same. */
const ruleKey = (rule: Rule) => (rule.language ? `${rule.tag} (${rule.language.toLowerCase()})` : rule.tag);

function doubles(names: readonly string[]): string[] {
	const seen = new Set<string>();
	return [...new Set(names.filter((name) => seen.has(name) || !seen.add(name)))];
}

/** A site that does not say which found values are a frame's has them counted among its pages (R13). */
function withFrames(data: SiteFile): SiteFile {
	const { site, pages } = data;
	if (site.frames || pages.every(({ found }) => !found?.length)) return data;
	return { ...data, site: { ...site, frames: countFrames(() => pages, site.languages[0] as string) } };
}

/**
 * Puts a site file into the database: the site becomes what the file says, wholly or not at all. A large one is put in in
 * goes, between which others write. Where what was written here since the last site file would be lost, it throws a
 * `UserError` that counts it, unless the revision of the working copy is given that is to be replaced.
 */
export function saveSiteFile(store: Store, data: SiteFile, revision?: number) {
	refuseOverwriting(store, data, revision);
	const { pages, pictures = [] } = data;
	const what = { from: 'site file', pages: pages.length, pictures: pictures.length };
	const known = store.working.sites.find(data.site.name);
	const work: LongWork<void> = function* () {
		const id = store.working.sites.save(data.site);
		for (const type of data.types) store.working.types.save(id, type);
		for (const page of pages) {
			store.working.pages.save(id, page);
			yield;
		}
		yield* store.working.keepOnly(
			id,
			new Set(data.types.map((type) => type.name)),
			new Set(pages.map((page) => page.path))
		);
		store.pictures.save(id, pictures.map(withoutLostCopy(new Library(store))), true);
		store.working.redirects.replace(id, data.redirects ?? {});
	};
	const edit = { origin: 'command', kind: 'import', what } as const;
	const coming = pages.length - (known ? store.working.pages.count(known.id).all : 0);
	makeLongEdit(store, data.site.name, edit, work, { fresh: data.site, coming });
}

/** What was written here since the last site file was read, and the file does not say. */
function lostBy(store: Store, { id, site, types }: StoredSite, data: SiteFile): string[] {
	const touched = store.record.touchedSince(id, 'site file');
	const lost: string[] = [];
	const compare = <T extends { readonly rules: readonly Rule[] }>(where: string, here: T, there: T | undefined) => {
		if (!there) return void lost.push(`${where}: it is not in the file and goes`);
		const wanted = new Map(there.rules.map((rule) => [ruleKey(rule), rule]));
		for (const rule of here.rules)
			if (!sameJson(rule, wanted.get(ruleKey(rule)))) lost.push(`${where}: the rule for ${ruleKey(rule)}`);
		const rest = ({ rules: _rules, ...others }: T) => others;
		if (!sameJson(rest(here), rest(there))) lost.push(`${where}: its settings or fields`);
	};
	if (touched.site) {
		const { frames: _counted, ...here } = site;
		const { frames: _alsoCounted, ...there } = data.site;
		compare('the site', here, there);
	}
	const [typesThere, pagesThere] = [
		new Map(data.types.map((type) => [type.name, type])),
		new Map(data.pages.map((page) => [page.path, page]))
	];
	for (const type of types)
		if (touched.types.has(type.name)) compare(`the type ${type.name}`, type, typesThere.get(type.name));
	for (const page of touched.pages) {
		const here = store.working.pages.byId(page);
		if (!here) continue;
		const { reading: _reading, ...said } = here;
		compare(here.path, said, pagesThere.get(here.path));
	}
	return lost;
}

function refuseOverwriting(store: Store, data: SiteFile, revision: number | undefined) {
	const known = store.working.sites.find(data.site.name);
	if (!known) return;
	if (revision !== undefined && revision !== known.revision)
		throw refuse('revision-passed', { site: data.site.name, revision: known.revision, wanted: revision });
	if (revision !== undefined) return;
	const lost = lostBy(store, known, data);
	if (lost.length === 0) return;
	throw refuse('site-file-loses', {
		count: lost.length,
		things: lost.slice(0, NAMED),
		more: lost.length - NAMED,
		revision: known.revision
	});
}

/** A site file names copies in the library that it came from; where there is none, the picture stands at its own address only. */
const withoutLostCopy =
	(library: Library) =>
	({ kept, ...picture }: Picture): Picture =>
		kept && library.fileOf(kept.file) ? { ...picture, kept } : picture;

/** A site as a site file's text, piece by piece. The same site gives the same bytes: names, paths and keys are in order. */
export function* writeSiteFile(store: Store, name: string): Generator<string> {
	const { id, site, types } = store.working.sites.named(name);
	yield `{\n  "format": "kephalon-site",\n  "version": ${SITE_FILE_VERSION},\n  "site": `;
	yield indent(JSON.stringify(ordered(site), null, 2));
	yield `,\n  "types": ${indent(
		JSON.stringify(
			types.map((type) => ordered(type)),
			null,
			2
		)
	)},\n  "pages": [`;
	let first = true;
	for (const page of store.working.pages.all(id)) {
		yield `${first ? '' : ','}\n    ${JSON.stringify(ordered(page))}`;
		first = false;
	}
	yield `${first ? '' : '\n  '}],\n  "pictures": [`;
	const pictures = store.pictures.all(id);
	yield pictures.map((picture) => `\n    ${JSON.stringify(ordered(picture))}`).join(',');
	yield `${pictures.length ? '\n  ' : ''}]`;
	const redirects = store.working.redirects.all(id);
	if (Object.keys(redirects).length > 0)
		yield `,\n  "redirects": ${indent(JSON.stringify(ordered(redirects), null, 2))}`;
	yield '\n}\n';
}

const indent = (json: string) => json.replaceAll('\n', '\n  ');

/** The first keys of every record, in the order in which people read them; the others follow by name. */
const KEY_ORDER = ['tag', 'language', 'kind', 'name', 'path', 'type', 'src', 'label', 'base', 'state'];
const rank = (key: string) => (KEY_ORDER.includes(key) ? KEY_ORDER.indexOf(key) : KEY_ORDER.length);

/** Records whose order means something: of two language tags that differ by case alone, the first counts. */
const IN_THEIR_ORDER = new Set(['attributes', 'alternates', 'translations', 'alts']);

/** A part of a site as files say it: the same keys in the same order. */
export const orderedForFile = (value: unknown) => ordered(value);

function ordered(value: unknown, name?: string): unknown {
	if (Array.isArray(value)) return value.map((inner) => ordered(inner));
	if (typeof value !== 'object' || value === null) return value;
	const entries = Object.entries(value);
	if (name === undefined || !IN_THEIR_ORDER.has(name))
		entries.sort(([a], [b]) => rank(a) - rank(b) || (a < b ? -1 : 1));
	return Object.fromEntries(entries.map(([key, inner]) => [key, ordered(inner, key)]));
}
