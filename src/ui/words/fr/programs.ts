import type { InOtherWords } from '../speaking';
import type { wording } from '../en/programs';

export const programs: InOtherWords<typeof wording> = {
	mayBeMissing: ', peut manquer',
	routes: 'Routes',
	kephalon: 'Kephalon',
	findARoute: 'Trouver une route',
	findARoutePushReleaseHead: 'Trouver une route : push, release, head',
	noRouteHasThatInItsWords: 'Aucune route n’a cela dans ses mots.',
	forPrograms: 'Pour les programmes',
	theWholeOfIt: (what) => `${what} En entier :`,
	everybodyMayAsk: 'Chacun peut demander.',
	asksFor: (right) => `Demande : ${right}.`,
	whatIsSent: 'Ce qui est envoyé',
	send: (method) => `Envoyer ${method}`,
	sayFirst: (join) => `Dites d’abord : ${join}.`,
	askedWithYourOwnRights: 'Demandé avec vos propres droits.',
	askedWithYourOwnRightsItDoes: 'Demandé avec vos propres droits : cela fait ce que cela dit.',
	whatWasAnswered: 'Ce qui a été répondu',
	whatIsAnswered: 'Ce qui est répondu',
	nothingWasAnswered: 'Rien n’a été répondu',
	bytesNoText: (blob) => `${blob} octets, pas de texte.`,
	andMore: (slice, it) => `${slice}
… et ${it} de plus.`,
	anything: 'n’importe quoi',
	listOf: (what) => `liste de ${what}`
};
