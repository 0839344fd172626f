import { countFrames, type Site } from '$core';
import type { Origin } from '../edits/edit';
import { takeAway } from '../edits/pages';
import { makeLongEdit, type LongWork } from '../edits/longEdit';
import type { FoundPage, PageOrigin } from '../store/working/readIn';
import type { Store, StoredSite } from '../store/store';

/** A page on its way in, or one that its source has no more. */
export type Incoming = IncomingPage | { readonly gone: string };

interface IncomingPage {
	readonly page: FoundPage;
	/** It is as it was put in last: only what is noted of it is written. */
	readonly isSame?: boolean;
	/** The text of the page came with it; without, the one that is there stays. */
	readonly withBody?: boolean;
	/** The fields that the source has of it: only those are its to replace. Without them, all are. */
	readonly columns?: readonly string[];
	/** Notes for the next reading. */
	readonly note?: () => void;
}

/** What comes from a source of content, whichever it is. */
export interface Content {
	readonly name: string;
	readonly origin: Origin;
	/** What the record says of it. */
	readonly what: {
		readonly from: 'folder' | 'web' | 'feed' | 'table' | 'program';
		/** Which program it was. */
		readonly source?: string;
		/** Where it is known before. */
		readonly pages?: number;
		readonly pictures?: number;
	};
	/** The site to make where there is none of the name; about how many pages come that were not there. */
	readonly fresh?: Site;
	readonly coming?: number;
	/** What is put in order before the pages: the site itself, its types, its pictures. Others may write at each step. */
	readonly prepare?: (stored: StoredSite) => Iterable<void>;
	readonly pages: Iterable<Incoming>;
	/** What the pages are from then on: of a folder, of the web, or nobody's that takes them away again. */
	readonly as: PageOrigin | null;
	/** What follows the pages: what was said about reading it is kept. */
	readonly finish?: (site: number) => void;
	/** What a program wrote by a formula is no frame's. */
	readonly keepsFormulas?: boolean;
	/** Its pages are these; others of its kind are set to draft. */
	readonly present?: ReadonlySet<string>;
}

/** What it came to. */
export interface Saved {
	readonly added: number;
	readonly changed: number;
	/** The paths of pages that are no more. */
	readonly retired: readonly string[];
}

/** What it came to, and where it stands. */
interface SavedEdit extends Saved {
	/** The edit in the record; none where nothing came out different. */
	readonly edit: number | undefined;
	readonly revision: number;
}

/** The one way in for content: one edit of any size, taken back as one, between whose steps others may write. */
export function saveContent(store: Store, content: Content): SavedEdit {
	const { name, origin, what, fresh, coming, pages, as, present } = content;
	const work: LongWork<Saved> = function* (stored) {
		const { id } = stored;
		yield* content.prepare?.(stored) ?? [];
		let [added, changed] = [0, 0];
		for (const one of pages) {
			yield;
			if ('gone' in one) {
				takeAway(store, stored, { path: one.gone });
				continue;
			}
			const { page, isSame = false, withBody = true, columns, note } = one;
			if (!isSame) {
				if (store.working.pages.has(id, page.path)) changed++;
				else added++;
				store.working.readIn.refreshPage(id, page, as, { withBody, ...(columns && { columns }) });
			}
			note?.();
		}
		content.finish?.(id);
		yield;
		// What files say of their pages is counted where it came with them.
		if (as !== null) store.working.readIn.saveFrames(id, framesOf(store, stored, content.keepsFormulas));
		return { added, changed, retired: present && as ? store.working.readIn.retirePages(id, present, as) : [] };
	};
	const edit = { origin, kind: 'import', what };
	const options = { ...(fresh && { fresh }), ...(coming !== undefined && { coming }) };
	const { edit: made, revision, result } = makeLongEdit(store, name, edit, work, options);
	return { ...result, edit: made, revision };
}

const framesOf = (store: Store, { id, site }: StoredSite, keepsFormulas = false) =>
	countFrames(() => store.working.readIn.foundOfPages(id), site.languages[0] as string).filter(
		({ formula }) => !(keepsFormulas && formula)
	);
