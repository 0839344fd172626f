import { keptCopyOf, MEDIA_PATH, ownOf } from '$core';
import { refuse } from '../errors';
import type { PictureUses } from '../heads/uses';
import type { Store } from '../store/store';
import { makeEdit } from './edit';

/** While others edit, uses are counted again so often at the most. */
const TRIES = 5;

/**
 * Takes a picture out of a site's library, unless anything uses it: what was counted holds for the working copy that the
 * edit is made in, or is counted again. Throws a `UserError`.
 */
export function removeUnused(store: Store, name: string, src: string, usesOf: (site: number) => PictureUses) {
	for (let tries = 0; tries < TRIES; tries++) {
		const { id, revision } = store.working.sites.named(name);
		refuseUsed(store, name, src, usesOf(id));
		const edit = { origin: 'bench', kind: 'picture', what: { src, do: 'remove' } } as const;
		const { result: isRemoved } = makeEdit(store, name, edit, (site) => {
			if (site.revision !== revision) return false;
			store.pictures.remove(id, src);
			return true;
		});
		if (isRemoved) return;
	}
	throw refuse('site-being-edited');
}

function refuseUsed(store: Store, name: string, src: string, uses: PictureUses) {
	const { id, site, types } = store.working.sites.named(name);
	const picture = store.pictures.one(id, src);
	if (!picture) throw refuse('picture-missing', { src });
	const use = ownOf(uses, src);
	const [page] = [...(use?.shownOn ?? []), ...(use?.namedOn ?? [])];
	if (page !== undefined) throw refuse('picture-used-on', { page });
	if (JSON.stringify([site, types]).includes(JSON.stringify(src))) throw refuse('picture-used-by-site');
	const release = store.releases.latest(id);
	const hash = keptCopyOf(picture)?.file.slice(0, 24);
	const shown = release && store.releases.pageNaming(id, hash ? MEDIA_PATH + hash : src);
	if (release && shown) throw refuse('picture-released', { release: release.number, path: shown });
}
