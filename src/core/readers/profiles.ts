/** How a reader draws a card. */
export type CardForm = 'wide' | 'timeline' | 'network' | 'chat' | 'messenger' | 'pin' | 'listing' | 'tab';

/** A simulated program that reads links: a habit that real ones have, as data. Names and looks are made up. */
export interface ReaderProfile {
	readonly id: string;
	readonly name: string;
	/** What it is, in a few words. */
	readonly kind: string;
	readonly form: CardForm;
	/** The tags it asks for, first found first used. */
	readonly title: readonly string[];
	readonly description: readonly string[];
	readonly picture: readonly string[];
	readonly place: readonly string[];
	readonly shows: { readonly title: TextLimit; readonly description: TextLimit };
	/** How it shows pictures; without it, it shows none. */
	readonly frame?: Frame;
	/** The tag that chooses between its large and its small card, and the value that stands for the large one. */
	readonly chooses?: { readonly by: string; readonly large: string };
	/** It shows the icon of the site. */
	readonly icon?: true;
	/** It shows the label/data pairs. */
	readonly pairs?: true;
}

export type PictureFormat = 'jpeg' | 'png' | 'webp';

/** What a reader does with a picture. */
interface Frame {
	/** The forms of pictures it can read. */
	readonly takes: readonly (PictureFormat | 'gif')[];
	/** The shape it cuts to (width divided by height); undefined when it shows the whole picture. */
	readonly shape: number | undefined;
	/** From this width in pixels on, the picture is shown large. */
	readonly minWidth: number;
	/** The most bytes it fetches. */
	readonly maxBytes?: number;
	/** The shape of its small card, where it has one. */
	readonly smallShape?: number;
	/** It takes every picture, not the first alone, and likes tall ones. */
	readonly every?: true;
}

/** How much of a text is shown: so many characters, or so many pixels at a font size. */
export type TextLimit =
	| { readonly by: 'characters'; readonly limit: number }
	| { readonly by: 'pixels'; readonly limit: number; readonly fontSize: number };

const characters = (limit: number): TextLimit => ({ by: 'characters', limit });
const pixels = (limit: number, fontSize: number): TextLimit => ({ by: 'pixels', limit, fontSize });

const OLD_FORMS = ['jpeg', 'png', 'gif'] as const;
const ALL_FORMS = [...OLD_FORMS, 'webp'] as const;

/** Most readers ask for Open Graph first and fall back to what else there is. */
const OPEN_GRAPH_FIRST = {
	title: ['og:title', 'twitter:title', 'title'],
	description: ['og:description', 'twitter:description', 'description'],
	picture: ['og:image', 'twitter:image'],
	place: ['og:url', 'canonical']
};
const SEARCH = {
	title: ['title', 'og:title'],
	description: ['description', 'og:description'],
	picture: [],
	place: ['canonical', 'og:url']
};

export const READERS: readonly ReaderProfile[] = [
	{
		...OPEN_GRAPH_FIRST,
		id: 'gangway',
		name: 'Gangway',
		kind: 'a feed with wide cards',
		form: 'wide',
		shows: { title: characters(88), description: characters(110) },
		frame: { takes: ALL_FORMS, shape: 1.91, minWidth: 600, smallShape: 1 }
	},
	{
		id: 'fathom',
		name: 'Fathom line',
		kind: 'a search listing on a wide screen',
		form: 'listing',
		...SEARCH,
		shows: { title: pixels(580, 20), description: pixels(960, 14) }
	},
	{
		id: 'fathom-narrow',
		name: 'Fathom line, narrow',
		kind: 'the same on a narrow screen',
		form: 'listing',
		...SEARCH,
		// Two lines of title, three of description.
		shows: { title: pixels(640, 18), description: pixels(900, 13) },
		icon: true
	},
	{
		id: 'headland',
		name: 'Headland',
		kind: 'a timeline that reads Twitter card tags first',
		form: 'timeline',
		title: ['twitter:title', 'og:title', 'title'],
		description: ['twitter:description', 'og:description', 'description'],
		picture: ['twitter:image', 'og:image'],
		place: ['og:url', 'canonical'],
		shows: { title: characters(70), description: characters(125) },
		frame: { takes: ALL_FORMS, shape: 2, minWidth: 300, smallShape: 1, maxBytes: 5_000_000 },
		chooses: { by: 'twitter:card', large: 'summary_large_image' }
	},
	{
		...OPEN_GRAPH_FIRST,
		id: 'ropewalk',
		name: 'Ropewalk',
		kind: 'a work network',
		form: 'network',
		description: [],
		shows: { title: characters(120), description: characters(0) },
		frame: { takes: OLD_FORMS, shape: 1.91, minWidth: 401, smallShape: 1.91, maxBytes: 5_000_000 }
	},
	{
		...OPEN_GRAPH_FIRST,
		id: 'galley',
		name: 'Galley',
		kind: 'a team chat with icon and label/data pairs',
		form: 'chat',
		shows: { title: characters(150), description: characters(300) },
		frame: { takes: ALL_FORMS, shape: undefined, minWidth: 200, maxBytes: 2_000_000 },
		icon: true,
		pairs: true
	},
	{
		...OPEN_GRAPH_FIRST,
		id: 'bottle',
		name: 'Bottle',
		kind: 'a messenger with small square pictures',
		form: 'messenger',
		shows: { title: characters(65), description: characters(80) },
		frame: { takes: OLD_FORMS, shape: 1, minWidth: 100, maxBytes: 600_000 }
	},
	{
		...OPEN_GRAPH_FIRST,
		id: 'wrack',
		name: 'Wrack',
		kind: 'a pin board that wants every tall picture',
		form: 'pin',
		shows: { title: characters(100), description: characters(60) },
		frame: { takes: ALL_FORMS, shape: undefined, minWidth: 200, every: true }
	},
	{
		...SEARCH,
		id: 'porthole',
		name: 'Porthole',
		kind: 'a browser tab',
		form: 'tab',
		description: [],
		shows: { title: pixels(158, 12), description: characters(0) },
		icon: true
	}
];
