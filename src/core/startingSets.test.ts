import { describe, expect, test } from 'vitest';
import { checkRule, fieldsOfAll, STARTING_SETS, withStartingSet, type ContentType, type Rule } from './index';

const set = STARTING_SETS[0]!;
const rule = (tag: string, template: string, language?: string): Rule => ({
	...{ tag, kind: 'template' as const, template },
	...(language && { language })
});

describe('a set taken into a type', () => {
	const own = set.rules[0]!;
	const field = set.fields[0]!;
	const type: ContentType = {
		...{ name: 't', kind: 'website' },
		fields: [
			{ name: 'mine', kind: 'text' },
			{ ...field, label: 'As I call it' }
		],
		rules: [rule('keywords', 'mine'), rule(own.tag, 'replaced'), rule(own.tag, 'en français', 'fr')]
	};
	const taken = withStartingSet(type, set);

	test('adds its fields, and leaves those that are there as they are', () => {
		expect(taken.fields).toEqual([...type.fields, ...set.fields.slice(1)]);
	});
	test('replaces the rules of its tags for any language, and no others', () => {
		expect(taken.rules).toEqual([type.rules[0], type.rules[2], ...set.rules]);
		expect([taken.name, taken.kind]).toEqual(['t', set.kind]);
	});
	test('taken twice is as taken once', () => {
		expect(withStartingSet(taken, set)).toEqual(taken);
	});
});

test.each(STARTING_SETS.map((one) => [one.name, one] as const))('nothing is wrong with the rules of %s', (_, one) => {
	const site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
	const made = withStartingSet({ name: 't', fields: [], rules: [] }, one);
	expect(made.rules.flatMap((each) => checkRule(each, { site, fields: fieldsOfAll([made]) }))).toEqual([]);
});

test('what each set says, rule by rule: none is lost', () => {
	const told = STARTING_SETS.map(
		({ name, rules }) =>
			`${name}: ${rules.map((one) => (one.kind === 'template' ? `${one.tag} ${one.template}` : `${one.tag} (${one.kind})`)).join('; ')}`
	);
	expect(told).toMatchInlineSnapshot(`
		[
		  "article: title {page.title} {separator} {site.name}; description {page.strapline ?? page.summary | clip 155}; og:title {page.title}; twitter:label1 Written by; twitter:data1 {page.author.name}; twitter:label2 Time to read; twitter:data2 [[{page.minutes} {page.minutes | plural "minute" "minutes"}]]",
		  "event: title {page.title}[[, {page.starts | date "d MMMM"}]] {separator} {site.name}; description [[{page.starts | date "EEEE d MMMM, H:mm"}. ]][[{page.place}. ]]{page.summary | clip 110}; og:title {page.title}[[, {page.starts | date "d MMMM"}]]; twitter:label1 When; twitter:data1 {page.starts | date "d MMMM y, H:mm"}; twitter:label2 Where; twitter:data2 {page.place}",
		  "place: title {page.title}[[, {page.region}]] {separator} {site.name}; description {page.summary | clip 120}[[ Open {page.opening}.]]; og:title {page.title}[[, {page.region}]]",
		  "person: title {page.title}[[, {page.role}]] {separator} {site.name}; description {page.summary ?? page.body | plain | clip 155}; og:title {page.title}",
		  "product: title {page.title} {separator} {site.name}; description {page.summary | clip 130}[[ {page.stock}.]]; twitter:label1 Price; twitter:data1 {page.price | money "EUR"}; twitter:label2 In stock; twitter:data2 {page.stock}",
		  "video: title {page.title}[[ ({page.length})]] {separator} {site.name}; description {page.summary | clip 155}; og:title {page.title}; og:video {page.film}; twitter:label1 Runs; twitter:data1 {page.length}",
		  "listing: title {listing.title ?? page.title}[[, page {listing.number} of {listing.pages}]] {separator} {site.name}; description {page.summary ?? site.description | clip 155}; og:title {listing.title ?? page.title}",
		]
	`);
});
