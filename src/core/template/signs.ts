import type { FieldValue } from '../model';

/** A sign of the language, told in a sentence, with a record that shows it. */
export interface Sign {
	/** As it is written. */
	readonly sign: string;
	readonly purpose: string;
	readonly template: string;
	/** The fields of the page it is shown on, which is on a site called Merrow Coast. */
	readonly fields: Readonly<Record<string, FieldValue>>;
	/** What it comes to there. */
	readonly gives: string;
	/** Whether a template holds it. */
	readonly isIn: (template: string) => boolean;
}

const has =
	(...parts: readonly string[]) =>
	(template: string) =>
		parts.some((part) => template.includes(part));

/** The signs of the language, the commonest first. What stands in each is told exactly in docs/template-language.md. */
export const SIGNS: readonly Sign[] = [
	{
		sign: '{page.title}',
		purpose: 'A value of the page, its type or the site, as it stands there.',
		template: '{page.title}',
		fields: { title: 'Gannet Head' },
		gives: 'Gannet Head',
		isIn: has('{')
	},
	{
		sign: '[[ … ]]',
		purpose: 'A stretch that goes with its own words where a variable in it is empty.',
		template: '{page.title}[[ in {page.region}]]',
		fields: { title: 'Gannet Head' },
		gives: 'Gannet Head',
		isIn: has('[[')
	},
	{
		sign: '??',
		purpose: 'What stands in where the value before it is empty.',
		template: '{page.short ?? page.title}',
		fields: { title: 'Gannet Head' },
		gives: 'Gannet Head',
		isIn: has('??')
	},
	{
		sign: '|',
		purpose: 'A filter: what is made of the value before it is printed. Several work from left to right.',
		template: '{page.title | case "upper"}',
		fields: { title: 'Gannet Head' },
		gives: 'GANNET HEAD',
		isIn: has('|')
	},
	{
		sign: '{separator}',
		purpose: 'The site’s separator, only between two parts that both print something.',
		template: '{page.title}{separator}{site.name}',
		fields: { title: 'Gannet Head' },
		gives: 'Gannet Head · Merrow Coast',
		isIn: has('{separator')
	},
	{
		sign: '{page.free?}',
		purpose: 'A question: prints nothing, and its stretch stands only where it is so.',
		template: '[[{page.free?}Free entry]]',
		fields: { free: true },
		gives: 'Free entry',
		isIn: (template) => /\?\s*\}/.test(template.slice(0, 4000))
	},
	{
		sign: '{or}',
		purpose: 'Between two stretches: the first that prints something is taken.',
		template: '[[{page.places | under 1?}Sold out]] {or} [[{page.places} places]]',
		fields: { places: 4 },
		gives: '4 places',
		isIn: has('{or}')
	},
	{
		sign: '{fit 60}',
		purpose:
			'How many characters the whole may have, or pixels: stretches go until it fits, and the text is never cut in a word.',
		template: '{fit 20}{page.title}[[ – {page.region}]]',
		fields: { title: 'Gannet Head', region: 'Merrow Coast' },
		gives: 'Gannet Head',
		isIn: has('{fit')
	},
	{
		sign: '{goes 1}',
		purpose: 'In a stretch: it is the first to go where there is no room, before those with greater numbers.',
		template: '{fit 24}{page.title}[[{goes 1} by sea]][[ in May]]',
		fields: { title: 'Gannet Head' },
		gives: 'Gannet Head in May',
		isIn: has('{goes')
	},
	{
		sign: '{page.guide.title}',
		purpose:
			'A field of another page that a field of this one holds; with head. and a tag, what that page’s head came to.',
		template: 'With {page.guide.title}',
		fields: { guide: '/people/ada' },
		gives: 'With Ada Marrow',
		isIn: (template) => /\{\s*page\.\w+\.\w/.test(template.slice(0, 4000))
	},
	{
		sign: '{words.book}',
		purpose: 'The site’s own words, in the language of the page.',
		template: '{words.book}',
		fields: {},
		gives: 'Book now',
		isIn: has('words.')
	},
	{
		sign: '{piece.price}',
		purpose: 'A template with a name, of the site or the type, as it comes out on this page.',
		template: '{piece.price}',
		fields: { price: 12 },
		gives: 'from €12',
		isIn: has('piece.')
	},
	{
		sign: '\\{',
		purpose: 'A brace that stands for itself; \\ makes any next sign plain.',
		template: '\\{{page.title}\\}',
		fields: { title: 'Gannet Head' },
		gives: '{Gannet Head}',
		isIn: has('\\')
	}
];
