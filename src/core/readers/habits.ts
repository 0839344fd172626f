/** How a reader fetches a page, and what it does with what it gets. What is marked as guessed was not measured anywhere. */
export interface Habits {
	/** What it calls itself when it asks. */
	readonly agent: string;
	/** The name that it goes by in robots.txt. */
	readonly name: string;
	readonly accepts: string;
	/** Redirects that it follows, and whether to other hosts and by a refresh in the markup. */
	readonly redirects: number;
	readonly otherHosts: boolean;
	readonly refreshes: boolean;
	/** Bytes of a page that it reads, and of its header alone. */
	readonly bytes: number;
	/** Milliseconds that it waits for all of it. */
	readonly patience: number;
	/** Tags below the head count too. */
	readonly readsBody: boolean;
	/** A relative address is worked out, or taken for none. */
	readonly relative: 'resolves' | 'drops';
	/** Of a tag that stands twice it takes the first or the last. */
	readonly doubled: 'first' | 'last';
	/** What the card is kept under. */
	readonly key: 'og:url' | 'canonical' | 'address';
	/** What it shows when no tag names a picture: nothing, the first of the page, or any of the page. */
	readonly withoutPicture: 'none' | 'first' | 'chance';
	/** It fetches the picture and judges it by what it is, or by its tags alone. */
	readonly judges: 'fetch' | 'tags';
	readonly obeysRobots: boolean;
	/** Hours that it keeps a card. */
	readonly keeps: number;
	/** How it is told to fetch again, and how often it must be told. */
	readonly again: 'ask' | 'ask-twice' | 'new-address' | 'wait';
}

const USUAL: Omit<Habits, 'agent' | 'name'> = {
	accepts: 'text/html,application/xhtml+xml',
	...{ redirects: 5, otherHosts: true, refreshes: false },
	...{ bytes: 1_000_000, patience: 10_000 },
	...{ readsBody: false, relative: 'resolves', doubled: 'first', key: 'og:url' },
	...{ withoutPicture: 'none', judges: 'fetch', obeysRobots: true, keeps: 24, again: 'ask' }
};

/** By the id of the reader. */
export const HABITS: Readonly<Record<string, Habits>> = {
	gangway: {
		...USUAL,
		agent: 'Gangway/4 (cards of links)',
		name: 'gangway',
		bytes: 512_000,
		keeps: 720,
		again: 'ask-twice'
	},
	fathom: {
		...{ ...USUAL, agent: 'Fathom/9 (search)', name: 'fathom', bytes: 2_000_000, key: 'canonical' },
		...{ refreshes: true, readsBody: false, keeps: 168, again: 'wait' }
	},
	'fathom-narrow': {
		...{ ...USUAL, agent: 'Fathom/9 (search)', name: 'fathom', bytes: 2_000_000, key: 'canonical' },
		...{ refreshes: true, keeps: 168, again: 'wait' }
	},
	headland: {
		...USUAL,
		agent: 'Headland/2 cards',
		name: 'headland',
		bytes: 300_000,
		keeps: 168,
		doubled: 'last',
		again: 'wait',
		key: 'address'
	},
	ropewalk: {
		...USUAL,
		agent: 'Ropewalk-Preview/1',
		name: 'ropewalk',
		otherHosts: false,
		bytes: 1_000_000,
		keeps: 168,
		again: 'ask'
	},
	galley: {
		...USUAL,
		agent: 'Galley (link expander)',
		name: 'galley',
		obeysRobots: false,
		patience: 5_000,
		keeps: 0.5,
		key: 'address',
		again: 'wait'
	},
	bottle: {
		...{ ...USUAL, agent: 'Bottle/7', name: 'bottle', obeysRobots: false, bytes: 200_000, patience: 5_000 },
		...{
			relative: 'drops' as const,
			judges: 'fetch' as const,
			keeps: 8_760,
			key: 'address' as const,
			again: 'new-address' as const
		}
	},
	wrack: {
		...USUAL,
		agent: 'Wrack/3 (pins)',
		name: 'wrack',
		readsBody: true,
		withoutPicture: 'chance',
		doubled: 'last',
		keeps: 336,
		again: 'ask'
	},
	porthole: {
		...USUAL,
		agent: 'Porthole/120',
		name: 'porthole',
		obeysRobots: false,
		refreshes: true,
		redirects: 20,
		bytes: 5_000_000,
		keeps: 0,
		key: 'address',
		again: 'ask'
	}
};

/** How a reader is told to fetch again, in a sentence. */
export const AGAIN_IN_WORDS: Readonly<Record<Habits['again'], string>> = {
	ask: 'Asked once, it fetches again.',
	'ask-twice': 'It fetches again when it is asked twice.',
	'new-address': 'Only another address makes it fetch again.',
	wait: 'Nothing makes it fetch again before its time.'
};

const counted = (count: number, name: string) => `${count} ${name}${count === 1 ? '' : 's'}`;

/** Each habit in a sentence, in the order in which they matter on the way. */
export function habitsInWords(habits: Habits): string[] {
	const {
		redirects,
		otherHosts,
		refreshes,
		bytes,
		patience,
		readsBody,
		relative,
		doubled,
		key,
		withoutPicture,
		judges,
		obeysRobots,
		keeps,
		again
	} = habits;
	return [
		obeysRobots ? 'It obeys robots.txt.' : 'It does not ask robots.txt.',
		`It follows ${counted(redirects, 'redirect')}${otherHosts ? '' : ', but not to another host'}${refreshes ? ', also those by a refresh in the page' : ''}.`,
		`It reads the first ${Math.round(bytes / 1000).toLocaleString('en')} kB, and waits ${patience / 1000} seconds.`,
		readsBody ? 'It takes tags that stand below the head.' : 'It takes no tag below the head.',
		relative === 'resolves' ? 'It works out relative addresses.' : 'It takes a relative address for none.',
		`Of a tag that stands twice it takes the ${doubled}.`,
		{
			none: 'Without a picture its card stays blank.',
			first: 'Without a picture it takes the first of the page.',
			chance: 'Without a picture it takes any of the page, by chance.'
		}[withoutPicture],
		judges === 'fetch'
			? 'It fetches the picture and judges what it gets.'
			: 'It believes what tags say of the picture.',
		keeps === 0
			? 'It keeps no card.'
			: `It keeps a card for ${keeps < 24 ? counted(keeps, 'hour') : counted(Math.round(keeps / 24), 'day')}, under ${key === 'address' ? 'the address that was pasted' : `what ${key} says`}.`,
		AGAIN_IN_WORDS[again],
		'It runs no scripts.'
	];
}
