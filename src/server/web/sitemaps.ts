import { runJob } from '../jobs/run';
import type { Store } from '../store/store';

/** The sitemaps of a site as they were made last: by their names, compressed (gzip). */
interface Made {
	/** What they were made of: another release, edit or look makes others. */
	readonly state: string;
	readonly maps: Promise<ReadonlyMap<string, Uint8Array>>;
}
const made = new Map<string, Made>();

/** A sitemap of what is released, by its name, compressed; with a tag that is another for other contents. */
export async function readSitemap(
	store: Store,
	site: string,
	name: string
): Promise<{ readonly gzip: Uint8Array; readonly etag: string } | undefined> {
	const { id, revision } = store.working.sites.named(site);
	// What a page says of its own address is known when it was looked at: until all were, one is enough.
	const isLooking = store.state.countStale(id) > 0;
	const state = `${store.releases.latest(id)?.number ?? 0}-${revision}${isLooking ? '-looking' : ''}`;
	const key = `${store.file}\0${site}`;
	const known = made.get(key);
	const maps = known?.state === state ? known.maps : runJob('sitemaps', { db: store.file, site });
	if (maps !== known?.maps) {
		made.set(key, { state, maps });
		// What failed is made anew the next time.
		maps.catch(() => made.get(key)?.maps === maps && made.delete(key));
	}
	const gzip = (await maps).get(name);
	return gzip && { gzip, etag: `W/"${state}-${gzip.length}"` };
}
