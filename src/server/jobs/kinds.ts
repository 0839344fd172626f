import type {
	AnyEdit,
	Edit,
	Finding,
	GivenWay,
	HardPage,
	Page,
	Picture,
	Proposal,
	Reach,
	Recipe,
	TriedPage
} from '$core';
import type { BatchAction, BatchPages, BatchSample } from '../edits/batch';
import type { CellWrite } from '../edits/cells';
import type { Made } from '../edits/edit';
import type { TakenBack } from '../edits/takeBack';
import type { CsvTakes, CsvTold } from '../exports/csv';
import type { SpreadWanted } from '../findings/counted';
import type { ContentSource, Taken } from '../imports/content';
import type { Pushed } from '../imports/push';
import type { Via } from '../fetching/trace';
import type { TableLook, TableSource } from '../imports/table/table';
import type { DriftOfSite } from '../probes/drift';
import type { ProbeLook } from '../probes/look';
import type { CardsTold } from '../readers/cards';
import type { Composed, ComposeTask } from './compose';
import type { PictureUses } from '../heads/uses';
import type { HookAnswer, HookTask } from '../hooks/send';
import type { RecordAnswer, RecordTask } from '../sources/readRecord';
import type { MailTask } from '../people/mailer';
import type { IssuerSays, IssuerTask } from '../people/issuer';
import type { PageDifference } from '../releases/releases';
import type { Release } from '../store/releases/releases';
import type { Part } from '../store/opening/part';
import type { PagesLinking } from '../findings/links';
import type { FilePage, PageFile } from '../imports/readFiles';

/** Work that goes over many pages. Each runs in a thread of its own, on connections of its own. */
export interface Jobs {
	/** Of all that differs, or of the pages at some paths alone: the others stay as they are released. */
	release: {
		input: { db: string; site: string; note?: string; only?: readonly string[]; removes?: number };
		output: Released;
	};
	/** Of all pages, or of one part of them: see `runParts`. */
	refresh: { input: { db: string; site: string } & Partial<Part>; output: number };
	/** Of one part of the pages: see `runParts`. */
	reach: { input: { db: string; site: string; edit: AnyEdit } & Part; output: Reach };
	hard: { input: { db: string; site: string; type?: string }; output: HardPage[] };
	/** Edits of one tag held against each other on the hard pages, of a type or of all. */
	tries: {
		input: { db: string; site: string; edits: readonly Edit[]; type?: string; live?: readonly Page[] };
		output: TriedPage[];
	};
	/** Of one part of the pages: see `runParts`. */
	givenWay: { input: { db: string; site: string; edit: Edit } & Part; output: GivenWay };
	/** A first template for a tag of a type, from some of its records. */
	proposal: { input: { db: string; site: string; type: string; tag: string }; output: Proposal | undefined };
	uses: { input: { db: string; site: string }; output: PictureUses };
	/** Takes a picture out of the library that nothing uses. */
	removePicture: { input: { db: string; site: string; src: string }; output: void };
	/** The pages whose texts link to a path. */
	linking: { input: { db: string; site: string; path: string }; output: PagesLinking };
	/** Makes a site of where its content is, or reads the content of one again. */
	content: { input: { db: string; name: string; base: string; source: ContentSource; via?: Via }; output: Taken };
	/** Puts pages in that a program sent, one a line of the file; `tells` what became of each. */
	push: { input: { db: string; site: string; source: string; file: string; tells: boolean }; output: Pushed };
	/** Reads files of a folder as pages. */
	readFiles: { input: { files: readonly PageFile[]; bare: boolean }; output: (FilePage | string)[] };
	/** What a table would become; nothing is kept. */
	lookAtTable: { input: { file: Uint8Array; said: Partial<TableSource>; base: string }; output: TableLook };
	/** Reads a site file that is a folder of small files; gives the site's name and how many pages it has. */
	siteFolder: { input: { db: string; folder: string }; output: { readonly site: string; readonly pages: number } };
	/** Takes pictures of the site's folder into the library that its rules make others out of; gives how many. */
	gather: { input: { db: string; site: string }; output: number };
	/** Tells who wants to know of findings that stand on more pages than before. */
	grown: { input: { db: string; site: string }; output: void };
	/** Changes many pages as one edit; gives its number and how many came out different. */
	batch: {
		input: { db: string; site: string; pages: BatchPages; action: BatchAction };
		output: { edit: number | undefined; revision: number; changed: number };
	};
	/** Writes cells of the table of pages as one edit; gives its number and how many. */
	cells: {
		input: { db: string; site: string; cells: readonly CellWrite[] };
		output: { edit: number | undefined; changed: number };
	};
	/** What a batch would do, tried on some of its pages. */
	sample: { input: { db: string; site: string; pages: BatchPages; action: BatchAction }; output: BatchSample };
	/** What a table that was put out and changed would do. */
	compareCsv: { input: { db: string; site: string; file: Uint8Array; takes: CsvTakes }; output: CsvTold };
	/** The same kept, as one edit. */
	csvBack: {
		input: { db: string; site: string; file: Uint8Array; takes: CsvTakes };
		output: { edit: number | undefined; told: CsvTold };
	};
	/** Takes back a large edit. */
	takeBack: {
		input: { db: string; site: string; edit: number; removes?: number };
		output: Made<TakenBack>;
	};
	/** The sitemaps of what is released, by their names, compressed (gzip). */
	sitemaps: { input: { db: string; site: string }; output: ReadonlyMap<string, Uint8Array> };
	/** Counts what is wrong or weak on a site, by kind, and which pages have which tags; keeps it. */
	count: { input: { db: string; site: string } & SpreadWanted; output: void };
	/** Looks at an address, or at a page by its path, as all readers would. */
	look: { input: { db: string; site: string; address: string; via?: Via | undefined }; output: ProbeLook };
	/** Compares what is served of a site with what was released; stopped, it notes how far it came. */
	drift: { input: { db: string; site: string; via?: Via | undefined; rate?: number }; output: DriftOfSite };
	/** Takes a picture into the library of a site. */
	takePicture: { input: { db: string; site: string; bytes: Uint8Array; name?: string | undefined }; output: Picture };
	/** What differs between two releases: how many pages, and the first so many of them; or of one page. */
	compareReleases: {
		input: { db: string; site: string; between: readonly [number, number]; most: number; path?: string };
		output: { readonly count: number; readonly pages: readonly PageDifference[] };
	};
	/** Makes a release of an old one's heads. */
	goBack: { input: { db: string; site: string; to: number; note?: string; removes?: number }; output: Release };
	/** What readers last showed, held against what is released. */
	cards: { input: { db: string; site: string; hasReaders: boolean }; output: CardsTold };
	compose: { input: ComposeTask; output: Composed };
	/** One share picture as it would be; nothing is kept of it but its file. */
	draw: { input: { db: string; recipe: Recipe }; output: string };
	/** Takes back what was broken off of long edits. */
	mend: { input: { db: string }; output: void };
	/** Sends an invitation. */
	mail: { input: MailTask; output: void };
	/** Sends a message to an address that is told what happens. */
	hook: { input: HookTask; output: HookAnswer };
	/** Asks a source of live data for a record. */
	record: { input: RecordTask; output: RecordAnswer };
	/** Speaks with the issuer of single sign-on. */
	signOn: { input: IssuerTask; output: IssuerSays };
	/** Takes out of the library what nothing names any more; gives how many files. */
	sweep: { input: { db: string }; output: number };
	/**
	 * The file of a name in the library, made now if it can be: where something released names it, or, to be looked at, as
	 * a draft. Undefined when there is no such picture.
	 */
	media: { input: { db: string; name: string; mayDraft: boolean }; output: string | undefined };
}
/** A release, and what does not work of the rules of its site, its types and the pages that it changed. */
export type Released = Release & { readonly faulty: readonly Finding[] };

export type JobName = keyof Jobs;
