import { settleText } from '$core';

/** A beginning or an end that many titles have in common. */
interface CommonPart {
	readonly at: 'begin' | 'end';
	readonly text: string;
	/** How many titles have it. */
	readonly pages: number;
}

/** What is taken off titles. */
export interface TitleTrims {
	readonly parts: readonly Pick<CommonPart, 'at' | 'text'>[];
	/** Also the numbers of chapters and sections that titles begin with. */
	readonly numbers: boolean;
}

/** What was found of all titles together. */
export interface TitleFindings {
	readonly parts: readonly CommonPart[];
	/** How many titles begin with the number of a chapter or section. */
	readonly numbered: number;
}

export const NO_TRIMS: TitleTrims = { parts: [], numbers: false };

/** What so large a share of the titles have is no title's own, and is taken off without being asked. */
const PLAIN_SHARE = 0.6;

/** What of it is plainly no title's own: what most titles have, and numbers where most begin with one. */
export function plainOf({ parts, numbered }: TitleFindings, titles: number): TitleFindings {
	const isPlain = (pages: number) => pages >= COMMON_LEAST && pages >= titles * PLAIN_SHARE;
	return { parts: parts.filter(({ pages }) => isPlain(pages)), numbered: isPlain(numbered) ? numbered : 0 };
}

export const trimsOf = ({ parts, numbered }: TitleFindings): TitleTrims => ({
	parts: parts.map(({ at, text }) => ({ at, text })),
	numbers: numbered > 0
});

/** What of it is left on the titles, and what is taken off. */
export function partTitles(found: TitleFindings, trims: TitleTrims): Record<'left' | 'taken', TitleFindings> {
	const isTaken = ({ at, text }: CommonPart) => trims.parts.some((one) => one.at === at && one.text === text);
	return {
		left: { parts: found.parts.filter((part) => !isTaken(part)), numbered: trims.numbers ? 0 : found.numbered },
		taken: { parts: found.parts.filter(isTaken), numbered: trims.numbers ? found.numbered : 0 }
	};
}

/** This share of the titles, and at least so many, have a part before it is offered to be taken off. */
const COMMON_SHARE = 0.01;
const COMMON_LEAST = 5;
/** Titles are so many characters long at most; a common part lies within. */
const LONGEST = 300;
/** Different parts that are counted; with more, those that stood on one title so far are forgotten. */
const MOST_PARTS = 200_000;

/** White space is matched from its first sign alone: a run of it is looked at once. */
const SEPARATOR = /(?<!\s)(?:\s+[—–|·•»:›-]+\s+|:\s+|\s*::\s*|\s+(?=\([^()]{1,100}\)$))/g;
const NUMBER =
	/^(?:(?:chapter|section|appendix|part|chapitre|annexe|partie|kapitel|anhang|teil|capítulo|apéndice|parte)\s+(?:\d+|[A-Z]|[IVXLC]+)(?:\.\d+)*[.:]?|\d+(?:\.\d+)*\.?|[A-Z]\.\d+(?:\.\d+)*\.?)\s+(?=\S)/iu;

/** Counts what titles have in common, as they come; memory stays bounded. */
export class TitleBook {
	private readonly counts = new Map<string, number>();
	/** How many titles there are. */
	titles = 0;
	private numbered = 0;
	/** Each title counts once: what is the same on many pages has nothing in common with itself. */
	private seen = new Set<string>();

	add(title: string) {
		const text = settleText(title).slice(0, LONGEST);
		if (text === '' || this.seen.has(text)) return;
		if (this.seen.size >= MOST_PARTS) this.seen.clear();
		this.seen.add(text);
		this.titles++;
		const separators = [...text.matchAll(SEPARATOR)].slice(0, 6);
		// Also behind what may be taken off.
		const begins = [text, ...separators.map(({ index, 0: mark }) => text.slice(index + mark.length))];
		if (begins.some((one) => NUMBER.test(one))) this.numbered++;
		for (const { index, 0: mark } of separators) {
			this.count(`begin ${text.slice(0, index + mark.length)}`);
			this.count(`end ${text.slice(index)}`);
		}
	}

	private count(key: string) {
		if (this.counts.size >= MOST_PARTS)
			for (const [part, pages] of this.counts) if (pages === 1) this.counts.delete(part);
		this.counts.set(key, (this.counts.get(key) ?? 0) + 1);
	}

	/** The common parts, those of most titles first; of parts that lie within each other the longest that as many have. */
	findings(): TitleFindings {
		const least = Math.max(COMMON_LEAST, this.titles * COMMON_SHARE);
		const parts = [...this.counts]
			.filter(([, pages]) => pages >= least)
			.map(([key, pages]): CommonPart => {
				const space = key.indexOf(' ');
				return { at: key.slice(0, space) as CommonPart['at'], text: key.slice(space + 1), pages };
			})
			.sort((a, b) => b.pages - a.pages || b.text.length - a.text.length);
		// One that a longer one nearly always goes along with says nothing by itself.
		const kept = parts.filter(
			(part) =>
				!parts.some(
					(longer) =>
						longer.text.length > part.text.length &&
						longer.at === part.at &&
						lieWithin(part, longer) &&
						longer.pages >= part.pages * 0.9
				)
		);
		return { parts: kept, numbered: this.numbered >= least ? this.numbered : 0 };
	}
}

/** Whether the shorter of two parts is the outer side of the other: then taking off the longer takes off both. */
function lieWithin(a: CommonPart, b: CommonPart): boolean {
	const [short, long] = a.text.length < b.text.length ? [a.text, b.text] : [b.text, a.text];
	return a.at === 'begin' ? long.startsWith(short) : long.endsWith(short);
}

/** A title without what is taken off; whole where nothing would be left. */
export function trimTitle(title: string, { parts, numbers }: TitleTrims): string {
	let text = settleText(title);
	for (const { at, text: part } of [...parts].sort((a, b) => b.text.length - a.text.length)) {
		if (at === 'begin' && text.startsWith(part)) text = text.slice(part.length);
		else if (at === 'end' && text.endsWith(part)) text = text.slice(0, text.length - part.length);
	}
	text = text.trim();
	if (numbers) text = text.replace(NUMBER, '').trim();
	return text === '' ? settleText(title) : text;
}

/** Whether a heading tells pages apart in words: "- f -" and "Q" do not. */
export const isTelling = (heading: string) =>
	/[\p{L}\p{N}]{2}|[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}]/u.test(heading);

/** Titles that a program gave because nobody did. */
const GENERATED =
	/^(untitled( document| page)?|new page( \d+)?|document( ?\d+)?|page( ?\d+)?|index|home ?page|no title|html imagemap generated by .*|microsoft word - .*|generated by .*|title|sans titre|ohne titel|unbenannt.*)$/i;

/** Whether nobody can have meant a title: a program's own words, or the name of the file. */
export function isGeneratedTitle(title: string, file: string): boolean {
	const name = file.slice(file.lastIndexOf('/') + 1);
	return GENERATED.test(title) || title === name || (title === name.replace(/\.\w+$/, '') && /[._\d]/.test(title));
}
