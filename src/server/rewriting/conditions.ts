import type { WrittenHead } from './writtenHead';

/**
 * What a page with a head in it is called (RFC 9110, 8.8): by what its server calls the page and which head it is. Whoever has it
 * asks with that name, and the server behind is asked with its own.
 */

/** A name of a page and a head; weak where the page is packed anew each time. */
export function joinedTag(upstream: string, { tag }: Pick<WrittenHead, 'tag'>, isWeak: boolean): string {
	const weak = isWeak || upstream.startsWith('W/') ? 'W/' : '';
	const opaque = upstream.replace(/^W\//, '').slice(1, -1);
	return `${weak}"${opaque}${MARK}${tag}"`;
}
const MARK = '-k-';

/** The names of a condition as the server behind knows them: those with the head that stands now; undefined where none is left. */
export function partedTags(condition: string, { tag }: Pick<WrittenHead, 'tag'>): string | undefined {
	if (condition.trim() === '*') return '*';
	const ending = `${MARK}${tag}"`;
	const known = condition
		.split(/,\s*(?=(?:W\/)?")/)
		.map((one) => one.trim())
		.filter((one) => one.endsWith(ending))
		.map((one) => `${one.slice(0, -ending.length)}"`);
	return known.length > 0 ? known.join(', ') : undefined;
}

/** Whether what somebody has is of after the head came to stand: only then is it asked whether the page has changed. */
export const isSince = (moment: string, { since }: Pick<WrittenHead, 'since'>): boolean =>
	Date.parse(moment) >= inSeconds(since);

/** When a page with a head in it changed last. */
export const laterOf = (lastModified: string, { since }: Pick<WrittenHead, 'since'>): string =>
	new Date(Math.max(Date.parse(lastModified) || 0, inSeconds(since))).toUTCString();

/** HTTP counts in whole seconds: who has a page of the second in which its head came to stand may have it with the old one. */
const inSeconds = (moment: number) => Math.ceil(moment / 1000) * 1000;
