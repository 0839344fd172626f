import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { renderHead } from '$core';
import { refuse } from '../errors';
import type { HeadSource } from '../releases/headSource';
import { fileAt, futurePath, isInside, nameOfPath, onDisk } from './folder';

/** Tells a folder of fragments from any other: what stands in it may be replaced. */
const MARK = '.kephalon-fragments';

/**
 * Writes the head of each page to a file: that of `/walks/` to `walks/index.html`, that of `/walks/one` to
 * `walks/one.html`. The folder is made beside and put in place as a whole, so that no request sees half of it. Gives how
 * many were written, and which could not be; throws a `UserError` where the folder holds anything else.
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
	const left: { path: string; why: string }[] = [];
	for (const [index, path] of paths.entries()) {
		const known = source.at(path);
		const why = typeof known === 'string' ? known : write(beside, path, renderHead(known.head));
		if (why !== undefined) left.push({ path, why });
		progress?.(index + 1, paths.length);
	}
	if (existsSync(target)) renameSync(target, old);
	renameSync(beside, target);
	rmSync(old, { recursive: true, force: true });
	return { written: paths.length - left.length, left };
}

/** Why there can be no file that is asked for by the page's path; undefined where it is written. */
function write(top: string, path: string, head: string): string | undefined {
	const name = nameOfPath(path).slice(1);
	const file = /(^|\/)$/.test(name) ? `${name}index.html` : /\.x?html?$/i.test(name) ? name : `${name}.html`;
	if (!isInside(top, join(top, file))) return 'it leads out of the folder';
	try {
		mkdirSync(onDisk(dirname(join(top, file))), { recursive: true });
		// Two pages whose files would be one are told, too.
		writeFileSync(fileAt(top, file), head, { flag: 'wx' });
		return undefined;
	} catch (error) {
		return `its file cannot be written (${(error as NodeJS.ErrnoException).code ?? String(error)})`;
	}
}
