import { wording } from '$ui/words/en/rooms';
/** The rooms of a site, each for one question, in the order of the bar; `code` is the key that leads there with Alt. */
export const ROOMS = [
	{
		id: 'overview',
		get name() {
			return wording.overview;
		},
		key: 'Alt+O',
		code: 'KeyO'
	},
	{
		id: 'pages',
		get name() {
			return wording.pages;
		},
		key: 'Alt+P',
		code: 'KeyP'
	},
	{
		id: 'bench',
		get name() {
			return wording.bench;
		},
		key: 'Alt+B',
		code: 'KeyB'
	},
	{
		id: 'findings',
		get name() {
			return wording.findings;
		},
		key: 'Alt+F',
		code: 'KeyF'
	},
	{
		id: 'readers',
		get name() {
			return wording.readers;
		},
		key: 'Alt+V',
		code: 'KeyV'
	},
	{
		id: 'library',
		get name() {
			return wording.library;
		},
		key: 'Alt+L',
		code: 'KeyL'
	},
	{
		id: 'releases',
		get name() {
			return wording.releases;
		},
		key: 'Alt+R',
		code: 'KeyR'
	}
] as const;
export type RoomId = (typeof ROOMS)[number]['id'];

export const roomAt = (room: RoomId, site: string) => `/${room}/${encodeURIComponent(site)}`;

/** The room that a key leads to, if it is one. By the place of letters: Alt writes signs on some layouts. */
export function roomOfKey(event: KeyboardEvent): RoomId | undefined {
	if (!event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return undefined;
	return ROOMS.find(({ code }) => code === event.code)?.id;
}

/** The table of pages with a filter. */
export function pagesAt(site: string, filter: Readonly<Record<string, string | undefined>>): string {
	const query = new URLSearchParams();
	for (const [name, value] of Object.entries(filter)) if (value) query.set(name, value);
	return `${roomAt('pages', site)}${query.size > 0 ? `?${query}` : ''}`;
}

/** The bench at the first page of a type, with the type's settings. */
export const typeAt = (site: string, type: string): string =>
	`${roomAt('bench', site)}?${new URLSearchParams({ type, at: 'type' })}`;

/** A page on the bench, at a tag if one is named. */
export function benchAt(site: string, path: string, tag?: string): string {
	const query = new URLSearchParams({ page: path, ...(tag && { tag }) });
	return `${roomAt('bench', site)}?${query}`;
}
