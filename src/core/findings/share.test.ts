import { describe, expect, test } from 'vitest';
import type { Picture } from '../model';
import { recipeOf, type Recipe, type ShareLayout } from '../pictures/layout';
import { describeFinding, describeMend } from './finding';
import { greyOf, lightAlong, luminanceOf } from '../pictures/light';
import { findInShare } from './share';

const text = { x: 60, y: 60, width: 800, height: 200, template: '', size: 80, least: 40, weight: 600 } as const;
const layout = (colour: string, more: Partial<ShareLayout> = {}): ShareLayout => ({
	background: { kind: 'colour', colour: '#ffffff' },
	title: { ...text, font: 'title', colour, align: 'start', stand: 'top' },
	...more
});
const whole = { x: 0, y: 0, width: 1200, height: 630 };
const file = `${'a'.repeat(24)}.jpg`;
const drawn = (made: ShareLayout, title = 'The marsh', hasPicture = false): Recipe =>
	recipeOf(made, undefined, {
		...{ title, line: '', language: 'en', logo: undefined, play: false },
		picture: hasPicture ? { file, focus: [0.5, 0.5], zoom: 1 } : undefined
	});
/** A picture of 1200 by 630 that is dark above and light below. */
const lead = (light: string): Picture => ({ src: `/media/${file}`, width: 1200, height: 630, light });
const halves = '10'.repeat(32) + 'f0'.repeat(32);
const codes = (recipe: Recipe | undefined, picture?: Picture) =>
	findInShare(recipe, picture, '/marsh').map((found) => found.code);

test('none drawn, nothing found', () => {
	expect(codes(undefined)).toEqual([]);
});

describe('letters', () => {
	test('those that no font has are named, a few of them', () => {
		const [found] = findInShare(drawn(layout('#000000'), 'กขคงจฉชซ'), undefined, '/marsh');
		expect(found).toMatchObject({ code: 'share-letters', tag: 'og:image', target: { of: 'page', path: '/marsh' } });
		expect(describeFinding(found!)).toBe('Its share picture has letters that no font here can draw: ก ข ค ง จ ฉ');
	});
});

describe('contrast', () => {
	test('on a colour', () => {
		expect(codes(drawn(layout('#000000')))).toEqual([]);
		const [found] = findInShare(drawn(layout('#bbbbbb')), undefined, '/marsh');
		expect(found).toMatchObject({ code: 'share-contrast', data: { text: 'The marsh', ratio: 1.9 } });
		expect(describeMend(found!)).toContain('tint');
	});
	test('3 to 1 is enough: WCAG’s own grey on white is 4.54', () => {
		expect(codes(drawn(layout('#767676')))).toEqual([]);
		expect(codes(drawn(layout('#949494')))).toEqual([]);
		expect(codes(drawn(layout('#959595')))).toEqual(['share-contrast']);
	});
	test('along a gradient, where the words stand', () => {
		const gradient = (angle: number) =>
			layout('#000000', { background: { kind: 'gradient', from: '#ffffff', to: '#000000', angle } });
		// From the top, where the words are, to the bottom; and the other way round.
		expect(codes(drawn(gradient(180)))).toEqual([]);
		expect(codes(drawn(gradient(0)))).toEqual(['share-contrast']);
	});
	test('on a picture, by its light where the words stand', () => {
		const white = layout('#ffffff', { picture: { ...whole, tint: '#000000', strength: 0 } });
		expect(codes(drawn(white, 'The marsh', true), lead(halves))).toEqual([]);
		const below = { ...white, title: { ...white.title, y: 400 } };
		expect(codes(drawn(below, 'The marsh', true), lead(halves))).toEqual(['share-contrast']);
		// A tint that is strong enough mends it.
		const tinted = { ...below, picture: { ...whole, tint: '#000000', strength: 0.7 } };
		expect(codes(drawn(tinted, 'The marsh', true), lead(halves))).toEqual([]);
	});
	test('under the words alone, wherever they stand in their box', () => {
		const white = layout('#ffffff', { picture: { ...whole, tint: '#000000', strength: 0 } });
		const over = (change: object, language = 'en') =>
			codes(
				{ ...drawn({ ...white, title: { ...white.title, ...change } }, 'Marsh', true), language },
				// Dark at the left and above, light elsewhere.
				lead(('10'.repeat(3) + 'f0'.repeat(5)).repeat(4) + 'f0'.repeat(32))
			);
		const box = { x: 0, y: 0, width: 1200, height: 630 };
		expect(over(box)).toEqual([]);
		expect(over({ ...box, stand: 'bottom' })).toEqual(['share-contrast']);
		expect(over({ ...box, align: 'end' })).toEqual(['share-contrast']);
		expect(over({ ...box, align: 'middle' })).toEqual(['share-contrast']);
		// Arabic begins at the right.
		expect(over(box, 'ar')).toEqual(['share-contrast']);
		expect(over({ ...box, align: 'end' }, 'ar')).toEqual([]);
	});
	test('what is not known of a picture is not held against it', () => {
		const white = layout('#ffffff', { picture: { ...whole, tint: '#000000', strength: 0 } });
		const { light: _light, ...unknown } = lead(halves);
		expect(codes(drawn(white, 'The marsh', true), unknown)).toEqual([]);
	});
	test('the part of a picture that is cut out is the one that counts', () => {
		// A tall picture, light but for a dark band in its middle, which is what a wide cut shows.
		const band = 'f0'.repeat(24) + '10'.repeat(16) + 'f0'.repeat(24);
		const tall: Picture = { ...lead(band), width: 1200, height: 2520 };
		const white = layout('#ffffff', { picture: { ...whole, tint: '#000000', strength: 0 } });
		expect(codes(drawn(white, 'The marsh', true), tall)).toEqual([]);
	});
});

test('lightness as WCAG reckons it', () => {
	expect(luminanceOf('#ffffff')).toBeCloseTo(1, 6);
	for (const [from, to] of [
		['#000000', '#ffffff'],
		['#c03020', '#1020f0'],
		['#ffee00', '#00ff44']
	] as const)
		for (let share = 0; share <= 1; share += 1 / 700)
			expect(lightAlong(from, to)(share)).toBeCloseTo(luminanceOf(from, to, share), 4);
	expect(lightAlong('#000000', '#ffffff')(-0.2)).toBe(0);
	expect(lightAlong('#000000', '#ffffff')(1.2)).toBeCloseTo(1, 6);
	expect(luminanceOf('#000000')).toBe(0);
	expect(luminanceOf('#ff0000')).toBeCloseTo(0.2126, 6);
	expect(greyOf(luminanceOf('#777777'))).toBeCloseTo(0x77, 6);
	expect(greyOf(0.001)).toBeCloseTo(255 * 0.01292, 6);
});
