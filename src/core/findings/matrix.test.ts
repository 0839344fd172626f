import { expect, test } from 'vitest';
import { TAG_NAMES } from '../catalogue/catalogue';
import { MATRIX_TAGS, TITLE_CUTS } from './matrix';

test('the tags that are counted are called as heads call them', () => {
	expect(MATRIX_TAGS.filter((tag) => !TAG_NAMES.includes(tag))).toEqual([]);
	expect(MATRIX_TAGS).not.toContain('keywords');
});

test('the readers that measure are in the order of their cuts', () => {
	const ems = TITLE_CUTS.map((cut) => cut.ems);
	expect(ems.length).toBeGreaterThan(1);
	expect(ems).toEqual([...ems].sort((a, b) => a - b));
});
