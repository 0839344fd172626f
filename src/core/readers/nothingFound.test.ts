import { expect, test } from 'vitest';
import { nothingFound, READERS } from '../index';

/** Said only of what was looked at: by none, by some, by all without their picture, by all. */
const reader = READERS[0]!.id;
const other = READERS[1]!.id;
const card = { picture: { address: 'https://s.example/p.jpg' } };
test.each([
	['nobody', { readers: [], picture: undefined }, 'No reader looked at it.'],
	[
		'none that came through',
		{ readers: [{ reader }, { reader: other }], picture: undefined },
		`No fault was found, but not all could be looked at: no card in ${READERS[0]!.name}, ${READERS[1]!.name}.`
	],
	[
		'half of them',
		{ readers: [{ reader, card }, { reader: other }], picture: { facts: {} } },
		`No fault was found, but not all could be looked at: no card in ${READERS[1]!.name}.`
	],
	[
		'all, whose picture did not come',
		{ readers: [{ reader, card }], picture: { facts: null } },
		'No fault was found in the tags; the picture could not be looked at.'
	],
	[
		'all, whose picture nobody asked for',
		{ readers: [{ reader, card }], picture: undefined },
		'No fault was found in the tags; the picture could not be looked at.'
	],
	[
		'all, but for one of its pictures',
		{ readers: [{ reader, card }], picture: { facts: {} }, unseen: 1 },
		'No fault was found, but one of its pictures was not looked at.'
	],
	[
		'all, but for some of its pictures',
		{ readers: [{ reader, card }], picture: { facts: {} }, unseen: 3 },
		'No fault was found, but 3 of its pictures were not looked at.'
	],
	['all', { readers: [{ reader, card }], picture: { facts: {} } }, 'Nothing is wrong with what is served.'],
	[
		'all, of a page without a picture',
		{ readers: [{ reader, card: {} }], picture: undefined },
		'Nothing is wrong with what is served.'
	]
])('seen by %s', (_, looked, says) => expect(nothingFound({ unseen: 0, ...looked })).toBe(says));
