import { readFileSync, statSync } from 'node:fs';
import picomatch from 'picomatch';
import {
	countFrames,
	FRAME_LEAST,
	FRAME_SHARE,
	isLocalAddress,
	normaliseBase,
	parseUrl,
	readPage,
	type Picture,
	type Site
} from '$core';
import { makeImport } from '../edits/edit';
import { UserError } from '../errors';
import { PICTURE_LIMITS, type GuardedFetcher } from '../fetching/fetch';
import type { FoundPage, Store } from '../store/store';
import { decodeFile } from '../files/encoding';
import { fileOfPath, isHtmlName, openFolder, pathOfFile, walkFolder, type FolderEntry } from '../files/folder';
import { asAuthored } from '../files/written';
import { languagesOfFiles } from './languages';
import { mentionsIn, Staging, type ReadPage } from './staging';
import { Library } from '../pictures/library';
import { MAX_BYTES } from '../pictures/takePicture';
import { readPictureFacts } from '../files/pictureFacts';

export interface ImportOptions {
	readonly folder: string;
	readonly site: string;
	readonly base: string;
	/** Which files are of which type: the first pattern that fits decides. */
	readonly types: readonly { readonly pattern: string; readonly type: string }[];
	/** Fetches the pictures that stand at whole addresses; without it they are taken as they are, their facts unknown. */
	readonly fetcher?: GuardedFetcher;
	readonly progress?: (done: number, all: number) => void;
}

export interface ImportSummary {
	readonly read: number;
	readonly pictures: number;
	/** On how many pages their own files say each tag. */
	readonly found: Readonly<Record<string, number>>;
	readonly skipped: readonly { readonly path: string; readonly why: string }[];
	/** Pages of an earlier import whose file is gone; they were set to draft. */
	readonly retired: readonly string[];
	readonly warnings: readonly string[];
}

/** Files larger than this (bytes) are no pages. */
const MAX_FILE = 20_000_000;

/** Reads a folder of HTML files into a site. Content is brought up to date; rules and overrides stay. */
export async function importFolder(store: Store, options: ImportOptions): Promise<ImportSummary> {
	const top = openFolder(options.folder);
	const base = checkBase(options.base);
	const entries = walkFolder(top).filter((entry) => isHtmlName(entry.path));
	if (entries.length === 0)
		throw new UserError(
			`${options.folder} holds no HTML file (.html, .htm, .xhtml). Name the folder that the site is served from.`
		);
	const staging = new Staging();
	try {
		const skipped = readPages(entries, options, staging);
		if (staging.paths.length === 0)
			throw new UserError(
				`None of the ${entries.length} files in ${options.folder} could be read as a page. The first: ${entries[0]!.path}, ${skipped[0]?.why}.`
			);
		const pictures = await readPictures(top, staging, new Library(store), options.fetcher);
		// What is not there cannot stand on a card.
		const gone = new Set(pictures.missing.map((picture) => picture.path));
		const retired = save(store, options, base, staging, pictures.known, gone);
		const warnings = isLocalAddress(base)
			? [`The base address ${base} leads to this machine or network: no reader of links outside can follow it.`]
			: [];
		return {
			read: staging.paths.length,
			pictures: pictures.known.length,
			found: Object.fromEntries(staging.found),
			skipped: [...skipped, ...pictures.missing],
			retired,
			warnings
		};
	} finally {
		staging.close();
	}
}

function checkBase(base: string): string {
	const whole = normaliseBase(base);
	if (whole) return whole;
	const guess = /^[\w.-]+\.[a-z]{2,}(\/|$)/i.test(base) ? ` Did you mean https://${base}?` : '';
	throw new UserError(`The base address "${base}" is not an absolute http or https address.${guess}`, 2);
}

/** Reads the files into the staging; gives those that are no pages, with the reasons. */
function readPages(entries: readonly FolderEntry[], { types, progress }: ImportOptions, staging: Staging) {
	const matchers = types.map(({ pattern, type }) => ({
		fits: picomatch(pattern, { basename: !pattern.includes('/') }),
		type
	}));
	const skipped: { path: string; why: string }[] = [];
	/** The file of each path so far. */
	const taken = new Map<string, string>();
	const languageOf = languagesOfFiles(entries.map(({ path }) => path));
	entries.forEach((entry, index) => {
		const read = readFile(entry);
		const double = typeof read === 'string' ? undefined : taken.get(read.path);
		if (typeof read === 'string') skipped.push({ path: entry.path, why: read });
		else if (double) skipped.push({ path: entry.path, why: `served at ${read.path}, as ${double} is` });
		else {
			taken.set(read.path, entry.path);
			const language = read.language ?? languageOf(entry.path);
			const type = matchers.find(({ fits }) => fits(entry.path))?.type;
			staging.put({ ...read, ...(language && { language }), type });
		}
		progress?.(index + 1, entries.length);
	});
	return skipped;
}

/** The page of a file, or the reason why it is none. */
function readFile(entry: FolderEntry): Omit<ReadPage, 'type'> | string {
	if (entry.link) return 'a link, which is never followed';
	try {
		const { size, mtime } = statSync(entry.file);
		if (size > MAX_FILE)
			return `${(size / 1e6).toFixed(0)} MB, more than the ${MAX_FILE / 1e6} MB that a page may have`;
		const bytes = readFileSync(entry.file);
		const why = refuseContent(bytes);
		return why ?? toPage(entry.path, decodeFile(bytes).text, mtime);
	} catch (error) {
		return `cannot be read (${(error as NodeJS.ErrnoException).code ?? String(error)})`;
	}
}

function refuseContent(bytes: Buffer): string | undefined {
	const start = bytes.subarray(0, 2048);
	if (bytes.length === 0) return 'empty';
	const isUtf16 = (start[0] === 0xff && start[1] === 0xfe) || (start[0] === 0xfe && start[1] === 0xff);
	if (!isUtf16 && start.includes(0)) return 'not text';
	return isUtf16 || bytes.includes('<') ? undefined : 'no markup in it';
}

function toPage(file: string, html: string, modified: Date): Omit<ReadPage, 'type'> | string {
	const page = readPage(html, file);
	if (page.leadsTo !== undefined) return `only leads on to ${page.leadsTo}`;
	const path = pathOfFile(file);
	const { title, heading, paragraphs, body, language, found } = page;
	const pictures = page.pictures.flatMap((mention) => {
		const src = sitePath(mention.src, path);
		return src ? [{ ...mention, src }] : [];
	});
	return {
		path,
		modified: modified.toISOString(),
		...(language && { language }),
		fields: { title, ...(heading && { heading }), ...(body && { body }), ...(pictures.length && { pictures }) },
		paragraphs,
		found
	};
}

/** A picture's source as a path of the site, or as it is when it is a whole address. */
function sitePath(src: string, page: string): string | undefined {
	if (/^https?:/i.test(src)) return src;
	const url = parseUrl(src, `https://site.invalid${page}`);
	return url?.host === 'site.invalid' && url.protocol === 'https:' ? url.pathname : undefined;
}

/** The facts of every picture that the pages mention and the folder holds; how often each stands is counted. */
async function readPictures(top: string, staging: Staging, library: Library, fetcher: GuardedFetcher | undefined) {
	const known: Picture[] = [];
	const missing: { path: string; why: string }[] = [];
	for (const [src, count] of staging.pictures) {
		const isLocal = src.startsWith('/');
		if (!isLocal && !fetcher) continue;
		const facts = await (isLocal ? factsInFolder(top, src, library) : factsAt(src, fetcher as GuardedFetcher, library));
		const repeated = count >= FRAME_LEAST && count >= staging.paths.length * FRAME_SHARE;
		if (typeof facts !== 'string')
			known.push({ src, ...facts, ...(repeated && { repeated: count }), ...(isMark(src) && { mark: true }) });
		else missing.push({ path: src, why: `a picture on ${count} ${count === 1 ? 'page' : 'pages'}: ${facts}` });
	}
	return { known, missing };
}

/** The facts of a picture, or why there are none. */
type FactsOrWhy = Omit<Picture, 'src'> | string;

async function factsInFolder(top: string, src: string, library: Library): Promise<FactsOrWhy> {
	const file = fileOfPath(top, src);
	if (!file || !statSync(file).isFile()) return 'not in the folder, or no picture';
	// What is heavier than the library takes is only looked at.
	if (statSync(file).size > MAX_BYTES) return (await readPictureFacts(file)) ?? 'no picture';
	return (await takeIn(readFileSync(file), library)) ?? 'not in the folder, or no picture';
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

/** Whether a picture calls itself a logo or an icon, by a word of its file's name or its folder's. */
const isMark = (src: string) =>
	/(^|[^a-z])(\w*logos?|icons?|favicon|badges?|buttons?|sprites?|spacer|avatars?)([^a-z]|$)/i.test(src);

function withoutPictures(page: FoundPage, gone: ReadonlySet<string>): FoundPage {
	const kept = mentionsIn(page).filter((mention) => !gone.has(mention.src));
	const { pictures: _all, ...fields } = page.fields;
	return { ...page, fields: { ...fields, ...(kept.length && { pictures: kept }) } };
}

function save(
	store: Store,
	{ site: name, types }: ImportOptions,
	base: string,
	staging: Staging,
	pictures: readonly Picture[],
	gone: ReadonlySet<string>
): string[] {
	const fresh: Site = { name, base, languages: [staging.usualLanguage()], separator: '·', fields: {}, rules: [] };
	const what = { from: 'folder', pages: staging.paths.length, pictures: pictures.length };
	return makeImport(store, fresh, { origin: 'command', kind: 'import', what }, ({ id, site }) => {
		store.saveSite({ ...site, base });
		for (const type of new Set(['page', ...types.map((one) => one.type)])) store.ensureType(id, type);
		for (const page of staging.pages(FRAME_LEAST))
			store.refreshPage(id, asAuthored(store, id, withoutPictures(page, gone)));
		store.savePictures(
			id,
			pictures.map((picture) => ({ ...picture, ...setByHand(store.picture(id, picture.src)) }))
		);
		store.saveFrames(id, countFrames(store.foundOfPages(id), site.languages[0] as string));
		return store.retirePages(id, new Set(staging.paths));
	}).result;
}

/** What people have set for a picture; the rest is read from its file. */
function setByHand({ focus, cuts, alt, alts, name }: Partial<Picture> = {}): Partial<Picture> {
	const given = Object.entries({ focus, cuts, alt, alts, name }).filter(([, value]) => value !== undefined);
	return Object.fromEntries(given) as Partial<Picture>;
}
