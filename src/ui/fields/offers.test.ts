import { describe, expect, test } from 'vitest';
import { callOffered, checkTemplate, FILTERS } from '$core';
import { filterOffers, kindOf, offersAfter, spotAt, variableOffers } from './offers';

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
		expect(spotAt('{page.region | ', 15, isName)).toMatchObject({ kind: 'filter', expression: 'page.region' });
		const text = '{page.region ?? page.title | first 2 | jo';
		expect(spotAt(text, text.length, isName)).toMatchObject({ expression: 'page.region ?? page.title | first 2' });
	});
});

test('every filter is offered with arguments that it takes', () => {
	const fields = ['list', 'number', 'date', 'text'] as const;
	for (const name of Object.keys(FILTERS)) {
		const kind = fields.find((one) => (FILTERS[name]!.takes as readonly string[]).includes(one)) ?? 'text';
		// What is offered for an argument is one of the page's fields.
		const others = ['end', 'title'].map((other) => ({ name: other, kind: 'text' as const }));
		const issues = checkTemplate(`{page.x | ${callOffered(name)}}`, {
			...{ fields: [{ name: 'x', kind }, ...others], siteFields: [], tagNames: [], languages: ['en'] }
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
	expect(names).toEqual([
		...['page.title', 'page.rare', 'site.name', 'separator', 'type.name', 'head.title', 'or', 'fit 60', 'goes 1']
	]);
	expect(offers.find(({ name }) => name === 'separator')).toMatchObject({ text: 'separator}', caret: 10 });
});

test('what follows a variable is written inside its braces', () => {
	const show = (template: string) => `<${template}>`;
	const after = offersAfter('page.title', 'text', show);
	expect(after[0]).toMatchObject({ name: '??', text: ' ?? ' });
	expect(after[1]).toMatchObject({ name: '?', text: '?' });
	expect(after[2]).toMatchObject({
		...{ name: '| clip', text: ' | clip 155', caret: 11, value: '<{page.title | clip 155}>' }
	});
	expect(offersAfter('page.free', 'flag', show)[0]).toMatchObject({ name: '?' });
	expect(filterOffers('', 'any', false, show)[0]).toMatchObject({ value: '', text: 'clip 155}' });
});

test('filters are offered for what stands before them, those made for it first', () => {
	const show = () => '';
	const variables = (['number', 'date', 'list', 'flag', 'text', 'choice', 'people'] as const).map((kind) => ({
		...{ name: `page.${kind}`, kind, label: undefined, value: '' }
	}));
	const names = (expression: string) =>
		filterOffers(expression, kindOf(expression, variables), true, show).map(({ name }) => name);
	expect(names('page.number').slice(0, 3)).toEqual(['number', 'money', 'unit']);
	expect(names('page.number')).not.toContain('join');
	expect(names('page.date').slice(0, 2)).toEqual(['date', 'time']);
	expect(names('page.date')).not.toContain('sum');
	expect(names('page.list')[0]).toBe('plural');
	expect(names('page.people')).toContain('each');
	expect(names('page.list | count')[0]).toBe('number');
	expect(names('page.date | days')).not.toContain('zone');
	expect(names('page.flag')).not.toContain('money');
	expect(names('page.choice')).toContain('is');
	expect(names('page.unknown')).toHaveLength(Object.keys(FILTERS).length);
	expect(kindOf('not {', variables)).toBe('any');
});

test('behind a field that is one of a few stand its options, each with its words, as what can be asked', () => {
	const options = [
		{ value: 'in-stock', words: 'In stock' },
		{ value: 0, words: 'Sold out' }
	];
	const offered = offersAfter('page.stock', 'text', () => '', options);
	expect(offered.slice(2, 4)).toMatchObject([
		{ name: '| is "in-stock"?', words: 'In stock', text: ' | is "in-stock"?' },
		{ name: '| is 0?', words: 'Sold out', text: ' | is 0?' }
	]);
	for (const { text } of offered.slice(2, 4))
		expect(
			checkTemplate(`[[{page.stock${text}}x]]`, { fields: [{ name: 'stock', kind: 'choice' }], tagNames: [] })
		).toEqual([]);
	expect(offersAfter('page.stock', 'text', () => '').some(({ name }) => name.startsWith('| is "in'))).toBe(false);
});
