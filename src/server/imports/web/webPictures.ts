import { FRAME_LEAST, FRAME_SHARE, parseUrl, type Picture } from '$core';
import { PICTURE_LIMITS } from '../../fetching/fetch';
import type { TracingFetcher } from '../../fetching/trace';
import { readPictureFacts } from '../../files/pictureFacts';
import type { Store } from '../../store/store';
import { isMark } from '../pictureNames';
import { pacer } from '../../waiting';

/** Bytes of a picture that are asked for first: they mostly say how large it is. */
const BEGINNING = 262_144;
/** Pictures that one reading looks at; the others wait for the next. */
const MOST = 5000;

export interface WebPictures {
	readonly known: readonly Picture[];
	readonly missing: readonly { readonly path: string; readonly why: string }[];
}

/**
 * What the pictures of pages read from the web are: each that is not known yet is fetched, so much of it as tells its
 * kind and size. `counts` says on how many of so many pages each stands.
 */
export async function readWebPictures(
	{ store, site, base, fetcher }: { store: Store; site: number; base: string; fetcher: TracingFetcher },
	counts: ReadonlyMap<string, number>,
	pages: number,
	{
		pause,
		headers,
		isAllowed,
		signal
	}: {
		pause: number;
		headers: Readonly<Record<string, string>>;
		isAllowed: (address: string) => boolean;
		signal?: AbortSignal | undefined;
	}
): Promise<WebPictures> {
	const known: Picture[] = [];
	const missing: { path: string; why: string }[] = [];
	const turn = pacer(pause, signal);
	let looked = 0;
	for (const [src, count] of counts) {
		if (signal?.aborted || looked >= MOST) break;
		const before = store.pictures.one(site, src);
		// A path is one under the base, which may stand in a folder itself.
		const address = parseUrl(/^\/[^/\\]/.test(src) ? base + src.slice(1) : src, base)?.href;
		if (!address || (before?.width && before.type) || !isAllowed(address)) continue;
		await turn();
		looked++;
		const facts = await factsAt(fetcher, address, headers);
		const repeated = count >= FRAME_LEAST && count >= pages * FRAME_SHARE;
		if (typeof facts === 'string')
			missing.push({ path: src, why: `a picture on ${count} ${count === 1 ? 'page' : 'pages'}: ${facts}` });
		else
			known.push({
				...before,
				src,
				...facts,
				...(repeated && { repeated: count }),
				...(isMark(src) && { mark: true })
			});
	}
	return { known, missing };
}

/** The facts of what stands at an address, or why there are none. */
async function factsAt(
	fetcher: TracingFetcher,
	address: string,
	headers: Readonly<Record<string, string>>
): Promise<Omit<Picture, 'src'> | string> {
	for (const maxBytes of [BEGINNING, PICTURE_LIMITS.maxBytes]) {
		const found = await fetcher.fetch(address, { ...PICTURE_LIMITS, maxBytes, headers });
		const hop = found.hops.at(-1);
		if (hop?.status !== 200)
			return hop?.status ? `its server answers with ${hop.status}` : (found.why ?? 'it cannot be fetched');
		const facts = await readPictureFacts(found.body);
		const isWhole = found.end === 'whole';
		if (!facts && !isWhole && found.end === 'cut') continue;
		if (!facts) return isWhole ? 'what stands there is no picture' : (found.why ?? 'it cannot be read');
		const { bytes: _seen, ...rest } = facts;
		const said = Number(hop.headers['content-length']);
		const bytes = isWhole ? found.body.length : said > 0 && !hop.headers['content-encoding'] ? said : undefined;
		return { ...rest, ...(bytes !== undefined && { bytes }) };
	}
	return 'it is too large to be looked at';
}
