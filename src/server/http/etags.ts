/** Whether a list of entity tags names one, compared weakly (RFC 9110, 13.1). */
export const namesTag = (list: string, etag: string): boolean =>
	list === etag || list.split(',').some((tag) => tag.trim() === '*' || tag.trim().replace(/^W\//, '') === etag);
