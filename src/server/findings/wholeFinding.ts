import type { Finding } from '$core';
import type { PageFilter } from '../store/table/grid';

/** A finding that only all pages together show, with the pages it is about. */
export interface WholeFinding {
	readonly finding: Finding;
	readonly pages: number;
	/** The filter of the table that shows them; else their paths. */
	readonly filter?: PageFilter;
	readonly paths?: readonly string[];
}
