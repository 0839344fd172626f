import { createHash } from 'node:crypto';
import { expect, test } from 'vitest';
import { CANVAS, CUT_VERSION, MOST_BYTES, RECIPE_VERSION, SHAPES } from '$core';
import { COLOURS, PLAY_SHAPES, QUALITIES, SAFE_SHARE } from './cuts';
import { QUALITY } from './draw';

const digest = (of: unknown) => createHash('sha256').update(JSON.stringify(of)).digest('hex').slice(0, 12);

/**
 * What is written under a name is served under it for ever. When this fails, what is written has changed: count the
 * version up, and note here what it stands for from then on.
 */
test('each version of cuts and share pictures stands for one way of writing them', () => {
	expect([CUT_VERSION, digest({ SHAPES, QUALITIES, COLOURS, PLAY_SHAPES, SAFE_SHARE, MOST_BYTES })]).toEqual([
		1,
		'44d78c837071'
	]);
	expect([RECIPE_VERSION, digest({ CANVAS, QUALITY })]).toEqual([2, '148b77a71373']);
});
