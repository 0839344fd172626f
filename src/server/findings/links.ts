import { normaliseBase } from '$core';
import { parseFragment, type DefaultTreeAdapterTypes as Tree } from 'parse5';
import type { Store } from '../store/store';

/** The pages whose texts link to a path: how many there are, and the first of them. */
export interface PagesLinking {
	readonly pages: number;
	readonly first: readonly string[];
}

/** So many are named. */
const MOST_NAMED = 5;

/** Looks through the texts of all pages of a site but that one for links to a path; relative ones count from their page. */
export function pagesLinking(store: Store, name: string, path: string): PagesLinking {
	const { id, site } = store.site(name);
	const base = normaliseBase(site.base);
	const target = base && addressOf(`.${path}`, base);
	if (!target) return { pages: 0, first: [] };
	const first: string[] = [];
	let pages = 0;
	for (const page of store.textsNaming(id, longestWord(path))) {
		if (page.path === path || !linksIn(page.body, addressOf(`.${page.path}`, base)).has(target)) continue;
		pages++;
		if (first.length < MOST_NAMED) first.push(page.path);
	}
	return { pages, first };
}

/** What any usual way to write a link to a path holds, from wherever it is written; '' for none. */
const longestWord = (path: string) =>
	path
		.split('/')
		.findLast((part) => part !== '')
		?.match(/[\w-]+/g)
		?.sort((a, b) => b.length - a.length)[0] ?? '';

/** The addresses that a text links to, without what stands behind the path. */
function linksIn(body: string, from: string | undefined): Set<string> {
	const links = new Set<string>();
	const waiting: Tree.ChildNode[] = [...parseFragment(body).childNodes];
	for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
		if (!('attrs' in node)) continue;
		const href = /^(a|area)$/.test(node.tagName) && node.attrs.find(({ name }) => name === 'href');
		const address = href && addressOf(href.value, from);
		if (address) links.add(address);
		waiting.push(...node.childNodes);
	}
	return links;
}

function addressOf(link: string, from: string | undefined): string | undefined {
	try {
		const { origin, pathname } = new URL(link, from);
		return origin + pathname;
	} catch {
		return undefined;
	}
}
