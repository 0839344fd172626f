import { kind } from './kind';

type Of = { readonly tag: string; readonly line: number };

/** What can be wrong with what the tags of a served page say. */
export const VALUE_KINDS = {
	'value-broken': kind<Of & { readonly value: string; readonly expected: string; readonly meant: string | undefined }>(
		5,
		({ tag, value, expected, meant }) =>
			`${tag} says “${value}”, which is not ${expected}: readers pass it over${meant === undefined ? '' : `; “${meant}” may be meant`}`,
		({ tag, meant }) => (meant === undefined ? `Say in ${tag} what it is for, or leave it out.` : `Say “${meant}”.`),
		({ tag, expected }) => `${tag} is not ${expected}: readers pass it over`
	),
	'near-tag': kind<Of & { readonly how: string; readonly seen: string; readonly meant: string }>(
		5,
		({ tag, how, seen, meant }) =>
			how === 'quotes'
				? `${tag} is not enclosed in quotation marks as markup has them (“${seen}”): it is read in part, or with what follows`
				: how === 'name'
					? `“${seen}” is no tag that readers know: “${meant}” may be meant`
					: how === 'rel'
						? `rel="${seen}" links to nothing that readers know: rel="${meant}" may be meant`
						: how === 'place'
							? `In ${seen}= stands what Open Graph has in ${meant}=, where strict readers look: ${tag}`
							: `${tag} stands in ${seen}= instead of ${meant}=: no reader finds it`,
		({ how, meant }) => (how === 'name' || how === 'rel' || how === 'quotes' ? `Write ${meant}.` : `Write ${meant}=.`)
	),
	'empty-tag': kind<Of>(
		2,
		({ tag }) => `${tag} is empty: it says nothing, and some readers take that for what is said`,
		() => 'Fill it in, or leave it out.'
	),
	placeholder: kind<Of & { readonly value: string }>(
		7,
		({ tag, value }) => `${tag} is still what stood there before it was written: “${value}”`,
		({ tag }) => `Write the ${tag} of this page.`
	),
	'thin-title': kind<Of & { readonly title: string }>(
		4,
		({ tag, title }) => `${tag} says “${title}”, which says nothing of the page`,
		() => 'Say what the page is about.'
	),
	'markup-shown': kind<Of & { readonly seen: string }>(
		5,
		({ tag, seen }) => `${tag} shows markup, “${seen}”: cards and listings show it as it is written`,
		() => 'Say it in plain text.'
	),
	'languages-differ': kind<{
		readonly line: number;
		readonly language: string;
		readonly tag: string;
		readonly value: string;
	}>(
		3,
		({ language, tag, value }) => `The document is in “${language}”, and ${tag} says “${value}”`,
		({ language }) => `Say the language that it is in: “${language}”, if that is so.`
	),
	'dates-swapped': kind<{ readonly line: number; readonly published: string; readonly modified: string }>(
		3,
		({ published, modified }) => `It was changed (${modified}) before it was published (${published})`,
		() => 'Say both as they were.'
	),
	'broken-data': kind<{ readonly line: number; readonly why: string }>(
		5,
		({ why }) => `Its JSON-LD cannot be read, so nobody takes anything from it: ${why}`,
		() => 'Write it as JSON: names and texts in double quotation marks, no comma behind the last.'
	),
	'language-broken': kind<{
		readonly where: string;
		readonly line: number | undefined;
		readonly value: string;
		readonly meant: string | undefined;
	}>(
		4,
		({ where, value, meant }) =>
			`${where} says “${value}”, which is no language that readers know${meant === undefined ? '' : `: “${meant}” may be meant`}`,
		({ meant }) => (meant === undefined ? 'Say a language tag such as “en” or “en-GB”.' : `Say “${meant}”.`)
	),
	'insecure-address': kind<Of & { readonly value: string }>(
		2,
		({ tag, value }) =>
			`${tag} names ${value}, without TLS, on a site that has it: ${tag === 'canonical' || tag === 'og:url' ? 'what is shared and found counts for another address' : 'some readers show no such picture'}`,
		() => 'Name it with https.',
		({ tag }) => `${tag} is named without TLS, on a site that has it`
	),
	'version-twice': kind<{ readonly language: string; readonly line: number; readonly other: number }>(
		4,
		({ language, other }) => `Two addresses are named as its version in “${language}” (the other in line ${other})`,
		() => 'Name one for each language.'
	),
	'file-missing': kind<Of & { readonly value: string }>(
		6,
		({ tag, value }) => `${tag} names ${value}, which is not in the folder`,
		() => 'Put it there, or name one that is.',
		({ tag }) => `${tag} names what is not in the folder`
	),
	'names-other': kind<Of & { readonly to: string }>(
		5,
		({ tag, to }) => `${tag} names another page, ${to}: what is shared and found of this one counts for that one`,
		({ tag }) => `Let ${tag} name the page itself, unless the two are the same.`,
		({ tag }) => `${tag} names another page: what is shared and found counts for that one`
	),
	'names-elsewhere': kind<Of & { readonly to: string }>(
		6,
		({ tag, to }) => `${tag} leaves the site, for ${to}: what is shared and found of this page counts there`,
		({ tag }) => `Let ${tag} name the page itself, unless it is a copy of that one.`,
		({ tag }) => `${tag} leaves the site: what is shared and found counts elsewhere`
	),
	'names-differ': kind<{ readonly line: number; readonly canonical: string; readonly other: string }>(
		3,
		({ canonical, other }) => `canonical says ${canonical} and og:url says ${other}: shares are counted apart`,
		() => 'Let both say the same address.',
		() => 'canonical and og:url say two addresses: shares are counted apart'
	)
};
