import {
	copyFileSync,
	mkdirSync,
	readFileSync,
	renameSync,
	realpathSync,
	symlinkSync,
	readlinkSync,
	writeFileSync,
	rmSync
} from 'node:fs';
import { randomUUID } from 'node:crypto';
import { dirname, isAbsolute, join, resolve } from 'node:path';
import {
	findTag,
	folderForm,
	type FoundTag,
	type Head,
	injectHead,
	isXhtml,
	managedBy,
	parseUrl,
	renderLines,
	settleText,
	type TagDefinition
} from '$core';
import { refuse } from '../errors';
import { declaredEncoding, editBytes, isPlainAscii, isUnsaid } from './encoding';
import {
	futurePath,
	isHtmlName,
	isInside,
	onDisk,
	openFolder,
	pathOfFile,
	shownName,
	walkFolder,
	type FolderEntry
} from './folder';

export interface InjectOptions {
	readonly folder: string;
	/** Undefined: in place. */
	readonly out: string | undefined;
	readonly dryRun: boolean;
	/** Addresses leave out the ending of a file: see `pathOfFile`. */
	readonly bare?: boolean;
	/** The head of a page by its path, or why there is none. */
	readonly headOf: (path: string) => KnownHead | string;
	/** Told of each value that an author wrote and that goes out of a file, with what stands there for it now. */
	readonly onGone?: (gone: GoneValue) => void;
	readonly progress?: (done: number, all: number) => void;
}

interface KnownHead {
	readonly head: Head;
	/** Tags that a rule leaves out of it. */
	readonly leftOut: readonly string[];
	readonly wasOurs: (tag: FoundTag) => boolean;
}

export interface GoneValue {
	readonly path: string;
	readonly tag: string;
	readonly value: string;
	/** What the tag says instead; undefined when it says nothing any more. */
	readonly now: string | undefined;
}

export interface InjectSummary {
	/** On how many pages each tag lost a value that its author wrote. */
	readonly gone: Readonly<Record<string, number>>;
	/** Files whose head came out different from what was there. */
	readonly changed: readonly string[];
	readonly unchanged: number;
	/** HTML files that the site does not know, or that allow no edit; copied as they are. */
	readonly unknown: readonly { readonly path: string; readonly why: string }[];
	readonly copied: number;
	/** Links that lead out of the folder; not copied. */
	readonly skipped: readonly string[];
	/**
	 * Files that do not say their encoding, and hold ASCII alone: what is beyond it was written as references, and where
	 * extra markup cannot be, the encoding was stated.
	 */
	readonly unsaid: { readonly references: number; readonly stated: number };
}

/** Copies a folder and writes each page's head into its HTML. Never writes over its input unless told to. */
export function injectFolder({ folder, out, dryRun, bare, headOf, onGone, progress }: InjectOptions): InjectSummary {
	const top = openFolder(folder);
	const target = out === undefined ? top : checkTarget(top, out);
	const all = walkFolder(top);
	const entries = all.filter(({ path }) => !HALF_WRITTEN.test(path));
	if (out === undefined && !dryRun) for (const { path, file } of all) if (HALF_WRITTEN.test(path)) rmSync(file);
	const changed: string[] = [];
	const unknown: { path: string; why: string }[] = [];
	const skipped: string[] = [];
	let [unchanged, copied] = [0, 0];
	const unsaid = { references: 0, stated: 0 };
	const gone = new Map<string, number>();
	const noteGone = (values: readonly GoneValue[]) => {
		for (const tag of new Set(values.map((one) => one.tag))) gone.set(tag, (gone.get(tag) ?? 0) + 1);
		for (const value of values) onGone?.(value);
	};
	entries.forEach((entry, index) => {
		const to = join(target, entry.path);
		if (entry.link) {
			if (entry.link === 'outside') skipped.push(shownName(entry.path));
			else if (out !== undefined && !dryRun) copyLink(entry, to, target);
		} else if (!isHtmlName(entry.path)) {
			copied++;
			if (out !== undefined && !dryRun) copy(entry.file, to, target);
		} else {
			const bytes = readFileSync(entry.file);
			const result = inject(pathOfFile(entry.path, bare), entry, bytes, headOf, noteGone, (how) => void unsaid[how]++);
			if (typeof result === 'string') unknown.push({ path: shownName(entry.path), why: result });
			else if (result.equals(bytes)) unchanged++;
			else changed.push(shownName(entry.path));
			const content = typeof result === 'string' ? bytes : result;
			if (!dryRun && (out !== undefined || !content.equals(bytes))) writeWhole(to, content, target);
		}
		progress?.(index + 1, entries.length);
	});
	return { gone: Object.fromEntries(gone), changed, unchanged, unknown, copied, skipped, unsaid };
}

function checkTarget(top: string, out: string): string {
	const target = futurePath(out);
	if (target === top) throw refuse('out-is-folder');
	if (isInside(target, top)) throw refuse('out-holds-folder', { out });
	if (isInside(top, target)) throw refuse('out-in-folder', { out });
	return target;
}

/** The file's bytes with the page's head in them, or why it has none. */
function inject(
	path: string,
	entry: FolderEntry,
	bytes: Buffer,
	headOf: InjectOptions['headOf'],
	noteGone: (values: readonly GoneValue[]) => void,
	noteUnsaid: (how: keyof InjectSummary['unsaid']) => void
): Buffer | string {
	const known = headOf(path);
	if (typeof known === 'string') return known;
	const { head, leftOut, wasOurs } = known;
	const nowOf = (name: string) => {
		const key = name.toLowerCase() === 'shortcut icon' ? 'icon' : name.toLowerCase();
		return head.tags.filter(({ tag }) => nameInFile(tag) === key);
	};
	const address = (nowOf('canonical')[0] ?? nowOf('og:url')[0])?.value;
	const gone: GoneValue[] = [];
	const note = (tag: FoundTag) => {
		const now = nowOf(tag.name);
		if (tag.value === '' || wasOurs(tag) || now.some(({ value }) => isSameSaid(tag.name, value, tag.value, address)))
			return;
		gone.push({ path, tag: tag.name, value: tag.value, now: now[0]?.value });
	};
	const lines = (xhtml: boolean): readonly string[] => renderLines(head, { xhtml });
	const edit = (encoding?: string) =>
		editBytes(
			bytes,
			(source, write, read) => {
				const xhtml = isXhtml(source, entry.path);
				const said = encoding ? [`<meta charset="${encoding}"${xhtml ? ' /' : ''}>`] : [];
				gone.length = 0;
				const block = [...said, ...lines(xhtml).map(write)];
				return injectHead(source, block, managedBy(head, leftOut), xhtml, note, read);
			},
			encoding
		);
	const edited = isUnsaid(bytes) ? editUnsaid(lines(false), edit, noteUnsaid) : editSaid(declaredEncoding(bytes), edit);
	if (edited) noteGone(gone);
	return edited ?? 'in an encoding that allows no edit';
}

/** Whether two values of a tag say the same: an address from the page or whole, words of a list in another case. */
function isSameSaid(name: string, now: string, before: string, page: string | undefined): boolean {
	const kind = findTag(name.toLowerCase() === 'shortcut icon' ? 'icon' : name.toLowerCase())?.kind ?? 'text';
	if (kind === 'address' || kind === 'picture') {
		const [is, was] = [now, before].map((value) => parseUrl(value, page)?.href);
		return is !== undefined && was !== undefined && folderForm(is) === folderForm(was);
	}
	if (kind === 'text' && name.toLowerCase() !== 'keywords') return settleText(now) === settleText(before);
	return listOf(now) === listOf(before);
}
const listOf = (value: string) =>
	settleText(value)
		.toLowerCase()
		.split(/ ?[,;] ?/)
		.join(',');

type Edit = (encoding?: string) => Buffer | undefined;

/**
 * What declares the encoding may stand below a head that a stray element ended: where the tags before it push it beyond
 * the bytes in which it is looked for, it is said before them.
 */
function editSaid(declared: string | undefined, edit: Edit): Buffer | undefined {
	const edited = edit();
	return edited && declaredEncoding(edited) !== declared ? edit(declared) : edited;
}

/** In a file that does not say its encoding, text is written as references; where none are read, the encoding is stated. */
function editUnsaid(
	lines: readonly string[],
	edit: Edit,
	noteUnsaid: (how: keyof InjectSummary['unsaid']) => void
): Buffer | undefined {
	const beyond = lines.filter((line) => !isPlainAscii(line));
	if (beyond.length === 0) return edit();
	const how = beyond.some((line) => /<(script|style)\b/i.test(line)) ? 'stated' : 'references';
	noteUnsaid(how);
	return edit(how === 'stated' ? 'utf-8' : undefined);
}

/** By what name a file says a tag. */
const nameInFile = (tag: TagDefinition) => (tag.place === 'title' ? 'title' : tag.key.toLowerCase());

/** Makes the folder of a file, and makes sure that no link in the target leads the file out of it. */
function makeFolderOf(to: string, target: string) {
	const folder = onDisk(dirname(to));
	mkdirSync(folder, { recursive: true });
	if (typeof folder === 'string' && !isInside(target, realpathSync(folder)))
		throw refuse('out-leads-away', { to, target });
}

function copy(from: string | Buffer, to: string, target: string) {
	makeFolderOf(to, target);
	rmSync(onDisk(to), { force: true });
	copyFileSync(from, onDisk(to));
}

/** A link is copied as a link, unless it would lead out of the copy: back into the input, or anywhere else. */
function copyLink(entry: FolderEntry, to: string, target: string) {
	const leadsTo = readlinkSync(entry.file, 'utf8');
	if (isAbsolute(leadsTo) || !isInside(target, resolve(dirname(to), leadsTo))) return;
	makeFolderOf(to, target);
	rmSync(onDisk(to), { force: true });
	symlinkSync(leadsTo, onDisk(to));
}

/** Writes beside and renames, so that a file is never half there; never through a link that stands in its place. */
function writeWhole(to: string, content: Buffer, target: string) {
	makeFolderOf(to, target);
	// A name that no file of the user's has.
	const beside = onDisk(join(dirname(to), `.kephalon-${randomUUID()}`));
	writeFileSync(beside, content, { flag: 'wx' });
	renameSync(beside, onDisk(to));
}

/** What an injection that was broken off may leave. */
const HALF_WRITTEN = /(^|\/)\.kephalon-[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
