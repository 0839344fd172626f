import { htmlToText, normaliseBase } from '$core';
import { formsOf } from '../files/folder';
import type { Store } from '../store/store';

/** The pages whose texts link to a path: how many there are, and the first of them. */
export interface PagesLinking {
	readonly pages: number;
	readonly first: readonly string[];
}

/** So many are named. */
const MOST_NAMED = 5;

/**
 * Looks through the texts of all pages of a site but that one for links to a path; relative ones count from their page.
 * Texts that were read from HTML are kept without their markup, and their links beside them.
 */
export function pagesLinking(store: Store, name: string, path: string): PagesLinking {
	const { id, site } = store.working.sites.named(name);
	const base = normaliseBase(site.base);
	const target = base && addressOf(`.${path}`, base);
	if (!target) return { pages: 0, first: [] };
	const linking = new Set<string>();
	for (const page of store.working.bodies.naming(id, longestWord(path)))
		if (linksTo(page.body, addressOf(`.${page.path}`, base), target)) linking.add(page.path);
	for (const from of store.working.bodies.linkingTo(id, [...new Set(formsOf(path))])) linking.add(from);
	linking.delete(path);
	return { pages: linking.size, first: [...linking].slice(0, MOST_NAMED) };
}

/** What any usual way to write a link to a path holds, from wherever it is written; '' for none. */
const longestWord = (path: string) =>
	path
		.split('/')
		.findLast((part) => part !== '')
		?.match(/[\w-]+/g)
		?.sort((a, b) => b.length - a.length)[0] ?? '';

/** Links of a text, as they are written; parsing the markup of all texts would take a site's time. */
const LINK = /<(?:a|area)\s[^>]*?\bhref\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'>]+))/gi;

/** Whether a text links to an address, whatever stands behind its path. */
function linksTo(body: string, from: string | undefined, target: string): boolean {
	for (const [, double, single, bare] of body.matchAll(LINK)) {
		const link = double ?? single ?? bare ?? '';
		if (addressOf(link.includes('&') ? htmlToText(link) : link, from) === target) return true;
	}
	return false;
}

function addressOf(link: string, from: string | undefined): string | undefined {
	try {
		const { origin, pathname } = new URL(link, from);
		return origin + pathname;
	} catch {
		return undefined;
	}
}
