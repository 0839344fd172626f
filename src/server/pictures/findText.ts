import type { Area } from '$core';

/** Brightness of each pixel, 0 to 255, row by row. */
export interface GreyPicture {
	readonly data: Uint8Array;
	readonly width: number;
	readonly height: number;
}

/** A connected patch that stands out from its surroundings: a letter, perhaps. Pixels. */
interface Patch {
	readonly left: number;
	readonly top: number;
	readonly right: number;
	readonly bottom: number;
	readonly area: number;
	/** Twice the area over the outline: how thick its strokes are. */
	readonly stroke: number;
	readonly tone: number;
}

/** A patch differs from the mean of its surroundings by this much at least. */
const CONTRAST = 26;
/** Half the side of the window that is its surroundings, in pixels. */
const AROUND = 14;
/** Patches lower than this (pixels) cannot be told from texture. */
const LEAST_HEIGHT = 6;

/**
 * Where a picture seems to hold lines of text: boxes as shares of its sides. Letters are patches of even tone and stroke
 * that stand in a row with a common foot; leaves, waves and birds seldom are. Looked at in several sizes, since large
 * letters look to small windows like areas.
 */
export function findText(picture: GreyPicture): Area[] {
	const found: Area[] = [];
	for (let at = picture; at.width >= 80 && at.height >= 40; at = halved(at))
		for (const isDark of [true, false])
			for (const line of linesOf(patchesOf(standingOut(at, isDark), at), at.height)) found.push(asShares(line, at));
	return merged(found);
}

function halved({ data, width, height }: GreyPicture): GreyPicture {
	const [w, h] = [width >> 1, height >> 1];
	const half = new Uint8Array(w * h);
	for (let y = 0; y < h; y++)
		for (let x = 0; x < w; x++) {
			const at = 2 * y * width + 2 * x;
			half[y * w + x] = (data[at]! + data[at + 1]! + data[at + width]! + data[at + width + 1]! + 2) >> 2;
		}
	return { data: half, width: w, height: h };
}

/** 1 where a pixel is darker, or brighter, than its surroundings. */
function standingOut({ data, width, height }: GreyPicture, isDark: boolean): Uint8Array {
	const sums = new Float64Array((width + 1) * (height + 1));
	for (let y = 0; y < height; y++) {
		let row = 0;
		for (let x = 0; x < width; x++) {
			row += data[y * width + x]!;
			sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1]! + row;
		}
	}
	const mask = new Uint8Array(width * height);
	for (let y = 0; y < height; y++) {
		const [top, bottom] = [Math.max(0, y - AROUND), Math.min(height, y + AROUND + 1)];
		for (let x = 0; x < width; x++) {
			const [left, right] = [Math.max(0, x - AROUND), Math.min(width, x + AROUND + 1)];
			const sum =
				sums[bottom * (width + 1) + right]! -
				sums[top * (width + 1) + right]! -
				sums[bottom * (width + 1) + left]! +
				sums[top * (width + 1) + left]!;
			const off = data[y * width + x]! - sum / ((bottom - top) * (right - left));
			mask[y * width + x] = (isDark ? off < -CONTRAST : off > CONTRAST) ? 1 : 0;
		}
	}
	return mask;
}

function patchesOf(mask: Uint8Array, { data, width, height }: GreyPicture): Patch[] {
	const patches: Patch[] = [];
	const stack = new Int32Array(width * height);
	const isSet = (x: number, y: number) => x >= 0 && y >= 0 && x < width && y < height && mask[y * width + x]! > 0;
	for (let start = 0; start < mask.length; start++) {
		if (mask[start] !== 1) continue;
		let [left, right, top, bottom, area, outline, tone, depth] = [width, 0, height, 0, 0, 0, 0, 0];
		stack[depth++] = start;
		mask[start] = 2;
		while (depth > 0) {
			const at = stack[--depth]!;
			const [x, y] = [at % width, (at / width) | 0];
			area++;
			tone += data[at]!;
			left = Math.min(left, x);
			right = Math.max(right, x);
			top = Math.min(top, y);
			bottom = Math.max(bottom, y);
			for (let dy = -1; dy <= 1; dy++)
				for (let dx = -1; dx <= 1; dx++) {
					if (!isSet(x + dx, y + dy)) {
						if (dx === 0 || dy === 0) outline++;
					} else if (mask[at + dy * width + dx] === 1) {
						mask[at + dy * width + dx] = 2;
						stack[depth++] = at + dy * width + dx;
					}
				}
		}
		const patch = {
			left,
			top,
			right: right + 1,
			bottom: bottom + 1,
			area,
			stroke: (2 * area) / outline,
			tone: tone / area
		};
		if (isLetterLike(patch, width, height)) patches.push(patch);
	}
	return patches;
}

const highOf = (patch: Patch) => patch.bottom - patch.top;
const wideOf = (patch: Patch) => patch.right - patch.left;

function isLetterLike(patch: Patch, width: number, height: number): boolean {
	const [high, wide] = [highOf(patch), wideOf(patch)];
	if (high < LEAST_HEIGHT || high > height * 0.35 || wide > high * 7 || wide > width * 0.5 || high > wide * 14)
		return false;
	const fill = patch.area / (high * wide);
	return fill > 0.14 && fill < 0.97 && patch.stroke < high * 0.45;
}

/** Patches that stand beside each other on a common foot. */
function linesOf(patches: readonly Patch[], height: number): Patch[][] {
	const sorted = [...patches].sort((a, b) => a.left - b.left);
	const group = sorted.map((_, at) => at);
	const rootOf = (at: number): number => (group[at] === at ? at : (group[at] = rootOf(group[at]!)));
	sorted.forEach((one, at) => {
		for (let next = at + 1; next < sorted.length; next++) {
			const other = sorted[next]!;
			if (other.left - one.right > 1.2 * Math.max(highOf(one), highOf(other))) {
				// All further ones lie further off than the highest patch there can be reaches.
				if (other.left - one.right > 400) break;
				continue;
			}
			if (areNeighbours(one, other)) group[rootOf(next)] = rootOf(at);
		}
	});
	const lines = new Map<number, Patch[]>();
	sorted.forEach((patch, at) => lines.set(rootOf(at), [...(lines.get(rootOf(at)) ?? []), patch]));
	return [...lines.values()].filter((line) => isLine(line, height));
}

function areNeighbours(one: Patch, other: Patch): boolean {
	const [a, b] = [highOf(one), highOf(other)];
	const overlap = Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top);
	return (
		Math.max(a, b) < 2.3 * Math.min(a, b) &&
		overlap > 0.5 * Math.min(a, b) &&
		Math.abs(one.tone - other.tone) < 34 &&
		Math.max(one.stroke, other.stroke) < 1.9 * Math.min(one.stroke, other.stroke)
	);
}

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] as number;

function isLine(line: readonly Patch[], height: number): boolean {
	const high = median(line.map(highOf));
	// A few large patches fall into a row by chance sooner than many small ones.
	const isLarge = high > height * LARGE;
	const wide = Math.max(...line.map(({ right }) => right)) - Math.min(...line.map(({ left }) => left));
	// What hangs together from patch to patch but climbs or sinks is no line.
	const reach = Math.max(...line.map(({ bottom }) => bottom)) - Math.min(...line.map(({ top }) => top));
	if (reach > 2.1 * high) return false;
	// Some scripts join their letters: a word is one wide patch then.
	const letters = line.reduce((sum, patch) => sum + (isJoined(patch) ? wideOf(patch) / high / 1.2 : 1), 0);
	if (
		letters < (isLarge ? 6 : 4.5) ||
		line.length < 3 ||
		wide < 2.6 * high ||
		spreadOf(line.map(({ tone }) => tone)) > EVEN
	)
		return false;
	const share = (of: (patch: Patch) => number) => {
		const usual = median(line.map(of));
		return line.filter((patch) => Math.abs(of(patch) - usual) <= Math.max(1, 0.16 * high)).length / line.length;
	};
	return (
		Math.max(
			share(({ bottom }) => bottom),
			share(({ top }) => top)
		) >= (isLarge || line.length < FEW ? 0.74 : 0.62)
	);
}

/** A word in one stroke: wide, thin and open. */
const isJoined = (patch: Patch) =>
	wideOf(patch) > 1.2 * highOf(patch) &&
	patch.stroke < 0.3 * highOf(patch) &&
	patch.area < 0.65 * highOf(patch) * wideOf(patch);

/** A line of text is of one colour: its letters' brightness spreads (standard deviation) no further than this. */
const EVEN = 9;
function spreadOf(values: readonly number[]): number {
	const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
	return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
}

/** Letters higher than this share of the picture are large. */
const LARGE = 0.12;
/** So few patches stand in a row by chance: they must stand in it well. */
const FEW = 5;

function asShares(line: readonly Patch[], { width, height }: GreyPicture): Area {
	const left = Math.min(...line.map((patch) => patch.left));
	const top = Math.min(...line.map((patch) => patch.top));
	const right = Math.max(...line.map((patch) => patch.right));
	const bottom = Math.max(...line.map((patch) => patch.bottom));
	return [left / width, top / height, (right - left) / width, (bottom - top) / height];
}

/** Boxes that mostly overlap, as the same line is found in more than one size, become one. */
function merged(areas: readonly Area[]): Area[] {
	const all: Area[] = [];
	for (const area of [...areas].sort((a, b) => b[2] * b[3] - a[2] * a[3])) {
		const inside = all.findIndex((other) => overlapOf(area, other) > 0.5 * area[2] * area[3]);
		if (inside < 0) all.push(area);
	}
	return all.slice(0, MOST_AREAS);
}
const MOST_AREAS = 24;

function overlapOf(a: Area, b: Area): number {
	const wide = Math.min(a[0] + a[2], b[0] + b[2]) - Math.max(a[0], b[0]);
	const high = Math.min(a[1] + a[3], b[1] + b[3]) - Math.max(a[1], b[1]);
	return wide > 0 && high > 0 ? wide * high : 0;
}
