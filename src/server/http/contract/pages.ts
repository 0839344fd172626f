import type { HardPage, Page, Picture, WorstPages } from '$core';
import type { BatchAction, BatchPages, BatchSample } from '../../edits/batch';
import type { CellWrite } from '../../edits/cells';
import type { PageAction } from '../../edits/pages';
import type { CsvTold } from '../../exports/csv';
import type { PagesLinking } from '../../findings/links';
import type { Taken } from '../../imports/content';
import type { TableLook, TableSource } from '../../imports/table/table';
import type { NamedFilter } from '../../store/table/filters';
import type { PageFilter, Sort } from '../../store/table/grid';
import type { ListedPage } from '../../store/table/listing';
import type { PageBench, WhatLeads } from '../../web/benchData';
import type { GridAnswer, GridWanted } from '../../web/grid';
import type { Kept, On } from './shared';

/** What of a table that comes back is taken though it may not be meant. */
interface Rewritten {
	/** Cells that look rewritten by a spreadsheet, such as 7 for 007, are taken, too. */
	readonly rewritten?: On;
}

/** Which pages of the table, in which order. */
interface Ordered extends PageFilter {
	readonly sort?: Sort;
	readonly down?: On;
}

/** Where the content of a site is; a table comes as the file behind the record. */
type Source =
	| {
			readonly kind: 'folder';
			/** Its whole path on the machine of the server. */
			readonly folder: string;
			readonly said?: Readonly<Record<string, unknown>>;
			readonly trimTitles?: boolean;
			readonly keepTitles?: boolean;
	  }
	| ({ readonly kind: 'table' } & TableSource)
	| { readonly kind: 'web'; readonly from: string }
	| { readonly kind: 'hand' };

/** What a change of many came to. */
interface Changed {
	/** Missing where nothing came out different. */
	readonly edit?: number | undefined;
	readonly revision?: number | undefined;
	readonly changed: number;
}

/** Sites, and the table of their pages. */
export interface PageRoutes {
	/** Makes a site of where its content is, or reads the content of one again. */
	'POST /sites': {
		body: { readonly name: string; readonly base: string; readonly source: Source };
		takes: 'record and bytes';
		lines: true;
		answer: Taken;
	};
	/** What a table would become: its columns, what each is taken for, the first rows and the oddest. Nothing is kept. */
	'POST /table': {
		body: { readonly base?: string } & Partial<TableSource>;
		takes: 'record and bytes';
		answer: TableLook;
	};
	/** Rows of the table of pages. Never waits for a job. */
	'GET /sites/{site}/grid': {
		query: GridWanted;
		answer: GridAnswer;
	};
	/** Writes cells of the table, all of them as one edit or none. */
	'POST /sites/{site}/cells': { body: { readonly cells: readonly CellWrite[] }; answer: Changed };
	/** Changes many pages as one edit. Going away stops it, and nothing is changed. */
	'POST /sites/{site}/batch': {
		body: { readonly pages: BatchPages; readonly action: BatchAction };
		lines: true;
		answer: Changed;
	};
	/** What a change of many pages would do, on some of them. */
	'POST /sites/{site}/batch/sample': {
		body: { readonly pages: BatchPages; readonly action: BatchAction };
		answer: BatchSample;
	};
	/** The table as CSV. */
	'GET /sites/{site}/csv': {
		query: Ordered & {
			/** Names of columns with commas between. */
			readonly columns?: string;
			/** Begins with a byte order mark. */
			readonly mark?: On;
		};
		media: 'text/csv';
	};
	/** The table as a workbook (.xlsx), whose cells are texts that spreadsheets leave as they are. */
	'GET /sites/{site}/workbook': {
		query: Ordered & {
			/** Names of columns with commas between. */
			readonly columns?: string;
		};
		media: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
	};
	/** Reads a table back that was put out, as CSV or a workbook, and changed. Going away stops it, and nothing is changed. */
	'POST /sites/{site}/csv': {
		query: Rewritten;
		takes: 'bytes';
		lines: true;
		answer: { readonly edit?: number | undefined; readonly told: CsvTold };
	};
	/** What reading a table back would do. */
	'POST /sites/{site}/csv/comparison': { query: Rewritten; takes: 'bytes'; lines: true; answer: CsvTold };
	/** Filters of the table that have a name. */
	'GET /sites/{site}/filters': { answer: readonly NamedFilter[] };
	/** Keeps one under a name; one without a query is taken away. */
	'POST /sites/{site}/filters': {
		body: {
			/** @minLength 1 @maxLength 80 @pattern \S */
			readonly name: string;
			/** @maxLength 2000 */
			readonly query?: string;
		};
		answer: readonly NamedFilter[];
	};

	/** Pages by words of their path, title or description; without words, in the order of their paths, from the one `after` on. */
	'GET /sites/{site}/pages': {
		query: {
			readonly find?: string;
			/** The last path that was seen: `next` of the answer before. */
			readonly after?: string;
			/** @asType integer @minimum 1 @maximum 1000 */
			readonly limit?: number;
		};
		answer: {
			readonly pages: readonly ListedPage[];
			/** What `after` is to be for those that follow; missing with the last. */
			readonly next?: string;
		};
	};
	/** Adds a page, copies one, takes one away, or makes one the home page; several are one edit. Gives the path to look at then. */
	'POST /sites/{site}/pages': {
		body:
			| PageAction
			| {
					/** @maxItems 1000 @minItems 1 */
					readonly actions: readonly PageAction[];
			  };
		answer: Kept & { readonly path: string };
	};
	/** A page, with the pictures that it and its layers name. */
	'GET /sites/{site}/page': {
		query: { readonly path: string };
		answer: { readonly page: Page; readonly pictures: readonly Picture[] };
	};
	/** All that is needed to work a page out: its layers, the pictures they name, what it reads of others. By its type one that is not there yet. */
	'GET /sites/{site}/bench': {
		query: { readonly path: string; readonly type?: string; readonly language?: string };
		answer: PageBench;
	};
	/** What would be lost, or lead nowhere, with a page. */
	'GET /sites/{site}/page/leading': { query: { readonly path: string }; answer: WhatLeads };
	/** Whose texts link to a page: goes over all texts. */
	'GET /sites/{site}/page/linking': { query: { readonly path: string }; answer: PagesLinking };
	/** The pages that are hardest on templates, of a type or of the whole site. */
	'GET /sites/{site}/hard': { query: { readonly type?: string }; answer: readonly HardPage[] };
	/** The pages that would be shared worst as the site is now. */
	'GET /sites/{site}/worst': { answer: WorstPages };
}
