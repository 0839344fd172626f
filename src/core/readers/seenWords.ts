import { otherWords } from '../words/speaking';

/** What is said of an address that readers looked at, beside findings and cards; in reports that are handed on, too. */
export interface SeenWords {
	/** The language that it is in (BCP 47). */
	readonly language: string;
	/** Where nothing was found: of nobody, of those who made no card, of pictures that nobody saw, of all. */
	readonly nobody: string;
	readonly without: (readers: readonly string[]) => string;
	readonly noPicture: string;
	readonly unseen: (pictures: number) => string;
	readonly right: string;
	readonly title: (address: string) => string;
	readonly heading: string;
	readonly lookedAt: (when: string) => string;
	readonly noAnswer: string;
	readonly line: (line: number) => string;
	readonly shutOut: string;
	readonly noCard: string;
	readonly passedOver: (from: string, why: string) => string;
}

const ENGLISH: SeenWords = {
	language: 'en',
	nobody: 'No reader looked at it.',
	without: (readers) => `No fault was found, but not all could be looked at: no card in ${readers.join(', ')}.`,
	noPicture: 'No fault was found in the tags; the picture could not be looked at.',
	unseen: (pictures) =>
		`No fault was found, but ${pictures === 1 ? 'one of its pictures was' : `${pictures} of its pictures were`} not looked at.`,
	right: 'Nothing is wrong with what is served.',
	title: (address) => `What readers see of ${address}`,
	heading: 'What readers see',
	lookedAt: (when) => `Looked at ${when}, by readers that are made up.`,
	noAnswer: 'no answer',
	line: (line) => `Line ${line}.`,
	shutOut: 'It is shut out by robots.txt.',
	noCard: 'It shows no card: it could not read the page.',
	passedOver: (from, why) => `Not the picture of ${from}: it ${why}.`
};

export const SEEN_WORDS = otherWords<SeenWords>();

export const seenWords = (): SeenWords => SEEN_WORDS.now() ?? ENGLISH;
