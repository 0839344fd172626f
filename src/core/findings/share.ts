import type { Picture } from '../model';
import { cropBox } from '../pictures/crop';
import { fitText, isWrittenToTheLeft, LINE_HEIGHT } from '../pictures/fit';
import { CANVAS, gradientLine, type Box, type PlacedPicture, type Recipe, type WrittenText } from '../pictures/layout';
import { lettersNotDrawn } from '../pictures/letters';
import { greyOf, LIGHT_CELLS, lightAlong, linear, luminanceOf } from '../pictures/light';
import { keptCopyOf } from '../pictures/shapes';
import { measureText } from '../text/measure';
import { finding, type Finding, type Target } from './finding';

/** Large text must stand out from what is under it at least by this ratio (WCAG 2.2, 1.4.3). */
const LEAST_CONTRAST = 3;
/** Where less than this share of what a text covers is too close in lightness, it can be read all the same. */
const CLOSE_SHARE = 0.25;
/** The part of its box that a text fills is looked at in so many places across and down. */
const [ACROSS, DOWN] = [24, 8];
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
	const under = lightUnder(recipe, lead);
	const close = recipe.texts.flatMap((text) => {
		const ratio = closest(text, recipe.language, under);
		return ratio === undefined ? [] : [{ text: text.text, ratio }];
	});
	const [closestOne] = close.sort((a, b) => a.ratio - b.ratio);
	return [
		...(letters.length > 0 ? [finding('share-letters', target, tag, { letters: letters.slice(0, MOST_NAMED) })] : []),
		...(closestOne ? [finding('share-contrast', target, tag, closestOne)] : [])
	];
}

/** The contrast of a text with the nearest quarter of what is under it, when that is too little. */
function closest(text: WrittenText, language: string, lightAt: Light): number | undefined {
	const mine = luminanceOf(text.colour);
	const tooClose: number[] = [];
	const area = areaOf(text, language);
	for (let row = 0; row < DOWN; row++)
		for (let column = 0; column < ACROSS; column++) {
			const x = area.x + (area.width * (column + 0.5)) / ACROSS;
			const y = area.y + (area.height * (row + 0.5)) / DOWN;
			const under = lightAt(x, y);
			if (under === undefined) continue;
			const ratio = (Math.max(mine, under) + 0.05) / (Math.min(mine, under) + 0.05);
			if (ratio < LEAST_CONTRAST) tooClose.push(ratio);
		}
	const ratio = tooClose.sort((a, b) => a - b)[Math.floor(ACROSS * DOWN * CLOSE_SHARE)];
	return ratio === undefined ? undefined : Math.round(ratio * 10) / 10;
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

type Light = (x: number, y: number) => number | undefined;

/** The relative luminance of what is drawn before the words, by the point; undefined where it is not known. */
function lightUnder({ picture, background }: Recipe, lead: Picture | undefined): Light {
	const behind = lightOfBackground(background);
	const inside = picture && lightOfPicture(picture, lead);
	return (x, y) => (picture && inside && isIn(picture, x, y) ? inside(x, y) : behind(x, y));
}

function lightOfBackground(background: Recipe['background']): Light {
	if (background.kind === 'colour') {
		const light = luminanceOf(background.colour);
		return () => light;
	}
	const { x: dx, y: dy, length } = gradientLine(background.angle);
	const light = lightAlong(background.from, background.to);
	return (x, y) => light(((x - CANVAS.width / 2) * dx + (y - CANVAS.height / 2) * dy) / length + 0.5);
}

const isIn = (box: Box, x: number, y: number) =>
	x >= box.x && x < box.x + box.width && y >= box.y && y < box.y + box.height;

function lightOfPicture(placed: PlacedPicture, lead: Picture | undefined): Light {
	const kept = lead && keptCopyOf(lead);
	if (!lead?.light || !kept) return () => undefined;
	const { width, height } = kept;
	const from = cropBox(width, height, placed.width / placed.height, placed.focus, placed.zoom);
	// The tint lies over it as screens mix colours: before they are made linear.
	const tint = greyOf(luminanceOf(placed.tint)) * placed.strength;
	const cells = (lead.light.match(/../g) ?? []).map((grey) =>
		linear(Number.parseInt(grey, 16) * (1 - placed.strength) + tint)
	);
	return (x, y) => {
		const column = cellOf(from.left + ((x - placed.x) / placed.width) * from.width, width);
		const row = cellOf(from.top + ((y - placed.y) / placed.height) * from.height, height);
		return cells[row * LIGHT_CELLS + column];
	};
}

const cellOf = (at: number, side: number) =>
	Math.min(LIGHT_CELLS - 1, Math.max(0, Math.floor((at / side) * LIGHT_CELLS)));
