import type { Layer } from '../../model';
import { ownOf } from '../../own';
import { kind, listed } from './kind';

/** Where the value of the tag came from: who wrote it can mend it. */
export interface Origin {
	/** The layer whose rule won; the built-in when no rule did. */
	readonly layer: Layer;
}

type Nothing = Readonly<Record<string, never>>;

const NAMES: Readonly<Record<string, string>> = { title: 'title', description: 'description' };
const called = (tag: string) => ownOf(NAMES, tag) ?? tag;

/** A rule can be changed where it stands; what no rule says is changed at the page, or by a rule that is yet to be written. */
const byRule = ({ layer }: Origin, changed: string, written: string) => (layer === 'built-in' ? written : changed);

/** How a text that nobody wrote a rule for is clipped. */
const clipped = (tag: string) =>
	tag.endsWith('description') ? '{page.summary ?? page.body | clip 140}' : '{page.title | clip 50}';

/** What can be wrong or weak on a page as readers of links see it. */
export const PAGE_KINDS = {
	'local-address': kind<Nothing>(
		10,
		() => 'Its address leads to no place that readers can reach',
		() => 'Set the public base address of the site.'
	),
	'no-picture': kind<Nothing>(
		6,
		() => 'No picture: its card stays blank',
		() => 'Give the site a share picture: it stands in wherever a page has none.'
	),
	'pin-broken': kind<{ readonly tag: string; readonly pinned: string; readonly value: string }>(
		8,
		({ tag, pinned, value }) =>
			`${tag} is pinned to ${pinned === '' ? 'nothing' : `“${pinned}”`}, and comes to ${value === '' ? 'nothing' : `“${value}”`}`,
		({ tag }) => `Mend what changed ${tag}, or pin what it comes to now at the page.`
	),
	'lost-reference': kind<{
		readonly field: string;
		readonly path: string;
		readonly why: 'nowhere' | 'hidden' | 'itself';
	}>(
		4,
		({ field, path, why }) =>
			`“${field}” names ${path}, ${why === 'nowhere' ? 'where there is no page' : why === 'hidden' ? 'which nobody sees' : 'which is the page itself'}: nothing is read of it`,
		({ field }) => `Name another page in “${field}”, or empty it.`
	),
	'heads-circle': kind<{ readonly tag: string; readonly way: string }>(
		4,
		({ tag, way }) =>
			`What ${tag} says leads round in a circle through the heads of other pages, so it is left: ${way}`,
		() => 'Let one page on the way say it by itself, or name another page in one of the fields.'
	),
	'unknown-choice': kind<{ readonly field: string; readonly value: string }>(
		4,
		({ field, value }) => `“${value}” is none of what “${field}” can be, so no words stand for it`,
		({ field }) => `Choose one at the page, or give the field “${field}” words for it at its type.`
	),
	'no-title': kind<Nothing>(
		6,
		() => 'It has no title',
		() => 'Write a title template at the site, such as {page.title} {separator} {site.name}.'
	),
	gap: kind<{ readonly tag: string; readonly variables: readonly string[] }>(
		5,
		({ tag, variables }) => `${listed(variables)} left a gap in the ${called(tag)}`,
		() => 'Put what belongs to a variable into [[ … ]], so that it goes when the variable is empty.',
		({ tag }) => `A variable left a gap in the ${called(tag)}`
	),
	'name-twice': kind<Origin & { readonly tag: string }>(
		5,
		({ tag }) => `The site’s name stands in the ${called(tag)} twice`,
		(data) =>
			byRule(
				data,
				'Take {site.name} out of the template: the pages’ own titles carry it already.',
				'Take the site’s name out of the page’s own words once.'
			)
	),
	'bare-title': kind<{ readonly title: string }>(
		4,
		({ title }) => `The home page calls itself “${title}”`,
		() => 'Write the home page’s title from {site.name} and {site.tagline}.'
	),
	'no-description': kind<Nothing>(
		4,
		() => 'It has no description',
		() => 'Give the page a summary, or let the description fall back: {page.summary ?? site.description}.'
	),
	'share-letters': kind<{ readonly letters: readonly string[] }>(
		4,
		({ letters }) => `Its share picture has letters that no font here can draw: ${letters.join(' ')}`,
		() => 'Say it in other letters, or let another picture go before the share picture.',
		() => 'Share pictures have letters that no font here can draw'
	),
	'share-contrast': kind<{ readonly text: string; readonly ratio: number }>(
		3,
		({ text, ratio }) =>
			`“${text}” can hardly be read on its share picture: it stands out ${ratio} to 1 from what is under it, 3 to 1 is the least`,
		() => 'Make the tint over the picture stronger, or give the words another colour.',
		() => 'Words can hardly be read on share pictures: they stand out less than 3 to 1 from what is under them'
	),
	'logo-picture': kind<Nothing>(
		4,
		() => 'The picture is a logo',
		() => 'Put a picture of the page before the logo in the list of picture sources.'
	),
	'small-picture': kind<{ readonly width: number; readonly needed: number; readonly readers: readonly string[] }>(
		3,
		({ width, readers }) => `The picture is ${width} pixels wide: too small to fill the card in ${listed(readers)}`,
		({ needed }) => `Set a least width of ${needed} pixels for share pictures, so that small ones are passed over.`,
		() => 'The picture is too small to fill the card in some readers'
	),
	cut: kind<Origin & { readonly tag: string; readonly length: number; readonly readers: readonly string[] }>(
		2,
		({ tag, length, readers }) => `The ${called(tag)} has ${length} characters and is cut in ${listed(readers)}`,
		(data) =>
			byRule(
				data,
				'Shorten it, or clip in the template what is long in it.',
				`Shorten it at the page, or write a rule that clips it, such as ${clipped(data.tag)}.`
			),
		({ tag, readers }) => `The ${called(tag)} is too long: it is cut in ${listed(readers)}`
	),
	short: kind<{ readonly tag: string; readonly length: number }>(
		1,
		({ tag, length }) => `The ${called(tag)} has only ${length} ${length === 1 ? 'character' : 'characters'}`,
		() => 'Say more at the page, or add a second source, such as the type’s own fields.',
		({ tag }) => `The ${called(tag)} says too little`
	),
	'passed-over': kind<{ readonly tag: string; readonly other: string; readonly layer: Layer }>(
		1,
		({ tag, other, layer }) => `${other} is set at the ${layer}, and ${tag} does not follow it`,
		({ tag, other }) => `Set ${tag} there too, or take its rule away so that it follows ${other}.`,
		({ tag }) => `The tag that ${tag} would follow is set, and it does not follow`
	),
	'dropped-attribute': kind<{ readonly tag: string; readonly names: readonly string[] }>(
		1,
		({ tag, names }) =>
			`What its file says with ${tag} does not go on: ${listed(names)} is no attribute the tag can carry so`,
		() => 'Mend the attribute in the page’s own file, or write the tag as extra markup.',
		({ tag }) => `Not all that files say with ${tag} goes on: some is no attribute the tag can carry`
	),
	empty: kind<{ readonly tag: string }>(
		1,
		({ tag }) => `${tag} comes to nothing`,
		() => 'Give it another source to fall back to.'
	)
};
