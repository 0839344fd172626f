import { wording } from '$ui/words/en/share';
import { CANVAS, type Box, type ShareLayout } from '$core';

/** The parts of a layout that stand in a box of their own. */
export const PARTS = ['picture', 'title', 'line', 'logo'] as const;
export type Part = (typeof PARTS)[number];
export const PART_NAMES: Readonly<Record<Part, string>> = {
	get picture() {
		return wording.picture;
	},
	get title() {
		return wording.title;
	},
	get line() {
		return wording.secondLine;
	},
	get logo() {
		return wording.logo;
	}
};

/** No part is made smaller than this, in pixels. */
const LEAST_SIDE = 24;

/** A box in whole pixels that lies in the picture. */
export function inCanvas({ x, y, width, height }: Box): Box {
	const side = (value: number, most: number) => Math.round(Math.min(most, Math.max(LEAST_SIDE, value)));
	const [wide, high] = [side(width, CANVAS.width), side(height, CANVAS.height)];
	const start = (value: number, most: number) => Math.round(Math.min(most, Math.max(0, value)));
	return { x: start(x, CANVAS.width - wide), y: start(y, CANVAS.height - high), width: wide, height: high };
}

/** A box made larger or smaller from where it stands, never beyond the edge. */
export function resized(box: Box, width: number, height: number): Box {
	const most = { width: CANVAS.width - box.x, height: CANVAS.height - box.y };
	return inCanvas({ ...box, width: Math.min(width, most.width), height: Math.min(height, most.height) });
}

/** A layout with one of its parts changed. */
export function withPart<P extends Part>(
	layout: ShareLayout,
	part: P,
	changes: Partial<NonNullable<ShareLayout[P]>>
): ShareLayout {
	return { ...layout, [part]: { ...layout[part], ...changes } };
}
