import { existsSync, mkdirSync, readdirSync, readFileSync, rmdirSync, rmSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { dirname, join } from 'node:path';
import type { ContentType, Page } from '$core';
import { refuse } from '../errors';
import { isSiteFolder, openFolder, SITE, walkFolder } from '../files/folder';
import type { Store } from '../store/store';
import { orderedForFile, readSiteData, type SiteFile } from './siteFile';
import { SITE_FILE_VERSION } from './upgrade';

/**
 * A site file as a folder of small files, for version control: `site.json`, a file for each type in `types/` and for each
 * page in `pages/`, `pictures.json`. What a file is called helps people to find it; what it says counts.
 */

const PICTURES = 'pictures.json';
/** No part of a file's name is longer than this (bytes): file systems end at 255. */
const LONGEST = 120;

/**
 * Writes a site into a folder. A file whose content stays is not written, and one that nothing stands in any more is taken
 * away: what differs is what has changed. Gives how many files were written and taken away. Throws a `UserError` where the
 * folder holds something else.
 */
export function writeSiteFolder(store: Store, name: string, folder: string): { written: number; removed: number } {
	const { id, site, types } = store.working.sites.named(name);
	const isNew = !existsSync(folder) || readdirSync(folder).length === 0;
	if (!isNew && !isSiteFolder(folder)) throw refuse('site-folder-elsewhere', { folder });
	mkdirSync(folder, { recursive: true });
	const taken = new Set<string>();
	let written = 0;
	const write = (file: string, data: unknown) => {
		const path = freeName(file, taken);
		const text = `${JSON.stringify(orderedForFile(data), null, '\t')}\n`;
		const to = join(folder, path);
		if (existsSync(to) && readFileSync(to, 'utf8') === text) return;
		mkdirSync(dirname(to), { recursive: true });
		writeFileSync(to, text);
		written++;
	};
	const redirects = store.working.redirects.all(id);
	write(SITE, {
		...{ format: 'kephalon-site', version: SITE_FILE_VERSION, site },
		...(Object.keys(redirects).length > 0 && { redirects })
	});
	const pictures = store.pictures.all(id);
	if (pictures.length > 0) write(PICTURES, pictures);
	for (const type of types) write(`types/${safe(type.name)}.json`, type);
	for (const page of store.working.pages.all(id)) write(`pages${nameOf(page.path)}.json`, page);
	return { written, removed: removeOthers(folder, taken) };
}

/** Takes away files that were ours and are nobody's any more, with folders that are left empty. */
function removeOthers(folder: string, taken: ReadonlySet<string>): number {
	let removed = 0;
	for (const { path, link } of walkFolder(openFolder(folder))) {
		if (link || !/^(types|pages)\/.*\.json$/.test(path) || taken.has(path.toLowerCase())) continue;
		rmSync(join(folder, path));
		removed++;
		for (let above = dirname(path); above !== '.'; above = dirname(above)) {
			if (readdirSync(join(folder, above)).length > 0) break;
			rmdirSync(join(folder, above));
		}
	}
	return removed;
}

/** `/walks/one` stands in `walks/one`, `/walks/` in `walks/index`. */
const nameOf = (path: string) => (path.endsWith('/') ? `${path}index` : path).split('/').map(safe).join('/');

/** A part of a name that every file system takes: others are written as in addresses, long ones end in a sign of the whole. */
function safe(part: string): string {
	const plain = part.replace(/[^\p{L}\p{N}._~ -]|^\.|[. ]$|^(con|prn|aux|nul|com\d|lpt\d)(?=\.|$)/giu, (signs) =>
		[...signs].map((sign) => `%${sign.codePointAt(0)!.toString(16).toUpperCase().padStart(2, '0')}`).join('')
	);
	if (Buffer.byteLength(plain) <= LONGEST) return plain;
	const sign = createHash('sha256').update(part).digest('hex').slice(0, 12);
	return `${Buffer.from(plain).subarray(0, LONGEST).toString('utf8').replaceAll('\uFFFD', '')}~${sign}`;
}

/** A name that no other file of the folder has, in whichever case. */
function freeName(file: string, taken: Set<string>): string {
	for (let at = 1, name = file; ; name = file.replace(/\.json$/, `~${++at}.json`)) {
		if (taken.has(name.toLowerCase())) continue;
		taken.add(name.toLowerCase());
		return name;
	}
}

/** Reads a folder of small files as a site file. Throws a `UserError` that names the file and the place of what is wrong. */
export function readSiteFolder(folder: string): SiteFile {
	const top = openFolder(folder);
	if (!isSiteFolder(top)) throw refuse('site-folder-none', { folder });
	const files = { types: [] as string[], pages: [] as string[] };
	const parts = { types: [] as ContentType[], pages: [] as Page[] };
	for (const { path, link } of walkFolder(top)) {
		const [, kind] = /^(types|pages)\/.*\.json$/.exec(path) ?? [];
		if (link || (kind !== 'types' && kind !== 'pages')) continue;
		files[kind].push(path);
		parts[kind].push(readJson(top, path) as never);
	}
	const pictures = existsSync(join(top, PICTURES)) ? readJson(top, PICTURES) : [];
	const data = { ...(readJson(top, SITE) as object), ...parts, pictures };
	return readSiteData(data, folder, (place) =>
		place.replace(
			/^\/(types|pages)\/(\d+)/,
			(_whole, kind: 'types' | 'pages', at: string) => `${files[kind][Number(at)]}: `
		)
	);
}

function readJson(top: string, path: string): unknown {
	try {
		return JSON.parse(readFileSync(join(top, path), 'utf8').replace(/^\uFEFF/, ''));
	} catch (error) {
		throw refuse('file-not-json', { file: path, why: (error as Error).message });
	}
}
