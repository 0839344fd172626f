/** What of a page's head can stand in its file: the field that says it, and the name it is given where there is none. */
export const FIELDS: ReadonlyMap<string, readonly [field: string, key: string]> = new Map([
	['title', ['title', 'title']],
	['description', ['summary', 'description']],
	['og:image', ['picture', 'image']]
]);
export const FRONT_MATTER_TAGS = [...FIELDS.keys()];
