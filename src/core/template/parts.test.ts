import { describe, expect, test } from 'vitest';
import { templateParts, Resolver, type Page } from '../index';

const resolver = new Resolver(
	{
		site: { name: 'Site', base: 'https://site.example/', languages: ['en'], separator: '|', fields: {}, rules: [] },
		types: [],
		pictures: []
	},
	''
);
const page: Page = { path: '/a', type: '', state: 'live', fields: { title: 'Tide' }, rules: [] };
const pieces = (source: string) =>
	templateParts(source, resolver.evaluate(page)).map(({ kind, text, gone }) => `${gone ? 'gone ' : ''}${kind}:${text}`);

describe('a template taken apart', () => {
	test.each([
		['{page.title} {separator} {site.name}', ['value:Tide', 'text: ', 'separator: | ', 'text: ', 'value:Site']],
		['{page.title} in {page.region}', ['value:Tide', 'text: in ', 'gap:']],
		['{page.title}[[ in {page.region}]]', ['value:Tide', 'gone text: in ', 'gone gap:']],
		['[[a {page.title}[[ b {page.x}]]]]', ['text:a ', 'value:Tide', 'gone text: b ', 'gone gap:']],
		['{page.x ?? page.title | case "upper"}', ['value:TIDE']],
		['', []],
		['{page.title', []]
	])('%s', (source, expected) => {
		expect(pieces(source)).toEqual(expected);
	});

	test('each part knows its place in the source and the variables it asks for', () => {
		const source = 'At {page.place ?? page.title}!';
		const [before, value, after] = templateParts(source, resolver.evaluate(page));
		expect(source.slice(value!.start, value!.end)).toBe('{page.place ?? page.title}');
		expect(value!.names).toEqual(['page.place', 'page.title']);
		expect([before!.text, after!.text]).toEqual(['At ', '!']);
	});
});
