import { ownOf } from '../own';
import { READER_WORDS, FOR_EVER, habits, pictures, type Habits, type PictureHabits } from './habits';

/** What a reader is, in a few words. */
export const kindOfReader = ({ id, kind }: Pick<ReaderProfile, 'id' | 'kind'>): string =>
	ownOf(READER_WORDS.now()?.kinds, id) ?? kind;

/** How a reader draws a card. */
export type CardForm = 'wide' | 'timeline' | 'network' | 'chat' | 'messenger' | 'pin' | 'listing' | 'tab';

/** A simulated program that reads links: a habit that real ones have, as data. Names and looks are made up. */
export interface ReaderProfile {
	readonly id: string;
	readonly name: string;
	/** What it is, in a few words. */
	readonly kind: string;
	readonly form: CardForm;
	/** How it fetches, and what it does with what it gets. */
	readonly habits: Habits;
	/** The tags it asks for, first found first used; what else it takes of a page, by the names of `MoreOfPage`. */
	readonly title: readonly string[];
	readonly description: readonly string[];
	readonly picture: readonly string[];
	readonly place: readonly string[];
	readonly shows: { readonly title: TextLimit; readonly description: TextLimit };
	/** How it shows pictures; without it, it shows none. */
	readonly frame?: Frame;
	/** The tag that chooses between its large and its small card, and the value that stands for the large one. */
	readonly chooses?: { readonly by: string; readonly large: string };
	/** It shows the icon of the site; where no tag names one, nothing or what stands at /favicon.ico. */
	readonly icon?: 'tag' | 'or-favicon';
	/** It shows the label/data pairs. */
	readonly pairs?: true;
}

export type PictureFormat = 'jpeg' | 'png' | 'webp';

/** What a reader does with a picture. */
interface Frame extends PictureHabits {
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

const FATHOM = habits({
	...{ agent: 'Fathom/9 (search)', name: 'fathom', bytes: 2_000_000, refreshes: true },
	keeps: { under: 'canonical', hours: 168, failed: 24, again: 'wait' }
});

/** Those that make their cards of the head alone: what they show is known before a page is served. */
export const READERS: readonly ReaderProfile[] = [
	{
		...OPEN_GRAPH_FIRST,
		id: 'gangway',
		habits: habits({
			agent: 'Gangway/4 (cards of links)',
			name: 'gangway',
			bytes: 512_000,
			keeps: { under: 'og:url', hours: 720, failed: 1, again: 'ask-twice' }
		}),
		name: 'Gangway',
		kind: 'a feed with wide cards',
		form: 'wide',
		shows: { title: characters(88), description: characters(110) },
		frame: { ...pictures({ animated: 'still' }), takes: ALL_FORMS, shape: 1.91, minWidth: 600, smallShape: 1 }
	},
	{
		id: 'fathom',
		habits: FATHOM,
		name: 'Fathom line',
		kind: 'a search listing on a wide screen',
		form: 'listing',
		...SEARCH,
		shows: { title: pixels(580, 20), description: pixels(960, 14) }
	},
	{
		id: 'fathom-narrow',
		habits: FATHOM,
		name: 'Fathom line, narrow',
		kind: 'the same on a narrow screen',
		form: 'listing',
		...SEARCH,
		// Two lines of title, three of description.
		shows: { title: pixels(640, 18), description: pixels(900, 13) },
		icon: 'tag'
	},
	{
		id: 'headland',
		habits: habits({
			agent: 'Headland/2 cards',
			name: 'headland',
			bytes: 300_000,
			doubled: 'last',
			unfinished: 'none',
			keeps: { under: 'address', hours: 168, failed: 24, again: 'wait' }
		}),
		name: 'Headland',
		kind: 'a timeline that reads Twitter card tags first',
		form: 'timeline',
		title: ['twitter:title', 'og:title', 'title'],
		description: ['twitter:description', 'og:description', 'description'],
		picture: ['twitter:image', 'og:image'],
		place: ['og:url', 'canonical'],
		shows: { title: characters(70), description: characters(125) },
		frame: {
			...pictures({ animated: 'still' }),
			takes: ALL_FORMS,
			shape: 2,
			minWidth: 300,
			smallShape: 1,
			maxBytes: 5_000_000
		},
		chooses: { by: 'twitter:card', large: 'summary_large_image' }
	},
	{
		...OPEN_GRAPH_FIRST,
		id: 'ropewalk',
		habits: habits({
			agent: 'Ropewalk-Preview/1',
			name: 'ropewalk',
			otherHosts: false,
			counts: 'packed',
			languages: 'en',
			keeps: { under: 'og:url', hours: 168, failed: 1, again: 'ask' }
		}),
		name: 'Ropewalk',
		kind: 'a work network',
		form: 'network',
		description: [],
		shows: { title: characters(120), description: characters(0) },
		frame: {
			...pictures({ failing: 'blank', animated: 'none' }),
			takes: OLD_FORMS,
			shape: 1.91,
			minWidth: 401,
			smallShape: 1.91,
			maxBytes: 5_000_000
		}
	},
	{
		...OPEN_GRAPH_FIRST,
		id: 'galley',
		habits: habits({
			agent: 'Galley (link expander)',
			name: 'galley',
			obeysRobots: false,
			patience: 5_000,
			keeps: { under: 'address', hours: 0.5, failed: 0.5, again: 'wait' }
		}),
		name: 'Galley',
		kind: 'a team chat with icon and label/data pairs',
		form: 'chat',
		shows: { title: characters(150), description: characters(300) },
		frame: { ...pictures(), takes: ALL_FORMS, shape: undefined, minWidth: 200, maxBytes: 2_000_000 },
		icon: 'tag',
		pairs: true
	},
	{
		...OPEN_GRAPH_FIRST,
		id: 'bottle',
		habits: habits({
			agent: 'Bottle/7',
			name: 'bottle',
			obeysRobots: false,
			bytes: 200_000,
			patience: 5_000,
			follows: [301, 302, 303, 307],
			relative: 'drops',
			keeps: { under: 'address', hours: 8_760, failed: 1, again: 'new-address' }
		}),
		name: 'Bottle',
		kind: 'a messenger with small square pictures',
		form: 'messenger',
		shows: { title: characters(65), description: characters(80) },
		frame: { ...pictures({ animated: 'still' }), takes: OLD_FORMS, shape: 1, minWidth: 100, maxBytes: 600_000 }
	},
	{
		...OPEN_GRAPH_FIRST,
		id: 'wrack',
		habits: habits({
			agent: 'Wrack/3 (pins)',
			name: 'wrack',
			readsBody: true,
			doubled: 'last',
			keeps: { under: 'og:url', hours: 336, failed: 12, again: 'ask' }
		}),
		name: 'Wrack',
		kind: 'a pin board that wants every tall picture',
		form: 'pin',
		shows: { title: characters(100), description: characters(60) },
		frame: { ...pictures({ otherwise: 'chance' }), takes: ALL_FORMS, shape: undefined, minWidth: 200, every: true }
	},
	{
		...SEARCH,
		id: 'porthole',
		habits: habits({
			agent: 'Porthole/120',
			name: 'porthole',
			obeysRobots: false,
			refreshes: true,
			cookies: true,
			redirects: 20,
			bytes: 5_000_000,
			languages: 'en-GB,en;q=0.8'
		}),
		name: 'Porthole',
		kind: 'a browser tab',
		form: 'tab',
		description: [],
		shows: { title: pixels(158, 12), description: characters(0) },
		icon: 'tag'
	}
];

/** Those whose card is made of more than the head, or where the page is sent from: what they show is seen when it is served. */
const PAGE_READERS: readonly ReaderProfile[] = [
	{
		id: 'logbook',
		habits: habits({
			...{ agent: 'Logbook/2 (notes; asks for oEmbed)', name: 'logbook' },
			keeps: { under: 'canonical', hours: 72, failed: 1, again: 'ask' }
		}),
		name: 'Logbook',
		kind: 'a shared notebook that asks for oEmbed',
		form: 'network',
		title: ['oembed:title', 'og:title', 'title'],
		description: ['og:description', 'description'],
		picture: ['oembed:thumbnail_url', 'og:image'],
		place: ['canonical', 'og:url'],
		shows: { title: characters(100), description: characters(160) },
		frame: { ...pictures({ judges: 'tags' }), takes: OLD_FORMS, shape: 1.91, minWidth: 200, smallShape: 1.91 }
	},
	{
		id: 'almanac',
		habits: habits({
			...{ agent: 'Almanac/1 (reading lists)', name: 'almanac', bytes: 3_000_000 },
			keeps: { under: 'canonical', hours: 24, failed: 2, again: 'ask' }
		}),
		name: 'Almanac',
		kind: 'a reading list that takes JSON-LD and itemprop first',
		form: 'wide',
		title: ['ld:headline', 'ld:name', 'itemprop:name', 'og:title', 'title'],
		description: ['ld:description', 'itemprop:description', 'og:description', 'description'],
		picture: ['ld:image', 'itemprop:image', 'og:image'],
		place: ['canonical', 'og:url'],
		shows: { title: characters(90), description: characters(140) },
		frame: { ...pictures(), takes: ALL_FORMS, shape: 1.91, minWidth: 500, smallShape: 1 }
	},
	{
		id: 'flotsam',
		habits: habits({
			...{ agent: 'Flotsam/5 (forum)', name: 'flotsam', obeysRobots: false },
			...{ readsBody: true, keeps: { under: 'address', hours: 48, failed: 6, again: 'ask' } }
		}),
		name: 'Flotsam',
		kind: 'a forum that takes what stands on the page where tags say nothing',
		form: 'chat',
		title: ['og:title', 'h1', 'title'],
		description: ['og:description', 'description'],
		picture: ['og:image'],
		place: ['canonical'],
		shows: { title: characters(120), description: characters(200) },
		frame: {
			...pictures({ otherwise: 'first' }),
			takes: ALL_FORMS,
			shape: undefined,
			minWidth: 200,
			maxBytes: 4_000_000
		},
		icon: 'or-favicon'
	},
	{
		id: 'semaphore',
		habits: habits({
			...{ agent: 'Semaphore/6 (on the device of who sends)', name: 'semaphore' },
			...{ obeysRobots: false, cookies: true, languages: 'en-GB,en;q=0.8', bytes: 600_000 },
			keeps: { under: 'address', hours: FOR_EVER, failed: 0, again: 'never' }
		}),
		name: 'Semaphore',
		kind: 'a messenger whose sender makes the card and passes it on',
		form: 'messenger',
		title: ['og:title', 'title'],
		description: ['og:description', 'description'],
		picture: ['og:image'],
		place: ['og:url', 'canonical'],
		shows: { title: characters(60), description: characters(90) },
		frame: { ...pictures({ animated: 'none' }), takes: OLD_FORMS, shape: 1, minWidth: 80, maxBytes: 1_000_000 }
	}
];

export const ALL_READERS: readonly ReaderProfile[] = [...READERS, ...PAGE_READERS];

/** Whether the head alone says what a reader shows. */
export const readsHeadAlone = ({ title, description, picture, icon, frame }: ReaderProfile): boolean =>
	icon !== 'or-favicon' &&
	frame?.otherwise !== 'first' &&
	[...title, ...description, ...picture].every((source) => !/^(?:oembed|ld|itemprop):|^h1$/.test(source));
