import { wording } from '$ui/words/en/pages';
import { CATALOGUE, nameOfKind } from '$core';
import { languageName } from '$ui/parts/words';
import type { PageFilter } from '$server/store/table/grid';

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
const inWords = (findings: string) => wording.withOne(findings.split(',').map(nameOfKind).join(wording.orTheKind));

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
		{ key: 'type', name: wording.type, choices: site.types.map(({ name, label }) => [name, wording.ofTheType(label)]) },
		{
			key: 'language',
			name: wording.language,
			choices: [
				...site.languages.map((tag) => [tag, wording.inOne2(languageName(tag))] as const),
				['-', wording.inNoKnownLanguage]
			]
		},
		{
			...{ key: 'state', name: wording.state },
			choices: [
				['live', wording.live],
				['draft', wording.drafts],
				['private', wording.private]
			]
		},
		{ key: 'finding', name: wording.finding, choices: [...findings].map((code) => [code, inWords(code)]) },
		{
			...{ key: 'differs', name: wording.release },
			choices: [
				['yes', wording.otherThanReleased],
				['changed', wording.changedSinceTheRelease],
				['new', wording.neverReleased],
				['leaves', wording.leavingWithTheNextRelease]
			]
		},
		{
			...{ key: 'from', name: wording.whereFrom },
			choices: PARTS.flatMap((part) =>
				LAYERS.map(
					(layer) =>
						[`${part}:${layer}`, layer === 'found' ? wording.asFound(part) : wording.fromThe(part, layer)] as const
				)
			)
		},
		{
			...{ key: 'without', name: wording.tag },
			choices: CATALOGUE.filter((tag) => !tag.fact && !tag.legacy).map(({ name }) => [name, wording.without(name)])
		},
		{ key: 'key', name: wording.keyPages, choices: [['yes', wording.keyPages2]] },
		// What other rooms lead here with.
		...(['title', 'description', 'picture'] as const).flatMap((key): Condition[] => {
			const value = filter[key];
			return value ? [{ key, name: key, choices: [[value, SAYS[key](value)]] }] : [];
		})
	];
}

const SAYS = {
	title: (text: string) => wording.titled(text),
	description: (text: string) => wording.described(text.slice(0, 40)),
	picture: (src: string) => wording.showing(src.split('/').at(-1) ?? '')
};

/** A filter with one of its conditions another, or without it (an empty value). */
export function withCondition(filter: PageFilter, key: Key, value: string): PageFilter {
	const { [key]: _before, ...rest } = filter;
	// Which tag a finding is of goes with it.
	const others = key === 'finding' ? (({ of: _of, ...more }: PageFilter) => more)(rest) : rest;
	return { ...others, ...(value && { [key]: value }) };
}
