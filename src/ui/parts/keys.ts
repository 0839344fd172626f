import { wording } from '$ui/words/en/parts';
/** The keys of the bench: what each does, in words. `match` tells the event; the sheet shows the rest. */
export const KEYS = [
	{
		id: 'palette',
		keys: 'Ctrl+K',
		get does() {
			return wording.findAPageATagAnAction;
		}
	},
	{
		id: 'next',
		keys: 'Alt+→',
		get does() {
			return wording.nextPage;
		}
	},
	{
		id: 'before',
		keys: 'Alt+←',
		get does() {
			return wording.previousPage;
		}
	},
	{
		id: 'hard',
		keys: 'Alt+H',
		get does() {
			return wording.nextHardPageOfThisType;
		}
	},
	{
		id: 'tagDown',
		keys: 'Alt+↓',
		get does() {
			return wording.nextTag;
		}
	},
	{
		id: 'tagUp',
		keys: 'Alt+↑',
		get does() {
			return wording.previousTag;
		}
	},
	{
		id: 'page',
		keys: 'Alt+1',
		get does() {
			return wording.writeAtThisPage;
		}
	},
	{
		id: 'type',
		keys: 'Alt+2',
		get does() {
			return wording.writeAtItsType;
		}
	},
	{
		id: 'site',
		keys: 'Alt+3',
		get does() {
			return wording.writeAtTheSite;
		}
	},
	{
		id: 'fields',
		keys: 'Alt+4',
		get does() {
			return wording.contentOfThisPage;
		}
	},
	{
		id: 'own',
		keys: 'Alt+5',
		get does() {
			return wording.allThatThisPageSaysByItself;
		}
	},
	{
		id: 'versions',
		keys: 'Alt+6',
		get does() {
			return wording.itsLanguageAndItsVersions;
		}
	},
	{
		id: 'settings',
		keys: 'Alt+7',
		get does() {
			return wording.settingsPathTypeState;
		}
	},
	{
		id: 'title',
		keys: 'Alt+T',
		get does() {
			return wording.writeItsTitleForSearchAgain;
		}
	},
	{
		id: 'description',
		keys: 'Alt+D',
		get does() {
			return wording.writeItsDescriptionForSearch;
		}
	},
	{
		id: 'picture',
		keys: 'Alt+I',
		get does() {
			return wording.chooseItsPictureForSharing;
		}
	},
	{
		id: 'newPage',
		keys: 'Alt+N',
		get does() {
			return wording.aNewPage;
		}
	},
	{
		id: 'markup',
		keys: 'Alt+M',
		get does() {
			return wording.tagsOrMarkup;
		}
	},
	{
		id: 'cards',
		keys: 'Alt+C',
		get does() {
			return wording.allCardsSideBySide;
		}
	},
	{
		id: 'share',
		keys: 'Alt+S',
		get does() {
			return wording.theSharePictureOfThisType;
		}
	},
	{
		id: 'undo',
		keys: 'Ctrl+Z',
		get does() {
			return wording.takeTheLastEditBack;
		}
	},
	{
		id: 'redo',
		keys: 'Ctrl+Y',
		get does() {
			return wording.doItAgain;
		}
	},
	{
		id: 'record',
		keys: 'Alt+E',
		get does() {
			return wording.whatWasChangedAndTakingIt;
		}
	},
	{
		id: 'release',
		keys: 'Ctrl+Enter',
		get does() {
			return wording.release;
		}
	},
	{
		id: 'keys',
		keys: '?',
		get does() {
			return wording.thisSheet;
		}
	},
	{
		id: 'keep',
		keys: 'Enter',
		get does() {
			return wording.inAFieldKeepIt;
		}
	},
	{
		id: 'takeBack',
		keys: 'Esc',
		get does() {
			return wording.inAFieldTakeItBack;
		}
	},
	{
		id: 'offer',
		keys: '{',
		get does() {
			return wording.inATemplateWhatFitsThere;
		}
	}
] as const;
export type KeyId = (typeof KEYS)[number]['id'];

const PLAIN: Readonly<Record<string, KeyId>> = {
	ArrowRight: 'next',
	ArrowLeft: 'before',
	ArrowDown: 'tagDown',
	ArrowUp: 'tagUp',
	KeyH: 'hard',
	KeyM: 'markup',
	KeyC: 'cards',
	KeyS: 'share',
	KeyE: 'record',
	Digit1: 'page',
	Digit2: 'type',
	Digit3: 'site',
	Digit4: 'fields',
	Digit5: 'own',
	Digit6: 'versions',
	Digit7: 'settings',
	KeyT: 'title',
	KeyD: 'description',
	KeyI: 'picture',
	KeyN: 'newPage'
};

/** Which of the bench's keys an event is, if any. By the place of letters and digits: Alt writes signs on some layouts. */
export function keyOf(event: KeyboardEvent): KeyId | undefined {
	const isCommand = event.ctrlKey || event.metaKey;
	if (event.altKey && !isCommand) return PLAIN[event.code];
	if (isCommand && !event.altKey) {
		const key = event.key.toLowerCase();
		if (key === 'k') return 'palette';
		if (key === 'enter') return 'release';
		if (key === 'y' || (key === 'z' && event.shiftKey)) return 'redo';
		return key === 'z' ? 'undo' : undefined;
	}
	return event.key === '?' && !isWriting(event.target) ? 'keys' : undefined;
}

/** Whether the keys go into a text. */
export function isWriting(target: EventTarget | null): boolean {
	const element = target as Partial<HTMLElement> | null;
	return element?.isContentEditable === true || /^(INPUT|TEXTAREA)$/.test(element?.tagName ?? '');
}
