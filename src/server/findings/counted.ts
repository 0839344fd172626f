import { tagMatrix, widths, type TagsOfType, type WidthStep } from '../store/table/counts';
import type { Store } from '../store/store';
import { findGroups } from './findings';
import type { FoundGroup } from './groups';

/** What the rooms count of a whole site; kept from one count to the next, so that no room waits for it. */
export interface Counted {
	/** How findings and mends are kept in it, by number. */
	readonly form: number;
	/** What it was counted of: see `stampOf`. */
	readonly stamp: string;
	readonly groups: readonly FoundGroup[];
	readonly spread: Spread;
	/** Pages with each kind of finding, and with any. */
	readonly kinds: Readonly<Record<string, number>>;
	readonly faulty: number;
	/** Pictures on cards that were never looked at. */
	readonly unknownPictures: number;
}

/** Of each type, the share of pages that have each tag; and counts of pages by the width of their titles. */
interface Spread {
	readonly matrix: readonly TagsOfType[];
	readonly widths: readonly WidthStep[];
}

/** The tags that the matrix shows, and the steps of widths (thousandths of an em). */
export interface SpreadWanted {
	readonly tags: readonly string[];
	readonly step: number;
}

const KIND = 'counted';
/** 1 were sentences; 2 are data, to be told to each in his language. */
const FORM = 2;

/** What a count stands for: the working copy and the release of the moment. */
export const stampOf = (store: Store, site: number, revision: number): string =>
	`${revision} ${store.releases.latest(site)?.number ?? 0}`;

/** What was counted last; undefined before the first time, and of one that an older version kept in another form. */
export function readCounted(store: Store, site: number): Counted | undefined {
	const counted = store.working.sources.settings<Counted>(site, KIND);
	return counted?.form === FORM ? counted : undefined;
}

export const saveCounted = (store: Store, site: number, counted: Counted) =>
	store.working.sources.saveSettings(site, KIND, counted);

/** Counts, from the kept state of pages. */
export function count(store: Store, name: string, { tags, step }: SpreadWanted): Counted {
	const { id, revision } = store.working.sites.named(name);
	const kinds = new Map<string, number>();
	for (const { code, pages } of store.state.kinds(id)) kinds.set(code, (kinds.get(code) ?? 0) + pages);
	return {
		...{ form: FORM, stamp: stampOf(store, id, revision) },
		groups: findGroups(store, name),
		spread: { matrix: tagMatrix(store.db, id, tags), widths: widths(store.db, id, 'title_width', step) },
		kinds: Object.fromEntries(kinds),
		faulty: store.state.countFaulty(id),
		unknownPictures: store.state.countUnknownPictures(id)
	};
}
