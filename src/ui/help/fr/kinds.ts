import type { KINDS } from '../help';

/** What fields hold, in French. */
export const kinds: typeof KINDS = {
	text: [
		'Des mots sur une ligne ou quelques-unes.',
		'Les modèles les mettent tels quels, et peuvent les couper.',
		'| clip 60'
	],
	rich: ['Un texte avec titres, listes et liens.', 'Les modèles en prennent les mots sans leur code.', '| sentences 1'],
	number: [
		'Un nombre, sans unité.',
		'Les modèles l’écrivent comme la langue de la page écrit les nombres.',
		'| number'
	],
	date: [
		'Un jour, ou un moment, ou de l’un à l’autre.',
		'Les modèles l’écrivent dans la langue de la page.',
		'| date "d MMMM"'
	],
	flag: ['Oui ou non.', 'Les modèles le demandent, et écrivent des mots pour lui.', '[[{page.NAME?}Gratuit]]'],
	choice: ['Une valeur parmi quelques-unes.', 'Chacune a des mots dans chaque langue du site.', ''],
	link: ['Une adresse, ou un chemin du site.', 'Les modèles l’écrivent en entier.', ''],
	list: ['Plusieurs mots.', 'Les modèles les joignent comme le fait la langue de la page.', '| join'],
	picture: [
		'Une image avec texte alternatif.',
		'Les sources d’images la prennent\u202f; les modèles en connaissent les parties.',
		''
	],
	pictures: ['Plusieurs images.', 'Les sources d’images prennent la première qui convient.', ''],
	person: [
		'Quelqu’un\u00a0: un nom, un compte, une adresse, une image.',
		'Les modèles en connaissent chaque partie.',
		''
	],
	people: ['Plusieurs personnes.', 'Les modèles joignent leurs noms.', '| join'],
	page: ['Une autre page du site.', 'Les modèles en lisent les champs, et ce que donne son en-tête.', ''],
	pages: ['Plusieurs autres pages.', 'Les modèles lisent la première, ou joignent ce qu’elles disent.', '']
};
