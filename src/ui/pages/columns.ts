import { wording } from '$ui/words/en/pages';
import { firstCut, isShownWhole, nameOfKind, ownOf, READERS } from '$core';
import type { GridRow, Sort } from '$server/store/table/grid';

/** A column of the table of pages. */
export interface Column {
	readonly id: string;
	readonly name: string;
	/** Pixels. */
	readonly width: number;
	/** What the server sorts by; without it there is no order by this column. */
	readonly sort?: Sort;
	/** The tag that a cell writes at its page. */
	readonly writes?: string;
	/** What is copied of a cell. */
	readonly text: (row: GridRow) => string;
}

/** The readers that ask for a tag first and do not show the whole of a text. */
function cutIn(tag: 'title' | 'description', text: string): string {
	if (text === '') return '';
	return READERS.filter((reader) => reader[tag][0] === tag && !isShownWhole(text, reader.shows[tag]))
		.map(({ name }) => name)
		.join(', ');
}

/** Texts were looked at for where they are cut: so many are remembered. */
const MOST_KNOWN = 2000;
const known = new Map<string, InCell>();
/** What all readers show of a text, what the first of them cuts off, and how many characters it has. */
interface InCell {
	readonly whole: string;
	readonly cut: string;
	readonly length: number;
}

/** A text as its cell shows it. */
export function inCell(tag: 'title' | 'description', text: string): InCell {
	const key = `${tag} ${text}`;
	let cell = known.get(key);
	if (!cell) {
		const at = firstCut(READERS, tag, text);
		const [whole, cut] = at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at)];
		cell = { whole, cut, length: [...text].length };
		if (known.size >= MOST_KNOWN) known.clear();
		known.set(key, cell);
	}
	return cell;
}

/** The state of a page, as a cell says it. */
const stateInWords = (state: string) =>
	ownOf({ live: wording.stateLive, draft: wording.stateDraft, private: wording.statePrivate }, state) ?? state;

export const differsInWords = ({ differs }: GridRow) =>
	['', wording.changed, wording.newOne, wording.leaves][differs] ?? '';

export const COLUMNS: readonly Column[] = [
	{
		id: 'path',
		get name() {
			return wording.path;
		},
		width: 230,
		sort: 'path',
		text: ({ path }) => path
	},
	{
		id: 'title',
		get name() {
			return wording.title;
		},
		width: 290,
		sort: 'title',
		writes: 'title',
		text: ({ title }) => title
	},
	{
		id: 'description',
		get name() {
			return wording.description;
		},
		width: 400,
		sort: 'description',
		writes: 'description',
		text: ({ description }) => description
	},
	{
		id: 'findings',
		get name() {
			return wording.findings;
		},
		width: 150,
		sort: 'findings',
		text: ({ findings }) => (findings ?? '').split(' ').map(nameOfKind).join(', ')
	},
	{
		id: 'differs',
		get name() {
			return wording.release;
		},
		width: 84,
		sort: 'differs',
		text: differsInWords
	},
	{
		id: 'type',
		get name() {
			return wording.type;
		},
		width: 100,
		sort: 'type',
		text: ({ type }) => type
	},
	{
		id: 'language',
		get name() {
			return wording.language;
		},
		width: 84,
		sort: 'language',
		text: ({ language }) => language ?? ''
	},
	{
		id: 'state',
		get name() {
			return wording.state;
		},
		width: 74,
		sort: 'state',
		text: ({ state }) => stateInWords(state)
	},
	{
		id: 'picture',
		get name() {
			return wording.sharePicture;
		},
		width: 220,
		sort: 'picture',
		text: ({ picture }) => picture
	},
	{
		id: 'card',
		get name() {
			return wording.card;
		},
		width: 150,
		sort: 'card',
		text: ({ card }) => card
	},
	{
		id: 'titleWidth',
		get name() {
			return wording.titlesWidth;
		},
		width: 96,
		sort: 'titleWidth',
		text: ({ titleWidth }) => (titleWidth / 1000).toFixed(1)
	},
	{
		id: 'descriptionWidth',
		get name() {
			return wording.descriptionsWidth;
		},
		width: 130,
		sort: 'descriptionWidth',
		text: ({ descriptionWidth }) => (descriptionWidth / 1000).toFixed(1)
	},
	{
		id: 'titleCut',
		get name() {
			return wording.titleCutIn;
		},
		width: 190,
		sort: 'titleWidth',
		text: ({ title }) => cutIn('title', title)
	},
	{
		id: 'descriptionCut',
		get name() {
			return wording.descriptionCutIn;
		},
		width: 190,
		sort: 'descriptionWidth',
		text: ({ description }) => cutIn('description', description)
	},
	{
		id: 'small',
		get name() {
			return wording.picture;
		},
		width: 96,
		sort: 'picture',
		text: ({ picture }) => picture
	},
	{
		id: 'target',
		get name() {
			return wording.toBeFoundBy;
		},
		width: 150,
		sort: 'target',
		text: ({ target }) => target
	},
	{
		id: 'key',
		get name() {
			return wording.keyPage;
		},
		width: 76,
		sort: 'key',
		text: ({ isKey }) => (isKey ? wording.yes : '')
	},
	{
		id: 'modified',
		get name() {
			return wording.lastChanged;
		},
		width: 104,
		sort: 'modified',
		text: ({ modified }) => modified?.slice(0, 10) ?? ''
	}
];

export const USUAL_COLUMNS = ['path', 'title', 'description', 'findings', 'differs', 'type', 'language', 'state'];

/** The order that an address asks for; by path where there is none of that name. */
export const sortIn = (asked: string | null): Sort => COLUMNS.find(({ sort }) => sort === asked)?.sort ?? 'path';
