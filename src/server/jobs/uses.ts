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

/** Goes through all pages of a site and notes which pictures they name; which their cards show is in the kept state. */
export function countUses(store: Store, site: number): PictureUses {
	const uses = new Map<string, { shown: number; shownOn: readonly string[]; named: number; namedOn: string[] }>();
	const useOf = (src: string) => {
		let use = uses.get(src);
		if (!use) uses.set(src, (use = { shown: 0, shownOn: [], named: 0, namedOn: [] }));
		return use;
	};
	for (const page of store.pages(site))
		for (const src of new Set([...sourcesIn(page.fields), ...sourcesIn(page.rules)])) {
			const use = useOf(src);
			if (++use.named <= LISTED) use.namedOn.push(page.path);
		}
	for (const [src, shown] of store.state.shown(site))
		Object.assign(useOf(src), { shown, shownOn: store.state.shownOn(site, src, LISTED) });
	return Object.fromEntries(uses);
}

/** Every text below a value that could be the source of a picture; long texts are bodies. */
function sourcesIn(value: unknown): string[] {
	if (typeof value === 'string') return value.length < 500 && /[./]/.test(value) ? [value] : [];
	if (typeof value !== 'object' || value === null) return [];
	return Object.values(value).flatMap(sourcesIn);
}
