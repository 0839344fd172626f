/**
 * Where something that opens over the room belongs: into the landmark of what opened it, so that those who go from landmark
 * to landmark find it there. What a dialog opens lies over the dialog, at the end of the document.
 */
export const landmarkOf = (opener: Element | null | undefined): Element | string =>
	(opener?.closest('[role=dialog]')
		? undefined
		: // The head of a part within the room is no landmark.
			(opener?.closest('main, nav, aside, [role=search]') ?? opener?.closest('header'))) ?? 'body';
