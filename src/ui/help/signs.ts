interface Sign {
	readonly name: string;
	readonly says: readonly [string, string, string];
	readonly example: string;
}

/** What the signs of the interface stand for, each in three sentences and an example. */
export const SIGNS = {
	page: {
		name: 'Filled: this page says it',
		says: [
			'The value was written for this page alone.',
			'What a page says goes before its type, the site and what is built in.',
			'Emptied, the next layer below decides again.'
		],
		example: 'A title written for the home page, while all others follow their types'
	},
	type: {
		name: 'Hatched: its type says it',
		says: [
			'A rule of the page’s type made the value.',
			'It holds for every page of that type that says nothing itself.',
			'One edit there changes them all; how many is told before it is kept.'
		],
		example: '{page.title}, a walk of {page.distance} km, for all walks'
	},
	site: {
		name: 'Dotted: the site says it',
		says: [
			'A rule of the whole site made the value.',
			'It holds wherever neither the page nor its type says anything.',
			'It is the place for what is the same everywhere.'
		],
		example: 'og:site_name, or the share picture where a page has none'
	},
	'built-in': {
		name: 'Open: built in',
		says: [
			'No rule says anything, so Kephalon does what nearly every site wants.',
			'The title is the page’s, og:url its address, the picture the first that will do.',
			'Any rule, however small, goes before it.'
		],
		example: 'og:title is the page’s title, without anybody having said so'
	},
	found: {
		name: 'Lined: as found in the page',
		says: [
			'The page’s own file said this before Kephalon read it.',
			'It stands at the page’s layer, below what was written here, and is kept as it was.',
			'It can be taken over as a rule, or set aside.'
		],
		example: 'A description that an author wrote into the file by hand'
	},
	pennant: {
		name: 'The pennant: nobody sees it yet',
		says: [
			'What is kept differs from what was released.',
			'Visitors and readers get the last release until there is another.',
			'Release sends out all that differs, or one page alone.'
		],
		example: 'released: “Walks”, while the head here says “Autumn walks”'
	},
	gap: {
		name: 'A dashed box: a gap',
		says: [
			'A variable of the template is empty on this page.',
			'What stands around it prints all the same, and shows the hole.',
			'Put both into [[ … ]], and they go together.'
		],
		example: '{page.title} in ▢ → {page.title}[[ in {page.region}]]'
	},
	cut: {
		name: 'A dashed edge in a text: cut there',
		says: [
			'A reader shows the text up to here.',
			'What follows is struck through, so that one sees what is lost.',
			'Each reader has limits of its own, by characters or by width.'
		],
		example: '“A walk along the cliffs to the old ¦lighthouse, two hours”'
	},
	pin: {
		name: 'Pinned',
		says: [
			'Somebody keeps what the tag comes to as a promise.',
			'An edit that would change it says so before it is kept.',
			'A broken pin is a finding until it is mended or pinned anew.'
		],
		example: 'The title of the page that an advertisement quotes'
	}
} as const satisfies Readonly<Record<string, Sign>>;

/** The same in any language. */
export type SignWords = Readonly<Record<keyof typeof SIGNS, Sign>>;
