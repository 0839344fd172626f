import type { ContentType, HeadJson, Page, Picture, Site } from '$core';
import type { Version } from '$server/web/benchData';

/** What the server hands the bench for one page. */
export interface BenchData {
	readonly site: Site;
	readonly types: readonly ContentType[];
	readonly page: Page;
	readonly pictures: readonly Picture[];
	readonly released: HeadJson | null;
	/** What the server makes of the page as it is kept, at that moment; undefined once an edit was kept on top of it. */
	readonly server?: { readonly now: string; readonly head: HeadJson } | undefined;
	/** The same page in other languages, gaps among them. */
	readonly versions: readonly Version[];
	/** The share of the pages of its type that have each field, 0 to 1, of a sample. */
	readonly fieldShares?: Readonly<Record<string, number>>;
	/** The pages that this one can read fields of. */
	readonly others?: readonly Page[];
	/** Former paths that it names, with those that they lead to. */
	readonly moved?: Readonly<Record<string, string>>;
	/** How many pages read it. */
	readonly readers?: number;
	/** What a later reading would bring the page up to date from. */
	readonly cameFrom?: 'folder' | 'web' | 'table' | undefined;
	readonly count: { readonly all: number; readonly live: number; readonly byType: Readonly<Record<string, number>> };
}
