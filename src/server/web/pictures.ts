import { keptCopyOf, MEDIA_PATH } from '$core';
import { notFound, UserError } from '../errors';
import { makeEdit } from '../edits/edit';
import { freshen } from '../jobs/freshen';
import { runJob } from '../jobs/run';
import type { PictureUse, PictureUses } from '../jobs/uses';
import { patiently } from '../store/patiently';
import type { Store } from '../store/store';

/** What was counted last for each site, and at which revision of its working copy. */
const counted = new Map<number, { readonly revision: number; readonly uses: Promise<PictureUses> }>();

/** Where each picture of a site is used; counted once for each state of the working copy. */
export function usesOf(store: Store, name: string): Promise<PictureUses> {
	const { id, revision } = store.site(name);
	const known = counted.get(id);
	if (known?.revision === revision) return known.uses;
	const uses = freshen(store, name).then(() => runJob('uses', { db: store.file, site: name }));
	counted.set(id, { revision, uses });
	uses.catch(() => counted.delete(id));
	return uses;
}

export const NO_USE: PictureUse = { shown: 0, shownOn: [], named: 0, namedOn: [] };

/** Takes a picture out of a site's library. Throws a `UserError` when anything still uses it. */
export async function removePicture(store: Store, name: string, src: string) {
	const { id, site, types } = store.site(name);
	const picture = store.pictures.one(id, src);
	if (!picture) throw notFound(`There is no picture "${src}" in this site.`);
	const use = (await usesOf(store, name))[src] ?? NO_USE;
	const [page] = [...use.shownOn, ...use.namedOn];
	if (page !== undefined) throw new UserError(`It is used on ${page}: remove it there first.`);
	if (JSON.stringify([site, types]).includes(JSON.stringify(src)))
		throw new UserError('The site or one of its types uses it: remove it there first.');
	const release = store.releases.latest(id);
	const hash = keptCopyOf(picture)?.file.slice(0, 24);
	const shown = release && store.releases.pageNaming(id, hash ? MEDIA_PATH + hash : src);
	if (release && shown)
		throw new UserError(`Release ${release.number} still shows it on ${shown}. Release what you have, then remove it.`);
	await patiently(() =>
		makeEdit(store, name, { origin: 'bench', kind: 'picture', what: { src, do: 'remove' } }, ({ id }) =>
			store.pictures.remove(id, src)
		)
	);
}
