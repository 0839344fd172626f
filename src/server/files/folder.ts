import { existsSync, lstatSync, readdirSync, readFileSync, readlinkSync, realpathSync, statSync } from 'node:fs';
import { extname, join, relative, resolve, sep } from 'node:path';
import { refuse } from '../errors';

const HTML_NAMES = new Set(['.html', '.htm', '.xhtml', '.xht']);
/** Pages are known by their ending, behind which a language may stand: `page.html.fr`. */
export const isHtmlName = (name: string) =>
	HTML_NAMES.has(extname(name).toLowerCase()) ||
	/\.x?html?\.(?!(?:gz|xz|bz2?)$)[a-z]{2,3}([-_][a-z]{2,4})?$/i.test(name);

const MARKDOWN_NAMES = new Set(['.md', '.markdown', '.mdown']);
export const isMarkdownName = (name: string) => MARKDOWN_NAMES.has(extname(name).toLowerCase());

/** Whether a folder holds pages as Markdown, and none as HTML. */
export function isMarkdownFolder(folder: string): boolean {
	const entries = walkFolder(openFolder(folder));
	return entries.some(({ path }) => isMarkdownName(path)) && !entries.some(({ path }) => isHtmlName(path));
}

/** What a site that is written as a folder of files says of itself. */
export const SITE = 'site.json';

/** Whether a folder is a site file. */
export const isSiteFolder = (folder: string): boolean => {
	const file = join(folder, SITE);
	return existsSync(file) && /"format":\s*"kephalon-site"/.test(readFileSync(file, 'utf8').slice(0, 2000));
};

/** One entry of a folder, by its path from the folder's top with forward slashes. */
export interface FolderEntry {
	/** Bytes that are no UTF-8 stand in it as single surrogates, U+DC80 to U+DCFF: see `nameOf`. */
	readonly path: string;
	/** What the file system is asked for. */
	readonly file: string | Buffer;
	/** For a link: whether what it points at lies in the folder. Links are never followed. */
	readonly link?: 'inside' | 'outside';
}

/** The folder's real path; a `UserError` when there is none. */
export function openFolder(folder: string): string {
	try {
		const real = realpathSync(resolve(folder));
		if (statSync(real).isDirectory()) return real;
	} catch {
		throw refuse('folder-missing', { folder });
	}
	throw refuse('folder-is-file', { folder });
}

/** Every file and link below a folder, in the order of their paths. Never leaves the folder. */
export function walkFolder(top: string): FolderEntry[] {
	const found: FolderEntry[] = [];
	const waiting = [''];
	for (let folder = waiting.pop(); folder !== undefined; folder = waiting.pop()) {
		for (const entry of readdirSync(fileAt(top, folder), { withFileTypes: true, encoding: 'buffer' })) {
			const path = folder + nameOf(entry.name);
			const file = fileAt(top, path);
			if (entry.isSymbolicLink())
				found.push({ path, file, link: pointsInside(top, fileAt(top, folder), file) ? 'inside' : 'outside' });
			else if (entry.isDirectory()) waiting.push(`${path}/`);
			else if (entry.isFile()) found.push({ path, file });
		}
	}
	return found.sort((a, b) => (a.path < b.path ? -1 : 1));
}

const utf8 = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });

/** A name as text that leads back to its bytes, whatever they are. */
function nameOf(bytes: Buffer): string {
	try {
		return utf8.decode(bytes);
	} catch {
		return [...bytes].map((byte) => String.fromCharCode(byte < 0x80 ? byte : 0xdc00 + byte)).join('');
	}
}

const RAW = /[\uDC80-\uDCFF]/;
/** Not a half of a pair, as the characters beyond U+FFFF have. */
const isRaw = (path: string) => RAW.test(path) && !path.isWellFormed();

/** The file of a path below a folder, as the file system is asked for it. */
export const fileAt = (top: string, path: string): string | Buffer => onDisk(join(top, path));

/** A path as the file system is asked for it. */
export function onDisk(whole: string): string | Buffer {
	if (!isRaw(whole)) return whole;
	const parts = whole
		.split(/([\uDC80-\uDCFF])/)
		.map((part) =>
			part.length === 1 && !part.isWellFormed() ? Buffer.from([part.charCodeAt(0) - 0xdc00]) : Buffer.from(part)
		);
	return Buffer.concat(parts);
}

/** A name for people to read. */
export const shownName = (path: string) => (isRaw(path) ? path.toWellFormed() : path);

function pointsInside(top: string, folder: string | Buffer, link: string | Buffer): boolean {
	try {
		return isInside(top, realpathSync(resolve(String(folder), readlinkSync(link))));
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

/**
 * The path a file is served under: `index.html` is its folder; characters are encoded as addresses write them. With
 * `bare`, the ending `.html` is not part of an address: `a.html` is served at `/a`, `a.html.fr` and `a.fr.html` at `/a.fr`.
 */
export function pathOfFile(file: string, bare = false): string {
	let form = file.replace(/(^|\/)index\.x?html?$/i, '$1');
	if (bare) form = form.replace(/\.x?html?(\.[a-z]{2,3}(?:[-_][a-z]{2,4})?)?$/i, '$1');
	return '/' + encodedPath(form);
}

/** A path with its characters encoded as addresses write them. */
export const encodedPath = (path: string) => path.split('/').map(encodeName).map(unescapeSafe).join('/');

const encodeName = (name: string) =>
	isRaw(name)
		? name
				.split(/([\uDC80-\uDCFF])/)
				.map((part) =>
					part.length === 1 && !part.isWellFormed()
						? `%${(part.charCodeAt(0) - 0xdc00).toString(16).toUpperCase()}`
						: encodeURIComponent(part)
				)
				.join('')
		: encodeURIComponent(name);

/** The real file that a path of the site is served from; undefined when there is none, or it lies outside the folder. */
export function fileOfPath(top: string, path: string): string | Buffer | undefined {
	try {
		const file = realpathSync(fileAt(top, nameOfPath(path)), { encoding: 'buffer' });
		return isInside(top, nameOf(file)) ? onDisk(nameOf(file)) : undefined;
	} catch {
		// No such file, or a path that cannot be decoded.
		return undefined;
	}
}

/** The file that a path of the site names, from the folder's top. */
export const nameOfPath = (path: string): string => nameOf(bytesOfPath(path));

/** A path's bytes, with what is written as %XX decoded. */
const bytesOfPath = (path: string) =>
	Buffer.concat(
		path
			.split(/(%[0-9a-f]{2})/i)
			.map((part) =>
				/^%[0-9a-f]{2}$/i.test(part) ? Buffer.from([Number.parseInt(part.slice(1), 16)]) : Buffer.from(part)
			)
	);

/** encodeURIComponent encodes more than a path needs; these stand as they are (URL standard, path percent-encode set). */
const unescapeSafe = (part: string) => part.replace(/%(24|26|2B|2C|3A|3B|3D|40)/g, decodeURIComponent);

export function decoded(path: string): string {
	try {
		return decodeURIComponent(path);
	} catch {
		return path;
	}
}

/** A page is asked for with and without its ending, and with and without the slash; decoded. */
export const formsOf = (path: string): string[] => {
	const bare = decoded(path)
		.replace(/(index)?\.x?html?$/i, '')
		.replace(/(.)\/$/, '$1');
	return [decoded(path), bare, `${bare}/`, `${bare}.html`, `${bare}/index.html`].map((one) =>
		one.replace(/^\/\//, '/')
	);
};
