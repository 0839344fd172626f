import { describeFinding, describeMany, describeMend, type Finding } from '$core';
import { isFrench } from '../speaking';
import type { PageFilter } from '../store/table/grid';
import { mendInWords, type Mend, type ToldMend } from './mends';

/** One kind of finding over a whole site, as the room of findings shows it. */
export interface FindingGroup {
	readonly code: string;
	readonly tag: string;
	readonly weight: number;
	readonly pages: number;
	/** The first of the releases that have had it without a break; none yet when `isNew`. Not known of what only the whole shows. */
	readonly since?: number;
	readonly isNew?: boolean;
	/** What it says, of all of them where there are several, and how it is mended. */
	readonly says: string;
	readonly mend: string;
	/** One of several pages that have it, and what it says of that one. */
	readonly example?: { readonly path: string; readonly says: string };
	readonly filter?: PageFilter;
	/** Ways to mend it that are edits. */
	readonly mends?: readonly ToldMend[];
	/** The single findings, where each tells of something else. */
	readonly each?: readonly {
		readonly says: string;
		readonly pages: number;
		readonly filter?: PageFilter;
		readonly paths?: readonly string[];
		readonly mends?: readonly ToldMend[];
	}[];
}

/** The same as it is kept from one count to the next: it is said in the language of whoever asks. */
export interface FoundGroup extends Omit<FindingGroup, 'says' | 'mend' | 'mends' | 'example' | 'each'> {
	/** The finding, or the first of several that only the whole shows. */
	readonly found: Finding;
	/** The path of the page that it was found on, where it is one of several. */
	readonly example?: string;
	readonly mends?: readonly Mend[];
	readonly each?: readonly (Omit<NonNullable<FindingGroup['each']>[number], 'says' | 'mends'> & {
		readonly found: Finding;
		readonly mends?: readonly Mend[];
	})[];
}

/** A kind of finding in words. */
export function groupInWords({ found, example, each, mends, ...group }: FoundGroup): FindingGroup {
	const more = (each?.length ?? 1) - 1;
	const like = isFrench() ? `, et ${more} de plus comme cela` : `, and ${more} more like it`;
	return {
		...group,
		says: (example === undefined ? describeFinding(found) : describeMany(found)) + (more > 0 ? like : ''),
		mend: describeMend(found),
		...(example !== undefined && { example: { path: example, says: describeFinding(found) } }),
		...told(mends),
		...(each && {
			each: each.map(({ found: one, mends: ways, ...rest }) => ({ ...rest, says: describeFinding(one), ...told(ways) }))
		})
	};
}

const told = (mends: readonly Mend[] | undefined) => mends && { mends: mends.map(mendInWords) };
