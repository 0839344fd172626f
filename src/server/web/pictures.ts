import { freshen } from '../jobs/freshen';
import { runJob } from '../jobs/run';
import type { PictureUses } from '../heads/uses';
import { patiently } from '../store/opening/patiently';
import type { Store } from '../store/store';

/** What was counted last for each site, and at which revision of its working copy. */
const counted = new Map<number, { readonly revision: number; readonly uses: Promise<PictureUses> }>();

/** Where each picture of a site is used; counted once for each state of the working copy. */
export function usesOf(store: Store, name: string): Promise<PictureUses> {
	const { id, revision } = store.working.sites.named(name);
	const known = counted.get(id);
	if (known?.revision === revision) return known.uses;
	const uses = freshen(store, name).then(() => runJob('uses', { db: store.file, site: name }));
	counted.set(id, { revision, uses });
	uses.catch(() => counted.delete(id));
	return uses;
}

/** Takes a picture out of a site's library. Throws a `UserError` when anything still uses it. */
export async function removePicture(store: Store, name: string, src: string) {
	await freshen(store, name);
	await patiently(() => runJob('removePicture', { db: store.file, site: name, src }));
}
