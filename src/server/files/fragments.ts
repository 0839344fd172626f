import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { renderHead } from '$core';
import { refuse } from '../errors';
import { log } from '../log';
import type { HeadSource } from '../releases/headSource';
import { fileAt, futurePath, isInside, nameOfPath, onDisk } from './folder';

/** Tells a folder of fragments from any other: what stands in it may be replaced. */
const MARK = '.kephalon-fragments';

/**
 * Writes the head of each page to a file: that of `/walks/` to `walks/index.html`, that of `/walks/one` to
 * `walks/one.html`. The folder is made beside and put in place as a whole, so that no request sees half of it. Gives how
 * many were written; throws a `UserError` where the folder holds anything else.
 */
export function writeFragments(folder: string, source: HeadSource, progress?: (done: number, all: number) => void) {
	const target = futurePath(folder);
	if (existsSync(target) && readdirSync(target).length > 0 && !existsSync(join(target, MARK)))
		throw refuse('fragments-elsewhere', { folder });
	const [beside, old] = ['new', 'old'].map((word) => join(dirname(target), `.${basename(target)}-${word}`)) as [
		string,
		string
	];
	for (const left of [beside, old]) rmSync(left, { recursive: true, force: true });
	mkdirSync(beside, { recursive: true });
	writeFileSync(join(beside, MARK), `The heads of ${source.said}, written by Kephalon.\n`);
	const paths = [...source.paths()];
	let written = 0;
	for (const [index, path] of paths.entries()) {
		const known = source.at(path);
		if (typeof known !== 'string' && write(beside, path, renderHead(known.head))) written++;
		progress?.(index + 1, paths.length);
	}
	if (existsSync(target)) renameSync(target, old);
	renameSync(beside, target);
	rmSync(old, { recursive: true, force: true });
	return written;
}

/** Says whether there is a file that is asked for by the page's path. */
function write(top: string, path: string, head: string): boolean {
	const name = nameOfPath(path).slice(1);
	const file = /(^|\/)$/.test(name) ? `${name}index.html` : /\.x?html?$/i.test(name) ? name : `${name}.html`;
	const to = fileAt(top, file);
	if (!isInside(top, join(top, file))) return false;
	try {
		mkdirSync(onDisk(dirname(join(top, file))), { recursive: true });
		writeFileSync(to, head);
		return true;
	} catch (error) {
		// A name that is too long for the file system, or a folder where a page stands.
		log.warn(error);
		return false;
	}
}
