import { readFileSync, statSync } from 'node:fs';
import { folderForm } from '$core';
import { decodeFile } from '../files/encoding';
import { pathOfFile } from '../files/folder';
import { pageOfHtml } from './pageOfHtml';
import { languageOfText, textOfPage } from './spoken';
import type { ReadPage } from './staging';

/** Files larger than this (bytes) are no pages. */
const MAX_FILE = 20_000_000;

/** What a file is known by: unchanged, it is not read again. `modified` in milliseconds since 1970. */
export interface Stamp {
	readonly size: number;
	readonly modified: number;
}

/** A file that may be a page. */
export interface PageFile {
	/** Where it lies; bytes where its name is no text. */
	readonly file: string | Uint8Array;
	/** Its path in the folder. */
	readonly path: string;
	/** Undefined where it is gone. */
	readonly stamp: Stamp | undefined;
	/** Its place says which language it is in: its text is not asked. */
	readonly isPlaced: boolean;
}

/** The page of a file, and the language that its text seems to be in, where neither it nor its place says one. */
export type FilePage = ReadPage & { readonly seemsIn?: string };

/** The page of each file in their order, or the reason why it is none. `bare` says that addresses leave out the ending. */
export type ReadsFiles = (files: readonly PageFile[], bare: boolean) => Promise<(FilePage | string)[]>;

/** Reads files here, one after another. */
export const readFiles: ReadsFiles = async (files, bare) => {
	const pages: (FilePage | string)[] = [];
	for (const file of files) {
		const page = readFile(file, bare);
		const isTold = typeof page === 'string' || file.isPlaced || page.language !== undefined;
		const seemsIn = isTold ? undefined : await languageOfText(textOfPage(page));
		pages.push(seemsIn === undefined ? page : { ...(page as ReadPage), seemsIn });
	}
	return pages;
};

export function stampOf(file: string | Uint8Array): Stamp | undefined {
	const found = statSync(asPath(file), { throwIfNoEntry: false });
	return found && { size: found.size, modified: Math.trunc(found.mtimeMs) };
}

/** The path of a page as the site says it, of one that means the same: of a file, or of a folder by the file that opens it. */
export const formFor = (bare: boolean) => (path: string) =>
	bare ? folderForm(path).replace(/\.x?html?$/i, '') : folderForm(path);

function readFile({ file, path, stamp }: PageFile, bare: boolean): ReadPage | string {
	try {
		if (!stamp) return 'is gone';
		if (stamp.size > MAX_FILE)
			return `${(stamp.size / 1e6).toFixed(0)} MB, more than the ${MAX_FILE / 1e6} MB that a page may have`;
		const bytes = readFileSync(asPath(file));
		const why = refuseContent(bytes);
		if (why !== undefined) return why;
		const modified = new Date(stamp.modified).toISOString();
		return pageOfHtml(decodeFile(bytes).text, path, pathOfFile(path, bare), modified, undefined, formFor(bare));
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

/** A name that came from another thread has lost its kind. */
const asPath = (file: string | Uint8Array) => (typeof file === 'string' ? file : Buffer.from(file));
