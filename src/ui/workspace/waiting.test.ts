import { expect, test } from 'vitest';
import { addressOfEdit, editNamed, editSays } from './waiting';
import type { AnyEdit } from '$core';

/** Every kind of edit has a name, says what it would say, and leads to where it stands. */
const type = { layer: 'type', name: 'isle' } as const;
const page = { layer: 'page', path: '/a b' } as const;
const title = (body: unknown, language?: string) =>
	({ place: type, tag: 'title', ...(language && { language }), body }) as AnyEdit;

test.each<[AnyEdit, string, string, string]>([
	[
		title({ kind: 'template', template: '{page.title}' }, 'fr'),
		'title of every isle, in French',
		'{page.title}',
		'/bench/S%20T?type=isle&tag=title'
	],
	[title(null), 'title of every isle', 'nothing of its own any more', '/bench/S%20T?type=isle&tag=title'],
	[
		title({ kind: 'borrow', from: 'og:title' }),
		'title of every isle',
		'the same as og:title',
		'/bench/S%20T?type=isle&tag=title'
	],
	[
		{ place: { layer: 'site' }, tag: 'og:image', body: { kind: 'leaveOut' } },
		'og:image of the whole site',
		'left out',
		'/bench/S%20T?tag=og%3Aimage'
	],
	[
		{ place: page, tag: 'og:image', body: { kind: 'pictures', sources: [] } } as AnyEdit,
		'og:image of /a b',
		'sources of pictures',
		'/bench/S%20T?page=%2Fa+b&tag=og%3Aimage'
	],
	[
		{ place: type, changes: { off: true, label: null, fields: [1, 2], picture: { src: 'a' } } } as unknown as AnyEdit,
		'Settings of every isle',
		'off: yes · label: as usual · fields: 2 · picture: changed',
		'/bench/S%20T?type=isle&at=type'
	],
	[
		{ place: page, changes: { state: 'draft' } } as AnyEdit,
		'Settings of /a b',
		'state: draft',
		'/bench/S%20T?page=%2Fa+b&at=page'
	],
	[
		{ place: { layer: 'picture', src: 'media/x/cliff.jpg' }, changes: { alt: 'A cliff' } } as AnyEdit,
		'Settings of the picture cliff.jpg',
		'alt: A cliff',
		'/library/S%20T'
	]
])('%j', (edit, named, says, address) => {
	expect([editNamed(edit), editSays(edit), addressOfEdit('S T', edit)]).toEqual([named, says, address]);
});
