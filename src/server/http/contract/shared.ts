/** What was kept: the revision of the site after it, and the edit that it is in the record. */
export interface Kept {
	readonly revision: number;
	/** Missing where nothing came out different. */
	readonly edit?: number | undefined;
}

/** Where a switch is on. */
export type On = '0' | '1';

/** Who takes much of a site away says how many pages go. */
export interface Sure {
	/** @asType integer */
	readonly removes?: number;
}
