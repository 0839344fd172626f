import { isFrench } from '../speaking';

/** What the list for a launch says, in the language of whoever asked. */

const number = (count: number, language = 'en') => count.toLocaleString(language);
/** So many of all pages, with a verb behind. */
function have(pages: number, all: number, verb = pages === 1 ? ' has' : ' have'): string {
	if (pages !== all) return `${number(pages)} of ${number(all)} pages${verb}`;
	return (all === 1 ? 'The one page' : `All ${number(all)} pages`) + verb;
}
const looked = (pages: number) => `${number(pages)} ${pages === 1 ? 'page' : 'pages'} looked at`;

const ENGLISH = {
	base: 'The address is one that the public can reach',
	localBase: (base: string) => `${base} is one that only this machine or a network of its own can reach`,
	home: 'There is a home page, and it is live',
	picture: 'The site has a share picture for pages that have none',
	icon: 'The site has an icon',
	pictures: 'Every page has a picture',
	noPicture: (pages: number, all: number) => `${have(pages, all)} no picture`,
	titles: 'Every page has a title',
	noTitle: (pages: number, all: number) => `${have(pages, all)} no title`,
	descriptions: 'Every page has a description',
	noDescription: (pages: number, all: number) => `${have(pages, all)} no description`,
	gaps: 'No text has a gap where a variable was empty',
	gap: (pages: number, all: number) => `${have(pages, all)} a text with a gap where a variable was empty`,
	public: 'No page says that it stands at a local address',
	local: (pages: number, all: number) =>
		`${have(pages, all)} an address that only this machine or its network can reach`,
	noPage: 'There is no public page yet',
	languages: 'The language of every page is known',
	unknown: (pages: number, all: number) => `That of ${have(pages, all, '')} is not`,
	keys: 'The pages that matter most are marked as key pages',
	pasted: 'The most important addresses were pasted where they will be shared, and looked right',
	read: 'Somebody else has read the titles and descriptions of the key pages',
	written: 'The heads are in the site',
	writtenHow: (pages: number, how: string) => `The heads are in the site (${looked(pages)}: ${how})`,
	nobodyLooked: 'Nobody has looked yet whether the heads are in the site: see “What is served” below',
	releasedSince: 'Something was released since somebody looked whether the heads are in the site',
	byWay: (way: string, pages: number) => `by the ${way} on ${number(pages)}`,
	itself: (pages: number) => `in the page itself on ${number(pages)}`,
	otherwise: (pages: number, all: number) => `${number(pages)} of ${looked(all)} are not served as released`,
	waiting: (pages: number) => `${number(pages)} are yet to be looked at`,
	whether: (rest: string) => `Whether the heads are in the site: ${rest}`
};

const nombre = (count: number) => number(count, 'fr');
const dites = (pages: number) => `${nombre(pages)} ${pages < 2 ? 'page' : 'pages'}`;
/** So many of all pages have, or have none of, what follows. */
const ont = (pages: number, all: number, one = 'n’a', more = 'n’ont') =>
	pages === all
		? all === 1
			? `La seule page ${one}`
			: `Les ${nombre(all)} pages ${more}`
		: `${dites(pages)} sur ${nombre(all)} ${pages < 2 ? one : more}`;

const FRENCH: typeof ENGLISH = {
	base: 'L’adresse est de celles que le public peut atteindre',
	localBase: (base) => `${base} est une adresse que seule cette machine ou son réseau peut atteindre`,
	home: 'Il y a une page d’accueil, et elle est en ligne',
	picture: 'Le site a une image de partage pour les pages qui n’en ont pas',
	icon: 'Le site a une icône',
	pictures: 'Chaque page a une image',
	noPicture: (pages, all) => `${ont(pages, all)} aucune image`,
	titles: 'Chaque page a un titre',
	noTitle: (pages, all) => `${ont(pages, all)} aucun titre`,
	descriptions: 'Chaque page a une description',
	noDescription: (pages, all) => `${ont(pages, all)} aucune description`,
	gaps: 'Aucun texte n’a de trou là où une variable était vide',
	gap: (pages, all) => `${ont(pages, all, 'a', 'ont')} un texte avec un trou là où une variable était vide`,
	public: 'Aucune page ne dit qu’elle se trouve à une adresse locale',
	local: (pages, all) =>
		`${ont(pages, all, 'a', 'ont')} une adresse que seule cette machine ou son réseau peut atteindre`,
	noPage: 'Il n’y a pas encore de page publique',
	languages: 'La langue de chaque page est connue',
	unknown: (pages, all) => `Celle de ${dites(pages)} sur ${nombre(all)} ne l’est pas`,
	keys: 'Les pages qui comptent le plus sont marquées comme pages clés',
	pasted: 'Les adresses les plus importantes ont été collées là où elles seront partagées, et c’était bien',
	read: 'Quelqu’un d’autre a lu les titres et les descriptions des pages clés',
	written: 'Les en-têtes sont dans le site',
	writtenHow: (pages, how) => `Les en-têtes sont dans le site (${dites(pages)} examinées : ${how})`,
	nobodyLooked: 'Personne n’a encore regardé si les en-têtes sont dans le site : voir « Ce qui est servi » plus bas',
	releasedSince: 'Quelque chose a été publié depuis qu’on a regardé si les en-têtes sont dans le site',
	byWay: (way, pages) => `par ${way} sur ${nombre(pages)}`,
	itself: (pages) => `dans la page même sur ${nombre(pages)}`,
	otherwise: (pages, all) => `${nombre(pages)} sur ${dites(all)} examinées ne sont pas servies comme publiées`,
	waiting: (pages) => `${nombre(pages)} restent à examiner`,
	whether: (rest) => `Si les en-têtes sont dans le site : ${rest}`
};

export const launchWords = (): typeof ENGLISH => (isFrench() ? FRENCH : ENGLISH);
