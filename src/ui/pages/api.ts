import type { PageFilter, GridRow } from '$server/store/table/grid';
import type { GridAnswer } from '$server/web/grid';
import type { BatchAction, BatchPages, BatchSample } from '$server/edits/batch';
import type { CsvTold } from '$server/exports/csv';
import { ask, at, sending, watched, type Answer, type Watching } from '../api';

export type { Watching, PageFilter, GridRow, GridAnswer, BatchAction, BatchPages, BatchSample, CsvTold };

export interface Order {
	readonly sort: string;
	readonly down: boolean;
}

/** Rows from an offset on; `count` asks how many there are. */
export function rows(
	site: string,
	filter: PageFilter,
	{ sort, down }: Order,
	offset: number,
	limit: number,
	count: boolean
): Promise<Answer<GridAnswer>> {
	const query = new URLSearchParams({ sort, offset: String(offset), limit: String(limit) });
	for (const [name, value] of Object.entries(filter)) if (value) query.set(name, value as string);
	if (down) query.set('down', '1');
	if (count) query.set('count', '1');
	return ask<GridAnswer>(at(site, `grid?${query}`));
}

export const tryBatch = (site: string, pages: BatchPages, action: BatchAction) =>
	ask<BatchSample>(at(site, 'batch'), sending('POST', { pages, action, try: true }));

interface BatchDone {
	readonly edit: number | undefined;
	readonly changed: number;
}

const WORDS = {
	stopped: 'Stopped: nothing was changed.',
	broken: 'The work ended before its time. Look at the record, and try again.'
};
/** Many are changed: `progress` is told how many were seen; the signal stops it, and nothing is changed. */
export const doLargeBatch = (site: string, pages: BatchPages, action: BatchAction, watching: Watching) =>
	watched<BatchDone>(at(site, 'batch'), sending('POST', { pages, action, lines: true }), watching, WORDS);

export interface CellWrite {
	readonly path: string;
	readonly tag: string;
	readonly text: string;
}
/** Writes cells as one edit: all of them, or none. */
export const writeCells = (site: string, cells: readonly CellWrite[]) =>
	ask<BatchDone>(at(site, 'cells'), sending('POST', { cells }));
export const saveFilter = (site: string, name: string, query: string) =>
	ask<{ name: string; query: string }[]>(at(site, 'filters'), sending('POST', { name, query }));

const sendingFile = (file: Blob): RequestInit => ({
	method: 'POST',
	headers: { 'content-type': 'application/octet-stream' },
	body: file
});
/** What reading a table back would do, and doing it. */
export const tryCsv = (site: string, file: Blob, watching: Watching) =>
	watched<CsvTold>(at(site, 'csv?try=1'), sendingFile(file), watching, WORDS);
export const readCsv = (site: string, file: Blob, watching: Watching) =>
	watched<{ edit: number | undefined; told: CsvTold }>(at(site, 'csv'), sendingFile(file), watching, WORDS);
