import type { InOtherWords } from '../speaking';
import type { wording } from '../en/places';

export const places: InOtherWords<typeof wording> = {
	overview: 'Vue d’ensemble',
	pages: 'Pages',
	bench: 'Établi',
	findings: 'Constats',
	readers: 'Lecteurs',
	library: 'Médiathèque',
	releases: 'Publications'
};
