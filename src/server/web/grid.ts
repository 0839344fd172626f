import { countGrid, FILTER_NAMES, type GridRow, type PageFilter, type Sort } from '../store/table/grid';
import type { Store } from '../store/store';

/** Rows of one answer where nobody says how many. */
const USUAL = 60;

export interface GridAnswer {
	readonly rows: readonly GridRow[];
	/** How many the filter means; only when asked for. */
	readonly count?: number;
	/** How many pages are yet to be looked at again: until none is, more may change. */
	readonly unseen: number;
}

/** What is asked of the table. */
export interface GridWanted extends PageFilter {
	readonly sort?: Sort;
	readonly down?: '0' | '1';
	/** @asType integer @minimum 0 */
	readonly offset?: number;
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
	const { sort = 'path', down, offset = 0, limit = USUAL } = query;
	// Before the rows are read: what is looked at between is asked for again.
	const unseen = store.state.countStale(id);
	const rows = store.table.lists.rows(id, filter, { sort, down: down === '1', offset, limit });
	const isAll = Object.keys(filter).length === 0;
	return {
		rows,
		...(query.count === '1' && {
			count: isAll ? store.working.pages.count(id).all : countGrid(store.db, id, filter)
		}),
		unseen
	};
}
