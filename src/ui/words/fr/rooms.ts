import type { InOtherWords } from '../speaking';
import type { wording } from '../en/rooms';

export const rooms: InOtherWords<typeof wording> = {
	light: 'clair',
	dark: 'sombre',
	denser: 'plus serré',
	roomier: 'plus aéré',
	keys: 'Raccourcis',
	theRoom: (name) => `La salle « ${name} »`,
	toTheContent: 'Au contenu',
	roomsOfTheSite: 'Salles du site',
	kephalonToTheSites: 'Kephalon, vers les sites',
	kephalon: 'Kephalon',
	oneEditWaits: 'Une modification attend',
	editsWait: (waiting) => `${waiting} modifications attendent`,
	toBeKept: (what) => `${what} d’être gardée`,
	language: 'Langue',
	look: 'Aspect',
	colours: 'Couleurs',
	asTheSystemHasThem: 'comme le système',
	space: 'Espace',
	asUsual: 'habituel',
	overview: 'Vue d’ensemble',
	pages: 'Pages',
	bench: 'Établi',
	findings: 'Constats',
	readers: 'Lecteurs',
	library: 'Médiathèque',
	releases: 'Publications'
};
