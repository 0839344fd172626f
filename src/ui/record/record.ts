import { wording } from '$ui/words/en/record';
import { counted } from '$ui/words/speaking';
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
	if (layer === 'site') return wording.theSite;
	if (layer === 'type') return wording.theType(name ?? '');
	return layer === 'page' ? (path as string) : wording.thePicture(src?.split('/').at(-1) ?? '');
}

/** What a rule said, on one line. */
function bodyInWords(body: unknown): string {
	if (!body || typeof body !== 'object' || !('kind' in body)) return wording.nothing;
	if (body.kind === 'template') return `“${(body as { template?: string }).template}”`;
	if (body.kind === 'leaveOut') return wording.leftOut;
	return body.kind === 'borrow' ? wording.theSameAs((body as { from?: string }).from ?? '') : wording.pictureSources;
}

/** What a change of many did. */
function batchInWords(action: {
	readonly do?: string;
	readonly tag?: string;
	readonly name?: string;
	readonly on?: boolean;
}): string {
	const { tag, name } = action;
	if (tag === 'several') return wording.severalTagsWereChanged;
	if (tag !== undefined) return action.do === 'replace' ? wording.wordsOfWereReplaced(tag) : wording.wasChanged(tag);
	if (name !== undefined)
		return action.do === 'field' ? wording.theFieldWasWritten(name) : wording.wordsOfTheFieldWereReplaced(name);
	if (action.do === 'pin') return action.on === false ? wording.pinsWereTakenOff : wording.whatCardsSayWasPinned;
	return wording.theWasChanged(action.do === 'key' ? wording.markAsKeyPage : (action.do ?? wording.state));
}

/** What an edit did, in a sentence without its end. */
export function editInWords({ kind, what }: Pick<RecordedEdit, 'kind' | 'what'>): string {
	const told = (what ?? {}) as Readonly<Record<string, unknown>>;
	switch (kind) {
		case 'rule':
			return wording.atBecame(
				told.tag as string,
				told.language ? ` (${told.language as string})` : '',
				placeInWords(told.place as Place),
				bodyInWords(told.before),
				bodyInWords(told.after)
			);
		case 'settings':
			return wording.settingsOf(placeInWords(told.place as Place), Object.keys(told.after ?? {}).join(', '));
		case 'page':
			return PAGE_WORDS[told.do as string]?.(told as Record<string, string>) ?? wording.aPageWasChanged;
		case 'type':
			return TYPE_WORDS[(told.do as string) ?? 'add']?.(told as Record<string, string>) ?? wording.aTypeWasChanged;
		case 'picture':
			if (told.do === 'gather') return wording.picturesOfTheSitesFolderWere(counted(Number(told.pictures)));
			return told.do === 'remove'
				? wording.aPictureWasTakenOutOfThe
				: wording.thePictureWasTakenIn((told.name ?? told.src) as string);
		case 'batch':
			return told.action ? wording.on(batchInWords(told.action), whichPages(told)) : wording.severalThingsWereChangedAt;
		case 'aside':
			return told.do === 'take-up'
				? wording.theFindingIsToldAgain(told.code as string)
				: wording.theFindingWasSetAside(told.code as string, told.reason as string);
		case 'import':
			return wording.pagesWereReadInFromA(counted(Number(told.pages)), told.from as string);
		case 'back':
			return wording.takenBack3(editInWords({ kind: told.of as string, what: told }));
		case 'again':
			return wording.doneAgain(editInWords({ kind: told.of as string, what: told }));
		default:
			return wording.severalThingsWereChangedAt;
	}
}

function whichPages({ path, pages }: Readonly<Record<string, unknown>>): string {
	if (typeof path === 'string') return path;
	return typeof pages === 'number' ? pagesInWords(pages) : wording.manyPages;
}

const TYPE_WORDS: Readonly<Record<string, (told: Record<string, string>) => string>> = {
	add: ({ name = '', set = '' }) => wording.theType2(name, set ? wording.theSet(set) : wording.wasAdded),
	rename: ({ name = '', to = '' }) => wording.theTypeWasRenamedTo(name, to),
	remove: ({ name = '', to = '' }) => wording.theTypeWasTakenAway(name, to ? wording.itsPagesBecame(to) : ''),
	renameField: ({ name = '', field = '', to = '' }) => wording.theFieldOfWasRenamedTo(field, name, to),
	renamePiece: ({ name = '', piece = '', to = '' }) =>
		wording.thePieceWasRenamedTo(piece, name ? wording.of(name) : '', to)
};

const PAGE_WORDS: Readonly<Record<string, (told: Record<string, string>) => string>> = {
	add: ({ path = '' }) => wording.wasAdded2(path),
	copy: ({ path = '', to = '' }) => wording.wasCopiedTo(path, to),
	remove: ({ path = '', to = '' }) => wording.wasTakenAway(path, to ? wording.andLeadsTo(to) : ''),
	link: ({ path = '', to = '' }) => wording.andNameEachOtherAsVersions(path, to),
	unlink: ({ path = '', to = '' }) => wording.andWereParted(path, to),
	forget: ({ path = '' }) => wording.leadsNowhereAnyMore(path),
	many: ({ count = '' }) => wording.thingsWereChangedOnPagesAt(count),
	home: ({ path = '' }) => wording.becameTheHomePage(path)
};
