import type { InOtherWords } from '../speaking';
import type { wording } from '../en/look';

export const look: InOtherWords<typeof wording> = {
	language: 'Langue',
	look: 'Aspect',
	colours: 'Couleurs',
	asTheSystemHasThem: 'comme le système',
	space: 'Espace',
	asUsual: 'habituel'
};
