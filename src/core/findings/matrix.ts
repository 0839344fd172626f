import { READERS } from '../readers/profiles';

/** The tags whose share of pages is shown by type. Legacy ones are not asked for. */
export const MATRIX_TAGS = [
	...[
		'title',
		'description',
		'canonical',
		'robots',
		'og:title',
		'og:description',
		'og:image',
		'og:image:alt',
		'og:locale'
	],
	...['og:type', 'article:published_time', 'twitter:card', 'twitter:image', 'alternate', 'author']
];

/** Thousandths of an em in one step of the picture of widths. */
export const WIDTH_STEP = 2000;

/** Where readers that measure cut a title, in ems, the narrowest first. */
export const TITLE_CUTS = READERS.flatMap(({ name, shows: { title } }) =>
	title.by === 'pixels' && title.limit > 0 ? [{ reader: name, ems: title.limit / title.fontSize }] : []
).sort((a, b) => a.ems - b.ems);
