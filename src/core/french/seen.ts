import type { SeenWords } from '../readers/seenWords';
import { listed } from './saying';

/** What is said of an address that readers looked at, in French. */
export const seen: SeenWords = {
	language: 'fr',
	nobody: 'Aucun lecteur ne l’a regardée.',
	without: (readers) =>
		`Aucun défaut n’a été trouvé, mais tout n’a pas pu être regardé : pas de carte chez ${listed(readers)}.`,
	noPicture: 'Aucun défaut n’a été trouvé dans les balises ; l’image n’a pas pu être regardée.',
	unseen: (pictures) =>
		`Aucun défaut n’a été trouvé, mais ${pictures === 1 ? 'une de ses images n’a pas été regardée' : `${pictures} de ses images n’ont pas été regardées`}.`,
	right: 'Rien n’est faux dans ce qui est servi.',
	title: (address) => `Ce que les lecteurs voient de ${address}`,
	heading: 'Ce que les lecteurs voient',
	lookedAt: (when) => `Regardé le ${when}, par des lecteurs inventés.`,
	noAnswer: 'pas de réponse',
	line: (line) => `Ligne ${line}.`,
	shutOut: 'robots.txt l’écarte.',
	noCard: 'Il ne montre pas de carte : il n’a pas pu lire la page.',
	passedOver: (from, why) => `Ce n’est pas l’image de ${from} : elle ${why}.`
};
