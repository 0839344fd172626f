import { renameSeparator, ownOf } from '$core';

/** What a site file has been: each step makes a document of one version into one of the next. */

type Json = Record<string, unknown>;
const isRecord = (value: unknown): value is Json =>
	typeof value === 'object' && value !== null && !Array.isArray(value);
function listIn(owner: Json, key: string): Json[] {
	const list = ownOf(owner, key);
	return Array.isArray(list) ? list.filter(isRecord) : [];
}

/** The version that this Kephalon writes. */
export const SITE_FILE_VERSION = 2;

/**
 * Brings a parsed site file of an older version to the newest, in place. What is wrong in it is left for the schema to
 * tell. Version 2 writes the separator in full, and takes what pages' own files say: a site that did not, does not.
 */
export function upgradeSiteFile(data: unknown) {
	if (!isRecord(data) || data.version !== 1) return;
	data.version = 2;
	const site = isRecord(data.site) ? data.site : {};
	const [types, pages] = [listIn(data, 'types'), listIn(data, 'pages')];
	for (const owner of [site, ...types, ...pages]) for (const rule of listIn(owner, 'rules')) renameIn(rule, 'template');
	for (const { layout } of types)
		for (const part of isRecord(layout) ? [layout.title, layout.line] : [])
			if (isRecord(part)) renameIn(part, 'template');
	const hasFound = pages.some((page) => listIn(page, 'found').length > 0);
	if (hasFound && site.foundPolicy === undefined) site.foundPolicy = { all: 'never' };
}

function renameIn(owner: Json, key: 'template') {
	if (typeof owner[key] === 'string') owner[key] = renameSeparator(owner[key]);
}
