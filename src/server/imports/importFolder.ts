import { hash as digest } from 'node:crypto';
import { readFileSync, statSync } from 'node:fs';
import { extname } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { FRAME_LEAST, FRAME_SHARE, isLocalAddress, normaliseBase, parseUrl, type Picture } from '$core';
import { UserError, refuse } from '../errors';
import { PICTURE_LIMITS, type GuardedFetcher } from '../fetching/fetch';
import type { Store, StoredSite } from '../store/store';
import { fileOfPath, isHtmlName, openFolder, shownName, walkFolder, type FolderEntry } from '../files/folder';
import { asAuthored } from '../files/written';
import { ignorer, PLAIN_SOURCE, sorterOf, type FolderSource } from './folderSource';
import { languagesOfFiles, versionOf } from './languages';
import { READER } from './pageOfHtml';
import { formFor, stampOf, type ReadsFiles, type Stamp } from './readFiles';
import { readInTurn, type FileState } from './readInTurn';
import { isMark, withoutPictures } from './pictureNames';
import { saveContent, type Incoming, type Saved } from './saveContent';
import { Staging, type ReadPage, type StagedPage } from './staging';
import { NO_TRIMS, partTitles, plainOf, trimsOf, type TitleFindings } from './titles';
import { needsCopies } from '../pictures/gather';
import { Library } from '../pictures/library';
import { MAX_BYTES } from '../pictures/takePicture';
import { proposeTypes, type TypeProposal } from './proposals';
import { readPictureFacts } from '../files/pictureFacts';

export interface ImportOptions {
	readonly folder: string;
	readonly site: string;
	readonly base: string;
	/** What is said about reading it; what is not said is as it was the last time. */
	readonly source?: Partial<FolderSource>;
	/** All that is found common to many titles is taken off them, from now on. */
	readonly trimTitles?: boolean;
	/** Titles are as they are written, from now on: at the first reading, what most of them have is taken off. */
	readonly keepTitles?: boolean;
	/** Fetches the pictures that stand at whole addresses; without it they are taken as they are, their facts unknown. */
	readonly fetcher?: GuardedFetcher;
	/** Reads many files at once, elsewhere; without it they are read here. */
	readonly readFiles?: ReadsFiles;
	readonly progress?: (done: number, all: number) => void;
}

export interface ImportSummary {
	readonly read: number;
	/** How many of them are new, came out different, and are gone from the folder. */
	readonly added: number;
	readonly changed: number;
	readonly pictures: number;
	/** On how many pages their own files say each tag. */
	readonly found: Readonly<Record<string, number>>;
	/** What many titles have in common and still have, and what was taken off them. */
	readonly titles: TitleFindings & { readonly taken: TitleFindings };
	/** The formulas by which a program wrote of each page; what is written of one alone goes before them. */
	readonly formulas: readonly { readonly tag: string; readonly formula: string; readonly pages: number }[];
	/** Types that its pages seem to be of, but for those that are said already. */
	readonly proposals: readonly TypeProposal[];
	/** How many pages are in which language, as far as it is known. */
	readonly languages: Readonly<Record<string, number>>;
	/** How many pages have versions in other languages by their names; `linked` when they are kept as alternates. */
	readonly versions: { readonly pages: number; readonly linked: boolean };
	readonly skipped: readonly { readonly path: string; readonly why: string }[];
	/** Pages of an earlier import whose file is gone; they were set to draft. */
	readonly retired: readonly string[];
	readonly warnings: readonly string[];
}

/** The page that stands in for those that are not there, as servers know it, and its type. */
const NOT_FOUND = 'not-found';
const isNotFound = (path: string) => /^\/(404|not-?found)(\.x?html?)?$/i.test(path);

/** Reads a folder of HTML files into a site. Content is brought up to date; rules and overrides stay. */
export async function importFolder(store: Store, options: ImportOptions): Promise<ImportSummary> {
	const top = openFolder(options.folder);
	const base = checkBase(options.base);
	const known = store.working.sites.find(options.site)?.id;
	const before = known === undefined ? undefined : store.working.sources.settings<FolderSource>(known, 'folder');
	let source: FolderSource = { ...PLAIN_SOURCE, ...before, ...defined(options.source ?? {}), folder: top };
	const isIgnored = ignorer(source);
	const files = walkFolder(top);
	const entries = files.filter(({ path }) => isHtmlName(path) && !isIgnored(path));
	if (entries.length === 0) throw refuse('folder-nothing-read', { why: noPages(options.folder, files) });
	const staging = new Staging();
	try {
		const read = await readPages(entries, { ...options, base, source }, staging, store, known);
		if (staging.paths.length === 0)
			throw refuse('folder-unreadable', {
				files: entries.length,
				folder: options.folder,
				first: shownName(entries[0]!.path),
				why: read.skipped[0]?.why ?? ''
			});
		const common = staging.titles.findings();
		const { titles } = staging.titles;
		if (options.keepTitles) source = { ...source, trims: NO_TRIMS };
		else if (options.trimTitles) source = { ...source, trims: { ...trimsOf(common), numbers: true } };
		else if (!before) source = { ...source, trims: trimsOf(plainOf(common, titles)) };
		const parted = partTitles(common, source.trims);
		const pictures = await readPictures(top, store, known, staging, options.fetcher);
		const gone = new Set(pictures.missing.map((picture) => picture.path));
		const isSame =
			known !== undefined &&
			read.isSame &&
			pictures.isSame &&
			isDeepStrictEqual(before, source) &&
			store.working.sites.byId(known)?.site.base === base;
		const saved = isSame
			? { added: 0, changed: 0, retired: [] }
			: save(store, options, base, source, staging, read, pictures, gone);
		return {
			read: staging.paths.length,
			...saved,
			pictures: pictures.known.length,
			found: Object.fromEntries(staging.found),
			titles: { ...parted.left, taken: parted.taken },
			formulas: formulasOf(store, options.site),
			proposals: proposeTypes(entries.map(({ path }) => path)).filter(
				({ pattern }) => !source.types.some((one) => one.pattern === pattern)
			),
			languages: Object.fromEntries([...staging.languages].sort(([, a], [, b]) => b - a)),
			versions: { pages: read.versions.size, linked: source.link },
			skipped: [...read.skipped, ...pictures.missing],
			warnings: isLocalAddress(base)
				? [`The base address ${base} leads to this machine or network: no reader of links outside can follow it.`]
				: []
		};
	} finally {
		staging.close();
	}
}

const formulasOf = (store: Store, site: string) =>
	(store.working.sites.named(site).site.frames ?? [])
		.filter(({ formula }) => formula)
		.map(({ tag, value, pages }) => ({ tag, formula: value, pages }))
		.sort((a, b) => b.pages - a.pages);

const defined = <T extends object>(values: T): Partial<T> =>
	Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined)) as Partial<T>;

/** A folder without pages says what it saw. */
function noPages(folder: string, files: readonly FolderEntry[]): string {
	const endings = new Map<string, number>();
	for (const { path } of files) {
		const ending = extname(path).toLowerCase() || 'no ending';
		endings.set(ending, (endings.get(ending) ?? 0) + 1);
	}
	const seen = [...endings].sort(([, a], [, b]) => b - a).slice(0, 5);
	const told = seen.length ? `It holds ${seen.map(([ending, n]) => `${n} ${ending}`).join(', ')}.` : 'It is empty.';
	return `${folder} holds no page that is read (.html, .htm, .xhtml, also with a language behind). ${told} Name the folder that the site is served from.`;
}

function checkBase(base: string): string {
	const whole = normaliseBase(base);
	if (whole) return whole;
	const guess = /^[\w.-]+\.[a-z]{2,}(\/|$)/i.test(base) ? ` Did you mean https://${base}?` : '';
	throw refuse('base-not-absolute', { base, guess });
}

interface ReadFiles {
	readonly skipped: { readonly path: string; readonly why: string }[];
	/** Of each file that was read now: what is kept of it. */
	readonly stamps: Map<string, Stamp>;
	/** The same page in other languages, by path, as the names of the files tell. */
	readonly versions: ReadonlyMap<string, Readonly<Record<string, string>>>;
	/** Every file that may be a page. */
	readonly files: Set<string>;
	/** Nothing is other than when it was read last. */
	readonly isSame: boolean;
}

/** Reads the files into the staging; one that has not changed since the last time is not opened. */
async function readPages(
	entries: readonly FolderEntry[],
	{ source, base, progress, readFiles: elsewhere }: ImportOptions & { source: FolderSource },
	staging: Staging,
	store: Store,
	site: number | undefined
): Promise<ReadFiles> {
	const paths = entries.map(({ path }) => path);
	const before = site === undefined ? undefined : store.working.sources.settings<FolderSource>(site, 'folder');
	const { typeOf, languageOf: saidLanguage } = sorterOf(source, paths, before);
	const placeLanguage = languagesOfFiles(paths);
	const skipped: { path: string; why: string }[] = [];
	const stamps: ReadFiles['stamps'] = new Map();
	/** The file of each path so far. */
	const taken = new Map<string, string>();
	const groups = new Map<string, Record<string, string>>();
	const stateOf = (entry: FolderEntry): FileState => {
		const stamp = entry.link ? undefined : stampOf(entry.file);
		const last = site === undefined || !stamp ? undefined : store.working.sources.file(site, entry.path);
		const isSame = last?.size === stamp?.size && last?.modified === stamp?.modified;
		const kept = isSame ? (last?.reading as Kept | undefined) : undefined;
		const isKept = kept?.reader === READER && kept.bare === source.bare;
		const isPlaced = placeLanguage(entry.path) !== undefined;
		return { entry, file: entry.file, path: entry.path, stamp, isPlaced, kept: isKept ? kept.page : undefined };
	};
	let done = 0;
	for await (const { state, read: file } of readInTurn(entries, stateOf, source.bare, elsewhere)) {
		const { entry, stamp } = state;
		const isKept = state.kept !== undefined;
		if (typeof file === 'string') {
			skipped.push({ path: shownName(entry.path), why: file });
		} else if (taken.has(file.path)) {
			skipped.push({ path: shownName(entry.path), why: `served at ${file.path}, as ${taken.get(file.path)} is` });
		} else {
			const { seemsIn, ...read } = file;
			taken.set(read.path, shownName(entry.path));
			const own =
				site === undefined || isKept
					? read
					: { ...asAuthored(store, site, read), paragraphs: read.paragraphs, section: read.section, file: read.file };
			const language = own.language ?? placeLanguage(entry.path) ?? seemsIn;
			const page: ReadPage = { ...inOneForm(own, base, source.bare), ...(language && { language }) };
			if (stamp && !isKept) stamps.set(entry.path, stamp);
			const said = saidLanguage(entry.path) ?? language;
			const isNew = site === undefined || !store.working.pages.has(site, page.path);
			const type = typeOf(entry.path) ?? (isNew && isNotFound(page.path) ? NOT_FOUND : undefined);
			staging.put({ ...page, ...(said && { language: said }), type }, !isKept);
			const version = versionOf(entry.path);
			if (said) {
				const group = groups.get(version) ?? {};
				groups.set(version, Object.hasOwn(group, said) ? group : { ...group, [said]: page.path });
			}
		}
		progress?.(++done, entries.length);
	}
	const versions = new Map<string, Readonly<Record<string, string>>>();
	for (const group of groups.values())
		if (Object.keys(group).length > 1) for (const path of Object.values(group)) versions.set(path, group);
	const files = new Set(paths);
	const known = site === undefined ? [] : [...store.working.sources.files(site)].filter((file) => !isOther(file));
	const isSame = stamps.size === 0 && known.length === staging.paths.length && known.every((file) => files.has(file));
	return { skipped, stamps, versions, files, isSame };
}

/** Tags that say where a page stands, in the form in which all else says it. */
const PLACES = new Set(['canonical', 'og:url', 'alternate']);

function inOneForm(page: ReadPage, base: string, bare: boolean): ReadPage {
	if (!page.found?.some(({ name }) => PLACES.has(name))) return page;
	const form = formFor(bare);
	const isHere = (value: string) => parseUrl(value, base + page.path.slice(1))?.href.startsWith(base) === true;
	const found = page.found.map((tag) =>
		PLACES.has(tag.name) && isHere(tag.value) ? { ...tag, value: form(tag.value) || './' } : tag
	);
	return { ...page, found };
}

/** What is kept of a file for the next reading. */
interface Kept {
	readonly reader: number;
	readonly bare: boolean;
	readonly page: ReadPage;
}

/** The facts of every picture that the pages mention and the folder holds; how often each stands is counted. */
async function readPictures(
	top: string,
	store: Store,
	site: number | undefined,
	staging: Staging,
	fetcher: GuardedFetcher | undefined
) {
	const library = new Library(store);
	const stored = site === undefined ? undefined : store.working.sites.byId(site);
	const isCut = stored !== undefined && needsCopies(stored);
	const known: Picture[] = [];
	const missing: { path: string; why: string }[] = [];
	const stamps = new Map<string, { size: number; modified: number; reading: FactsOrWhy }>();
	for (const [src, count] of staging.pictures) {
		const isLocal = src.startsWith('/');
		if (!isLocal && !fetcher) continue;
		const stamp = isLocal ? stampOf(fileOfPath(top, src) ?? '') : undefined;
		const before = site === undefined || !stamp ? undefined : store.working.sources.file(site, PICTURE + src);
		const isSame = before !== undefined && before.size === stamp?.size && before.modified === stamp.modified && !isCut;
		// One that has not changed keeps all that was found out about it since.
		const facts = isSame
			? (factsOf(store.pictures.one(site as number, src)) ?? (before.reading as FactsOrWhy))
			: await (isLocal
					? factsInFolder(top, src, isCut ? library : undefined)
					: factsAt(src, fetcher as GuardedFetcher, library));
		if (stamp && !isSame) stamps.set(src, { ...stamp, reading: facts });
		const repeated = count >= FRAME_LEAST && count >= staging.paths.length * FRAME_SHARE;
		if (typeof facts !== 'string')
			known.push({ src, ...facts, ...(repeated && { repeated: count }), ...(isMark(src) && { mark: true }) });
		else missing.push({ path: src, why: `a picture on ${count} ${count === 1 ? 'page' : 'pages'}: ${facts}` });
	}
	return { known, missing, stamps, isSame: stamps.size === 0 && !fetcher };
}

/** What the file of a picture is known by among the files that were read. */
const PICTURE = 'picture ';
/** What is kept beside the pages of the folder. */
const isOther = (file: string) => file.startsWith(PICTURE) || file.startsWith('web ');

/** The facts of a picture, or why there are none. */
type FactsOrWhy = Omit<Picture, 'src'> | string;

function factsOf(picture: Picture | undefined): Omit<Picture, 'src'> | undefined {
	if (!picture) return undefined;
	const { src: _src, repeated: _repeated, mark: _mark, ...facts } = picture;
	return facts;
}

/** From the header of the file alone; with a library, a copy is taken into it. */
async function factsInFolder(top: string, src: string, library: Library | undefined): Promise<FactsOrWhy> {
	const file = fileOfPath(top, src);
	const size = file && statSync(file);
	if (!file || !size || !size.isFile()) return 'not in the folder';
	// What is heavier than the library takes is only looked at.
	const facts =
		library && size.size <= MAX_BYTES
			? await takeIn(readFileSync(file), library)
			: await readPictureFacts(typeof file === 'string' ? file : readFileSync(file));
	return facts ?? 'no picture';
}

async function factsAt(address: string, fetcher: GuardedFetcher, library: Library): Promise<FactsOrWhy> {
	try {
		const { body } = await fetcher.fetch(address, PICTURE_LIMITS);
		return (await takeIn(body, library)) ?? 'what stands there is no picture';
	} catch (error) {
		if (error instanceof UserError) return error.message;
		throw error;
	}
}

/** The facts of a picture, and a copy of it in the library; drawings, which no reader shows, are not copied. */
async function takeIn(bytes: Buffer, library: Library): Promise<Omit<Picture, 'src'> | undefined> {
	const facts = await readPictureFacts(bytes);
	if (!facts || facts.type === 'image/svg+xml') return facts;
	try {
		return await library.copyOf(bytes, facts);
	} catch (error) {
		// One that cannot be decoded whole is known by its facts alone.
		if (error instanceof UserError) return facts;
		throw error;
	}
}

/** Puts in what was read, and notes each file for the next reading. */
function save(
	store: Store,
	{ site: name }: ImportOptions,
	base: string,
	source: FolderSource,
	staging: Staging,
	files: ReadFiles,
	pictures: Awaited<ReturnType<typeof readPictures>>,
	gone: ReadonlySet<string>
): Saved {
	const known = store.working.sites.find(name);
	// What only all pages tell is worked out before anyone is kept from writing.
	const pages = staging.pages(source.trims);
	// The site is made by the edit, where there was none.
	const site = () => store.working.sites.find(name)!.id;
	const { added, changed, retired } = saveContent(store, {
		...{ name, origin: 'command', as: 'folder', present: new Set(staging.paths) },
		what: { from: 'folder', pages: staging.paths.length, pictures: pictures.known.length },
		fresh: { name, base, languages: staging.spoken(), separator: '·', fields: {}, rules: [] },
		coming: staging.paths.length - (known ? store.working.pages.count(known.id).all : 0),
		prepare: (stored) => prepareSite(store, stored, base, source, staging, pictures),
		pages: incoming(store, site, pages, source, files, gone),
		keepsFormulas: source.keepFormulas,
		finish(id) {
			const left: string[] = [];
			for (const file of store.working.sources.files(id)) if (!isOther(file) && !files.files.has(file)) left.push(file);
			for (const file of left) store.working.sources.dropFile(id, file);
			store.working.sources.saveSettings(id, 'folder', source);
		}
	});
	return { added, changed, retired };
}

function* prepareSite(
	store: Store,
	{ id, site, types }: StoredSite,
	base: string,
	source: FolderSource,
	staging: Staging,
	pictures: Awaited<ReturnType<typeof readPictures>>
): Generator<void> {
	const languages = [...new Set([...site.languages, ...staging.languages.keys()])];
	if (site.base !== base || languages.length > site.languages.length)
		store.working.sites.save({ ...site, base, languages });
	for (const type of new Set(['page', ...source.types.map((one) => one.type)])) store.working.types.ensure(id, type);
	const hasNotFound = types.some(({ name }) => name === NOT_FOUND);
	if (staging.paths.some(isNotFound) && !hasNotFound)
		store.working.types.save(id, { name: NOT_FOUND, label: 'Not found', special: 'not-found', fields: [], rules: [] });
	for (const picture of pictures.known) {
		store.pictures.save(id, [{ ...picture, ...setByHand(store.pictures.one(id, picture.src)) }]);
		yield;
	}
	for (const [src, stamp] of pictures.stamps)
		store.working.sources.saveFile(id, PICTURE + src, { ...stamp, result: null });
}

/** The pages as they go in; one that comes to the same as the last time is left as it is. */
function* incoming(
	store: Store,
	siteOf: () => number,
	pages: Iterable<StagedPage>,
	source: FolderSource,
	{ stamps, versions }: ReadFiles,
	gone: ReadonlySet<string>
): Generator<Incoming> {
	let id: number | undefined;
	for (const { page: found, read, fresh } of pages) {
		id ??= siteOf();
		const site = id;
		const linked = source.link ? versions.get(found.path) : undefined;
		const page = withoutPictures(
			{ ...found, ...(linked && { alternates: { ...others(linked, found.path), ...found.alternates } }) },
			gone
		);
		const { body: _body, ...fields } = page.fields;
		const { links: _links, ...told } = page;
		const result = hashOf(JSON.stringify({ ...told, fields }));
		const before = store.working.sources.file(site, read.file)?.result;
		const stamp = stamps.get(read.file);
		yield {
			...{ page, withBody: fresh, isSame: before === result && !fresh },
			note() {
				const { body: _long, ...short } = read.fields;
				const { links: _kept, ...rest } = read;
				const reading = { reader: READER, bare: source.bare, page: { ...rest, fields: short } } satisfies Kept;
				if (stamp) store.working.sources.saveFile(site, read.file, { ...stamp, reading, result });
				else if (before !== result) store.working.sources.saveResult(site, read.file, result);
			}
		};
	}
}

const hashOf = (text: string) => digest('sha256', text, 'base64url').slice(0, 16);

const others = (versions: Readonly<Record<string, string>>, own: string) =>
	Object.fromEntries(Object.entries(versions).filter(([, path]) => path !== own));

/** What people have set for a picture; the rest is read from its file. */
function setByHand({ focus, cuts, alt, alts, name }: Partial<Picture> = {}): Partial<Picture> {
	const given = Object.entries({ focus, cuts, alt, alts, name }).filter(([, value]) => value !== undefined);
	return Object.fromEntries(given);
}
