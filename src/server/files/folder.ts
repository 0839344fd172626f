import { lstatSync, readdirSync, readlinkSync, realpathSync, statSync } from 'node:fs';
import { extname, join, relative, resolve, sep } from 'node:path';
import { UserError } from '../errors';

const HTML_NAMES = new Set(['.html', '.htm', '.xhtml', '.xht']);
/** Pages are known by their ending, behind which a language may stand: `page.html.fr`. */
export const isHtmlName = (name: string) =>
	HTML_NAMES.has(extname(name).toLowerCase()) || /\.x?html?\.[a-z]{2,3}([-_][a-z]{2,4})?$/i.test(name);

/** One entry of a folder, by its path from the folder's top with forward slashes. */
export interface FolderEntry {
	readonly path: string;
	readonly file: string;
	/** For a link: whether what it points at lies in the folder. Links are never followed. */
	readonly link?: 'inside' | 'outside';
}

/** The folder's real path; a `UserError` when there is none. */
export function openFolder(folder: string): string {
	try {
		const real = realpathSync(resolve(folder));
		if (statSync(real).isDirectory()) return real;
	} catch {
		throw new UserError(`There is no folder ${folder}. Check the path.`);
	}
	throw new UserError(`${folder} is not a folder. Name the folder that holds the site's files.`);
}

/** Every file and link below a folder, in the order of their paths. Never leaves the folder. */
export function walkFolder(top: string): FolderEntry[] {
	const found: FolderEntry[] = [];
	const waiting = [top];
	for (let folder = waiting.pop(); folder; folder = waiting.pop()) {
		for (const entry of readdirSync(folder, { withFileTypes: true })) {
			const file = join(folder, entry.name);
			const path = relative(top, file).split(sep).join('/');
			if (entry.isSymbolicLink())
				found.push({ path, file, link: pointsInside(top, folder, file) ? 'inside' : 'outside' });
			else if (entry.isDirectory()) waiting.push(file);
			else if (entry.isFile()) found.push({ path, file });
		}
	}
	return found.sort((a, b) => (a.path < b.path ? -1 : 1));
}

function pointsInside(top: string, folder: string, link: string): boolean {
	try {
		return isInside(top, realpathSync(resolve(folder, readlinkSync(link))));
	} catch {
		return false;
	}
}

/** Whether a path is a folder itself or below it. */
export function isInside(folder: string, path: string): boolean {
	const way = relative(folder, path);
	return way === '' || (!way.startsWith('..' + sep) && way !== '..' && resolve(folder, way) === resolve(path));
}

/** The real path a file will have, whose last parts need not exist yet. */
export function futurePath(path: string): string {
	const whole = resolve(path);
	try {
		lstatSync(whole);
		return realpathSync(whole);
	} catch {
		const parent = resolve(whole, '..');
		return parent === whole ? whole : join(futurePath(parent), whole.slice(parent.length).replace(/^[\\/]/, ''));
	}
}

/** The path a file is served under: `index.html` is its folder; characters are encoded as addresses write them. */
export function pathOfFile(file: string): string {
	const folderForm = file.replace(/(^|\/)index\.x?html?$/i, '$1');
	return '/' + folderForm.split('/').map(encodeURIComponent).map(unescapeSafe).join('/');
}

/** The real file that a path of the site is served from; undefined when there is none, or it lies outside the folder. */
export function fileOfPath(top: string, path: string): string | undefined {
	try {
		const file = realpathSync(join(top, decodeURIComponent(path)));
		return isInside(top, file) ? file : undefined;
	} catch {
		// No such file, or a path that cannot be decoded.
		return undefined;
	}
}

/** encodeURIComponent encodes more than a path needs; these stand as they are (URL standard, path percent-encode set). */
const unescapeSafe = (part: string) => part.replace(/%(24|26|2B|2C|3A|3B|3D|40)/g, decodeURIComponent);
