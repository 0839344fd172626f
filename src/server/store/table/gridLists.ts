import type { Db } from '../opening/database';
import { countUpTo, gridIds, gridRows, rowsOf, type GridRow, type Order, type PageFilter, type Wanted } from './grid';

/** Filters, each in one order, whose pages are kept: those asked for longest ago go first. */
const MOST = 6;
/** Searches that are remembered as asked for once. */
const MOST_ASKED = 1000;
/** Rows before this one are found as fast without. */
const FAR = 1000;

const keyOf = (site: number, filter: PageFilter, { sort, down }: Order) =>
	JSON.stringify([site, sort, down, ...Object.entries(filter).sort()]);

/**
 * The table of pages, for who goes through it: far down, what a filter means is put in order once and kept as long as
 * nothing is written, by whomever. 400 kB of 100,000 pages.
 */
export class GridLists {
	private readonly lists = new Map<string, Uint32Array>();
	/** Searches whose first rows were asked for once. */
	private readonly asked = new Set<string>();
	private state = '';

	constructor(private readonly db: Db) {}

	rows(site: number, filter: PageFilter, wanted: Wanted): GridRow[] {
		const { offset, limit } = wanted;
		const isNew = this.forgetWhatChanged();
		const isAll = Object.keys(filter).length === 0;
		const key = keyOf(site, filter, wanted);
		// Without a filter an index has them in order: it takes a fifth of the time that keeping them does.
		if (!this.lists.has(key) && (offset < FAR || (isNew && isAll))) {
			const isAskedAgain = this.asked.has(key);
			if (filter.q) this.asked.add(key);
			if (this.asked.size > MOST_ASKED) this.asked.clear();
			return gridRows(this.db, site, filter, wanted, (isWorthIt) =>
				isWorthIt || isAskedAgain ? this.list(site, filter, wanted) : undefined
			);
		}
		return rowsOf(this.db, this.list(site, filter, wanted).subarray(offset, offset + limit));
	}

	/** Rows that follow a place of the order, whatever came, went or moved since somebody was there. */
	rowsAfter(site: number, filter: PageFilter, sorted: Order & { readonly limit: number }, place: readonly unknown[]) {
		this.forgetWhatChanged();
		const list = this.list(site, filter, sorted);
		const from = countUpTo(this.db, list, sorted, place);
		return rowsOf(this.db, list.subarray(from, from + sorted.limit));
	}

	private list(site: number, filter: PageFilter, { sort, down }: Order): Uint32Array {
		const key = keyOf(site, filter, { sort, down });
		const { q, ...others } = filter;
		const withoutWords = () => this.list(site, others, { sort, down });
		const list =
			this.lists.get(key) ?? gridIds(this.db, site, filter, { sort, down }, q === undefined ? undefined : withoutWords);
		this.lists.delete(key);
		this.lists.set(key, list);
		for (const old of this.lists.keys()) {
			if (this.lists.size <= MOST) break;
			this.lists.delete(old);
		}
		return list;
	}

	/** Forgets all lists when something was written since the last time, and says so. */
	private forgetWhatChanged(): boolean {
		const byOthers = this.db.pragma('data_version', { simple: true }) as number;
		const byThis = this.db.prepare<unknown[], number>('SELECT total_changes()').pluck().get()!;
		const state = `${byOthers} ${byThis}`;
		if (this.state === state) return false;
		this.state = state;
		this.lists.clear();
		this.asked.clear();
		return true;
	}
}
