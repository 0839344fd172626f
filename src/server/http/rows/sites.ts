import { readFileSync } from 'node:fs';
import { refuse } from '../../errors';
import { GuardedFetcher, PICTURE_LIMITS } from '../../fetching/fetch';
import type { ContentSource } from '../../imports/content';
import { composeAll } from '../../jobs/composeAll';
import { runJob } from '../../jobs/run';
import type { Store } from '../../store/store';
import { refuseFolder } from '../../web/contentFolders';
import { removePicture, usesOf } from '../../web/pictures';
import { readRecipe } from '../../web/recipes';
import { standIn } from '../../web/working';
import { refuseContent } from '../rights';
import { watched, type Rows } from '../route';

const UNKNOWN_BASE = 'https://site.invalid/';

/** Where sites come from, and their library of pictures. */
export const SITES = {
	'POST /sites': ({ store, who, body: { name, base, source }, bytes, say, signal }) => {
		refuseContent(store, who, name);
		if (source.kind === 'table' && !bytes) throw refuse('table-file-missing');
		if (source.kind === 'folder') refuseFolder(source.folder);
		const own = standIn();
		const input = {
			...{ db: store.file, name, base },
			source: { ...source, ...(bytes && { file: bytes }) } as ContentSource,
			...(own && { via: { origin: own.base.replace(/\/$/, ''), at: own.origin } })
		};
		return runJob('content', input, { ...watched({ say, signal }), ...(bytes && { gives: [bytes.buffer] }) });
	},

	'POST /table': ({ body: { base, ...said }, bytes, signal }) => {
		if (!bytes) throw refuse('table-file-missing');
		return runJob('lookAtTable', { file: bytes, said, base: base || UNKNOWN_BASE }, { signal, gives: [bytes.buffer] });
	},

	'GET /sites/{site}/pictures': ({ store, stored }) => store.pictures.all(stored.id),

	'POST /sites/{site}/pictures': ({ store, site, bytes, headers }) => takePicture(store, site, bytes!, nameIn(headers)),

	'POST /sites/{site}/pictures/fetched': async ({ store, site, body }) =>
		takePicture(store, site, await fetchPicture(body.address)),

	'DELETE /sites/{site}/pictures': async ({ store, site, body }) => {
		await removePicture(store, site, body.src);
		return {};
	},

	'GET /sites/{site}/pictures/uses': ({ store, site }) => usesOf(store, site),

	'POST /sites/{site}/share': async ({ store, body }) => {
		const file = await runJob('draw', { db: store.file, recipe: readRecipe(body) });
		return new Response(readFileSync(file), { headers: { 'content-type': 'image/jpeg', 'cache-control': 'no-store' } });
	},

	'POST /sites/{site}/compose': async ({ store, site, body: { type, path }, say, signal }) => ({
		composed: await composeAll(store, {
			...{ site, type, path, signal },
			progress: (done, all) => say?.({ done, all })
		})
	})
} satisfies Rows;

const takePicture = (store: Store, site: string, bytes: Uint8Array<ArrayBuffer>, name?: string) =>
	runJob('takePicture', { db: store.file, site, bytes, name }, { gives: [bytes.buffer] });

/** The name of the file as it came, in percent-encoding; nothing when it cannot be read. */
function nameIn(headers: Headers): string | undefined {
	try {
		return decodeURIComponent(headers.get('x-file-name') ?? '').slice(0, 300) || undefined;
	} catch {
		return undefined;
	}
}

/** The stand-in's server is the one machine of our own that may be asked. */
async function fetchPicture(address: string): Promise<Uint8Array<ArrayBuffer>> {
	const own = standIn();
	const fetcher = new GuardedFetcher(new Set(own ? [new URL(own.origin).host] : []));
	try {
		// Bytes of its own: those of a small answer lie in a pool that others have pieces of.
		return new Uint8Array((await fetcher.fetch(address, PICTURE_LIMITS)).body);
	} finally {
		await fetcher.close();
	}
}
