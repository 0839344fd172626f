import type { Picture } from '../model';
import { cropBox } from '../pictures/crop';
import { fitText, isWrittenToTheLeft, LINE_HEIGHT } from '../pictures/fit';
import { CANVAS, type Box, type PlacedPicture, type Recipe, type WrittenText } from '../pictures/layout';
import { lettersNotDrawn } from '../pictures/letters';
import { keptCopyOf } from '../pictures/shapes';
import { measureText } from '../text/measure';
import { finding, type Finding, type Target } from './finding';

/** Large text must stand out from what is under it at least by this ratio (WCAG 2.2, 1.4.3). */
const LEAST_CONTRAST = 3;
/** Where less than this share of what a text covers is too close in lightness, it can be read all the same. */
const CLOSE_SHARE = 0.25;
/** The part of its box that a text fills is looked at in so many places across and down. */
const [ACROSS, DOWN] = [24, 8];
/** The light of a picture is known in this many cells across, and as many down. */
export const LIGHT_CELLS = 8;
/** So many letters are named. */
const MOST_NAMED = 6;

/**
 * What is weak in a share picture as it is drawn: letters that no font here has, and words too close in lightness to
 * what is under them. `lead` is the page's picture in it, where it has one; what is not known of its light is not held
 * against it. Pure.
 */
export function findInShare(
	recipe: Recipe | undefined,
	lead: Picture | undefined,
	path: string,
	tag = 'og:image'
): Finding[] {
	if (!recipe) return [];
	const target: Target = { of: 'page', path };
	const letters = lettersNotDrawn(recipe.texts.map(({ text }) => text).join(' '));
	const close = recipe.texts.flatMap((text) => {
		const ratio = closest(text, recipe, lead);
		return ratio === undefined ? [] : [{ text: text.text, ratio }];
	});
	const [closestOne] = close.sort((a, b) => a.ratio - b.ratio);
	return [
		...(letters.length > 0 ? [finding('share-letters', target, tag, { letters: letters.slice(0, MOST_NAMED) })] : []),
		...(closestOne ? [finding('share-contrast', target, tag, closestOne)] : [])
	];
}

/** The contrast of a text with the nearest quarter of what is under it, when that is too little. */
function closest(text: WrittenText, recipe: Recipe, lead: Picture | undefined): number | undefined {
	const mine = luminanceOf(text.colour);
	const ratios: number[] = [];
	const area = areaOf(text, recipe.language);
	for (let row = 0; row < DOWN; row++)
		for (let column = 0; column < ACROSS; column++) {
			const x = area.x + (area.width * (column + 0.5)) / ACROSS;
			const y = area.y + (area.height * (row + 0.5)) / DOWN;
			const under = luminanceUnder(x, y, recipe, lead);
			if (under !== undefined) ratios.push((Math.max(mine, under) + 0.05) / (Math.min(mine, under) + 0.05));
		}
	ratios.sort((a, b) => a - b);
	const ratio = ratios[Math.floor(ACROSS * DOWN * CLOSE_SHARE)];
	return ratio !== undefined && ratio < LEAST_CONTRAST ? Math.round(ratio * 10) / 10 : undefined;
}

/** The part of its box that a text fills, by the widths of the measuring font. */
function areaOf(text: WrittenText, language: string): Box {
	const { size, lines } = fitText(text.text, text, language, measureText);
	const width = Math.min(text.width, Math.max(...lines.map((line) => measureText(line, size))));
	const height = Math.min(text.height, lines.length * size * LINE_HEIGHT);
	const [rest, below] = [text.width - width, text.height - height];
	const isLeft = (text.align === 'start') !== isWrittenToTheLeft(language);
	return {
		...{ width, height },
		x: text.x + (text.align === 'middle' ? rest / 2 : isLeft ? 0 : rest),
		y: text.y + (text.stand === 'top' ? 0 : text.stand === 'middle' ? below / 2 : below)
	};
}

/** The relative luminance of what is drawn at a point before the words; undefined where it is not known. */
function luminanceUnder(x: number, y: number, recipe: Recipe, lead: Picture | undefined): number | undefined {
	const { picture, background } = recipe;
	if (picture && isIn(picture, x, y)) return luminanceInPicture(x, y, picture, lead);
	if (background.kind === 'colour') return luminanceOf(background.colour);
	const turn = (background.angle * Math.PI) / 180;
	const [dx, dy] = [Math.sin(turn), -Math.cos(turn)];
	const length = Math.abs(CANVAS.width * dx) + Math.abs(CANVAS.height * dy);
	const share = ((x - CANVAS.width / 2) * dx + (y - CANVAS.height / 2) * dy) / length + 0.5;
	return luminanceOf(background.from, background.to, share);
}

const isIn = (box: Box, x: number, y: number) =>
	x >= box.x && x < box.x + box.width && y >= box.y && y < box.y + box.height;

function luminanceInPicture(x: number, y: number, placed: PlacedPicture, lead: Picture | undefined) {
	const kept = lead && keptCopyOf(lead);
	if (!lead?.light || !kept) return undefined;
	const { width, height } = kept;
	const from = cropBox(width, height, placed.width / placed.height, placed.focus, placed.zoom);
	const column = cellOf(from.left + ((x - placed.x) / placed.width) * from.width, width);
	const row = cellOf(from.top + ((y - placed.y) / placed.height) * from.height, height);
	const at = 2 * (row * LIGHT_CELLS + column);
	const grey = Number.parseInt(lead.light.slice(at, at + 2), 16);
	// The tint lies over it as screens mix colours: before they are made linear.
	return linear(grey * (1 - placed.strength) + greyOf(luminanceOf(placed.tint)) * placed.strength);
}

const cellOf = (at: number, side: number) =>
	Math.min(LIGHT_CELLS - 1, Math.max(0, Math.floor((at / side) * LIGHT_CELLS)));

/** sRGB's curve (IEC 61966-2-1), from 0 to 255 to a linear share, and back. */
export const linear = (value: number) => {
	const share = value / 255;
	return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
};
export const greyOf = (share: number) =>
	255 * (share <= 0.0031308 ? share * 12.92 : 1.055 * share ** (1 / 2.4) - 0.055);

/** The relative luminance of a colour `#rrggbb`, from 0 to 1 (WCAG 2.2), or of a mixture of two as screens mix them. */
export function luminanceOf(colour: string, other = colour, share = 0): number {
	const part = (of: string, at: number) => Number.parseInt(of.slice(at, at + 2), 16);
	const at = (place: number) => linear(part(colour, place) * (1 - share) + part(other, place) * share);
	const [red, green, blue] = [at(1), at(3), at(5)];
	return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}
