import type { InOtherWords } from '../speaking';
import type { wording } from '../en/help';

const NUMBERS = ['aucun', 'un', 'deux', 'trois', 'quatre', 'cinq', 'six', 'sept', 'huit', 'neuf'];
const many = (count: number) => NUMBERS[count] ?? String(count);

export const help: InOtherWords<typeof wording> = {
	whatIs: (called) => `Qu’est-ce que ${called}\u202f?`,
	suchAs: 'Par exemple',
	nothingWrittenYet: 'Rien n’est encore écrit là-dessus.',
	whyItMatters: 'Pourquoi cela compte',
	title: 'le titre',
	description: 'le texte',
	picture: 'l’image',
	place: 'l’adresse',
	first: (readers, what) => `${many(readers)} ${readers < 2 ? 'le prend' : 'le prennent'} pour ${what}`,
	later: (readers, what) =>
		`${many(readers)} ${readers < 2 ? 'le prend' : 'le prennent'} pour ${what} là où rien de mieux n’est dit`,
	chooseTheSize: (readers) =>
		`${many(readers)} ${readers < 2 ? 'choisit' : 'choisissent'} par lui la taille de sa carte`,
	showTheIcon: (readers) => `${many(readers)} ${readers < 2 ? 'la montre' : 'la montrent'}`,
	showThePairs: (readers) => `${many(readers)} ${readers < 2 ? 'le montre' : 'le montrent'}`,
	robots: 'Les moteurs de recherche s’y tiennent\u202f; les lecteurs de liens font des cartes quand même.',
	siteName: 'Là où une carte nomme le site, elle dit ceci\u202f; sinon elle dit l’hôte.',
	noReader:
		'Aucun lecteur montré ici n’en fait sa carte\u202f; des programmes qui connaissent son vocabulaire le lisent.',
	ofReaders: (all, parts) => `Sur ${all} lecteurs ici, ${parts}.`,
	secure: 'Les lecteurs ici prennent l’image par sa propre adresse\u202f; d’autres peuvent prendre celle-ci.',
	mediaType: 'Ce qu’est le fichier quand il est pris compte davantage.',
	size: 'Les lecteurs disposent leurs cartes d’après elle avant que l’image soit venue.',
	alt: 'Il sort avec l’image, pour ceux qui entendent la carte.',
	noRule: (parent) => `Il ne prend pas de règle\u00a0: il va avec ${parent}, dont c’est l’image.`,
	altByItself: 'Là où aucune règle ne dit rien, c’est le texte alternatif de l’image.',
	leftOut: 'Là où aucune règle ne dit rien, c’est omis.',
	builtIn: (built) => `Là où aucune règle ne dit rien, c’est ${built}.`,
	else: ', sinon ',
	called: (name) => `Ils l’appellent {${name}}.`
};
