import { CATALOGUE } from '$core';
import { languageName } from '$ui/parts/words';
import type { PageFilter } from '$server/store/table/grid';
import { findingInWords } from './columns';

type Key = keyof PageFilter;

/** One thing that can be asked of each page, with what it can be: values and their words. */
export interface Condition {
	readonly key: Key;
	/** What it is about. */
	readonly name: string;
	readonly choices: readonly (readonly [value: string, words: string])[];
}

const LAYERS = ['page', 'found', 'type', 'site', 'built-in'] as const;
const PARTS = ['title', 'description', 'picture'] as const;
const inWords = (findings: string) => `with “${findings.split(',').map(findingInWords).join('” or “')}”`;

/** All that can be asked of the pages of a site; what a filter asks already is among it, also where no page has it. */
export function conditionsOf(
	site: {
		readonly types: readonly { readonly name: string; readonly label: string }[];
		readonly languages: readonly string[];
		readonly findings: readonly string[];
	},
	filter: PageFilter
): Condition[] {
	const findings = new Set([...(filter.finding ? [filter.finding] : []), ...site.findings]);
	return [
		{ key: 'type', name: 'Type', choices: site.types.map(({ name, label }) => [name, `of the type ${label}`]) },
		{
			key: 'language',
			name: 'Language',
			choices: [
				...site.languages.map((tag) => [tag, `in ${languageName(tag)}`] as const),
				['-', 'in no known language']
			]
		},
		{
			...{ key: 'state', name: 'State' },
			choices: [
				['live', 'live'],
				['draft', 'drafts'],
				['private', 'private']
			]
		},
		{ key: 'finding', name: 'Finding', choices: [...findings].map((code) => [code, inWords(code)]) },
		{
			...{ key: 'differs', name: 'Release' },
			choices: [
				['yes', 'other than released'],
				['changed', 'changed since the release'],
				['new', 'never released'],
				['leaves', 'leaving with the next release']
			]
		},
		{
			...{ key: 'from', name: 'Where from' },
			choices: PARTS.flatMap((part) =>
				LAYERS.map(
					(layer) => [`${part}:${layer}`, layer === 'found' ? `${part} as found` : `${part} from the ${layer}`] as const
				)
			)
		},
		{
			...{ key: 'without', name: 'Tag' },
			choices: CATALOGUE.filter((tag) => !tag.fact && !tag.legacy).map(({ name }) => [name, `without ${name}`])
		},
		{ key: 'key', name: 'Key pages', choices: [['yes', 'key pages']] },
		// What other rooms lead here with.
		...(['title', 'description', 'picture'] as const).flatMap((key): Condition[] => {
			const value = filter[key];
			return value ? [{ key, name: key, choices: [[value, SAYS[key](value)]] }] : [];
		})
	];
}

const SAYS = {
	title: (text: string) => `titled “${text}”`,
	description: (text: string) => `described “${text.slice(0, 40)}”`,
	picture: (src: string) => `showing ${src.split('/').at(-1)}`
};

/** A filter with one of its conditions another, or without it (an empty value). */
export function withCondition(filter: PageFilter, key: Key, value: string): PageFilter {
	const { [key]: _before, ...rest } = filter;
	// Which tag a finding is of goes with it.
	const others = key === 'finding' ? (({ of: _of, ...more }: PageFilter) => more)(rest) : rest;
	return { ...others, ...(value && { [key]: value }) };
}
