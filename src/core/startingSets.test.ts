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
