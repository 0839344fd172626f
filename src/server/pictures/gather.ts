import { readFileSync, statSync } from 'node:fs';
import { LEAST_IN_BODY, type KeptCopy, type Picture } from '$core';
import { makeEdit } from '../edits/edit';
import { UserError } from '../errors';
import { fileOfPath } from '../files/folder';
import { patiently } from '../store/opening/patiently';
import type { Store, StoredSite } from '../store/store';
import { Library } from './library';
import { MAX_BYTES } from './takePicture';

/** Whether anything in a site's rules makes pictures out of others: only then copies are needed. */
export function needsCopies({ site, types }: StoredSite): boolean {
	return /"(shapes|layout|playMark)":/.test(JSON.stringify([site, types]));
}

/** Copies that are put in together. */
const AT_ONCE = 50;

/**
 * Takes copies of those pictures of a folder into the library that a page would show and that have none, where the rules
 * of the site make pictures out of others. Gives how many. A picture that cannot be taken stays known by its facts.
 */
export async function gatherPictures(store: Store, name: string): Promise<number> {
	const stored = store.working.sites.named(name);
	const source = store.working.sources.settings<{ readonly folder: string }>(stored.id, 'folder');
	if (!source) return 0;
	const library = new Library(store);
	const wanted = [
		...store.pictures.of(stored.id, namedIn(stored)),
		...(needsCopies(stored) ? store.pictures.shown(stored.id).filter(mayBeChosen) : [])
	].filter(hasNone);
	let copied = 0;
	for (let at = 0; at < wanted.length; at += AT_ONCE) {
		const taken: Picture[] = [];
		for (const picture of wanted.slice(at, at + AT_ONCE)) {
			const copy = await copyOf(source.folder, picture, library);
			if (copy) taken.push(copy);
		}
		if (taken.length === 0) continue;
		await patiently(() =>
			makeEdit(
				store,
				name,
				{ origin: 'bench', kind: 'picture', what: { do: 'gather', pictures: taken.length } },
				({ id }) =>
					store.pictures.save(
						id,
						// What was set for them meanwhile stays.
						taken.map((copy) => ({ ...copy, ...store.pictures.one(id, copy.src), kept: copy.kept as KeptCopy }))
					)
			)
		);
		copied += taken.length;
	}
	return copied;
}

/** The pictures that the site and its types name: icons are made of them. */
const namedIn = ({ site, types }: StoredSite) =>
	[...JSON.stringify([site, types]).matchAll(/"(\/[^"\\]*)"/g)].map(([, src]) => src as string);

const hasNone = ({ src, kept, type }: Picture) =>
	src.startsWith('/') && !src.startsWith('/media/') && !kept && type !== 'image/svg+xml';

const mayBeChosen = ({ mark, repeated, width = 0, height = 0 }: Picture) =>
	!mark && !repeated && Math.min(width, height) >= LEAST_IN_BODY;

async function copyOf(folder: string, { src, ...facts }: Picture, library: Library): Promise<Picture | undefined> {
	const file = fileOfPath(folder, src);
	if (!file || statSync(file).size > MAX_BYTES) return undefined;
	try {
		return { src, ...(await library.copyOf(readFileSync(file), facts)) };
	} catch (error) {
		if (error instanceof UserError) return undefined;
		throw error;
	}
}
