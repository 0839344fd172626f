import { sharp } from '../files/sharp';
import { greyOf, LIGHT_CELLS, linear, type Area, type Picture } from '$core';
import { findFaces } from './findFaces';
import { findText } from './findText';

/** Looked at in this width, in pixels. */
const LOOKED_AT = 640;
/** A picture whose pixels are of this few colours, nearly all of them, is drawn and not seen. */
const FEW_COLOURS = 4;
/** Larger pictures (pixels, the longer side) are no logos, however plain. */
const LARGEST_LOGO = 600;

/**
 * What can be told of a picture from its pixels: where it seems to hold text and faces, whether it looks like a logo.
 * Estimates; how good they are is measured on pictures drawn for it. Nothing is said of what is not found.
 */
export async function looksOf(file: Buffer): Promise<Pick<Picture, 'text' | 'faces' | 'light' | 'plain' | 'focus'>> {
	const { data, info } = await sharp(file)
		.resize({ width: LOOKED_AT, withoutEnlargement: true })
		.flatten({ background: '#808080' })
		.raw()
		.toBuffer({ resolveWithObject: true });
	const colour = { data: toThree(data, info.channels), width: info.width, height: info.height };
	const text = findText({ ...colour, data: greysOf(colour.data) });
	const faces = findFaces(colour);
	const { width = 0, height = 0, hasAlpha } = await sharp(file).metadata();
	const isPlain = coloursIn(colour.data) <= FEW_COLOURS && (Math.max(width, height) <= LARGEST_LOGO || hasAlpha);
	return {
		light: lightOf(colour),
		...(text.length > 0 && { text: text.map(rounded) }),
		...(faces.length > 0 && { faces: faces.map(rounded), focus: middleOf(faces[0] as Area) }),
		...(isPlain && { plain: true })
	};
}

/** How light it is in each cell: the grey that sends out as much light. */
function lightOf({ data, width, height }: { data: Uint8Array; width: number; height: number }): string {
	const sums = new Float64Array(LIGHT_CELLS ** 2);
	const counts = new Uint32Array(LIGHT_CELLS ** 2);
	for (let y = 0, at = 0; y < height; y++) {
		const row = Math.floor((y * LIGHT_CELLS) / height) * LIGHT_CELLS;
		for (let x = 0; x < width; x++, at += 3) {
			const cell = row + Math.floor((x * LIGHT_CELLS) / width);
			sums[cell]! += 0.2126 * LINEAR[data[at]!]! + 0.7152 * LINEAR[data[at + 1]!]! + 0.0722 * LINEAR[data[at + 2]!]!;
			counts[cell]!++;
		}
	}
	// A picture with fewer pixels than cells leaves some to their neighbours.
	let last = 0;
	return [...sums]
		.map((sum, cell) => (last = counts[cell]! > 0 ? sum / counts[cell]! : last))
		.map((light) => Math.round(greyOf(light)).toString(16).padStart(2, '0'))
		.join('');
}
const LINEAR = Float64Array.from({ length: 256 }, (_, value) => linear(value));

function toThree(data: Buffer, channels: number): Uint8Array {
	if (channels === 3) return data;
	const three = new Uint8Array((data.length / channels) * 3);
	for (let from = 0, to = 0; from < data.length; from += channels, to += 3)
		for (let at = 0; at < 3; at++) three[to + at] = data[from + (channels < 3 ? 0 : at)]!;
	return three;
}

function greysOf(data: Uint8Array): Uint8Array {
	const grey = new Uint8Array(data.length / 3);
	for (let at = 0; at < grey.length; at++)
		grey[at] = (data[3 * at]! * 77 + data[3 * at + 1]! * 150 + data[3 * at + 2]! * 29) >> 8;
	return grey;
}

/** How many colours, told apart coarsely, make up nearly all of a picture. */
function coloursIn(data: Uint8Array): number {
	const counts = new Map<number, number>();
	for (let at = 0; at < data.length; at += 3) {
		const key = ((data[at]! >> 5) << 6) | ((data[at + 1]! >> 5) << 3) | (data[at + 2]! >> 5);
		counts.set(key, (counts.get(key) ?? 0) + 1);
	}
	let [left, colours] = [(data.length / 3) * 0.96, 0];
	for (const count of [...counts.values()].sort((a, b) => b - a)) {
		if (left <= 0) break;
		left -= count;
		colours++;
	}
	return colours;
}

const thousandths = (share: number) => Math.round(Math.min(1, Math.max(0, share)) * 1000) / 1000;
const rounded = (area: Area): Area => area.map(thousandths) as unknown as Area;
const middleOf = ([left, top, width, height]: Area): [number, number] => [
	thousandths(left + width / 2),
	thousandths(top + height / 2)
];
