/** One of several parts of a site's pages, of about equal size, counted from 0: for threads that share them. */
export interface Part {
	readonly part: number;
	readonly parts: number;
}

/** All of them. */
export const WHOLE: Part = { part: 0, parts: 1 };

/** Whether a page lies in a part. By blocks: one page in so many is, on many sites, always of the same type. */
export const inPart = (id: string) => `(${id} / 64) % @parts = @part`;
