/** The keys of the bench: what each does, in words. `match` tells the event; the sheet shows the rest. */
export const KEYS = [
	{ id: 'palette', keys: 'Ctrl+K', does: 'Find a page, a tag, an action' },
	{ id: 'next', keys: 'Alt+→', does: 'Next page' },
	{ id: 'before', keys: 'Alt+←', does: 'Previous page' },
	{ id: 'hard', keys: 'Alt+H', does: 'Next hard page of this type' },
	{ id: 'tagDown', keys: 'Alt+↓', does: 'Next tag' },
	{ id: 'tagUp', keys: 'Alt+↑', does: 'Previous tag' },
	{ id: 'page', keys: 'Alt+1', does: 'Write at this page' },
	{ id: 'type', keys: 'Alt+2', does: 'Write at its type' },
	{ id: 'site', keys: 'Alt+3', does: 'Write at the site' },
	{ id: 'fields', keys: 'Alt+4', does: 'Content of this page' },
	{ id: 'own', keys: 'Alt+5', does: 'All that this page says by itself' },
	{ id: 'versions', keys: 'Alt+6', does: 'Its language and its versions' },
	{ id: 'settings', keys: 'Alt+7', does: 'Settings: path, type, state' },
	{ id: 'title', keys: 'Alt+T', does: 'Write its title: for search, again for sharing' },
	{ id: 'description', keys: 'Alt+D', does: 'Write its description: for search, again for sharing' },
	{ id: 'picture', keys: 'Alt+I', does: 'Choose its picture: for sharing, again for the Twitter card' },
	{ id: 'newPage', keys: 'Alt+N', does: 'A new page' },
	{ id: 'markup', keys: 'Alt+M', does: 'Tags or markup' },
	{ id: 'cards', keys: 'Alt+C', does: 'All cards side by side' },
	{ id: 'share', keys: 'Alt+S', does: 'The share picture of this type' },
	{ id: 'undo', keys: 'Ctrl+Z', does: 'Take the last edit back' },
	{ id: 'redo', keys: 'Ctrl+Y', does: 'Do it again' },
	{ id: 'record', keys: 'Alt+E', does: 'What was changed, and taking it back' },
	{ id: 'release', keys: 'Ctrl+Enter', does: 'Release' },
	{ id: 'keys', keys: '?', does: 'This sheet' },
	{ id: 'keep', keys: 'Enter', does: 'In a field: keep it' },
	{ id: 'takeBack', keys: 'Esc', does: 'In a field: take it back' },
	{ id: 'offer', keys: '{', does: 'In a template: what fits there' }
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
