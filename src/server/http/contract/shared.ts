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

/** A long work that goes on by itself, as whoever asked for it is told. */
export interface WorkTold {
	readonly id: string;
	/** The route that was asked. */
	readonly route: string;
	/** RFC 3339. */
	readonly begun: string;
	readonly state: 'running' | 'done' | 'refused' | 'stopped';
	/** So many of so many are done. */
	readonly done?: number;
	readonly all?: number;
	/** What it came to. */
	readonly result?: unknown;
	/** Why it came to nothing. */
	readonly problem?: object;
}
