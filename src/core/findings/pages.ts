import { findTag } from '../catalogue/catalogue';
import { LAYERS, type ContentType, type Layer, type Page } from '../model';
import { ownOf } from '../own';
import { isShownWhole } from '../readers/card';
import { READERS, type ReaderProfile, type TextLimit } from '../readers/profiles';
import { isLocalAddress } from '../resolve/address';
import type { Head } from '../resolve/head';
import type { PageEvaluation } from '../resolve/page';
import { isMeant } from '../resolve/words';
import { isEmpty, toText } from '../template/values';
import { countGraphemes } from '../text/text';
import { droppedAttributes } from '../resolve/attributes';
import { foundBook } from '../resolve/found';
import { finding, type Finding, type Target } from './finding';
import { readersTooWide } from './pictures';
import { brokenPins } from './pins';
import { findInShare } from './share';

/** What is asked of an evaluated page beside its head. */
export type KnownOfPage = Pick<
	PageEvaluation,
	'type' | 'lostReferences' | 'headCircles' | 'gapsOf' | 'pictureOf' | 'facts' | 'winnerOf' | 'shareLead'
>;

/** A description with fewer characters than this says next to nothing. */
const SHORT = 40;
/** Words that a home page is called by when nobody named it. */
const BARE_TITLE = /^(home|index|welcome|start|accueil)$/i;

/** The tags of text that are looked at on every page; the others are looked at where someone set them. */
const ALWAYS = ['title', 'description'];
const WHERE_SET = ['og:title', 'og:description', 'twitter:title', 'twitter:description'];

/** What a reader of links would find wrong with a page's card. Pure; the order is that of the page's head. */
export function findOnPage(page: Page, head: Head, known: KnownOfPage): Finding[] {
	const own = WHERE_SET.filter((tag) => isSet(known, tag));
	return [
		...[...ALWAYS, ...own].flatMap((tag) => findInTag(tag, page, head, known)),
		...findInTag('og:image', page, head, known),
		...own.flatMap((tag) => passedOver(tag, page, known)),
		...addressFindings(valueIn(head, 'canonical'), targetOf(page)),
		...choiceFindings(page, known.type),
		...brokenPins(page, head),
		...known.lostReferences().map((lost) => finding('lost-reference', targetOf(page), undefined, lost)),
		...known
			.headCircles()
			.map(({ tag, way }) => finding('heads-circle', targetOf(page), tag, { tag, way: way.join(' → ') })),
		...(page.found ? foundFindings(page, head) : [])
	];
}

/** Fields that hold something else than one of what they can be. */
function choiceFindings(page: Page, type: ContentType | undefined): Finding[] {
	return (type?.fields ?? []).flatMap(({ name, kind, words = [] }) => {
		if (kind !== 'choice' || words.length === 0) return [];
		const value = ownOf(page.fields, name);
		if (isEmpty(value) || words.some((one) => isMeant(one, value))) return [];
		return [finding('unknown-choice', targetOf(page), undefined, { field: name, value: toText(value).slice(0, 60) })];
	});
}

/** What a file says with its links, and the head does not carry on. */
function foundFindings(page: Page, head: Head): Finding[] {
	const book = foundBook(page.found);
	return book.tags.flatMap((tag) => {
		if (!head.tags.some((one) => one.tag.name === tag.name)) return [];
		const names = new Set(book.of(tag.name).flatMap(({ attributes }) => droppedAttributes(tag, attributes)));
		return names.size > 0
			? [finding('dropped-attribute', targetOf(page), tag.name, { tag: tag.name, names: [...names].slice(0, 5) })]
			: [];
	});
}

const targetOf = ({ path }: Page): Target => ({ of: 'page', path });

export const valueIn = (head: Head, name: string) => head.tags.find(({ tag }) => tag.name === name)?.value ?? '';

/** Whether a rule, or what the page's own file says, gives a tag its value, rather than a borrow. */
function isSet(known: KnownOfPage, tag: string): boolean {
	const winner = known.winnerOf(tag);
	return winner !== undefined && winner.layer !== 'built-in' && winner.takes === undefined;
}

/** What is wrong with what one tag came to on a page. */
export function findInTag(name: string, page: Page, head: Head, known: KnownOfPage): Finding[] {
	const [value, target] = [valueIn(head, name), targetOf(page)];
	const tag = findTag(name);
	if (name === 'og:image' || name === 'twitter:image') return pictureFindings(name, page, head, known);
	if (value === '') return [emptyFinding(name, target)];
	if (tag?.kind !== 'text') return [];
	const origin = { layer: known.winnerOf(name)?.layer ?? ('built-in' as const) };
	const variables = known.gapsOf(name);
	return [
		...(name === 'title' && page.path === '/' && BARE_TITLE.test(value)
			? [finding('bare-title', target, name, { title: value })]
			: []),
		...(standsTwice(value, valueIn(head, 'og:site_name'))
			? [finding('name-twice', target, name, { ...origin, tag: name })]
			: []),
		...(variables.length > 0 ? [finding('gap', target, name, { tag: name, variables })] : []),
		...cutFindings(name, value, origin, target),
		...(name === 'description' && countGraphemes(value) < SHORT
			? [finding('short', target, name, { tag: name, length: countGraphemes(value) })]
			: [])
	];
}

function emptyFinding(name: string, target: Target): Finding {
	if (name === 'title') return finding('no-title', target, name, {});
	return name === 'description'
		? finding('no-description', target, name, {})
		: finding('empty', target, name, { tag: name });
}

/** Whether a name stands in a text more than once; names of one or two letters are not looked for. */
const standsTwice = (text: string, name: string) =>
	name.length > 2 && text.toLowerCase().split(name.toLowerCase()).length > 2;

/** The readers that ask for a tag before any other, with how much of it each shows. */
const ASKED_FIRST: ReadonlyMap<string, readonly (readonly [ReaderProfile, TextLimit])[]> = new Map(
	[...ALWAYS, ...WHERE_SET].map((tag) => [
		tag,
		READERS.flatMap((reader) =>
			(['title', 'description'] as const)
				.filter((part) => reader[part][0] === tag && reader.shows[part].limit > 0)
				.map((part) => [reader, reader.shows[part]] as const)
		)
	])
);

/** A text is too long when even the reader that shows most of it cuts it, of those that ask for its tag first. */
function cutFindings(name: string, value: string, origin: { readonly layer: Layer }, target: Target): Finding[] {
	const readers = ASKED_FIRST.get(name) ?? [];
	if (readers.length === 0 || readers.some(([, limit]) => isShownWhole(value, limit))) return [];
	const names = readers.map(([reader]) => reader.name);
	return [finding('cut', target, name, { ...origin, tag: name, length: countGraphemes(value), readers: names })];
}

function pictureFindings(name: string, page: Page, head: Head, known: KnownOfPage): Finding[] {
	const [address, target] = [valueIn(head, name), targetOf(page)];
	if (address === '')
		return name === 'og:image' ? [finding('no-picture', target, name, {})] : [emptyFinding(name, target)];
	const picture = known.pictureOf(name);
	if (picture?.recipe) return findInShare(picture.recipe, known.shareLead(), page.path, name);
	// A cut has an address of its own: the picture it is cut from tells what it is.
	const src = picture?.src ?? address;
	const facts = known.facts(src);
	if (facts?.mark || facts?.plain || /(^|[^a-z])logos?([^a-z]|$)/i.test(src.slice(src.lastIndexOf('/'))))
		return [finding('logo-picture', target, name, {})];
	if (!picture?.width) return [];
	const missed = readersTooWide(picture.width);
	return missed.readers.length > 0 ? [finding('small-picture', target, name, { width: picture.width, ...missed })] : [];
}

/** A more specific value was passed over: the built-in would have borrowed it, had no rule spoken (R3). */
function passedOver(name: string, page: Page, known: KnownOfPage): Finding[] {
	const from = ownOf(BORROWS, name);
	const mine = known.winnerOf(name)?.layer;
	const theirs = from && known.winnerOf(from)?.layer;
	if (!from || !mine || !theirs || LAYERS.indexOf(theirs) >= LAYERS.indexOf(mine)) return [];
	return [finding('passed-over', targetOf(page), name, { tag: name, other: from, layer: theirs })];
}

const BORROWS: Readonly<Record<string, string>> = {
	'og:title': 'title',
	'og:description': 'description',
	'twitter:title': 'og:title',
	'twitter:description': 'og:description'
};

const addressFindings = (canonical: string, target: Target): Finding[] =>
	canonical === '' || isLocalAddress(canonical) ? [finding('local-address', target, 'canonical', {})] : [];
