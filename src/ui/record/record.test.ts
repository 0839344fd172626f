import { describe, expect, test } from 'vitest';
import { editInWords } from './record';

describe('an edit in words', () => {
	test.each([
		[
			'rule',
			{
				place: { layer: 'type', name: 'walk' },
				tag: 'title',
				before: null,
				after: { kind: 'template', template: 'A' }
			},
			'title at the type “walk”: nothing became “A”'
		],
		[
			'rule',
			{
				place: { layer: 'site' },
				tag: 'og:title',
				language: 'fr',
				before: { kind: 'borrow', from: 'title' },
				after: { kind: 'leaveOut' }
			},
			'og:title (fr) at the site: the same as title became left out'
		],
		[
			'settings',
			{ place: { layer: 'page', path: '/a' }, after: { key: true, path: '/b' } },
			'Settings of /a: key, path'
		],
		['page', { do: 'copy', path: '/a', to: '/b' }, '/a was copied to /b'],
		['page', { do: 'home', path: '/a' }, '/a became the home page'],
		['type', { name: 'walk', set: 'article' }, 'The type “walk”: the set “article”'],
		['picture', { src: '/media/x.jpg', do: 'remove' }, 'A picture was taken out of the library'],
		['import', { from: 'folder', pages: 1200 }, '1,200 pages were read in from a folder'],
		['back', { of: 'page', do: 'remove', path: '/a' }, 'Taken back: /a was taken away'],
		['again', { of: 'page', do: 'add', path: '/a' }, 'Done again: /a was added'],
		['batch', null, 'Several things were changed at once'],
		['batch', { action: { do: 'text', tag: 'title' } }, 'title was changed on many pages'],
		['batch', { action: { do: 'text', tag: 'title' }, pages: 1200 }, 'title was changed on 1,200 pages'],
		['batch', { action: { do: 'text', tag: 'title' }, pages: 1, path: '/a' }, 'title was changed on /a'],
		['batch', { action: { do: 'rule', tag: 'several' }, pages: 2 }, 'Several tags were changed on 2 pages'],
		['batch', { action: { do: 'key', on: true } }, 'The mark as key page was changed on many pages'],
		['aside', { do: 'set-aside', code: 'cut', reason: 'so be it' }, 'The finding cut was set aside: “so be it”'],
		['aside', { do: 'take-up', code: 'cut' }, 'The finding cut is told again'],
		['picture', { do: 'gather', pictures: 40 }, '40 pictures of the site’s folder were taken in']
	])('%s %j', (kind, what, words) => {
		expect(editInWords({ kind, what })).toBe(words);
	});
});
