import type { HeadJson, Habits, NoPicture } from '$core';
import type { TracingFetcher } from '../fetching/trace';
import type { Store } from '../store/store';
import { LONGEST_TOLD, type DriftSeen } from './drifts';
import { headersOf, mayRead } from './looked';
import { SHUT, TEXTS, whyNotGiven, whyNotThere } from './pictures';

/** Why a picture is not there; undefined where it is. */
type PictureThere = (address: string) => Promise<NoPicture | undefined>;

/** Pictures that are remembered in one run. */
const MOST_PICTURES = 100_000;

/** Asks for each picture once in a run: for its head alone, or for its first bytes where that does not tell. */
export function picturesOnce(
	fetcher: TracingFetcher,
	habits: Habits
): PictureThere & { readonly known: ReadonlyMap<string, unknown> } {
	const known = new Map<string, Promise<NoPicture | undefined>>();
	const ask = async (address: string) => {
		if (!(await mayRead(fetcher, habits, address))) return SHUT.why;
		const limits = { timeout: habits.patience, redirects: habits.redirects };
		const headers = { ...headersOf(habits), accept: 'image/*' };
		const head = await fetcher.fetch(address, { ...limits, maxBytes: 1, headers, method: 'HEAD' });
		const type = head.hops.at(-1)?.headers['content-type'] ?? '';
		// Some servers know no HEAD, or say another type than what comes: the first bytes tell.
		return whyNotThere(head) === undefined && !TEXTS.test(type)
			? undefined
			: whyNotGiven(fetcher, address, habits.agent, limits);
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
	for (const { tag, value } of pictures) {
		if (!isThere.known.has(value)) await turn();
		const why = await isThere(value);
		if (why !== undefined)
			return { is: 'picture', why: { is: 'picture', tag, address: value.slice(0, LONGEST_TOLD), why } };
	}
	return seen;
}
const CARD_PICTURES = new Set(['og:image', 'twitter:image']);
