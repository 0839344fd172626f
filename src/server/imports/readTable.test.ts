import { describe, expect, test } from 'vitest';
import { guessMapping, pagesOfTable, readTable } from './readTable';

describe('reading a table', () => {
	test.each([
		['comma', 'path,title\n/a,One\n/b,"Two, too"'],
		['semicolon', '\uFEFFpath;title\r\n/a;One\r\n/b;"Two, too"\r\n'],
		['tab', 'path\ttitle\n/a\tOne\n/b\tTwo, too'],
		['JSON', '[{"path":"/a","title":"One"},{"path":"/b","title":"Two, too"}]'],
		['JSON in an envelope', '{"items":[{"path":"/a","title":"One"},{"path":"/b","title":"Two, too"}]}']
	])('%s', (_, text) => {
		const { columns, rows } = readTable(text);
		expect(columns).toEqual(['path', 'title']);
		expect(rows).toEqual([
			{ path: '/a', title: 'One' },
			{ path: '/b', title: 'Two, too' }
		]);
	});
	test.each([
		['', /no rows/],
		['path,title\n', /no rows/],
		['[1, 2]', /Entry 1 .* no record/],
		['{"a": 1}', /no list of records/],
		['[{"a": ]', /cannot be read as JSON/],
		['a,b\n1,2,3\n', /cannot be read as CSV/]
	])('%j is refused', (text, why) => {
		expect(() => readTable(text)).toThrow(why);
	});
});

describe('columns and pages', () => {
	test('what columns probably mean; a field is guessed once', () => {
		expect(guessMapping(['URL', 'Headline', 'Name', 'Teaser', 'Opening hours', 'photo'])).toEqual({
			URL: 'path',
			Headline: 'title',
			Name: 'name',
			Teaser: 'summary',
			'Opening hours': 'opening_hours',
			photo: 'picture'
		});
	});
	test('rows become pages; those without a place, elsewhere, or twice are left out with their line', () => {
		const table = readTable(
			'url,title,photo,by,tags,skip\n/a,One,/p.jpg,Isla,"x, y",1\nhttps://site.example/b?x=1,Two,,,,\nhttps://other.example/c,Three,,,,\n,Four,,,,\n/a,Five,,,,\nd e,Six,,,,'
		);
		const mapping = { url: 'path', title: 'title', photo: 'picture', by: 'author', tags: 'tags', skip: '' };
		const { pages, skipped } = pagesOfTable(table, mapping, 'note', 'https://site.example/');
		expect(pages).toEqual([
			{
				path: '/a',
				type: 'note',
				state: 'live',
				fields: { title: 'One', picture: { src: '/p.jpg' }, author: { name: 'Isla' }, tags: ['x', 'y'] },
				rules: []
			},
			{ path: '/b?x=1', type: 'note', state: 'live', fields: { title: 'Two' }, rules: [] }
		]);
		expect(skipped.map(({ row }) => row)).toEqual([4, 5, 6, 7]);
		expect(skipped[2]!.why).toBe('/a stands in row 2 already');
	});
	test('without a column for the path nothing is read', () => {
		expect(() => pagesOfTable(readTable('title\nOne'), { title: 'title' }, 'x', 'https://s.example/')).toThrow(
			/No column gives the path/
		);
	});
});
