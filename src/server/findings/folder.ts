import { readFileSync } from 'node:fs';
import {
	finding,
	findInTag,
	READERS,
	readServedHead,
	type Finding,
	type Head,
	type KnownOfPage,
	type Page,
	type ServedHead
} from '$core';
import { refuse } from '../errors';
import { decodeFile } from '../files/encoding';
import { decoded, fileAt, formsOf, isHtmlName, openFolder, pathOfFile, shownName, walkFolder } from '../files/folder';
import { findInServedHead } from '../probes/served';

/** A finding in a file, with the line that it is about, from 1. */
export interface FileFinding {
	readonly file: string;
	readonly line: number | undefined;
	readonly column: number | undefined;
	readonly finding: Finding;
}

/** What a page says of itself, for comparing it with the others. */
interface Said {
	readonly file: string;
	readonly path: string;
	readonly title: string;
	readonly description: string;
	readonly picture: string;
	readonly canonical: string;
	readonly versions: readonly { readonly language: string; readonly to: string; readonly line: number }[];
	readonly lineOf: (tag: string) => number | undefined;
}

/** Nobody's rules stand behind what a file says: only the text itself tells. */
const NOTHING_KNOWN: KnownOfPage = {
	gapsOf: () => [],
	pictureOf: () => undefined,
	facts: () => undefined,
	winnerOf: () => undefined,
	shareLead: () => undefined
};
/** Texts that are asked for by readers, where a file has them. */
const TEXTS = ['title', 'description', 'og:title', 'og:description', 'twitter:title', 'twitter:description'];
/** Titles that so many pages share are told once. */
const LEAST_SHARED = 2;

/**
 * What is wrong or weak in the heads of a folder of HTML as it stands: tags that are missing, doubled, relative or local,
 * texts that readers cut, what pages share, and canonical addresses and versions that lead nowhere in the folder. `files`
 * is how many were looked at: those that only lead on are not.
 */
export function findInFolder(folder: string): { readonly findings: FileFinding[]; readonly files: number } {
	const top = openFolder(folder);
	const files = walkFolder(top).filter(({ path }) => isHtmlName(path));
	if (files.length === 0) throw refuse('folder-without-pages', { folder });
	const found: FileFinding[] = [];
	const all: Said[] = [];
	for (const { path } of files) {
		const { text } = decodeFile(readFileSync(fileAt(top, path)));
		const head = readServedHead(text);
		// A page that only leads on says nothing to anyone.
		if (head.refresh && head.refresh.seconds <= 15) continue;
		const file = shownName(path);
		const page: Page = { path: pathOfFile(path), type: 'page', state: 'live', fields: {}, rules: [] };
		for (const one of findInFile(page, head)) {
			const at = lineOf(head, one);
			found.push({ file, line: at?.line, column: at?.column, finding: one });
		}
		all.push(saidBy(file, page.path, head));
	}
	return { findings: [...found, ...findShared(all), ...findLinks(all)], files: all.length };
}

function findInFile(page: Page, served: ServedHead): Finding[] {
	const target = { of: 'page', path: page.path } as const;
	const head = headOf(served);
	const has = (name: string) => head.tags.some(({ tag, value }) => tag.name === name && value !== '');
	return [
		...findInServedHead(served, READERS, target),
		...TEXTS.filter(has).flatMap((name) => findInTag(name, page, head, NOTHING_KNOWN))
	];
}

/** The tags of a file as a head, for those who judge heads. */
function headOf({ tags }: ServedHead): Head {
	return {
		html: {},
		...{ before: [], after: [] },
		tags: tags.flatMap(({ tag, value, isBelow }) => (tag && !isBelow ? [{ tag, value }] : []))
	} as unknown as Head;
}

function lineOf({ tags }: ServedHead, { tag, data }: Finding) {
	const line = (data as { line?: number }).line;
	return tags.find((one) => (line === undefined ? one.name === tag : one.line === line && one.name === tag));
}

function saidBy(file: string, path: string, { tags }: ServedHead): Said {
	const own = tags.filter(({ isBelow }) => !isBelow);
	const value = (name: string) => own.find((one) => one.name === name)?.value ?? '';
	return {
		...{ file, path, title: value('title'), description: value('description') },
		...{ picture: value('og:image'), canonical: value('canonical') },
		versions: own.flatMap(({ name, value: to, attributes, line }) =>
			name === 'alternate' && attributes.hreflang && attributes.hreflang !== 'x-default'
				? [{ language: attributes.hreflang, to, line }]
				: []
		),
		lineOf: (name) => own.find((one) => one.name === name)?.line
	};
}

function findShared(all: readonly Said[]): FileFinding[] {
	const of = (
		key: 'title' | 'description' | 'picture',
		code: 'shared-title' | 'shared-description' | 'shared-picture',
		tag: string,
		least: number
	) => {
		const groups = new Map<string, Said[]>();
		for (const one of all) if (one[key] !== '') groups.set(one[key], [...(groups.get(one[key]) ?? []), one]);
		return [...groups]
			.filter(([, pages]) => pages.length >= least)
			.map(([value, pages]): FileFinding => {
				const [first] = pages as [Said, ...Said[]];
				return {
					...{ file: first.file, line: first.lineOf(tag), column: undefined },
					finding: finding(code, { of: 'page', path: first.path }, tag, { value, pages: pages.length })
				};
			});
	};
	return [
		...of('title', 'shared-title', 'title', LEAST_SHARED),
		...of('description', 'shared-description', 'description', LEAST_SHARED),
		...of('picture', 'shared-picture', 'og:image', 5)
	];
}

/** The path under the site that an address names, where the site's address can be told from the files themselves. */
function pathIn(base: string | undefined, address: string): string | undefined {
	if (address.startsWith('/') && !address.startsWith('//')) return address;
	return base !== undefined && address.startsWith(base) ? `/${address.slice(base.length)}` : undefined;
}

function findLinks(all: readonly Said[]): FileFinding[] {
	const base = baseOf(all);
	const pages = new Map(all.flatMap((one) => formsOf(one.path).map((path) => [path, one] as const)));
	const found: FileFinding[] = [];
	for (const one of all) {
		const at = { file: one.file, column: undefined };
		const target = { of: 'page', path: one.path } as const;
		const stands = pathIn(base, one.canonical);
		if (stands !== undefined && !pages.has(plain(stands)))
			found.push({
				...{ ...at, line: one.lineOf('canonical') },
				finding: finding('canonical-nowhere', target, 'canonical', {
					...{ path: one.path, to: one.canonical, why: 'is no page of the folder' }
				})
			});
		for (const { language, to, line } of one.versions) {
			const path = pathIn(base, to);
			if (path === undefined) continue;
			const other = pages.get(plain(path));
			if (other === one) continue;
			const data = { path: one.path, language, to };
			if (!other)
				found.push({
					...at,
					line,
					finding: finding('version-nowhere', target, 'hreflang', { ...data, why: 'is no page of the folder' })
				});
			else if (!other.versions.some((back) => formsOf(one.path).includes(plain(pathIn(base, back.to) ?? ''))))
				found.push({ ...at, line, finding: finding('version-one-way', target, 'hreflang', data) });
		}
	}
	return found;
}

const plain = (path: string) => decoded(path.split(/[?#]/, 1)[0] as string);
/** The base that most canonical addresses have in common with the paths of their files. */
function baseOf(all: readonly Said[]): string | undefined {
	const counts = new Map<string, number>();
	for (const { canonical } of all) {
		const origin = /^https?:\/\/[^/]+\//i.exec(canonical)?.[0];
		if (origin) counts.set(origin, (counts.get(origin) ?? 0) + 1);
	}
	return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}
