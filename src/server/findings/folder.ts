import { readFileSync } from 'node:fs';
import {
	finding,
	findInTag,
	hidesFromSearch,
	legalMediaType,
	ownOf,
	READERS,
	readServedHead,
	ROBOTS_DIRECTIVES,
	type Finding,
	type Head,
	type KnownOfPage,
	type Page,
	type ServedHead,
	type Target
} from '$core';
import { refuse } from '../errors';
import { declaredEncoding, decodeFile } from '../files/encoding';
import { MEDIA_TYPES } from '../files/mediaTypes';
import { fileAt, isHtmlName, openFolder, pathOfFile, shownName, walkFolder } from '../files/folder';
import { findInEncoding, findInServedHead } from '../probes/served';
import { findLinks, saidBy, type FileFinding, type Said } from './folderLinks';

/** Nobody's rules stand behind what a file says: only the text itself tells. */
const NOTHING_KNOWN: KnownOfPage = {
	type: undefined,
	lostReferences: () => [],
	headCircles: () => [],
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
		const bytes = readFileSync(fileAt(top, path));
		const head = readServedHead(decodeFile(bytes).text);
		// A page that only leads on says nothing to anyone.
		if (head.refresh && head.refresh.seconds <= 15) continue;
		const file = shownName(path);
		const page: Page = { path: pathOfFile(path), type: 'page', state: 'live', fields: {}, rules: [] };
		for (const one of [...findInFile(page, head), ...findInBytes(page, head, bytes)]) {
			const at = lineOf(head, one);
			found.push({ file, line: at?.line, column: at?.column, finding: one });
		}
		all.push(saidBy(file, page.path, head));
	}
	return { findings: [...found, ...findShared(all), ...findLinks(all, top)], files: all.length };
}

/** What of its encoding the file leaves to be guessed. */
function findInBytes({ path }: Page, head: ServedHead, body: Buffer): Finding[] {
	const declared = declaredEncoding(body);
	const hasMark = body.subarray(0, 3).equals(Buffer.from([0xef, 0xbb, 0xbf])) || declared?.startsWith('utf-16');
	const from = hasMark ? 'byte-order-mark' : declared === undefined ? 'bytes' : 'markup';
	return findInEncoding(head, { said: undefined, from, body }, { of: 'page', path });
}

function findInFile(page: Page, served: ServedHead): Finding[] {
	const target = { of: 'page', path: page.path } as const;
	const head = headOf(served);
	const has = (name: string) => head.tags.some(({ tag, value }) => tag.name === name && value !== '');
	return [
		...findInServedHead(served, READERS, target),
		...findInRobots(served, target),
		...findInTypes(served, target),
		...TEXTS.filter(has).flatMap((name) => findInTag(name, page, head, NOTHING_KNOWN))
	];
}

/** Robots that are told by their own name not to list the page, whoever they are. */
function findInRobots({ tags }: ServedHead, target: Target): Finding[] {
	const names = tags.filter(
		({ name, value, isBelow }) =>
			!isBelow &&
			name.startsWith('meta:') &&
			hidesFromSearch(value) &&
			value.split(',').every((part) => ROBOTS_DIRECTIVES.includes(part.split(':', 1)[0]!.trim().toLowerCase()))
	);
	return names.map(({ name }) => finding('noindex-for', target, name, { readers: [name.slice('meta:'.length)] }));
}

/** The media type that the ending of a picture's address stands for. */
function typeOfEnding(address: string): string | undefined {
	const ending = /\.([a-z]{3,4})(?:[?#]|$)/i.exec(address)?.[1]?.toLowerCase() ?? '';
	return ownOf(MEDIA_TYPES, ending === 'jpg' ? 'jpeg' : ending);
}

/** What tags say that pictures are, and the endings of their files say otherwise. */
function findInTypes({ tags }: ServedHead, target: Target): Finding[] {
	let picture = '';
	return tags.flatMap(({ name, value, line }) => {
		if (name === 'og:image') picture = value;
		const meant = name === 'og:image:type' ? typeOfEnding(picture) : undefined;
		if (meant === undefined || (legalMediaType(value) ?? meant) === meant) return [];
		const expected = 'the type of its picture';
		return [finding('value-broken', target, name, { tag: name, line, value: value.slice(0, 80), expected, meant })];
	});
}

/** The tags of a file as a head, for those who judge heads. */
function headOf({ tags }: ServedHead): Head {
	return {
		html: {},
		...{ before: [], after: [] },
		tags: tags.flatMap(({ tag, value, isBelow }) => (tag && !isBelow ? [{ tag, value }] : []))
	} as unknown as Head;
}

function lineOf({ tags, near }: ServedHead, { tag, data }: Finding) {
	const line = (data as { line?: number }).line;
	const at = tags.find((one) => (line === undefined ? one.name === tag : one.line === line && one.name === tag));
	return at ?? near.find((one) => one.line === line) ?? (line === undefined ? undefined : { line, column: undefined });
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
			.flatMap(([value, pages]) =>
				// Each page has it, at its own place: together they are one cause.
				pages.map((one): FileFinding => ({
					...{ file: one.file, line: one.lineOf(tag), column: undefined },
					finding: finding(code, { of: 'page', path: one.path }, tag, { value, pages: pages.length })
				}))
			);
	};
	return [
		...of('title', 'shared-title', 'title', LEAST_SHARED),
		...of('description', 'shared-description', 'description', LEAST_SHARED),
		...of('picture', 'shared-picture', 'og:image', 5)
	];
}
