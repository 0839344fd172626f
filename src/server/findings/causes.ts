import { describeMany, keyOfKind, type Finding } from '$core';

/** What many pages have from one cause, told once; or one finding by itself. */
export interface Cause<T> {
	/** The first of them, which stands for all. */
	readonly first: T;
	readonly all: readonly T[];
}

/**
 * Findings by what they say: those of pages that say the same of the same tag have one cause. The order is that of the
 * first of each.
 */
export function causesOf<T extends { readonly finding: Finding }>(found: readonly T[]): Cause<T>[] {
	const causes = new Map<string, T[]>();
	for (const [at, one] of found.entries()) {
		const { finding } = one;
		// What is said of a rule or of the whole site is one already.
		const key =
			finding.target.of === 'page' ? `${keyOfKind(finding)} ${describeMany(finding)} ${sharedBy(finding)}` : String(at);
		const known = causes.get(key);
		if (known) known.push(one);
		else causes.set(key, [one]);
	}
	return [...causes.values()].map((all) => ({ first: all[0]!, all }));
}

/** The whole text that pages share: words tell only its beginning. */
const sharedBy = ({ data }: Finding): string =>
	typeof data === 'object' && data !== null && 'pages' in data && 'value' in data ? String(data.value) : '';
