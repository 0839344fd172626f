import type { ContentType, Field, Rule } from './model';

/** Fields and rules for a common kind of page, to take and change. */
export interface StartingSet {
	readonly name: string;
	readonly label: string;
	/** In a sentence: what it is for. */
	readonly purpose: string;
	readonly kind: string;
	readonly fields: readonly Field[];
	readonly rules: readonly Rule[];
}

const say = (tag: string, template: string): Rule => ({ tag, kind: 'template', template });
const text = (name: string, label: string): Field => ({ name, label, kind: 'text' });

/** A type with a set taken into it: its fields are added, and its rules replace those of the same tags for any language. */
export function withStartingSet(type: ContentType, set: StartingSet): ContentType {
	const names = new Set(type.fields.map((field) => field.name));
	const tags = new Set(set.rules.map((rule) => rule.tag));
	return {
		...type,
		kind: set.kind,
		fields: [...type.fields, ...set.fields.filter((field) => !names.has(field.name))],
		rules: [...type.rules.filter((rule) => rule.language || !tags.has(rule.tag)), ...set.rules]
	};
}

export const STARTING_SETS: readonly StartingSet[] = [
	{
		name: 'article',
		label: 'Article',
		purpose: 'News, posts and stories, with their author and date.',
		kind: 'article',
		fields: [text('strapline', 'Strapline')],
		rules: [
			say('title', '{page.title} {separator} {site.name}'),
			say('description', '{page.strapline ?? page.summary | clip 155}'),
			say('og:title', '{page.title}'),
			say('twitter:label1', 'Written by'),
			say('twitter:data1', '{page.author.name}'),
			say('twitter:label2', 'Time to read'),
			say('twitter:data2', '[[{page.minutes} {page.minutes | plural "minute" "minutes"}]]')
		]
	},
	{
		name: 'event',
		label: 'Event',
		purpose: 'Something that takes place at a time: the date stands where people look first.',
		kind: 'website',
		fields: [
			{ name: 'starts', label: 'Starts', kind: 'date' },
			text('place', 'Where'),
			{ name: 'price', label: 'Price', kind: 'number' }
		],
		rules: [
			say('title', '{page.title}[[, {page.starts | date "d MMMM"}]] {separator} {site.name}'),
			say('description', '[[{page.starts | date "EEEE d MMMM, H:mm"}. ]][[{page.place}. ]]{page.summary | clip 110}'),
			say('og:title', '{page.title}[[, {page.starts | date "d MMMM"}]]'),
			say('twitter:label1', 'When'),
			say('twitter:data1', '{page.starts | date "d MMMM y, H:mm"}'),
			say('twitter:label2', 'Where'),
			say('twitter:data2', '{page.place}')
		]
	},
	{
		name: 'place',
		label: 'Place',
		purpose: 'Somewhere to go: its region stands beside its name.',
		kind: 'website',
		fields: [text('region', 'Region'), text('opening', 'Opening hours')],
		rules: [
			say('title', '{page.title}[[, {page.region}]] {separator} {site.name}'),
			say('description', '{page.summary | clip 120}[[ Open {page.opening}.]]'),
			say('og:title', '{page.title}[[, {page.region}]]')
		]
	},
	{
		name: 'person',
		label: 'Person',
		purpose: 'Someone, with what they do.',
		kind: 'profile',
		fields: [text('role', 'Role')],
		rules: [
			say('title', '{page.title}[[, {page.role}]] {separator} {site.name}'),
			say('description', '{page.summary ?? page.body | plain | clip 155}'),
			say('og:title', '{page.title}')
		]
	},
	{
		name: 'product',
		label: 'Product',
		purpose: 'Something to buy, with its price and whether it is there.',
		kind: 'website',
		fields: [{ name: 'price', label: 'Price', kind: 'number' }, text('stock', 'In stock')],
		rules: [
			say('title', '{page.title} {separator} {site.name}'),
			say('description', '{page.summary | clip 130}[[ {page.stock}.]]'),
			say('twitter:label1', 'Price'),
			say('twitter:data1', '{page.price | money "EUR"}'),
			say('twitter:label2', 'In stock'),
			say('twitter:data2', '{page.stock}')
		]
	},
	{
		name: 'video',
		label: 'Video',
		purpose: 'A film or clip, with how long it runs.',
		kind: 'video.other',
		fields: [{ name: 'film', label: 'Address of the film', kind: 'link' }, text('length', 'Running time')],
		rules: [
			say('title', '{page.title}[[ ({page.length})]] {separator} {site.name}'),
			say('description', '{page.summary | clip 155}'),
			say('og:title', '{page.title}'),
			say('og:video', '{page.film}'),
			say('twitter:label1', 'Runs'),
			say('twitter:data1', '{page.length}')
		]
	},
	{
		name: 'listing',
		label: 'Listing',
		purpose: 'A page that lists others, by category, month or author; later pages say their number.',
		kind: 'website',
		fields: [],
		rules: [
			say(
				'title',
				'{listing.title ?? page.title}[[, page {listing.number} of {listing.pages}]] {separator} {site.name}'
			),
			say('description', '{page.summary ?? site.description | clip 155}'),
			say('og:title', '{listing.title ?? page.title}')
		]
	}
];
