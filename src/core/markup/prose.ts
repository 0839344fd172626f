import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import { countGraphemes, isAscii, isBlank, lettersOf, settleText } from '../text/text';
import { ofNames } from './names';
import { INLINE, SILENT } from './plainText';

/** A text that could sum a page up. */
export interface ProseCandidate {
	readonly text: string;
	/** How far it stands behind what one could wish for: 0 is a sentence in a paragraph at the beginning. */
	readonly cost: number;
}

/** A stretch of text that belongs together, with where it stands. */
interface Stretch {
	readonly text: string;
	/** How many of its characters stand in links, and in code. */
	readonly linked: number;
	readonly code: number;
	readonly place: Place;
	/** Whether it follows the stretch before it without a heading, a rule or anything else between. */
	readonly follows: boolean;
	/** Whether it is the first after a heading. */
	readonly opens: boolean;
}

/** What the elements round a text say of it; the nearest that says something decides. */
interface Place {
	readonly kind: 'paragraph' | 'block' | 'quote' | 'list' | 'definition' | 'cell' | 'data' | 'heading' | 'none';
	/** A notice that stands before the text rather than in it: deprecated, note, warning. */
	readonly notice: boolean;
	readonly inLink: boolean;
	readonly inCode: boolean;
	/** Whether its own text stands between paragraphs, as where the first one is written without its mark. */
	readonly besideParagraphs: boolean;
}

/** Places whose text may be prose. */
type Prose = Exclude<Place['kind'], 'heading' | 'none' | 'data'>;

/** How far a text in such a place stands behind one in a paragraph, in the measure of `costOf`. */
const COST_OF_PLACE: Readonly<Record<Prose, number>> = {
	paragraph: 0,
	block: 0.2,
	cell: 0.4,
	definition: 0.6,
	list: 0.9,
	quote: 1
};

/** So many characters of prose before a text make it as much worse as standing in a poorer place by one. */
const CHARACTERS_AHEAD = 1500;
/** A character of a script without spaces says as much as so many letters. */
const DENSE = 3.5;
/** How many candidates are given. */
const MOST_CANDIDATES = 8;
/** A candidate is read this far (UTF-16 code units): no description is longer. */
const MOST_TEXT = 1200;
/** A first sentence shorter than this (graphemes) takes the next one along. */
const SHORT = 70;

/**
 * What a person would quote of a page: stretches of its content that are prose, the best to sum it up first. Judged by
 * where a text stands, how dense its links, code and signs are and how it is written, not by the element's name alone.
 * `names` are the page's title and headings, which say nothing again. `isFrame` leaves out what stands round the content.
 */
export function proseOf(
	top: Tree.ParentNode,
	names: readonly string[],
	isFrame: (element: Tree.Element) => boolean
): ProseCandidate[] {
	const known = new Set(names.map(lettersOf).filter((name) => name !== ''));
	const candidates = new Map<string, number>();
	const stretches = oneByOne(stretchesOf(top, isFrame));
	const isListed = linesOfListing(stretches);
	const costAt = costsOf(stretches, known);
	let ahead = 0;
	let [headings, isOfMembers] = [0, false];
	// None that comes is better than so many that there are: the rest is not read.
	for (let at = 0; !isFull(candidates, ahead / CHARACTERS_AHEAD); at++) {
		const one = stretches(at);
		if (!one) break;
		const isListing = isListed(at);
		if (one.place.kind === 'heading') {
			if (headings++ > 0 && namesMembers(one.text)) isOfMembers = true;
			else if (DESCRIPTION.test(one.text)) isOfMembers = false;
		}
		// What is said of a part of a page that lists parts is not said of the page.
		if (isOfMembers || isListing) continue;
		const own = costAt(at);
		if (own === undefined) continue;
		const text = withNext(withoutLeadUp(one.text), stretches, at, costAt);
		// What is left may be none where the whole was.
		if (text !== one.text && costOf({ ...one, text, linked: 0, code: 0 }, known) === undefined) continue;
		const short = text.slice(0, MOST_TEXT).toWellFormed();
		const cost = own + ahead / CHARACTERS_AHEAD + (ahead > 0 && LOOKS_BACK.test(text) ? 0.3 : 0);
		candidates.set(short, Math.min(cost, candidates.get(short) ?? cost));
		ahead += one.text.length * (isInScriptWithoutSpaces(one.text) ? DENSE : 1);
	}
	return [...candidates]
		.map(([text, cost]) => ({ text, cost }))
		.sort((a, b) => a.cost - b.cost)
		.slice(0, MOST_CANDIDATES);
}

/** What is made one by one, by its number; no more is made than is asked for. */
type Numbered<T> = (at: number) => T | undefined;

function oneByOne<T>(all: Iterator<T>): Numbered<T> {
	const made: T[] = [];
	let isOver = false;
	return (at) => {
		while (made.length <= at && !isOver) {
			const next = all.next();
			if (next.done) isOver = true;
			else made.push(next.value);
		}
		return made[at];
	};
}

/** The cost of a stretch by its number; worked out where it is asked for, once. */
function costsOf(stretches: Numbered<Stretch>, known: ReadonlySet<string>): Numbered<number> {
	const costs: { readonly cost: number | undefined }[] = [];
	return (at) => {
		const one = stretches(at);
		return one && (costs[at] ??= { cost: costOf(one, known) }).cost;
	};
}

const isFull = (candidates: ReadonlyMap<string, number>, least: number) =>
	least > 0 &&
	candidates.size >= MOST_CANDIDATES &&
	[...candidates.values()].filter((cost) => cost <= least).length >= MOST_CANDIDATES;

/** A line of a listing begins with its number; so many that count on are one, which may leave out empty lines. */
const LINE_NUMBER = /^(\d{1,6})(?![\d.,:)%°])/;
const LEAST_LINES = 3;
const MOST_LEFT_OUT = 5;

/** Whether a text, by its number among all, is a line of a listing. Asked from the first on. */
function linesOfListing(texts: Numbered<{ readonly text: string }>): (at: number) => boolean {
	const numberAt = (at: number) => Number(LINE_NUMBER.exec(texts(at)?.text ?? '')?.[1]);
	const goesOn = (last: number, next: number) => next > last && next <= last + MOST_LEFT_OUT;
	// So many lines that count on stand before this one.
	let [run, last] = [0, Number.NaN];
	return (at) => {
		const number = numberAt(at);
		run = Number.isNaN(number) ? 0 : goesOn(last, number) ? run + 1 : 1;
		last = number;
		let [length, end] = [run, number];
		for (let next = at + 1; length > 0 && length < LEAST_LINES; next++, length++) {
			const following = numberAt(next);
			if (!goesOn(end, following)) break;
			end = following;
		}
		return length >= LEAST_LINES;
	};
}

/** Headings under which a page of a reference tells its parts one by one, and what such a part is called by. */
const MEMBERS =
	/^((static|public|protected|private|package|related|friend|instance) )*(member )?(constructors?|methods?|functions?|fields?|members?|macros?|typedefs?|enum(eration)?s?( constants?| values?)?|variables?|propert(y|ies)|signals?|nested class(es)?|inner class(es)?|constructor & destructor)( (and|&) [\w ]+)?( (detail|details|summary|documentation|description|index|list))?$|^((static|public|protected|private) )+(types|attributes|slots)$/i;
/** Under such a heading it goes on of itself. */
const DESCRIPTION = /^detailed description$/i;
const MEMBER =
	/^(◆ ?|(function|method|macro|typedef|enum|struct|structure|variable|property|signal|class):? )?[\w$.:~]+ ?\(.*\)( \[\d+\/\d+\])?$|^(function|method|macro|typedef|enum|struct|structure|variable):? [\w$.:~]+$/i;
const namesMembers = (heading: string) => MEMBERS.test(heading) || MEMBER.test(heading);

/** Without the signs that markup or a writer sets round words and behind them: backticks, footnote marks, "[*]". */
const withoutMarks = (text: string) =>
	/[`[\u00A0]|\bmore ?(?:\.\.\.|…)$/i.test(text)
		? settleText(
				withSpaces(text)
					.replace(/`([^`]*)`/g, '$1')
					.replace(/(?<=[.!?…] )(?:read )?more ?(?:\.\.\.|…)$/i, '')
					.replace(/ ?\[(\*|†|‡|\d{1,3}|[a-z]|note \d{1,3}|edit|citation needed)\]/g, '')
			)
		: text;

/** Spaces that do not break, where a program set nearly all so; a few are meant. */
const withSpaces = (text: string) =>
	count(text, /\u00A0/g) > count(text, / /g) ? text.replace(/\u00A0+/g, ' ') : text;

/** A short beginning with the stretch that goes on from it, where that is as good. */
function withNext(text: string, stretches: Numbered<Stretch>, at: number, costAt: Numbered<number>): string {
	if (countGraphemes(text) >= SHORT || !SENTENCE_END.test(text)) return text;
	const next = stretches(at + 1);
	if (!next?.follows || !/^(paragraph|block)$/.test(next.place.kind)) return text;
	const cost = costAt(at + 1);
	if (cost === undefined || cost > (costAt(at) ?? 0)) return text;
	const more = withoutLeadUp(next.text);
	return SENTENCE_END.test(more) ? `${text} ${more}` : text;
}

const SENTENCE_END = /[.!?…。！？।؟։።]["'”’»)\]]*$/;
const SENTENCE_INSIDE = /[.!?…]["'”’»)\]]* \p{Lu}|[。！？।]/u;
/** Marks that begin lines about the page rather than in it. */
const ABOUT_THE_PAGE =
	/^(©|\(c\) |copyrights?\b|all rights reserved|(this (page|document|article|manual|file) )?((was|is) )?(last )?(modified|updated|changed|edited|generated|created)\b|published on|posted (on|by)|version:? \d|table of contents|(go )?back to|skip to|click (here|on)|see also\b|prev(ious)?\b.*\bnext\b|up\b.*\bnext\b|your browser\b|please (enable|turn on) javascript|other languages\b|download\b.{0,40}$|permission is (hereby )?granted\b|the above copyright\b|licensed under\b|you may not use this file\b|distributed under the licen[cs]e\b|this (section|page|chapter|document|tutorial) (has been|was|is) (written|contributed|maintained|translated) by\b|(release|version) v?\d|authors?(\(s\))?:|(written|maintained) by\b.{0,80}$|definition at line \d)/i;
/** How parts of a program stand to each other, by their names: two capitals in a word, `::`, `_` or `()` tell a name. */
const RELATION =
	/^(?:Inherits(?: from)?|Inherited by|References|Referenced by) [\w:<>~]{0,80}(?:[a-z][A-Z]|::|_|\(\))[\w:<>~()]{0,80}(?:,|\.$| and )/;
/** What is said of a picture, an example or a table. */
const CAPTION =
	/^(fig(ure|\.)?|example|table|listing|plate|image|photo|abb(ildung|\.)?|tab(elle|\.|leau)|beispiel|exemple|ejemplo|figura|esempio|図|表|例) ?\d*[\d.:–-]/i;
export const isCaption = (text: string) => CAPTION.test(text);
const NOTICE_TEXT =
	/^(deprecated|note|warning|caution|tip|important|notice|attention|hint|todo|remarque|hinweis|achtung|nota|注意|注)\b ?[:.!–—-]/i;
const NOTICE_NAME =
	/(^|[-_\s])(note|notice|warning|caution|important|tip|admonition|alert|hint|attention|seealso|obsolete|draft)([-_\s]|$)|deprecat/i;
/** A name and what it means, as in a list of arguments. */
const DEFINITION = /^\S+( [-–—]|:) /;
/** What a sentence begins with that says little without those before it. */
const LOOKS_BACK =
	/^(however|otherwise|therefore|thus|but|furthermore|moreover|instead|if (this|that|these|those|it)|in (this|that|such) (case|example)|for (example|instance)|cependant|toutefois|mais|donc|sinon|jedoch|aber|sonst|しかし|また|なお|ただし|この場合|そのため)(?![\p{L}\p{M}])/iu;
/** What answers a question that is not quoted with it. */
const ANSWER = /^(yes|no|ja|nein|oui|non|sí|はい|いいえ)[.,!。、]/i;
const CAPTION_NAME =
	/(^|[-_\s])(caption|figcaption|byline|meta|metadata|timestamp|dateline|lineno|linenos|signature|synopsis|sig)([-_\s]|$)/i;

/** How a function is called, and nothing of what it does. */
const SIGNATURE = /^(?:[\w$:<>*&~]+ ){0,4}[\w$:~*&]+ ?\([^.!?]*\)(?: const)?;?$/;
/** A remark of whoever made the page. */
const ASIDE = /^\[[^\]]*\]$/;

/** Words of fewer letters than this on the average, in scripts with spaces; more are names without a space. */
const LONGEST_WORDS = 14;
const LEAST_WORDS = 5;
const LEAST_OPENING = 3;
const LEAST_DENSE = 12;
/** What leads up to something in fewer words says nothing itself. */
const LEAST_LEADING = 12;

const isOnlyLeading = (text: string, words: readonly string[]) =>
	words.length < LEAST_LEADING || /^\p{Ll}/u.test(text) || FOLLOWING.test(text);
const FOLLOWING =
	/\b(following|as follows|below|here|suivants?|suivantes?|ci-dessous|folgende[nrs]?|siguientes?|seguenti?)\b[^:]{0,30}:$/i;
/** One of several things to do. */
const STEP = /^\(?\d{1,2}[.)] /;

/** How far a stretch stands behind the best one could wish for; undefined where it is no prose at all. */
function costOf({ text, linked, code, place, opens }: Stretch, known: ReadonlySet<string>): number | undefined {
	if (!isProse(place.kind) || ABOUT_THE_PAGE.test(text) || RELATION.test(text) || CAPTION.test(text)) return undefined;
	const length = text.length;
	const isSentence = SENTENCE_END.test(text);
	if (linked > length * 0.5 || code > length * (isSentence ? 0.7 : 0.5)) return undefined;
	const letters = lettersOf(text);
	const words = text.split(' ');
	const isDense = isScriptWithoutSpaces(letters);
	// One sentence that opens a page may be short.
	const least = opens && isSentence && place.kind === 'paragraph' ? LEAST_OPENING : LEAST_WORDS;
	if (isDense ? letters.length < LEAST_DENSE : words.length < least) return undefined;
	if (letters.length < (length - words.length + 1) * 0.7) return undefined;
	if (!isDense && letters.length / words.length > LONGEST_WORDS) return undefined;
	if (count(text, /[{}();=<>|&\\_#*+$@^~`[\]]/g) > length * 0.07) return undefined;
	if (count(text, / [|·•>»›/→←▪◦–—-]+( |$)|::/g) > Math.max(1, words.length / 12)) return undefined;
	if (known.has(letters) || (code === 0 && isShouted(text)) || SIGNATURE.test(text) || ASIDE.test(text))
		return undefined;
	// The same word in several languages.
	if (count(text, /(^|[\s,;])\p{Lu}{1,3}:/gu) > 2) return undefined;
	let cost = COST_OF_PLACE[place.kind === 'block' && place.besideParagraphs ? 'paragraph' : place.kind];
	const hasSentence = isSentence || SENTENCE_INSIDE.test(text);
	const leadsUp = /[:：]$/.test(text);
	// What does nothing but lead up to something else, and a list of names.
	if (!hasSentence && ((leadsUp && isOnlyLeading(text, words)) || isListOfNames(words))) return undefined;
	if (STEP.test(text) && !isSentence) return undefined;
	if (!hasSentence) cost += leadsUp ? 1.6 : 1.2;
	// A small letter goes on from something; not so a name's at the beginning of what a heading opens.
	const isOpening = opens && isSentence && /^(paragraph|block)$/.test(place.kind) && !DEFINITION.test(text);
	if (!isDense && /^\p{Ll}/u.test(text) && code === 0 && !isOpening) cost += 0.4;
	if (ANSWER.test(text)) cost += 1;
	if (place.notice || NOTICE_TEXT.test(text)) cost += 2;
	// Lists of a few words between commas name things; they tell nothing.
	if (!isSentence && count(text, /[,;]/g) > words.length / 3) cost += 1;
	return cost;
}

/** All in capitals: terms and headings, no prose. */
const isShouted = (text: string) =>
	text.length > 40 &&
	(isAscii(text)
		? count(text, /[A-Z]/g) > count(text, /[A-Za-z]/g) * 0.6
		: count(text, /\p{Lu}/gu) > count(text, /\p{L}/gu) * 0.6);

/** Most words begin with a capital, in a script that has them, and there are many. */
const isListOfNames = (words: readonly string[]) =>
	words.length >= 8 && words.filter((word) => /^\p{Lu}/u.test(word)).length > words.length * 0.7;

const count = (text: string, what: RegExp) => text.match(what)?.length ?? 0;

/** Whether most of a text is in a script that sets no space between words (Japanese, Chinese, Thai, Lao, Khmer, Burmese). */
const isScriptWithoutSpaces = (letters: string) =>
	/[\u0e00-\uffff]/.test(letters) &&
	count(letters, /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Thai}\p{sc=Lao}\p{sc=Khmer}\p{sc=Myanmar}ー]/gu) >
		letters.length / 3;

const isInScriptWithoutSpaces = (text: string) => !isAscii(text) && isScriptWithoutSpaces(lettersOf(text));

/** What is left of a paragraph must be this long (UTF-16 code units) to stand alone. */
const LEAST_SENTENCE = 25;

const LAST_END = /^.*(?:\p{Ll}{2}[.!?…]["'”’»)\]]*(?= \p{Lu})|[。！？])/su;

/** A paragraph whose last sentence leads up to what follows it, or is not ended, without it where enough is left. */
function withoutLeadUp(text: string): string {
	if (SENTENCE_END.test(text)) return text;
	if (/[:：]$/.test(text)) {
		const end = Math.max(text.lastIndexOf('. '), text.lastIndexOf('。'));
		return end >= LEAST_SENTENCE ? text.slice(0, end + 1) : text;
	}
	const whole = LAST_END.exec(text)?.[0] ?? '';
	return countGraphemes(whole) >= SHORT ? whole : text;
}

/** What stands in a table of data is said of its row. */
const isProse = (kind: Place['kind']): kind is Prose => kind !== 'heading' && kind !== 'none' && kind !== 'data';

const HEADING = /^h[1-6]$/;
const NO_PROSE = /^(dt|legend|th|caption|figcaption|title|hr|header|label|figure|pre|xmp|listing|plaintext)$/;
const CODE = /^(code|tt|samp|kbd|var)$/;
/** Names that programs give to listings and to what stands in them. */
const CODE_NAME =
	/(^|[-_\s])(linenos?|linenums?|line-?numbers?|fragment|codehilite|highlight-\w+|code-?(block|area|listing)|source-?(code|listing)|programlisting|hljs|prettyprint|blob-code|memproto)([-_\s]|$)/i;
/** What tells of the page or of words wherever it stands: it parts no text. */
const ABOUT = /^(?:meta|link|title|base)$/;

const NOWHERE: Place = { kind: 'block', notice: false, inLink: false, inCode: false, besideParagraphs: false };

const namesCode = ofNames((names) => CODE_NAME.test(names));
const namesCaption = ofNames((names) => CAPTION_NAME.test(names));
const namesTitle = ofNames((names) => /(^|\s)(title|subtitle)(\s|$)/.test(names));
const namesNotice = ofNames((names) => NOTICE_NAME.test(names));

function placeIn(element: Tree.Element, outer: Place): Place {
	const { tagName } = element;
	if (tagName === 'a' && element.attrs.some(({ name }) => name === 'href')) return { ...outer, inLink: true };
	const named = element.attrs.find(({ name }) => name === 'class')?.value;
	if (CODE.test(tagName) || namesCode(named)) return { ...outer, inCode: true };
	if (INLINE.has(tagName)) return outer;
	if (!isProse(outer.kind)) return outer;
	if (HEADING.test(tagName)) return { ...outer, kind: 'heading' };
	if (NO_PROSE.test(tagName) || isLabel(element)) return { ...outer, kind: 'none' };
	if (namesCaption(named) || (tagName !== 'div' && namesTitle(named))) return { ...outer, kind: 'none' };
	const kind = kindIn(element, outer.kind);
	return {
		kind,
		notice: outer.notice || (namesNotice(named) && tagName !== 'body'),
		inLink: outer.inLink,
		inCode: outer.inCode,
		besideParagraphs: kind === 'block' && element.childNodes.some((node) => 'tagName' in node && node.tagName === 'p')
	};
}

/** A summary names what its details hold; elsewhere it is used for what sums up. */
const isLabel = ({ tagName, parentNode }: Tree.Element) =>
	tagName === 'summary' && parentNode !== null && 'tagName' in parentNode && parentNode.tagName === 'details';

function kindIn(element: Tree.Element, outer: Prose): Place['kind'] {
	switch (element.tagName) {
		case 'p':
			return outer === 'block' ? 'paragraph' : outer;
		case 'li':
			return 'list';
		case 'dd':
			return 'definition';
		case 'blockquote':
			return 'quote';
		case 'table':
			return isDataTable(element) ? 'data' : outer;
		case 'div':
			return isGrid(element) ? 'data' : outer;
		case 'td':
			return outer === 'block' ? 'cell' : outer;
		default:
			return outer;
	}
}

/** A table of data that is written without one: a row of headings and cells by name. */
const GRID_CELL = /(^|\s)((table|grid)-(header|head|heading)|col-(first|last))(\s|$)/;
const namesCell = ofNames((names) => GRID_CELL.test(names));
const isGrid = (element: Tree.Element) =>
	element.childNodes.some(
		(node) => 'tagName' in node && namesCell(node.attrs.find(({ name }) => name === 'class')?.value)
	);

/** A table with headings holds data; one without is there for the layout. */
function isDataTable(table: Tree.Element): boolean {
	const rows = table.childNodes.flatMap((node) =>
		'tagName' in node && /^(thead|tbody)$/.test(node.tagName) ? node.childNodes : [node]
	);
	return rows.some(
		(row) =>
			('tagName' in row && row.tagName === 'thead') ||
			('childNodes' in row && row.childNodes.some((cell) => 'tagName' in cell && cell.tagName === 'th'))
	);
}

/** Goes through the content with a stack of its own: markup from outside can nest deeper than calls can. */
function* stretchesOf(top: Tree.ParentNode, isFrame: (element: Tree.Element) => boolean): Generator<Stretch> {
	const waiting: ({ node: Tree.Node; place: Place } | Place)[] = [{ node: top as Tree.Node, place: NOWHERE }];
	let [text, linked, code, place, follows, opens, breaks] = ['', 0, 0, NOWHERE, false, false, 0];
	const take = (): Stretch | undefined => {
		// Between blocks stands white space, mostly.
		const settled = /\S/.test(text) ? settleText(text) : '';
		const made = settled === '' ? undefined : { text: withoutMarks(settled), linked, code, place, follows, opens };
		[text, linked, code, breaks] = ['', 0, 0, 0];
		if (made) [follows, opens] = [isProse(place.kind), place.kind === 'heading'];
		return made;
	};
	for (let one = waiting.pop(); one !== undefined; one = waiting.pop()) {
		if (!('node' in one)) {
			const made = take();
			if (made) yield made;
			place = one;
			continue;
		}
		const { node } = one;
		if ('value' in node) {
			text += node.value;
			const { inLink, inCode } = one.place;
			const length = inLink || inCode ? settleText(node.value).length : 0;
			if (inLink) linked += length;
			if (inCode) code += length;
			if (breaks > 0 && !isBlank(node.value)) breaks = 0;
			continue;
		}
		if (!('childNodes' in node)) continue;
		if ('tagName' in node) {
			// Two in a row are how a paragraph's end is written without one.
			if (node.tagName === 'br') {
				text += ' ';
				if (++breaks === 2) {
					const made = take();
					if (made) yield made;
				}
				continue;
			}
			if (SILENT.has(node.tagName) || ABOUT.test(node.tagName) || isFrame(node)) continue;
		}
		const inner = 'tagName' in node ? placeIn(node, one.place) : one.place;
		const isBlock = !('tagName' in node) || !INLINE.has(node.tagName);
		if (isBlock) {
			const made = take();
			if (made) yield made;
			if ('tagName' in node && node.tagName === 'hr') follows = false;
			waiting.push(one.place);
			place = inner;
		}
		for (let at = node.childNodes.length - 1; at >= 0; at--)
			waiting.push({ node: node.childNodes[at] as Tree.Node, place: inner });
	}
	const made = take();
	if (made) yield made;
}
