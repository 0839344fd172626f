import { parseUrl, readPage, type FoundTag } from '$core';
import { decoded } from '../files/folder';
import type { ReadPage } from './staging';

/** Counted up when reading pages gives something else: what was read before is read again. */
export const READER = 7;
/** So much (UTF-16 code units) of what is no prose is kept, to tell the language by. */
const MOST_WORDS = 1500;
/** Stands for the site's own address while paths are worked out. */
const SITE = 'https://site.invalid';

/**
 * What a page's HTML says, as a page of the site at a path; or why it is none. `file` is where it was read, `modified`
 * ISO 8601. A text that holds no prose is no body: its beginning would stand as the description. `web` says where it stands on the web, and the base address of its site, when it came from there.
 */
export function pageOfHtml(
	html: string,
	file: string,
	path: string,
	modified?: string,
	web?: { readonly address: string; readonly base: string },
	/** The form in which the site says a path, where others mean the same. */
	formOf: (path: string) => string = (one) => one
): ReadPage | string {
	const page = readPage(html, file);
	if (page.leadsTo !== undefined) return `only leads on to ${page.leadsTo}`;
	const hasProse = page.body !== '' && page.paragraphs.length > 0;
	const { title, heading, paragraphs, body, language, found, section } = page;
	const here = web?.address ?? SITE + path;
	const under = parseUrl(page.base ?? '', here)?.href ?? here;
	const folder = !web && under.startsWith(SITE) && !/[?#]/.test(under) ? folderOf(under) : undefined;
	const onSite = (address: string) => {
		// Most links name a file beside the page: that is told without reading an address.
		if (folder !== undefined && BESIDE.test(address)) return folder + address;
		return web ? pathUnder(web.base, address, under) : sitePath(address, under);
	};
	const pictures = page.pictures.flatMap((mention) => {
		const src = onSite(mention.src);
		return src ? [{ ...mention, src }] : [];
	});
	const alternates = Object.entries(page.versions).flatMap(([tag, href]) => {
		const there = onSite(href);
		const to = there?.startsWith('/') ? formOf(there) : undefined;
		return to !== undefined && to !== path ? [[tag, to] as const] : [];
	});
	const links = page.links.flatMap((link) => {
		const to = onSite(link)?.split(/[?#]/, 1)[0];
		return to?.startsWith('/') && to !== path ? [decoded(to)] : [];
	});
	return {
		path,
		file,
		type: undefined,
		...(modified && { modified }),
		...(language && { language }),
		fields: {
			title,
			...(heading && { heading }),
			...(hasProse && { body }),
			...(pictures.length && { pictures })
		},
		...(alternates.length && { alternates: Object.fromEntries(alternates) }),
		paragraphs,
		...(page.contents && { contents: page.contents }),
		...(!hasProse && body && { words: body.slice(0, MOST_WORDS).toWellFormed() }),
		links: [...new Set(links)],
		...(section && { section }),
		found: withKeywordsJoined(found)
	};
}

/** The name of a file, with nothing in it that stands for another character, or for another folder. */
const BESIDE = /^[a-z0-9_~-]+(?:\.[a-z0-9_~-]+)*$/i;
const folderOf = (address: string) => address.slice(SITE.length, address.lastIndexOf('/') + 1);

/** An address as a path of the site, or as it is when it is a whole one. */
function sitePath(address: string, under: string): string | undefined {
	if (/^https?:/i.test(address)) return address;
	const url = parseUrl(address, under);
	return url?.origin === SITE ? url.pathname : undefined;
}

/** An address as a path under a base address, or whole where it lies elsewhere; undefined when it is none of http(s). */
export function pathUnder(base: string, address: string, from: string): string | undefined {
	const url = parseUrl(address, from);
	if (!url || !/^https?:$/.test(url.protocol)) return undefined;
	url.hash = '';
	return url.href.startsWith(base) ? `/${url.href.slice(base.length)}` : url.href;
}

/** Keywords may be said in several tags: they are one list. */
function withKeywordsJoined(found: readonly FoundTag[]): readonly FoundTag[] {
	const isKeywords = ({ name }: FoundTag) => name.toLowerCase() === 'keywords';
	const several = found.filter(isKeywords);
	if (several.length < 2) return found;
	const words = new Set(several.flatMap(({ value }) => value.split(',').map((word) => word.trim())).filter(Boolean));
	const joined = { ...(several[0] as FoundTag), value: [...words].join(', ') };
	return found.flatMap((tag) => (tag === several[0] ? [joined] : isKeywords(tag) ? [] : [tag]));
}
