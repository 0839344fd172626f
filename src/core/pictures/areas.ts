import type { Area } from '../model';

/** The share of a picture that boxes cover together, from 0 to 1; where they overlap it counts once. */
export function coverOf(areas: readonly Area[]): number {
	const edges = [...new Set(areas.flatMap(([left, , width]) => [left, left + width]))].sort((a, b) => a - b);
	let sum = 0;
	for (let at = 0; at + 1 < edges.length; at++) {
		const [left, right] = [edges[at] as number, edges[at + 1] as number];
		const spans = areas
			.filter((area) => area[0] <= left && area[0] + area[2] >= right)
			.map(([, top, , height]) => [top, top + height] as const)
			.sort((a, b) => a[0] - b[0]);
		let [reached, covered] = [-Infinity, 0];
		for (const [top, bottom] of spans) {
			covered += Math.max(0, bottom - Math.max(top, reached));
			reached = Math.max(reached, bottom);
		}
		sum += covered * (right - left);
	}
	return sum;
}

/** Whether an edge of a box (both as shares of the picture) goes through an area, leaving part of it out. */
export function isCutBy([left, top, width, height]: Area, box: Area): boolean {
	const inside = (from: number, to: number, least: number, most: number) =>
		Math.max(0, Math.min(to, most) - Math.max(from, least));
	const shown =
		inside(left, left + width, box[0], box[0] + box[2]) * inside(top, top + height, box[1], box[1] + box[3]);
	const share = shown / (width * height);
	return share > EDGE && share < 1 - EDGE;
}
/** What is cut by less than this is not worth a word. */
const EDGE = 0.03;
