/** Whether a list of entity tags names one, compared weakly (RFC 9110, 13.1). */
export const namesTag = (list: string, etag: string): boolean =>
	list === etag || list.split(',').some((tag) => tag.trim() === '*' || tag.trim().replace(/^W\//, '') === etag);

/** What the working copy of a site is called at a revision. */
export const tagOfRevision = (revision: number): string => `"r${revision}"`;
/** The revision that an `If-Match` names; undefined where it names none, or another thing. */
export function revisionIn(field: string): number | undefined {
	const named = /^\s*"r(\d{1,15})"\s*$/.exec(field)?.[1];
	return named === undefined ? undefined : Number(named);
}
