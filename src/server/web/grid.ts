import { countGrid, FILTER_NAMES, placeInOrder, type GridRow, type PageFilter, type Sort } from '../store/table/grid';
import type { Store } from '../store/store';
import { cursorOf, placeOf } from './cursor';

/** Rows of one answer where nobody says how many. */
const USUAL = 60;

export interface GridAnswer {
	readonly rows: readonly GridRow[];
	/** What `after` is to be for those that follow; missing with the last. */
	readonly next?: string;
	/** How many the filter means; only when asked for. */
	readonly count?: number;
	/** How many pages are yet to be looked at again: until none is, more may change. */
	readonly unseen: number;
}

/** What is asked of the table. */
export interface GridWanted extends PageFilter {
	readonly sort?: Sort;
	readonly down?: '0' | '1';
	/** Rows that follow those seen: `next` of the answer before, in the same order. However much is written meanwhile, none that stays is passed over. */
	readonly after?: string;
	/**
	 * The row to begin at, as a scroll bar names it; of no use with `after`.
	 * @asType integer @minimum 0
	 */
	readonly row?: number;
	/** @asType integer @minimum 1 @maximum 200 */
	readonly limit?: number;
	/** Says how many there are, too. */
	readonly count?: '0' | '1';
}

/** The filter in a query that may say more. */
export const filterOf = (query: PageFilter): PageFilter =>
	Object.fromEntries(FILTER_NAMES.flatMap((name) => (query[name] ? [[name, query[name]]] : [])));

/** Rows of the table of pages of a site; with `count` also how many there are. */
export function readGrid(store: Store, id: number, query: GridWanted): GridAnswer {
	const filter = filterOf(query);
	const { sort = 'path', row = 0, limit = USUAL, after } = query;
	const [down, list] = [query.down === '1', `${sort} ${query.down ?? '0'}`];
	// Before the rows are read: what is looked at between is asked for again.
	const unseen = store.state.countStale(id);
	// One more tells whether others follow.
	const wanted = { sort, down, limit: limit + 1 };
	const { lists } = store.table;
	const found =
		after === undefined
			? lists.rows(id, filter, { ...wanted, offset: row })
			: lists.rowsAfter(id, filter, wanted, placeOf(after, list, 2));
	const rows = found.slice(0, limit);
	const last = found.length > limit ? placeInOrder(store.db, rows.at(-1)!.id, sort) : undefined;
	const isAll = Object.keys(filter).length === 0;
	return {
		rows,
		...(last && { next: cursorOf([list, ...last]) }),
		...(query.count === '1' && {
			count: isAll ? store.working.pages.count(id).all : countGrid(store.db, id, filter)
		}),
		unseen
	};
}
