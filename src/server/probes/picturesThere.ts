import type { HeadJson, Habits } from '$core';
import type { TracingFetcher } from '../fetching/trace';
import type { Store } from '../store/store';
import { LONGEST_TOLD, type DriftSeen } from './drifts';
import { headersOf, isComplete, mayRead, WHY } from './looked';

/** Why a picture is not there, in words that follow its address; undefined where it is. */
type PictureThere = (address: string) => Promise<string | undefined>;

/** Pictures that are remembered in one run. */
const MOST_PICTURES = 100_000;

/** Asks for each picture once in a run: for its head alone, or for a first byte where its server allows no such thing. */
export function picturesOnce(
	fetcher: TracingFetcher,
	habits: Habits
): PictureThere & { readonly known: ReadonlyMap<string, unknown> } {
	const known = new Map<string, Promise<string | undefined>>();
	const ask = async (address: string) => {
		if (!(await mayRead(fetcher, habits, address))) return undefined;
		const limits = { maxBytes: 1, timeout: habits.patience, redirects: habits.redirects };
		const headers = { ...headersOf(habits), accept: 'image/*' };
		let got = await fetcher.fetch(address, { ...limits, headers, method: 'HEAD' });
		const isAnswered = (got.hops.at(-1)?.status ?? 0) < 400 && got.end === 'whole';
		if (!isAnswered) got = await fetcher.fetch(address, { ...limits, headers });
		const hop = got.hops.at(-1);
		if (!hop || hop.status === 0 || !isComplete(got)) return `cannot be fetched: ${WHY[got.end] ?? got.why ?? got.end}`;
		if (hop.status < 200 || hop.status >= 300) return `cannot be fetched: its server answers with ${hop.status}`;
		const type = hop.headers['content-type'] ?? '';
		return /^\s*(?:text|application\/(?:json|xhtml))/i.test(type)
			? `is no picture but ${type.slice(0, 60)}`
			: undefined;
	};
	const isThere = (address: string) => {
		const before = known.get(address) ?? ask(address);
		if (known.size < MOST_PICTURES) known.set(address, before);
		return before;
	};
	return Object.assign(isThere, { known });
}

interface PictureAsking {
	readonly store: Store;
	readonly id: number;
	readonly path: string;
	readonly turn: () => Promise<unknown>;
	readonly isThere: ReturnType<typeof picturesOnce>;
}

/** How a page is served whose head is as released: with its pictures, or without one. */
export async function withPictures(
	seen: DriftSeen,
	{ store, id, path, turn, isThere }: PictureAsking
): Promise<DriftSeen> {
	if (seen.is !== 'same') return seen;
	const released = store.releases.head(id, { path });
	const { tags = [] } = released ? (JSON.parse(released.json) as HeadJson) : {};
	const pictures = tags.filter(({ tag, value }) => CARD_PICTURES.has(tag) && /^https?:/i.test(value));
	for (const { tag, value } of pictures.slice(0, MOST_OF_PAGE)) {
		if (!isThere.known.has(value)) await turn();
		const why = await isThere(value);
		if (why !== undefined) return { is: 'picture', more: `${tag}: ${value.slice(0, LONGEST_TOLD)} ${why}` };
	}
	return seen;
}
const CARD_PICTURES = new Set(['og:image', 'twitter:image']);
/** Pictures of one page that are asked for. */
const MOST_OF_PAGE = 4;
