import type { Area } from '$core';

/** Red, green and blue of each pixel, row by row. */
export interface ColourPicture {
	readonly data: Uint8Array;
	readonly width: number;
	readonly height: number;
}

/** Looked at in cells of this many pixels a side. */
const CELL = 4;
/** Of a picture's cells, a face takes at least and at most this share. */
const [LEAST, MOST] = [0.006, 0.4];

/**
 * What may be faces: upright ovals in the colours of skin, the largest first, as boxes in shares of the sides. An
 * estimate that knows nothing of eyes: it is there to warn of cuts, not to find people.
 */
export function findFaces(picture: ColourPicture): Area[] {
	const [wide, high] = [Math.floor(picture.width / CELL), Math.floor(picture.height / CELL)];
	const skin = new Uint8Array(wide * high);
	for (let y = 0; y < high; y++) for (let x = 0; x < wide; x++) skin[y * wide + x] = isSkin(picture, x, y) ? 1 : 0;
	return patches(skin, wide, high)
		.filter((patch) => isOval(patch, wide * high))
		.sort((a, b) => b.cells.length - a.cells.length)
		.map(({ left, top, right, bottom }): Area => [
			left / wide,
			top / high,
			(right - left + 1) / wide,
			(bottom - top + 1) / high
		]);
}

/** Skin of all shades keeps to a narrow range of the two colour differences (ITU-R BT.601), whatever its brightness. */
function isSkin({ data, width }: ColourPicture, x: number, y: number): boolean {
	const at = 3 * ((y * CELL + CELL / 2) * width + x * CELL + CELL / 2);
	const [r, g, b] = [data[at]!, data[at + 1]!, data[at + 2]!];
	const bright = 0.299 * r + 0.587 * g + 0.114 * b;
	const [blue, red] = [128 + 0.564 * (b - bright), 128 + 0.713 * (r - bright)];
	return bright > 45 && bright < 235 && blue > 85 && blue < 122 && red > 138 && red < 172;
}

interface Oval {
	readonly cells: readonly number[];
	readonly left: number;
	readonly right: number;
	readonly top: number;
	readonly bottom: number;
	readonly wide: number;
}

function patches(mask: Uint8Array, wide: number, high: number): Oval[] {
	const found: Oval[] = [];
	for (let start = 0; start < mask.length; start++) {
		if (mask[start] !== 1) continue;
		const cells = [start];
		mask[start] = 2;
		for (let at = 0; at < cells.length; at++) {
			const [x, y] = [cells[at]! % wide, Math.floor(cells[at]! / wide)];
			for (const [nx, ny] of [
				[x - 1, y],
				[x + 1, y],
				[x, y - 1],
				[x, y + 1]
			] as const) {
				const next = ny * wide + nx;
				if (nx < 0 || ny < 0 || nx >= wide || ny >= high || mask[next] !== 1) continue;
				mask[next] = 2;
				cells.push(next);
			}
		}
		const [xs, ys] = [cells.map((cell) => cell % wide), cells.map((cell) => Math.floor(cell / wide))];
		const most = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b));
		const least = (values: readonly number[]) => values.reduce((a, b) => Math.min(a, b));
		found.push({ cells, left: least(xs), right: most(xs), top: least(ys), bottom: most(ys), wide });
	}
	return found;
}

/** Whether a patch fills an upright oval and little else. */
function isOval({ cells, left, right, top, bottom, wide }: Oval, all: number): boolean {
	if (cells.length < all * LEAST || cells.length > all * MOST) return false;
	const [w, h] = [right - left + 1, bottom - top + 1];
	if (h < 1.05 * w || h > 2.2 * w) return false;
	const inside = cells.filter((cell) => {
		const x = ((cell % wide) - left + 0.5) / w - 0.5;
		const y = (Math.floor(cell / wide) - top + 0.5) / h - 0.5;
		return x * x + y * y <= 0.25;
	}).length;
	const oval = (Math.PI / 4) * w * h;
	return inside / oval > 0.72 && inside / cells.length > 0.82;
}
