/** A kind of finding: how much it spoils, what it says, and how it is mended. */
export interface Kind<D> {
	/** From 1 to 10. */
	readonly weight: number;
	readonly says: (data: D) => string;
	readonly mend: (data: D) => string;
	/** What it says of many pages at once, without what holds of one alone; where each page may say something else. */
	readonly ofMany?: (data: D) => string;
}

export const kind = <D>(
	weight: number,
	says: (data: D) => string,
	mend: (data: D) => string,
	ofMany?: (data: D) => string
): Kind<D> => ({ weight, says, mend, ...(ofMany && { ofMany }) });

let list: Intl.ListFormat | undefined;

/** Names as a sentence lists them. */
export const listed = (names: readonly string[]) =>
	(list ??= new Intl.ListFormat('en', { type: 'conjunction' })).format(names);
