import type { Db } from '../opening/database';
import { FilterStore } from './filters';
import { GridLists } from './gridLists';
import { ListingStore } from './listing';

/** The table of pages: named filters, what was listed for it, and pages in the order of lists. */
export class TableStore {
	readonly filters: FilterStore;
	readonly listing: ListingStore;
	readonly lists: GridLists;

	constructor(db: Db) {
		this.filters = new FilterStore(db);
		this.listing = new ListingStore(db);
		this.lists = new GridLists(db);
	}
}
