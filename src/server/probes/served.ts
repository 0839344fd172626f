import {
	directivesFor,
	finding,
	hidesFromSearch,
	isLocalAddress,
	type Finding,
	type ReaderProfile,
	type ServedHead,
	type ServedTag,
	type Target
} from '$core';
import { labelled, type CharsetSource } from '../fetching/charset';
import { clock } from '../waiting';
import { findInData } from './linkedData';
import { escapedIn, leftIn } from './slips';
import { findInValues } from './values';

/** Tags that each reader asks for before all others; without one its card says less. */
const WANTED = ['title', 'description', 'og:title', 'og:image'];

/** Links that whoever follows them works out from the page, as the markup's standard says: icons, manifests, feeds. */
const isResolved = ({ name }: ServedTag) => /^(?:icon|apple-touch-icon|manifest|feed:\w+)$/.test(name);

/** So much of a header is read (UTF-16 code units). */
const MOST_HEADER = 2000;

/** Whether what a page says to robots keeps it out of search now. */
export const keptOut = (directives: string): boolean =>
	hidesFromSearch(directives) || isOverdue(directives, clock.now());
/** The same of an `X-Robots-Tag`, by what it says to every reader. */
export const keptOutBy = (header: string): boolean =>
	hidesFromSearch(directivesFor(header)) || isOverdue(header, clock.now());

/** Whether directives name a moment after which a page is not to be listed, and it has passed. */
function isOverdue(directives: string, now: number): boolean {
	const said = /unavailable_after\s*:\s*([\w :+-]{1,60}(?:,[\w :+-]{1,60})?)/i.exec(
		directives.slice(0, MOST_HEADER)
	)?.[1];
	const moment = said === undefined ? Number.NaN : Date.parse(said.trim());
	return moment < now;
}

/** So much of a value is looked through. */
const MOST_LOOKED = 2000;

/** The scheme of an address that has one (RFC 3986, 3.1). */
const SCHEME = /^([a-z][a-z0-9+.-]*):/i;

/** Text that was read as windows-1252 and written as UTF-8: what two bytes of a letter come to then. */
const DOUBLE_ENCODED =
	/[\u00c2\u00c3][\u0080-\u00bf\u0152\u0153\u0160\u0161\u0178\u017d\u017e\u0192\u02c6\u02dc\u2013-\u203a\u20ac\u2122]|\u00e2\u20ac[\u0080-\u00bf\u0153\u2018-\u2122\u02dc]/;

/** How a page says what its bytes stand for. */
export interface SaidEncoding {
	/** By its `Content-Type`. */
	readonly said: string | undefined;
	/** What was gone by in reading it. */
	readonly from: CharsetSource;
	readonly body: Uint8Array;
}

/** What of the encoding makes readers guess, or read on before they know it. */
export function findInEncoding(head: ServedHead, { said, from, body }: SaidEncoding, target: Target): Finding[] {
	const found: Finding[] = [];
	if (head.charset !== undefined && labelled(head.charset) === undefined)
		found.push(finding('unknown-charset', target, undefined, { label: head.charset.slice(0, 40) }));
	if (!said && from === 'bytes' && head.charset === undefined && body.some((byte) => byte > 127))
		found.push(finding('no-charset', target, undefined, {}));
	const again = head.charsetAgain;
	if (
		again &&
		head.charset !== undefined &&
		(labelled(again.said) ?? again.said) !== (labelled(head.charset) ?? head.charset)
	)
		found.push(
			finding('doubled-tag', target, undefined, {
				...{ tag: 'charset', line: head.charsetLine ?? 1, other: again.line, differs: true }
			})
		);
	for (const { name, value, line, isBelow } of head.tags)
		if (!isBelow && value.includes('\uFFFD'))
			found.push(finding('broken-characters', target, name, { tag: name, line, value: value.slice(0, 60) }));
	if (!said && from !== 'byte-order-mark' && (head.charsetAt ?? 0) > 1024)
		found.push(finding('late-charset', target, undefined, {}));
	return found;
}

/** A page of so few words that has scripts is written by them. */
const FEWEST_WORDS = 40;
export const isShell = ({ scripts, words }: ServedHead): boolean => scripts > 0 && words < FEWEST_WORDS;

/** Whether what a card is made of is left to scripts: no title for cards, and not both a title and a description. */
export function needsScripts(head: ServedHead): boolean {
	const says = (...names: string[]) =>
		head.tags.some(({ name, value, isBelow }) => !isBelow && value !== '' && names.includes(name));
	return (
		isShell(head) && !says('og:title', 'twitter:title') && !(says('title') && says('description', 'og:description'))
	);
}

/** Tags that stand once in what Kephalon writes, and several times in files that are right: one for each size or screen, or joined. */
const REPEATED_ELSEWHERE = new Set(['keywords', 'author', 'robots', 'apple-touch-icon']);
const mayRepeat = ({ name, attributes }: ServedTag) =>
	REPEATED_ELSEWHERE.has(name) || name.startsWith('meta:') || attributes.media !== undefined;

/** What is wrong with the tags of a head as it is served, by those who read links; each with its line. */
export function findInServedHead(head: ServedHead, asking: readonly ReaderProfile[], target: Target): Finding[] {
	const found: Finding[] = [];
	const own = head.tags.filter(({ isBelow }) => !isBelow);
	for (const wanted of needsScripts(head) ? [] : WANTED) {
		if (own.some(({ name, value }) => name === wanted && value !== '')) continue;
		const readers = asking.filter((reader) =>
			[reader.title[0], reader.description[0], reader.picture[0]].includes(wanted)
		);
		if (readers.length > 0)
			found.push(finding('missing-tag', target, wanted, { tag: wanted, readers: readers.map(({ name }) => name) }));
	}
	const first = new Map<string, ServedTag>();
	for (const one of own) {
		const before = first.get(one.name);
		if (!before) first.set(one.name, one);
		else if (one.tag && !one.tag.repeated && one.tag.parent === undefined && !mayRepeat(one))
			found.push(
				finding('doubled-tag', target, one.name, {
					tag: one.name,
					line: before.line,
					other: one.line,
					differs: before.value !== one.value
				})
			);
		if (!one.tag || (one.tag.kind !== 'address' && one.tag.kind !== 'picture') || one.value === '') continue;
		const scheme = SCHEME.exec(one.value)?.[1]?.toLowerCase();
		if (scheme !== undefined && scheme !== 'http' && scheme !== 'https')
			found.push(finding('scheme-address', target, one.name, { tag: one.name, line: one.line, scheme }));
		else if (scheme === undefined && !isResolved(one))
			found.push(finding('relative-address', target, one.name, { tag: one.name, line: one.line, value: one.value }));
		else if (/^https?:/i.test(one.value) && isLocalAddress(one.value))
			found.push(finding('local-served', target, one.name, { tag: one.name, line: one.line, value: one.value }));
	}
	const below = head.tags
		.filter(({ isBelow, tag }) => isBelow && tag && /^(og:|twitter:|description$|canonical$|robots$)/.test(tag.name))
		.map(({ name }) => name);
	for (const { name, value, line, tag } of own) {
		if (!tag && name !== 'title') continue;
		const left = leftIn(name, value.slice(0, MOST_LOOKED), head.more.get('h1'));
		if (left !== undefined)
			found.push(finding('template-left', target, name, { tag: name, line, seen: left.slice(0, 60) }));
		const twice = escapedIn(name, value.slice(0, MOST_LOOKED));
		if (twice !== undefined) found.push(finding('escaped-twice', target, name, { tag: name, line, seen: twice }));
		if (DOUBLE_ENCODED.test(value.slice(0, MOST_LOOKED)))
			found.push(finding('double-encoded', target, name, { tag: name, line, value: value.slice(0, 60) }));
	}
	if (below.length > 0) found.push(finding('below-head', target, below[0], { tags: [...new Set(below)].slice(0, 5) }));
	if (head.base !== undefined && isLocalAddress(head.base))
		found.push(
			finding('local-served', target, undefined, {
				tag: 'base',
				line: head.baseAt ?? 1,
				value: head.base.slice(0, 200)
			})
		);
	const robots = own.find(({ name, value }) => name === 'robots' && keptOut(value));
	if (robots) found.push(finding('noindex-served', target, 'robots', { value: robots.value }));
	return [...found, ...findInValues(head, target), ...findInData(head, target)];
}
