import { describe, expect, test } from 'vitest';
import { checkTemplate, FILTERS } from '$core';
import { filterCall, filterOffers, offersAfter, spotAt, variableOffers } from './offers';

const isName = (name: string) => ['page.title', 'page.picture', 'page.region'].includes(name);

describe('where the caret stands', () => {
	test.each([
		['{', 'name', 0],
		['a {pa', 'name', 2],
		['{page.title', 'after', 0],
		['{page.title ', 'after', 1],
		['{page.title |', 'filter', 0],
		['{page.title | cl', 'filter', 2],
		['{page.title ?? pa', 'name', 2],
		['{page.title ?? ', 'name', 0]
	])('%s', (text, kind, back) => {
		expect(spotAt(text, text.length, isName)).toMatchObject({ kind, from: text.length - back });
	});

	test.each(['plain', '{page.title}', '\\{pa', '{page.title ?? "te', '{page.title | clip 1'])(
		'%s offers nothing',
		(text) => {
			expect(spotAt(text, text.length, isName)).toBeUndefined();
		}
	);

	test('the variable before a filter is known, for its example', () => {
		expect(spotAt('{page.region | ', 15, isName)).toMatchObject({ kind: 'filter', term: 'page.region' });
	});
});

test('every filter is offered with arguments that it takes', () => {
	const fields = ['list', 'number', 'date', 'text'] as const;
	for (const name of Object.keys(FILTERS)) {
		const kind = fields.find((one) => (FILTERS[name]!.takes as readonly string[]).includes(one)) ?? 'text';
		const issues = checkTemplate(`{page.x | ${filterCall(name)}}`, {
			...{ fields: [{ name: 'x', kind }], siteFields: [], tagNames: [], languages: ['en'] }
		});
		expect(issues.filter(({ severity }) => severity === 'error')).toEqual([]);
	}
});

test('the page’s own come first, by how many pages have them; then the site’s; other tags last', () => {
	const one = (name: string, share?: number) => ({ name, label: undefined, value: 'x', share });
	const offers = variableOffers(
		[one('head.title'), one('site.name'), one('page.rare', 0.1), one('page.title', 1), one('type.name')],
		false
	);
	const names = [...offers].sort((a, b) => b.rank - a.rank).map(({ name }) => name);
	expect(names).toEqual(['page.title', 'page.rare', 'site.name', 'separator', 'type.name', 'head.title']);
	expect(offers.at(-1)).toMatchObject({ name: 'separator', text: 'separator}' });
});

test('what follows a variable is written inside its braces', () => {
	const show = (template: string) => `<${template}>`;
	expect(offersAfter('page.title', show)[0]).toMatchObject({ name: '??', text: ' ?? ' });
	expect(offersAfter('page.title', show)[1]).toMatchObject({
		...{ name: '| clip', text: ' | clip 155', caret: 11, value: '<{page.title | clip 155}>' }
	});
	expect(filterOffers('', false, show)[0]).toMatchObject({ value: '', text: 'clip 155}' });
});
