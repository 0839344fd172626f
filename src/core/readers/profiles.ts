/** A simulated program that reads links: a habit that real ones have, as data. Names and looks are made up. */
export interface ReaderProfile {
	readonly id: string;
	readonly name: string;
	/** What it is, in a few words. */
	readonly kind: string;
	/** How it draws a card. */
	readonly form: 'wide' | 'listing';
	/** The tags it asks for, first found first used. */
	readonly title: readonly string[];
	readonly description: readonly string[];
	readonly picture: readonly string[];
	readonly place: readonly string[];
	readonly cuts: { readonly title: Cut; readonly description: Cut };
	/** The shape it cuts pictures to (width divided by height), and the least width in pixels it shows large. */
	readonly frame?: { readonly shape: number; readonly minWidth: number };
}

/** Where a text is cut: after so many characters, or after so many pixels at a font size. */
export type Cut =
	| { readonly by: 'characters'; readonly limit: number }
	| { readonly by: 'pixels'; readonly limit: number; readonly fontSize: number };

export const READERS: readonly ReaderProfile[] = [
	{
		id: 'gangway',
		name: 'Gangway',
		kind: 'a feed with wide cards',
		form: 'wide',
		title: ['og:title', 'twitter:title', 'title'],
		description: ['og:description', 'twitter:description', 'description'],
		picture: ['og:image', 'twitter:image'],
		place: ['og:url', 'canonical'],
		cuts: { title: { by: 'characters', limit: 88 }, description: { by: 'characters', limit: 110 } },
		frame: { shape: 1.91, minWidth: 600 }
	},
	{
		id: 'fathom',
		name: 'Fathom line',
		kind: 'a search listing on a wide screen',
		form: 'listing',
		title: ['title', 'og:title'],
		description: ['description', 'og:description'],
		picture: [],
		place: ['canonical', 'og:url'],
		cuts: { title: { by: 'pixels', limit: 580, fontSize: 20 }, description: { by: 'pixels', limit: 960, fontSize: 14 } }
	}
];
