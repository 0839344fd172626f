import { checkBase, type Site } from '$core';
import { makeImport } from '../edits/edit';
import { refuse } from '../errors';
import { languagePattern, type FolderSource } from './folderSource';
import type { ImportSummary } from './importFolder';
import type { ReadsFiles } from './readFiles';
import type { TableSource } from './table/table';
import type { TakenTable } from './takeTable';
import type { Via } from '../fetching/trace';
import { isMarkdownFolder } from '../files/folder';
import type { Store } from '../store/store';

/** Where the content of a site comes from. */
export type ContentSource =
	| {
			readonly kind: 'folder';
			readonly folder: string;
			/** What is said about reading it; what is not said is as it was the last time. */
			readonly said?: Partial<Omit<FolderSource, 'folder' | 'trims'>>;
			/** What many titles have in common is taken off them. */
			readonly trimTitles?: boolean;
			/** Titles are as they are written. */
			readonly keepTitles?: boolean;
	  }
	| ({ readonly kind: 'table'; readonly file: string | Uint8Array } & TableSource)
	/** A page of a live site, a sitemap or a feed. */
	| { readonly kind: 'web'; readonly from: string }
	| { readonly kind: 'hand' };

export interface Taken {
	readonly pages: number;
	readonly pictures: number;
	readonly skipped: readonly string[];
	/** What was found in a folder, and what can be said about it. */
	readonly folder?: FolderFindings;
}

/** What reading a folder found, for someone to say what is to be made of it. */
export type FolderFindings = Pick<
	ImportSummary,
	'found' | 'titles' | 'formulas' | 'languages' | 'versions' | 'proposals' | 'added' | 'changed' | 'retired'
>;

interface Hears {
	readonly progress?: (done: number, all: number) => void;
}

const SKIPPED_SHOWN = 20;

/** What a request says about reading a folder, checked for its form. Throws a `UserError`. */
function saidOfFolder(said: NonNullable<Extract<ContentSource, { kind: 'folder' }>['said']>) {
	const { ignore, types, languages, link, bare, keepFormulas } = said;
	for (const { pattern, type } of types ?? [])
		if (!pattern || !/^[\p{L}\p{N}][\p{L}\p{N} _-]{0,60}$/u.test(type))
			throw refuse('type-name-broken', { contentType: type, pattern });
	return {
		...(ignore && { ignore: ignore.map(String).filter(Boolean) }),
		...(types && { types }),
		...(languages && {
			languages: languages.map(({ pattern, language }) => languagePattern(`${pattern}=${language}`))
		}),
		...(link !== undefined && { link: link === true }),
		...(bare !== undefined && { bare: bare === true }),
		...(keepFormulas !== undefined && { keepFormulas: keepFormulas === true })
	};
}

/**
 * Makes a site, or brings the content of one up to date; its settings and rules stay. Throws a `UserError`. Each kind of source
 * brings its own readers along, and only those that are wanted are loaded.
 */
export async function takeContent(
	store: Store,
	name: string,
	base: string,
	source: ContentSource,
	/** How a live site is reached, and how many files are read at once; hears how many of how many are read. */
	{ via, readFiles, progress }: { readonly via?: Via | undefined; readonly readFiles?: ReadsFiles } & Hears = {}
): Promise<Taken> {
	const checked = checkBase(base);
	if (!checked.base) throw refuse('base-broken-seen', { why: checked.refused ?? '', base, guess: checked.guess });
	if (name.trim() === '') throw refuse('site-needs-name');
	switch (source.kind) {
		case 'folder': {
			if (isMarkdownFolder(source.folder)) return takeMarkdown(store, name, checked.base, source);
			const { importFolder } = await import('./importFolder');
			const {
				read,
				pictures,
				skipped,
				warnings: _warnings,
				...folder
			} = await importFolder(store, {
				...{ folder: source.folder, site: name, base: checked.base },
				...(source.said && { source: saidOfFolder(source.said) }),
				...(readFiles && { readFiles }),
				...(progress && { progress }),
				...(source.trimTitles && { trimTitles: true }),
				...(source.keepTitles && { keepTitles: true })
			});
			return { pages: read, pictures, skipped: shorten(skipped.map(({ path, why }) => `${path}: ${why}`)), folder };
		}
		case 'table': {
			const { kind: _kind, file, ...said } = source;
			const [{ openTable }, { takeTable }] = await Promise.all([import('./table/workbook'), import('./takeTable')]);
			const table =
				typeof file === 'string'
					? file
					: await openTable(Buffer.from(file.buffer, file.byteOffset, file.length), said.sheet);
			const taken = takeTable(store, { name, base: checked.base, origin: 'setup' }, table, said);
			return { pages: taken.pages, pictures: 0, skipped: shorten(linesOfTable(taken)) };
		}
		case 'web': {
			const { importWeb } = await import('./web/importWeb');
			const { read, pictures, skipped, told, trimmed, waiting } = await importWeb(store, {
				site: name,
				base: checked.base,
				source: { from: source.from },
				via,
				...(progress && { progress })
			});
			const rest = waiting > 0 ? [`${waiting} more addresses wait: read again to go on`] : [];
			return {
				pages: read,
				pictures,
				skipped: shorten([
					...rest,
					...trimmed.map((part) => `“${part}” is taken off the titles: most of them have it`),
					...told.map(({ path, what }) => `${path}: ${what}`),
					...skipped.map(({ path, why }) => `${path}: ${why}`)
				])
			};
		}
		case 'hand': {
			putIn(store, name, checked.base, { from: 'hand', pages: 1 }, (id) => {
				store.working.types.ensure(id, 'page');
				if (!store.working.pages.at(id, '/'))
					store.working.pages.save(id, { path: '/', type: 'page', state: 'live', fields: { title: name }, rules: [] });
			});
			return { pages: 1, pictures: 0, skipped: [] };
		}
	}
}

/** Each file of a folder of Markdown as a page. */
async function takeMarkdown(
	store: Store,
	name: string,
	base: string,
	{ folder, said }: Extract<ContentSource, { kind: 'folder' }>
): Promise<Taken> {
	const [{ readMarkdownFolder }, { MARKDOWN_SAID, takeTable }] = await Promise.all([
		import('./markdown/markdownFolder'),
		import('./takeTable')
	]);
	const rows = readMarkdownFolder(folder, said?.bare ?? false);
	const taken = takeTable(store, { name, base, origin: 'setup' }, rows, MARKDOWN_SAID);
	return { pages: taken.pages, pictures: 0, skipped: shorten(linesOfTable(taken)) };
}

function putIn(store: Store, name: string, base: string, what: object, work: (id: number) => void) {
	const fresh: Site = { name, base, languages: ['en'], separator: '·', fields: {}, rules: [] };
	makeImport(store, fresh, { origin: 'setup', kind: 'import', what }, ({ id, site }) => {
		store.working.sites.save({ ...site, base });
		work(id);
	});
}

/** All that was odd about a table, a line each: nothing of it is swallowed. A row of a folder is called by its file. */
export function linesOfTable({ skipped, oddCells, oddRows, names }: TakenTable): string[] {
	const called = (line: number) => names?.[line - 1] ?? `Row ${line}`;
	return [
		...skipped.map(({ row, why }) => `${called(row)}: ${why}`),
		...oddRows.map(({ line, what }) => (names ? what : `Row ${line} ${what}`)),
		...oddCells.map(({ line, column, text, why }) => `${called(line)}, ${column}: “${text.slice(0, 60)}” ${why}`)
	];
}

const shorten = (lines: readonly string[]) =>
	lines.length > SKIPPED_SHOWN
		? [...lines.slice(0, SKIPPED_SHOWN), `… and ${lines.length - SKIPPED_SHOWN} more`]
		: lines;
