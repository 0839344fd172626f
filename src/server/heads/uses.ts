import type { Store } from '../store/store';

/** Where one picture is used. Paths are the first of them, by path. */
export interface PictureUse {
	/** Pages whose card shows it. */
	readonly shown: number;
	readonly shownOn: readonly string[];
	/** Pages whose fields or rules name it. */
	readonly named: number;
	readonly namedOn: readonly string[];
}
/** By the source of the picture. */
export type PictureUses = Readonly<Record<string, PictureUse>>;

const LISTED = 6;

/** Where the pictures of a site are named; on which cards they are shown is in the kept state. */
export function countUses(store: Store, site: number): PictureUses {
	const uses = new Map<string, PictureUse>();
	const note = (src: string, use: Partial<PictureUse>) =>
		void uses.set(src, { shown: 0, shownOn: [], named: 0, namedOn: [], ...uses.get(src), ...use });
	for (const { src, named, namedOn } of store.pictures.named(site, LISTED)) note(src, { named, namedOn });
	for (const [src, shown] of store.state.shown(site))
		note(src, { shown, shownOn: store.state.shownOn(site, src, LISTED) });
	return Object.fromEntries(uses);
}
