import { toTemplate, type RuleBody, ownOf } from '$core';
import { refuse } from '../errors';
import type { Store } from '../store/store';
import type { Made } from './edit';
import { makeLongEdit } from './longEdit';
import { refuseEdit } from './rules';

/** A cell of the table of pages as it is written: what the page says of a tag by itself; '' takes that away. */
export interface CellWrite {
	readonly path: string;
	readonly tag: string;
	readonly text: string;
}

/** The most cells of one writing. */
const MOST_CELLS = 10_000;

/** Cells as a request gives them. Throws a `UserError`. */
export function readCells(data: Readonly<Record<string, unknown>>): CellWrite[] {
	const { cells } = data;
	const isCell = (one: unknown) =>
		typeof one === 'object' &&
		one !== null &&
		['path', 'tag', 'text'].every((name) => typeof ownOf(one as Record<string, unknown>, name) === 'string');
	if (!Array.isArray(cells) || !cells.every(isCell)) throw refuse('cells-broken');
	if (cells.length > MOST_CELLS) throw refuse('cells-too-many', { count: cells.length, most: MOST_CELLS });
	return cells as CellWrite[];
}

/** Writes cells of the table as one edit; gives how many. Throws a `UserError` for one that cannot be; then nothing is kept. */
export function writeCells(store: Store, name: string, cells: readonly CellWrite[]): Made<number> {
	const tags = new Set(cells.map(({ tag }) => tag));
	const paths = new Set(cells.map(({ path }) => path));
	const action = { do: 'text', tag: tags.size === 1 ? [...tags][0] : 'several' };
	const what = { action, pages: paths.size, ...(paths.size === 1 && { path: [...paths][0] }) };
	return makeLongEdit(store, name, { origin: 'pages', kind: 'batch', what }, function* (site) {
		for (const { path, tag, text } of cells) {
			yield;
			const place = { layer: 'page', path } as const;
			const body: RuleBody | null = text === '' ? null : { kind: 'template', template: toTemplate(text) };
			const [issue] = refuseEdit(store, site, { place, tag, body });
			if (issue) throw refuse('cell-refused', { path, tag, why: issue.message });
			store.working.rules.set(site.id, place, tag, undefined, body);
		}
		return cells.length;
	});
}
