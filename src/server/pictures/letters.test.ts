import { create, type Font as FontFile } from 'fontkit';
import { beforeAll, describe, expect, test } from 'vitest';
import { lettersNotDrawn, recipeOf, STARTING_LAYOUTS } from '$core';
import { drawShare } from './draw';
import { registerFonts } from './fonts';

/** What the core says can be drawn is held to the letters that the fonts have. */
const known = new Set<number>();
beforeAll(() => {
	registerFonts((bytes) => {
		for (const code of (create(bytes) as FontFile).characterSet) known.add(code);
	});
});
const isKnown = (letter: string) => known.has(letter.codePointAt(0) as number);

describe('letters of living languages', () => {
	test.each([
		['Latin', 'ABCXYZabcxyzÀÉÎÕÜßæœøåąćđěğıłńőřşťůžÞðẽộữḥṭ'],
		['Greek', 'ΑΒΓΔΩαβγδωάέήίόύώς'],
		['Cyrillic', 'АБВЯабвяёђѓєіїјљњћўџґқңөү'],
		['Arabic', 'ابتثجحخدذرزسشصضطظعغفقكلمنهويپچژگ'],
		['Hebrew', 'אבגדהוזחטיכלמנסעפצקרשת'],
		['Devanagari', 'अआइईउऊएकखगघचजटतनपमयरलवशसह'],
		['Kana', 'あいうえおかさたなはまやらわんアイウエオカサタナハマヤラワンー'],
		['Han', '日本語山川海湿地潮小屋満中学校'],
		['signs', '0123456789.,;:!?…–—“”‘’«»()[]/&@#%+=€£¥©®™°·•、。「」']
	])('%s', (_script, letters) => {
		expect(lettersNotDrawn(letters)).toEqual([]);
		expect([...letters].filter((letter) => !isKnown(letter))).toEqual([]);
	});
	test.each([
		['Thai', 'กขคงจ'],
		['Hangul', '한글가나'],
		['Tamil', 'அஆஇ'],
		['Georgian', 'აბგ'],
		['simplified Han', '们这说对'],
		['emoji', '😀🎣🦀'],
		['narrow katakana', 'ｱｲｳ']
	])('%s: none here has them', (_script, letters) => {
		expect(lettersNotDrawn(`Marsh ${letters}`)).toEqual([...letters]);
		expect([...letters].filter(isKnown)).toEqual([]);
	});
});

test('every ideograph that a font has, and no other', () => {
	const all = Array.from({ length: 0x5200 }, (_, at) => String.fromCodePoint(0x4e00 + at));
	const missing = new Set(lettersNotDrawn(all.join('')));
	expect(all.filter((letter) => missing.has(letter) === isKnown(letter))).toEqual([]);
});

test('a letter that no font has is drawn alike on every machine, and the recipe has a version of its own', async () => {
	const { layout } = STARTING_LAYOUTS[0]!;
	const recipe = (title: string) =>
		recipeOf(layout, undefined, { title, line: '', language: 'en', picture: undefined, logo: undefined, play: false });
	const draw = (title: string) => drawShare(recipe(title), () => undefined);
	expect(recipe('Marsh').version).toBe(1);
	expect(recipe('Marsh ก').version).toBe(2);
	expect((await draw('Marsh ก')).equals(await draw('Marsh ა'))).toBe(true);
	expect((await draw('Marsh ก')).equals(await draw('Marsh 〓'))).toBe(true);
	expect((await draw('Marsh ก')).equals(await draw('Marsh'))).toBe(false);
});
