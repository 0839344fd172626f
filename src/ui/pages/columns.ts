import { firstCut, isShownWhole, READERS } from '$core';
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

/** A kind of finding, as short as a cell takes it. */
export const findingInWords = (code: string) => code.replaceAll('-', ' ');

const DIFFERS = ['', 'changed', 'new', 'leaves'];
export const differsInWords = ({ differs }: GridRow) => DIFFERS[differs] ?? '';

export const COLUMNS: readonly Column[] = [
	{ id: 'path', name: 'Path', width: 230, sort: 'path', text: ({ path }) => path },
	{ id: 'title', name: 'Title', width: 290, sort: 'title', writes: 'title', text: ({ title }) => title },
	{
		...{ id: 'description', name: 'Description', width: 400, sort: 'description' },
		...{ writes: 'description', text: ({ description }: GridRow) => description }
	},
	{
		id: 'findings',
		name: 'Findings',
		width: 150,
		sort: 'findings',
		text: ({ findings }) => (findings ?? '').split(' ').map(findingInWords).join(', ')
	},
	{ id: 'differs', name: 'Release', width: 84, sort: 'differs', text: differsInWords },
	{ id: 'type', name: 'Type', width: 100, sort: 'type', text: ({ type }) => type },
	{ id: 'language', name: 'Language', width: 84, sort: 'language', text: ({ language }) => language ?? '' },
	{ id: 'state', name: 'State', width: 74, sort: 'state', text: ({ state }) => state },
	{ id: 'picture', name: 'Share picture', width: 220, sort: 'picture', text: ({ picture }) => picture },
	{ id: 'card', name: 'Card', width: 150, sort: 'card', text: ({ card }) => card },
	{
		id: 'titleWidth',
		name: 'Title’s width',
		width: 96,
		sort: 'titleWidth',
		text: ({ titleWidth }) => (titleWidth / 1000).toFixed(1)
	},
	{
		id: 'descriptionWidth',
		name: 'Description’s width',
		width: 130,
		sort: 'descriptionWidth',
		text: ({ descriptionWidth }) => (descriptionWidth / 1000).toFixed(1)
	},
	{ id: 'titleCut', name: 'Title cut in', width: 190, sort: 'titleWidth', text: ({ title }) => cutIn('title', title) },
	{
		...{ id: 'descriptionCut', name: 'Description cut in', width: 190, sort: 'descriptionWidth' },
		text: ({ description }: GridRow) => cutIn('description', description)
	},
	{ id: 'small', name: 'Picture', width: 96, sort: 'picture', text: ({ picture }) => picture },
	{ id: 'target', name: 'To be found by', width: 150, sort: 'target', text: ({ target }) => target },
	{ id: 'key', name: 'Key page', width: 76, sort: 'key', text: ({ isKey }) => (isKey ? 'yes' : '') },
	{
		id: 'modified',
		name: 'Last changed',
		width: 104,
		sort: 'modified',
		text: ({ modified }) => modified?.slice(0, 10) ?? ''
	}
];

export const USUAL_COLUMNS = ['path', 'title', 'description', 'findings', 'differs', 'type', 'language', 'state'];

/** The order that an address asks for; by path where there is none of that name. */
export const sortIn = (asked: string | null): Sort => COLUMNS.find(({ sort }) => sort === asked)?.sort ?? 'path';
