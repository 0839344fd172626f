import { countGrid, FILTER_NAMES, SORTS, type GridRow, type PageFilter, type Sort } from '../store/table/grid';
import type { Store } from '../store/store';

/** The most rows of one answer. */
const MOST = 200;

export interface GridAnswer {
	readonly rows: readonly GridRow[];
	/** How many the filter means; only when asked for. */
	readonly count?: number;
	/** How many pages are yet to be looked at again: until none is, more may change. */
	readonly unseen: number;
}

export const filterOf = (query: URLSearchParams): PageFilter =>
	Object.fromEntries(FILTER_NAMES.flatMap((name) => (query.get(name) ? [[name, query.get(name)]] : [])));

export function readGrid(store: Store, name: string, query: URLSearchParams): GridAnswer {
	const { id } = store.working.sites.named(name);
	const filter = filterOf(query);
	const sort = query.get('sort') ?? 'path';
	const whole = (key: string, usual: number) => {
		const number = Number(query.get(key) ?? usual);
		return Number.isInteger(number) && number >= 0 ? number : usual;
	};
	// Before the rows are read: what is looked at between is asked for again.
	const unseen = store.state.countStale(id);
	const rows = store.table.lists.rows(id, filter, {
		sort: Object.hasOwn(SORTS, sort) ? (sort as Sort) : 'path',
		down: query.get('down') === '1',
		offset: whole('offset', 0),
		limit: Math.min(MOST, whole('limit', 60))
	});
	const isAll = Object.keys(filter).length === 0;
	return {
		rows,
		...(query.get('count') === '1' && {
			count: isAll ? store.working.pages.count(id).all : countGrid(store.db, id, filter)
		}),
		unseen
	};
}
