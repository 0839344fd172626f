import type { InOtherWords } from '../speaking';
import type { wording } from '../en/panel';

export const panel: InOtherWords<typeof wording> = {
	nothing: 'rien',
	visitorsSee: (what) => `les visiteurs voient : ${what}`,
	wordsOfItsOwnAreWrittenBy: 'Ses propres mots sont écrits par qui peut modifier cette page dans Kephalon.',
	openInKephalon: 'Ouvrir dans Kephalon',
	writtenInKephalonSoWhatIs: (join) => `Écrit dans Kephalon, donc ce qui est tapé ici n’y change rien : ${join}.`,
	itsCard: 'Sa carte',
	asShownBy: 'Comme la montre',
	readerOfLinks: 'Lecteur de liens',
	whatIsWeak: 'Ce qui est faible',
	nothingWeakWasFoundInWhatIt: 'Rien de faible n’a été trouvé dans ce qu’elle dit.',
	allOtherTags: 'Toutes les autres balises',
	allOtherReaders: 'Tous les autres lecteurs',
	inSearch: 'Dans les recherches',
	whereItIsShared: 'Là où elle est partagée',
	howThisPageIsShared: 'Comment cette page est partagée',
	thisIsShownBesideAnEditorIn: (site) =>
		`Ceci se montre à côté d’un éditeur, dans une page dont ${site} nomme l’origine : un propriétaire le dit dans la salle des personnes.`,
	signInToSeeHowThisPage:
		'Connectez-vous pour voir comment cette page est partagée, et pour écrire ce que disent ses cartes.',
	signIn: 'Se connecter',
	askAgain: 'Redemander',
	lookingAtThePage: 'Examen de la page …',
	kephalonHasNoSuchPageYetThis:
		'Kephalon n’a pas encore cette page. Voici ce que les règles de son type font de ce qui est tapé ; ses propres mots pourront être écrits une fois qu’elle sera là.',
	aDraft: 'Un brouillon',
	private: 'Privée',
	itIsNotReleased: (what) => `${what} : elle n’est pas publiée.`,
	visitorsDoNotSeeItYetIt: 'Les visiteurs ne la voient pas encore : elle sort avec la prochaine publication.',
	asTyped: 'Telle que tapée',
	asItIsKept: 'Telle que gardée',
	itIsWhatVisitorsSee: (what) => `${what}, c’est ce que voient les visiteurs.`,
	oneTagDiffers: 'une balise diffère',
	tagsDiffer: (differing) => `${differing} balises diffèrent`,
	fromWhatVisitorsSee: (what, what2) => `${what}, ${what2} de ce que voient les visiteurs.`,
	thisPagesOwn: 'propre à cette page',
	theWholeSite: 'tout le site',
	foundInItsFile: 'trouvé dans son fichier',
	builtIn: 'd’origine'
};
