import { describeFinding, describeMend, type Finding } from '$core';
import { isFrench } from '../speaking';

/** The layer that a way to mend writes at. */
export type Where =
	| { readonly of: 'site' }
	/** As pages of the type are called. */
	| { readonly of: 'type'; readonly called: string }
	| { readonly of: 'page'; readonly path: string };

/** What a way to mend does. */
export type Way =
	| { readonly do: 'write'; readonly tag: string; readonly at: Where; readonly template: string }
	| { readonly do: 'take-away'; readonly tag: string; readonly at: Where }
	/** A rule for one language, begun with the words to translate. */
	| { readonly do: 'begin'; readonly language: string; readonly at: Where; readonly template: string }
	| { readonly do: 'own-first'; readonly at: Where }
	| { readonly do: 'least-width'; readonly pixels: number; readonly at: Where }
	| { readonly do: 'picture-of-site'; readonly name: string }
	| { readonly do: 'draw'; readonly called: string }
	| { readonly do: 'link'; readonly path: string; readonly to: string }
	| { readonly do: 'unlink'; readonly path: string; readonly to: string }
	| { readonly do: 'forget'; readonly path: string }
	/** The same for each of several findings of one kind. */
	| { readonly do: 'together'; readonly count: number; readonly first: Finding };

type Words = { readonly [D in Way['do']]: (way: Extract<Way, { readonly do: D }>) => string };

const whereIn = (at: Where) =>
	at.of === 'site' ? 'for the whole site' : at.of === 'type' ? `for every ${at.called.toLowerCase()}` : `at ${at.path}`;

const ENGLISH: Words = {
	write: ({ tag, at, template }) => `${tag} ${whereIn(at)}: write ${template}`,
	'take-away': ({ tag, at }) => `${tag} ${whereIn(at)}: take its rule away`,
	begin: ({ language, at, template }) =>
		`Begin a rule for ${language} with the words to translate, ${whereIn(at)}: ${template}`,
	'own-first': ({ at }) => `Put the page’s own pictures before the logo ${whereIn(at)}`,
	'least-width': ({ pixels, at }) => `Pass over pictures under ${pixels} pixels ${whereIn(at)}`,
	'picture-of-site': ({ name }) => `Make ${name} the share picture of the site`,
	draw: ({ called }) => `Draw share pictures for every ${called.toLowerCase()} that has none`,
	link: ({ path, to }) => `Let ${to} name ${path}`,
	unlink: ({ path, to }) => `Take the version ${to} away from ${path}`,
	forget: ({ path }) => `Let ${path} lead nowhere`,
	together: ({ count, first }) => `All ${count} at once: ${describeMend(first)}`
};

const whereInFrench = (at: Where) =>
	at.of === 'site'
		? 'pour tout le site'
		: at.of === 'type'
			? `pour chaque page du type « ${at.called} »`
			: `sur ${at.path}`;

const FRENCH: Words = {
	write: ({ tag, at, template }) => `${tag}, ${whereInFrench(at)} : écrire ${template}`,
	'take-away': ({ tag, at }) => `${tag}, ${whereInFrench(at)} : ôter sa règle`,
	begin: ({ language, at, template }) =>
		`Commencer une règle pour ${language} avec les mots à traduire, ${whereInFrench(at)} : ${template}`,
	'own-first': ({ at }) => `Mettre les images de la page avant le logo, ${whereInFrench(at)}`,
	'least-width': ({ pixels, at }) => `Passer les images de moins de ${pixels} pixels, ${whereInFrench(at)}`,
	'picture-of-site': ({ name }) => `Faire de ${name} l’image de partage du site`,
	draw: ({ called }) => `Dessiner une image de partage pour chaque page du type « ${called} » qui n’en a pas`,
	link: ({ path, to }) => `Faire que ${to} nomme ${path}`,
	unlink: ({ path, to }) => `Ôter la version ${to} de ${path}`,
	forget: ({ path }) => `Faire que ${path} ne mène plus nulle part`,
	together: ({ count, first }) => `Les ${count} en une fois : ${describeMend(first)}`
};

/** A way to mend in a sentence, in the language of whoever asks. */
export function wayInWords(way: Way): string {
	const words: Words = isFrench() ? FRENCH : ENGLISH;
	return (words[way.do] as (way: Way) => string)(way);
}

/** What came of trying a mend on pages that have the finding. */
interface TriedOn<L> {
	/** So many pages were looked at with it, and so many of them no longer have the finding. */
	readonly on: number;
	readonly mended: number;
	/** What else the first of them has then that it had not, lighter than what is mended. */
	readonly leaves?: L;
}
export type Tried = TriedOn<string>;
export type TriedFinding = TriedOn<Finding>;

/** The same in words. */
export const triedInWords = ({ leaves, ...tried }: TriedFinding): Tried => ({
	...tried,
	...(leaves && { leaves: describeFinding(leaves) })
});
