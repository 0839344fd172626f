import { expect, test } from 'vitest';
import { Resolver, type SiteModel } from './resolver';
import { renderHead } from '../render/render';
import type { Page, Rule, Site } from '../model';

/** A private site says noindex in every head, whatever any layer says of robots. */

const MOMENT = '2026-11-30T12:00:00Z';
const site: Site = {
	name: 'Hollin Wood',
	base: 'https://hollin.example/',
	languages: ['en'],
	separator: ' · ',
	fields: {},
	rules: []
};
const page = { path: '/', type: 'page', fields: { title: 'Home' }, rules: [] } as unknown as Page;
const follow: Rule = { tag: 'robots', kind: 'template', template: 'max-snippet:50' };
const worlds = {
	'nothing said': [site, page],
	'a rule of the site': [{ ...site, rules: [follow] }, page],
	'a rule of the page': [site, { ...page, rules: [follow] }],
	'left out at the page': [site, { ...page, rules: [{ tag: 'robots', kind: 'leaveOut' }] }],
	'found in the page, first': [
		{ ...site, foundPolicy: { robots: 'keep' } },
		{ ...page, found: [{ tag: 'robots', value: 'index, follow' }] }
	],
	'tags that read each other': [
		{
			...site,
			rules: [
				{ tag: 'robots', kind: 'borrow', from: 'author' },
				{ tag: 'author', kind: 'borrow', from: 'robots' }
			]
		},
		page
	],
	hidden: [site, { ...page, hidden: true }]
} as unknown as Readonly<Record<string, readonly [Site, Page]>>;

test.each(Object.entries(worlds))('%s', (_, [of, one]) => {
	const model = (isPrivate: boolean): SiteModel => ({
		site: { ...of, ...(isPrivate && { private: true }) },
		types: [{ name: 'page', fields: [], rules: [] }],
		pictures: []
	});
	const open = new Resolver(model(false), MOMENT).resolveHead(one);
	const closed = new Resolver(model(true), MOMENT);
	const { head, traces } = closed.resolveWithTrace(one);
	const robots = '<meta name="robots" content="noindex">';
	expect(
		renderHead(head)
			.split('\n')
			.filter((line) => line.includes('name="robots"'))
	).toEqual([robots]);
	expect(renderHead(closed.resolveHead(one))).toBe(renderHead(head));
	// Nothing else is another than it was.
	const others = (text: string) =>
		text.split('\n').filter((line) => !line.includes('name="robots"') && !line.includes('name="author"'));
	expect(others(renderHead(head))).toEqual(others(renderHead(open)));
	const [first] = traces.find(({ tag }) => tag === 'robots')!.steps;
	expect(first).toMatchObject({ rule: { kind: 'built-in', name: 'private-site' }, outcome: { kind: 'won' } });
});
