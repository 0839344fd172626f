import { ownOf } from '../own';
import { otherWords } from '../words/speaking';

/** Why a reader has no page, no picture, or a small card, and why a page names none: as data where it is found, in words where it is told. */

/** A fetch came to nothing, or to less than all. `more` says it closer, as the machine does. */
interface Ended {
	readonly is: 'ended';
	readonly end: string;
	readonly more?: string;
}
interface Answers {
	readonly is: 'answers';
	readonly status: number;
}

/** Why what came is no page. */
export type NoPage =
	| Ended
	/** Without `isUnfollowed` nobody is led on by it. */
	| (Answers & { readonly isUnfollowed?: true })
	/** It is something else: a media type, or one of `WHAT`. */
	| { readonly is: 'other'; readonly what: string };

/** Why robots.txt cannot be read. */
export type RobotsFailed = Answers | { readonly is: 'late' | 'broken-off' | 'no-answer' };

/** Why a picture is none, or none for a reader. */
export type NoPicture =
	| Ended
	| Answers
	| { readonly is: 'shut' | 'empty' | 'cut-short' | 'moves' }
	| { readonly is: 'no-picture'; readonly but?: string }
	| { readonly is: 'scheme'; readonly scheme: string }
	| { readonly is: 'too-large'; readonly megabytes: number }
	| { readonly is: 'form'; readonly form: string }
	| { readonly is: 'heavy'; readonly bytes: number; readonly most: number }
	| { readonly is: 'mark'; readonly width: number; readonly height: number };

/** Why a card is small though there is a picture. */
export type SmallCard =
	| { readonly is: 'chooses'; readonly by: string; readonly says: string | undefined }
	| { readonly is: 'narrow'; readonly width: number; readonly least: number };

/** Why what a page names is none that it can name. */
export type NoPlace =
	| { readonly is: 'no-page'; readonly of?: 'site' | 'folder' }
	| { readonly is: 'not-public' | 'type-off' | 'itself' }
	| { readonly is: 'state'; readonly state: string }
	/** It says itself that it stands at another address. */
	| { readonly is: 'elsewhere'; readonly at: string };

/** How what is served of a page is not what was released. */
export type DriftWhy =
	| { readonly is: 'page'; readonly why: NoPage }
	/** Robots are shut out; or their rules cannot be read. */
	| { readonly is: 'shut'; readonly robots?: RobotsFailed }
	/** Not one of its tags is there. */
	| { readonly is: 'none' }
	/** These are other; `since`: as they were from that release on. */
	| { readonly is: 'tags'; readonly tags: readonly string[]; readonly since?: number }
	/** What it says, that it was not released to say. */
	| { readonly is: 'says'; readonly said: string }
	| { readonly is: 'picture'; readonly tag: string; readonly address: string; readonly why: NoPicture };

/** Reasons as they are told in a language. */
export interface ReasonWords {
	/** What comes behind a colon. */
	readonly noPage: (why: NoPage) => string;
	/** What follows “robots.txt”. */
	readonly robotsFailed: (how: RobotsFailed) => string;
	/** What follows the address of a picture. */
	readonly noPicture: (why: NoPicture) => string;
	readonly smallCard: (why: SmallCard) => string;
	/** What stands in brackets behind how it is served; `by`: as that reader reads it. */
	readonly drift: (why: DriftWhy, by?: string) => string;
	/** What follows “which”. */
	readonly noPlace: (why: NoPlace) => string;
	/** What stands where something else should: a media type as it is. */
	readonly what: (is: string) => string;
}

/** What is no page, where no media type says it. */
const WHAT: Readonly<Record<string, string>> = {
	download: 'a download',
	'gzip-unannounced': 'gzip that is not announced',
	'zstd-unannounced': 'zstd that is not announced',
	empty: 'empty',
	'no-picture': 'no picture',
	picture: 'a picture'
};

const ENDS: Readonly<Record<string, string>> = {
	refused: 'it may not be fetched',
	'unknown-name': 'there is no such host',
	'no-connection': 'nothing answers there',
	certificate: 'its certificate does not hold',
	'unknown-packing': 'it is packed in a way that nobody asked for',
	reset: 'the connection was broken off',
	malformed: 'its answer is no HTTP that can be read',
	timeout: 'it does not answer in time',
	short: 'it ends in the middle',
	'bad-compression': 'it is not packed as it says',
	loop: 'its redirects go round in a circle',
	'too-many-redirects': 'it redirects too often'
};
const ROBOTS = {
	late: 'does not come in time',
	'broken-off': 'breaks off on its way',
	'no-answer': 'cannot be reached'
} as const;

const megabytes = (bytes: number) => `${(bytes / 1_000_000).toFixed(1)} MB`;

/** The same in English. */
export const ENGLISH_REASONS: ReasonWords = {
	noPage: (why) => {
		if (why.is === 'other') return ENGLISH_REASONS.what(why.what);
		if (why.is === 'answers')
			return `its server answers with ${why.status}${why.isUnfollowed ? ', which it does not follow' : ''}`;
		const { end, more } = why;
		const ended = ownOf(ENDS, end);
		return ended === undefined ? (more ?? end) : `${ended}${more ? ` (${more})` : ''}`;
	},
	robotsFailed: (how) => (how.is === 'answers' ? `answers with ${how.status}` : ROBOTS[how.is]),
	noPicture: (why) => {
		switch (why.is) {
			case 'ended':
				return `cannot be fetched: ${ownOf(ENDS, why.end) ?? why.more ?? why.end}`;
			case 'answers':
				return `cannot be fetched: its server answers with ${why.status}`;
			case 'shut':
				return 'is shut by the robots.txt of its host';
			case 'empty':
				return 'is empty';
			case 'cut-short':
				return 'ends in the middle';
			case 'moves':
				return 'moves, and it shows none that does';
			case 'no-picture':
				return why.but === undefined ? 'is no picture' : `is no picture but ${ENGLISH_REASONS.what(why.but)}`;
			case 'scheme':
				return `is an address of ${why.scheme}:, which nobody fetches`;
			case 'too-large':
				return `has more than ${why.megabytes} MB`;
			case 'form':
				return `is ${why.form}, which it cannot read`;
			case 'heavy':
				return `has ${megabytes(why.bytes)}, and it fetches ${megabytes(why.most)} at the most`;
			case 'mark':
				return `is ${why.width} × ${why.height}, a mark and no picture`;
		}
	},
	smallCard: (why) =>
		why.is === 'chooses'
			? `${why.by} says ${why.says ?? 'nothing'}`
			: `the picture is ${why.width} pixels wide; from ${why.least} it would fill the card`,
	noPlace: (why) => {
		switch (why.is) {
			case 'no-page':
				return `is no page${why.of ? ` of the ${why.of}` : ''}`;
			case 'not-public':
				return 'is not public';
			case 'type-off':
				return 'is of a type that is switched off';
			case 'itself':
				return 'is the page itself';
			case 'state':
				return `is set to ${why.state}`;
			case 'elsewhere':
				return `says itself that it stands at ${why.at}`;
		}
	},
	drift: (why, by) => {
		const as = by === undefined ? '' : `, as ${by} reads it`;
		switch (why.is) {
			case 'page':
				return ENGLISH_REASONS.noPage(why.why) + as;
			case 'shut':
				return `robots.txt ${why.robots ? ENGLISH_REASONS.robotsFailed(why.robots) : 'forbids it'}${as}`;
			case 'none':
				return `none of its tags is served${as}`;
			case 'tags':
				return `${why.tags.join(', ')}${why.since === undefined ? '' : `: as from release ${why.since}`}${as}`;
			case 'says':
				return why.said + as;
			case 'picture':
				return `${why.tag}: ${why.address} ${ENGLISH_REASONS.noPicture(why.why)}${as}`;
		}
	},
	what: (is) => ownOf(WHAT, is) ?? is
};

/** Learns them in another language. */
export const REASON_WORDS = otherWords<ReasonWords>();

/** Reasons in the language that is spoken now. */
export const reasonWords = (): ReasonWords => REASON_WORDS.now() ?? ENGLISH_REASONS;
