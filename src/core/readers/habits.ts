import { otherWords } from '../words/speaking';
/** How a reader fetches a page, and what it does with what it gets. None was measured anywhere: each stands for one that is seen. */
export interface Habits {
	/** What it calls itself when it asks. */
	readonly agent: string;
	/** The name that it goes by in robots.txt, and in a `meta` or header that speaks to it alone. */
	readonly name: string;
	/** What it sends as `Accept`, and as `Accept-Language`: '' sends none. */
	readonly accepts: string;
	readonly languages: string;
	/** Redirects that it follows, of which kinds (by status), whether to other hosts, and by a refresh. */
	readonly redirects: number;
	readonly follows: readonly number[];
	readonly otherHosts: boolean;
	readonly refreshes: boolean;
	/** Cookies are kept from hop to hop, and forgotten after. */
	readonly cookies: boolean;
	/** Bytes of a page that it reads, counted as they come or unpacked. */
	readonly bytes: number;
	readonly counts: 'packed' | 'unpacked';
	/** Milliseconds that it waits for all of it. */
	readonly patience: number;
	/** Of a page that breaks off it makes a card of what came, or none. */
	readonly unfinished: 'card' | 'none';
	/** Tags below the head count too. */
	readonly readsBody: boolean;
	/** A relative address is worked out, or taken for none. */
	readonly relative: 'resolves' | 'drops';
	/** Of a tag that stands twice it takes the first or the last. */
	readonly doubled: 'first' | 'last';
	readonly obeysRobots: boolean;
	/** How it keeps cards; one without keeps none. */
	readonly keeps?: Keeping;
}

interface Keeping {
	/** What the card is kept under. */
	readonly under: 'og:url' | 'canonical' | 'address';
	/** Hours that it keeps a card, and that it keeps that there was none. */
	readonly hours: number;
	readonly failed: number;
	/** How it is told to fetch again, and how often it must be told. */
	readonly again: 'ask' | 'ask-twice' | 'new-address' | 'wait' | 'never';
}

/** What it does with pictures. */
export interface PictureHabits {
	/** It fetches the picture and judges it by what it is, or by its tags alone: whoever shows the card then fetches it. */
	readonly judges: 'fetch' | 'tags';
	/** Where its first choice cannot be shown, it takes its next, or its card stays blank. */
	readonly failing: 'next' | 'blank';
	/** What it shows when no tag names a picture: nothing, the first of the page, or any of the page. */
	readonly otherwise: 'none' | 'first' | 'chance';
	/** One that moves is shown moving, as its first frame, or not at all. */
	readonly animated: 'moves' | 'still' | 'none';
}

/** Hours in ten years: longer than any link is looked at. */
export const FOR_EVER = 87_600;

const USUAL: Omit<Habits, 'agent' | 'name'> = {
	...{ accepts: 'text/html,application/xhtml+xml', languages: '' },
	...{ redirects: 5, follows: [301, 302, 303, 307, 308], otherHosts: true, refreshes: false, cookies: false },
	...{ bytes: 1_000_000, counts: 'unpacked', patience: 10_000, unfinished: 'card' },
	...{ readsBody: false, relative: 'resolves', doubled: 'first', obeysRobots: true }
};

/** The habits of most readers, but for what is said. */
export const habits = (of: Pick<Habits, 'agent' | 'name'> & Partial<Habits>): Habits => ({ ...USUAL, ...of });

/** How most readers take pictures, but for what is said. */
export const pictures = (of: Partial<PictureHabits> = {}): PictureHabits => ({
	...{ judges: 'fetch', failing: 'next', otherwise: 'none', animated: 'moves' },
	...of
});

/** How a reader is told to fetch again, in a sentence. */
export const AGAIN_IN_WORDS: Readonly<Record<Keeping['again'], string>> = {
	ask: 'Asked once, it fetches again.',
	'ask-twice': 'It fetches again when it is asked twice.',
	'new-address': 'Only another address makes it fetch again.',
	wait: 'Nothing makes it fetch again before its time.',
	never: 'The card goes with the message: what was sent stays as it was.'
};

const counted = (count: number, name: string) => `${count} ${name}${count === 1 ? '' : 's'}`;
const during = (hours: number) =>
	hours >= FOR_EVER
		? 'for ever'
		: `for ${hours < 24 ? counted(hours, 'hour') : counted(Math.round(hours / 24), 'day')}`;

const KINDS_OF_REDIRECT = USUAL.follows;

/** What readers are, by their ids, and how they go about it, in another language. */
export interface ReaderWords {
	readonly kinds: Readonly<Record<string, string>>;
	/** In sentences; with the statuses of redirects that it does not follow. */
	readonly habits: (
		reader: { readonly habits: Habits; readonly frame?: PictureHabits },
		passed: readonly number[]
	) => string[];
}
export const READER_WORDS = otherWords<ReaderWords>();

/** Each habit in a sentence, in the order in which they matter on the way. */
export function habitsInWords(reader: {
	readonly habits: Habits;
	readonly frame?: PictureHabits & { readonly maxBytes?: number };
}): string[] {
	const { languages, accepts, redirects, follows, otherHosts, refreshes, cookies } = reader.habits;
	const { bytes, counts, patience, unfinished, readsBody, relative, doubled, obeysRobots, keeps } = reader.habits;
	const passed = KINDS_OF_REDIRECT.filter((status) => !follows.includes(status));
	const other = READER_WORDS.now();
	if (other) return other.habits(reader, passed);
	return [
		obeysRobots ? 'It obeys robots.txt.' : 'It does not ask robots.txt.',
		`It asks for ${accepts}${languages === '' ? '' : `, in ${languages}`}.`,
		`It follows ${counted(redirects, 'redirect')}${passed.length > 0 ? ` (none of ${passed.join(', ')})` : ''}${otherHosts ? '' : ', but not to another host'}${refreshes ? ', also those by a refresh in the page' : ''}.`,
		cookies ? 'It keeps cookies on its way.' : 'It keeps no cookies.',
		`It reads the first ${Math.round(bytes / 1000).toLocaleString('en')} kB${counts === 'packed' ? ' as they come, packed' : ''}, and waits ${patience / 1000} seconds.`,
		unfinished === 'card'
			? 'Of a page that breaks off it takes what came.'
			: 'Of a page that breaks off it makes no card.',
		readsBody ? 'It takes tags that stand below the head.' : 'It takes no tag below the head.',
		relative === 'resolves' ? 'It works out relative addresses.' : 'It takes a relative address for none.',
		`Of a tag that stands twice it takes the ${doubled}.`,
		...(reader.frame ? pictureHabitsInWords(reader.frame) : ['It shows no picture.']),
		...(keeps
			? [
					`It keeps a card ${during(keeps.hours)}, under ${keeps.under === 'address' ? 'the address that was pasted' : `what ${keeps.under} says`}${keeps.failed > 0 ? `; that there was none, ${during(keeps.failed)}` : ''}.`,
					AGAIN_IN_WORDS[keeps.again]
				]
			: ['It keeps no card.']),
		'It runs no scripts.'
	];
}

const pictureHabitsInWords = ({ judges, failing, otherwise, animated }: PictureHabits) => [
	judges === 'fetch' ? 'It fetches the picture and judges what it gets.' : 'It believes what tags say of the picture.',
	failing === 'next'
		? 'Where its first picture cannot be shown, it takes the next.'
		: 'Where its first picture cannot be shown, its card stays blank.',
	{
		none: 'Without a picture its card stays blank.',
		first: 'Without a picture it takes the first of the page.',
		chance: 'Without a picture it takes any of the page, by chance.'
	}[otherwise],
	{
		moves: 'A picture that moves is shown moving.',
		still: 'Of a picture that moves it shows the first frame.',
		none: 'It shows no picture that moves.'
	}[animated]
];
