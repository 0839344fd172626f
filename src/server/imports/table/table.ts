import { parseUrl, settleText, toText, type FieldKind, type FieldValue, type Page, ownOf } from '$core';
import { refuse } from '../../errors';
import { asRows, type Oddity, type Row, type Rows } from './rows';
import { CELL_KINDS, guessReading, plain, toCell, toLanguage, toState, type CellKind, type Reading } from './values';

/** Which column gives which field; `path` is the page's path or address, '' leaves a column out. */
export type Mapping = Readonly<Record<string, string>>;

/** What is said about reading a table; kept with the site for the next reading. */
export interface TableSource {
	readonly mapping: Mapping;
	/** How columns are read where a person says so, by column. */
	readonly readings?: Readonly<Record<string, Reading>>;
	/** The content type of its pages. */
	readonly type: string;
	/** The sheet of a workbook; without it the first that holds anything. */
	readonly sheet?: string;
	/** The column that says of which type each page is; without, or where it is empty, it is `type`. */
	readonly typeColumn?: string;
	/** Without a column for the path it is made of the title. */
	readonly pathFromTitle?: boolean;
}

/** Names that columns often have, by the field they mean, in the languages that people's tables are in. */
const USUAL: Readonly<Record<string, readonly string[]>> = {
	path: [
		'path',
		'url',
		'address',
		'link',
		'permalink',
		'slug',
		'loc',
		'uri',
		'page',
		'web address',
		'adresse',
		'lien',
		'chemin',
		'pfad',
		'seite',
		'direccion',
		'enlace',
		'ruta',
		'indirizzo',
		'percorso',
		'adres',
		'pad',
		'endereco',
		'パス',
		'アドレス'
	],
	title: [
		'title',
		'name',
		'headline',
		'heading',
		'titre',
		'nom',
		'titel',
		'uberschrift',
		'bezeichnung',
		'titulo',
		'nombre',
		'titolo',
		'nome',
		'naam',
		'題名',
		'タイトル'
	],
	summary: [
		'summary',
		'description',
		'excerpt',
		'abstract',
		'teaser',
		'intro',
		'lead',
		'resume',
		'extrait',
		'chapo',
		'beschreibung',
		'zusammenfassung',
		'kurztext',
		'resumen',
		'descripcion',
		'descrizione',
		'riassunto',
		'omschrijving',
		'samenvatting',
		'descricao',
		'resumo',
		'概要',
		'説明'
	],
	body: [
		'body',
		'content',
		'text',
		'html',
		'article',
		'contenu',
		'texte',
		'inhalt',
		'contenido',
		'texto',
		'contenuto',
		'testo',
		'inhoud',
		'tekst',
		'conteudo',
		'本文'
	],
	picture: [
		'picture',
		'image',
		'photo',
		'img',
		'thumbnail',
		'cover',
		'photo url',
		'image url',
		'picture url',
		'featured image',
		'bild',
		'foto',
		'titelbild',
		'imagen',
		'immagine',
		'afbeelding',
		'imagem',
		'画像'
	],
	author: ['author', 'writer', 'by', 'byline', 'auteur', 'autor', 'verfasser', 'autore', 'schrijver', '著者'],
	published: [
		'published',
		'date',
		'created',
		'published at',
		'publication date',
		'publish date',
		'date de publication',
		'datum',
		'veroffentlicht',
		'erschienen',
		'fecha',
		'data',
		'gepubliceerd',
		'公開日',
		'日付'
	],
	section: [
		'section',
		'category',
		'categorie',
		'rubrique',
		'kategorie',
		'rubrik',
		'categoria',
		'seccion',
		'sezione',
		'rubriek',
		'分類'
	],
	tags: [
		'tags',
		'keywords',
		'labels',
		'mots cles',
		'etiquettes',
		'schlagworter',
		'stichworter',
		'etiquetas',
		'trefwoorden',
		'palavras chave',
		'タグ'
	],
	language: ['language', 'lang', 'locale', 'langue', 'sprache', 'idioma', 'lingua', 'taal', '言語'],
	state: ['state', 'status', 'statut', 'etat', 'estado', 'stato', '状態']
};

const keyOf = (name: string) => plain(name).replace(/[\s_-]+/g, ' ');

/** Which column probably gives which field, by its name, else by what it holds; one not recognised becomes a field of its own. */
export function guessMapping({ columns, rows }: Pick<Rows, 'columns' | 'rows'>): Mapping {
	const taken = new Set<string>();
	const byName = new Map<string, string>();
	for (const column of columns) {
		const known = Object.keys(USUAL).find((field) => ownOf(USUAL, field)!.includes(keyOf(column)) && !taken.has(field));
		if (known) {
			taken.add(known);
			byName.set(column, known);
		}
	}
	const first = rows.slice(0, 200);
	return Object.fromEntries(
		columns.map((column) => {
			const known =
				byName.get(column) ??
				byContent(
					first.map(({ cells }) => ownOf(cells, column) ?? ''),
					taken
				);
			const field = known ?? free(fieldName(column), taken);
			taken.add(field);
			return [column, field];
		})
	);
}

/** What a column holds tells what it is, for the few that can be told so. */
function byContent(cells: readonly FieldValue[], taken: ReadonlySet<string>): string | undefined {
	const texts = cells.filter((cell): cell is string => typeof cell === 'string' && cell !== '');
	const all = (fits: RegExp) => texts.length > 0 && texts.every((text) => fits.test(text));
	if (
		!taken.has('path') &&
		new Set(texts).size === texts.length &&
		all(/^(\/[^\s]*|https?:\/\/\S+)$/) &&
		!all(/\.(jpe?g|png|gif|webp|avif|svg)$/i)
	)
		return 'path';
	if (!taken.has('picture') && all(/\.(jpe?g|png|gif|webp|avif|svg)(\?.*)?$/i)) return 'picture';
	return undefined;
}

/** A column's name as a field's; the usual names keep their meaning for the columns that were matched to them. */
const fieldName = (column: string) =>
	column
		.trim()
		.toLowerCase()
		.replace(/[^\p{L}\p{N}]+/gu, '_')
		.split('_')
		.filter(Boolean)
		.join('_');

function free(name: string, taken: ReadonlySet<string>): string {
	for (let at = 2, one = name; ; at++) {
		if (!taken.has(one)) return one;
		one = `${name}_${at}`;
	}
}

/** Fields whose kind is known, whatever a column holds. */
const KINDS_OF_FIELDS: Readonly<Record<string, CellKind>> = {
	picture: 'picture',
	author: 'person',
	tags: 'list',
	published: 'date',
	language: 'language',
	state: 'state',
	body: 'rich',
	title: 'text',
	summary: 'text',
	section: 'text'
};

/** How each column is read: as a person says, as its field asks for, else as it looks. */
function readingsOf(
	{ columns, rows }: Pick<Rows, 'columns' | 'rows'>,
	{ mapping, readings = {} }: Pick<TableSource, 'mapping' | 'readings'>
): Record<string, Reading> {
	return Object.fromEntries(
		columns.map((column) => {
			const said = ownOf(readings, column);
			if (said && CELL_KINDS.includes(said.kind)) return [column, said];
			const field = ownOf(mapping, column) ?? '';
			const kind = ownOf(KINDS_OF_FIELDS, field);
			const guess = guessReading(rows.slice(0, 2000).map(({ cells }) => ownOf(cells, column) ?? ''));
			if (kind === undefined || kind === guess.kind) return [column, guess];
			return [column, { kind }];
		})
	);
}

/** A cell that is not what its column holds; its text is kept as it is. */
export interface OddCell {
	readonly line: number;
	readonly column: string;
	readonly text: string;
	readonly why: string;
}

/** What is told of rows beside their pages. */
export interface TableOddities {
	readonly skipped: { readonly row: number; readonly why: string }[];
	readonly oddCells: OddCell[];
}

/**
 * The rows as pages of a type, each made when it is asked for, with the line it came from. Rows without a path, or with
 * one that stands twice, are skipped; that and odd cells are put into `told`. Throws a `UserError`.
 */
export function* pagesOfTable(
	table: Pick<Rows, 'columns' | 'rows'>,
	source: TableSource,
	base: string,
	{ skipped, oddCells }: TableOddities
): Generator<{ readonly page: Page; readonly line: number }, void> {
	const { mapping, type } = source;
	const readings = readingsOf(table, source);
	const columns = table.columns.filter((column) => (ownOf(mapping, column) ?? '') !== '');
	const columnOf = (field: string) => columns.find((column) => ownOf(mapping, column) === field);
	const [pathColumn, titleColumn, stateColumn, languageColumn] = ['path', 'title', 'state', 'language'].map(columnOf);
	if (pathColumn === undefined && !(source.pathFromTitle && titleColumn !== undefined))
		throw refuse('table-needs-path');
	const plainColumns = columns
		.filter((column) => !['path', 'state', 'language'].includes(ownOf(mapping, column) as string))
		.map((column) => ({
			column,
			field: ownOf(mapping, column) as string,
			reading: ownOf(readings, column) as Reading
		}));
	const taken = new Map<string, number>();
	for (const { line, cells } of table.rows) {
		const written = pathColumn === undefined ? '' : toText(ownOf(cells, pathColumn));
		const path =
			pathColumn === undefined ? freePath(toText(ownOf(cells, titleColumn as string)), taken) : pathOf(written, base);
		const before = path === undefined ? undefined : taken.get(path);
		if (path === undefined) {
			skipped.push({
				row: line,
				why: pathColumn === undefined ? 'it has no title to make a path of' : `“${written}” is no path of this site`
			});
			continue;
		}
		if (before !== undefined) {
			skipped.push({ row: line, why: `${path} stands in row ${before} already` });
			continue;
		}
		taken.set(path, line);
		const odd = (column: string, why: string) =>
			oddCells.push({ line, column, text: toText(ownOf(cells, column)), why });
		const fields = new Map<string, FieldValue>();
		for (const { column, field, reading } of plainColumns) {
			const cell = ownOf(cells, column);
			if (cell === undefined || cell === '' || cell === null) continue;
			const { value, why } = toCell(cell, reading);
			if (why) odd(column, why);
			fields.set(field, value);
		}
		const said = stateColumn === undefined ? '' : toText(ownOf(cells, stateColumn));
		const state = said === '' ? 'live' : toState(said);
		const spoken = languageColumn === undefined ? '' : toText(ownOf(cells, languageColumn));
		const language = spoken === '' ? undefined : toLanguage(spoken);
		if (state === undefined) odd(stateColumn as string, 'is no state: the page is a draft');
		if (spoken !== '' && language === undefined)
			odd(languageColumn as string, 'is no language tag, such as en or pt-BR');
		const page: Page = {
			path,
			type: toText(source.typeColumn === undefined ? '' : ownOf(cells, source.typeColumn)) || type,
			state: state ?? 'draft',
			...(language && { language }),
			fields: Object.fromEntries(fields),
			rules: []
		};
		yield { page, line };
	}
}

/** A path or an address under the base as a path of the site. */
export function pathOf(text: string, base: string): string | undefined {
	const value = text.trim();
	if (value === '' || /[\s#]/.test(value)) return undefined;
	if (value.startsWith('/') && !value.startsWith('//')) return value;
	if (/^https?:\/\//i.test(value)) {
		const [url, home] = [parseUrl(value), parseUrl(base)];
		if (!url || !home) return undefined;
		const isUnder = url.host === home.host && url.pathname.startsWith(home.pathname);
		return isUnder ? `/${url.pathname.slice(home.pathname.length)}${url.search}` : undefined;
	}
	return /^[\p{L}\p{N}_.~%-][\p{L}\p{N}_.~%/-]*$/u.test(value) ? `/${value}` : undefined;
}

/** A path of the words of a title, that no other row has. */
function freePath(title: string, taken: ReadonlyMap<string, number>): string | undefined {
	const words = settleText(title)
		.toLowerCase()
		.normalize('NFC')
		.match(/[\p{L}\p{M}\p{N}]+/gu);
	if (!words) return undefined;
	const path = `/${words.slice(0, 12).join('-')}`;
	for (let at = 2, one = path; ; at++) {
		if (!taken.has(one)) return one;
		one = `${path}-${at}`;
	}
}

/** What a field of a type is, for a kind of cell. */
const KIND_OF_FIELD: Readonly<Record<CellKind, FieldKind>> = {
	...{ text: 'text', rich: 'rich', number: 'number', date: 'date', flag: 'flag', list: 'list' },
	...{ picture: 'picture', person: 'person', link: 'link', state: 'text', language: 'text' }
};

/** The fields that the columns give beyond those that every page has, for the type to declare. */
export function fieldsOfTable(table: Pick<Rows, 'columns' | 'rows'>, source: TableSource, known: ReadonlySet<string>) {
	const readings = readingsOf(table, source);
	return table.columns.flatMap((column) => {
		const name = ownOf(source.mapping, column) ?? '';
		if (name === '' || known.has(name) || ['path', 'state', 'language'].includes(name)) return [];
		return [{ name, kind: KIND_OF_FIELD[ownOf(readings, column)!.kind], label: column }];
	});
}

/** How many rows of the beginning, and of the odd ones, a sheet shows. */
const SHOWN = 8;

/** What a table would become, before anything is kept. */
export interface TableSheet extends Pick<Rows, 'encoding' | 'format' | 'delimiter' | 'columns' | 'sheets'> {
	/** The sheet of a workbook that was read. */
	readonly named?: string;
	readonly rows: number;
	readonly mapping: Mapping;
	readonly readings: Readonly<Record<string, Reading>>;
	readonly odd: readonly Oddity[];
	readonly pages: number;
	readonly skipped: TableOddities['skipped'];
	readonly oddCells: readonly OddCell[];
	/** The first rows, then the oddest: their cells, and the page that each would become. */
	readonly sheet: readonly { readonly line: number; readonly cells: Row['cells']; readonly page?: Page }[];
}

/** A sheet for someone who looks at it and says what its columns mean: of what is odd, the first. */
export interface TableLook extends Omit<TableSheet, 'skipped'> {
	/** The rows of the sheet that are left out, and why. */
	readonly skipped: TableSheet['skipped'];
	/** How many odd things there are in all. */
	readonly oddities: number;
}
const [ROWS_TOLD, CELLS_TOLD] = [8, 12];

export function lookAtTable(file: Buffer | Rows, said: Partial<TableSource>, base: string): TableLook {
	const sheet = sheetOf(file, said, base);
	const shown = new Set(sheet.sheet.map(({ line }) => line));
	return {
		...sheet,
		odd: sheet.odd.slice(0, ROWS_TOLD),
		oddCells: sheet.oddCells.slice(0, CELLS_TOLD),
		skipped: sheet.skipped.filter(({ row }) => shown.has(row)),
		oddities: sheet.odd.length + sheet.oddCells.length
	};
}

/** Works it out; with an incomplete mapping the sheet has no pages yet. */
export function sheetOf(file: string | Buffer | Rows, said: Partial<TableSource>, base: string): TableSheet {
	const table = asRows(file);
	const mapping = { ...guessMapping(table), ...said.mapping };
	const source: TableSource = { ...said, mapping, type: said.type ?? 'page' };
	const hasPath = source.pathFromTitle || Object.values(mapping).includes('path');
	const told: TableOddities = { skipped: [], oddCells: [] };
	const first = table.rows.slice(0, SHOWN).map(({ line }) => line);
	/** The pages of all lines that may be shown. */
	const byLine = new Map<number, Page>();
	const mayBeShown = new Set([...first, ...table.odd.slice(0, SHOWN).map(({ line }) => line)]);
	let pages = 0;
	for (const { page, line } of hasPath ? pagesOfTable(table, source, base, told) : []) {
		pages++;
		const isOdd = byLine.size < 3 * SHOWN && told.oddCells.at(-1)?.line === line;
		if (isOdd || mayBeShown.has(line)) byLine.set(line, page);
	}
	const odd = [
		...told.skipped.map(({ row }) => row),
		...told.oddCells.map(({ line }) => line),
		...table.odd.map(({ line }) => line)
	];
	const shown = new Set([...first, ...odd.slice(0, SHOWN)]);
	return {
		...{ encoding: table.encoding, format: table.format, columns: table.columns, mapping },
		...(table.delimiter && { delimiter: table.delimiter }),
		...(table.sheet !== undefined && { named: table.sheet, sheets: table.sheets ?? [] }),
		...{ rows: table.rows.length, readings: readingsOf(table, source), odd: table.odd },
		...{ pages, skipped: told.skipped, oddCells: told.oddCells },
		sheet: table.rows
			.filter(({ line }) => shown.has(line))
			.map(({ line, cells }) => ({ line, cells, ...(byLine.has(line) && { page: byLine.get(line) as Page }) }))
	};
}
