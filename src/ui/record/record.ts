import type { RecordedEdit } from '$server/store/record/record';
import { pagesInWords } from '$ui/parts/words';

/** The record of edits, in words. */

interface Place {
	readonly layer: 'site' | 'type' | 'page' | 'picture';
	readonly name?: string;
	readonly path?: string;
	readonly src?: string;
}

/** Where an edit was made. */
function placeInWords({ layer, name, path, src }: Place): string {
	if (layer === 'site') return 'the site';
	if (layer === 'type') return `the type “${name}”`;
	return layer === 'page' ? (path as string) : `the picture ${src?.split('/').at(-1)}`;
}

/** What a rule said, on one line. */
function bodyInWords(body: unknown): string {
	if (!body || typeof body !== 'object' || !('kind' in body)) return 'nothing';
	if (body.kind === 'template') return `“${(body as { template?: string }).template}”`;
	if (body.kind === 'leaveOut') return 'left out';
	return body.kind === 'borrow' ? `the same as ${(body as { from?: string }).from}` : 'picture sources';
}

/** What a change of many did. */
function batchInWords(action: {
	readonly do?: string;
	readonly tag?: string;
	readonly name?: string;
	readonly on?: boolean;
}): string {
	const { tag, name } = action;
	if (tag === 'several') return 'Several tags were changed';
	if (tag !== undefined) return action.do === 'replace' ? `Words of ${tag} were replaced` : `${tag} was changed`;
	if (name !== undefined)
		return action.do === 'field' ? `The field ${name} was written` : `Words of the field ${name} were replaced`;
	if (action.do === 'pin') return action.on === false ? 'Pins were taken off' : 'What cards say was pinned';
	return `The ${action.do === 'key' ? 'mark as key page' : (action.do ?? 'state')} was changed`;
}

/** What an edit did, in a sentence without its end. */
export function editInWords({ kind, what }: Pick<RecordedEdit, 'kind' | 'what'>): string {
	const told = (what ?? {}) as Readonly<Record<string, unknown>>;
	switch (kind) {
		case 'rule':
			return `${told.tag as string}${told.language ? ` (${told.language as string})` : ''} at ${placeInWords(told.place as Place)}: ${bodyInWords(told.before)} became ${bodyInWords(told.after)}`;
		case 'settings':
			return `Settings of ${placeInWords(told.place as Place)}: ${Object.keys(told.after ?? {}).join(', ')}`;
		case 'page':
			return PAGE_WORDS[told.do as string]?.(told as Record<string, string>) ?? 'A page was changed';
		case 'type':
			return TYPE_WORDS[(told.do as string) ?? 'add']?.(told as Record<string, string>) ?? 'A type was changed';
		case 'picture':
			if (told.do === 'gather')
				return `${Number(told.pictures).toLocaleString('en')} pictures of the site’s folder were taken in`;
			return told.do === 'remove'
				? 'A picture was taken out of the library'
				: `The picture ${(told.name ?? told.src) as string} was taken in`;
		case 'batch':
			return told.action
				? `${batchInWords(told.action)} on ${whichPages(told)}`
				: 'Several things were changed at once';
		case 'aside':
			return told.do === 'take-up'
				? `The finding ${told.code as string} is told again`
				: `The finding ${told.code as string} was set aside: “${told.reason as string}”`;
		case 'import':
			return `${Number(told.pages).toLocaleString('en')} pages were read in from a ${told.from as string}`;
		case 'back':
			return `Taken back: ${editInWords({ kind: told.of as string, what: told })}`;
		case 'again':
			return `Done again: ${editInWords({ kind: told.of as string, what: told })}`;
		default:
			return 'Several things were changed at once';
	}
}

function whichPages({ path, pages }: Readonly<Record<string, unknown>>): string {
	if (typeof path === 'string') return path;
	return typeof pages === 'number' ? pagesInWords(pages) : 'many pages';
}

const TYPE_WORDS: Readonly<Record<string, (told: Record<string, string>) => string>> = {
	add: ({ name, set }) => `The type “${name}”${set ? `: the set “${set}”` : ' was added'}`,
	rename: ({ name, to }) => `The type “${name}” was renamed to “${to}”`,
	remove: ({ name, to }) => `The type “${name}” was taken away${to ? `; its pages became “${to}”` : ''}`,
	renameField: ({ name, field, to }) => `The field “${field}” of “${name}” was renamed to “${to}”`,
	renamePiece: ({ name, piece, to }) => `The piece “${piece}”${name ? ` of “${name}”` : ''} was renamed to “${to}”`
};

const PAGE_WORDS: Readonly<Record<string, (told: Record<string, string>) => string>> = {
	add: ({ path }) => `${path} was added`,
	copy: ({ path, to }) => `${path} was copied to ${to}`,
	remove: ({ path, to }) => `${path} was taken away${to ? `, and leads to ${to}` : ''}`,
	link: ({ path, to }) => `${path} and ${to} name each other as versions`,
	unlink: ({ path, to }) => `${path} and ${to} were parted`,
	forget: ({ path }) => `${path} leads nowhere any more`,
	many: ({ count }) => `${count} things were changed on pages at once`,
	home: ({ path }) => `${path} became the home page`
};
