import { describe, expect, test } from 'vitest';
import type { ContentType, Page, Site } from '../model';
import { pagesIn } from '../resolve/others';
import { Resolver } from '../resolve/resolver';
import { SIGNS } from './signs';

const site: Site = {
	...{ name: 'Merrow Coast', base: 'https://merrow.example/', languages: ['en'], separator: '·', fields: {} },
	words: { book: { en: 'Book now' } },
	pieces: { price: 'from {page.price | money "EUR" "short"}' },
	rules: []
};
const pageOf = (path: string, fields: Page['fields']): Page => ({ path, type: 't', state: 'live', rules: [], fields });

describe('each sign does what its example says', () => {
	test.each(SIGNS.map((one) => [one.sign, one] as const))('%s', (_, { template, fields, gives, isIn, purpose }) => {
		const type: ContentType = {
			...{ name: 't', fields: [{ name: 'guide', kind: 'page' as const }] },
			rules: [{ tag: 'title', kind: 'template', template }]
		};
		const page = pageOf('/gannet-head', fields);
		const others = pagesIn([page, pageOf('/people/ada', { title: 'Ada Marrow' })]);
		const resolver = new Resolver({ site, types: [type], pictures: [], others }, '2026-05-01T10:00:00Z');
		expect(resolver.evaluate(page).textOf('title')).toBe(gives);
		expect(isIn(template)).toBe(true);
		expect(purpose).toMatch(/^[A-Z].+[^.]\.$/);
	});

	test('and is found in a template that holds it alone', () => {
		expect(SIGNS.filter(({ isIn }) => isIn('plain words'))).toEqual([]);
		const plain = SIGNS.filter(({ isIn }) => isIn('{page.title}')).map(({ sign }) => sign);
		expect(plain).toEqual(['{page.title}']);
	});
});
