import Database from 'better-sqlite3';
import { existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { refuse, UserError, type RefusalCode } from '../../errors';
import { MEDIA_PATH, renameSeparator } from '$core';
import { MIGRATIONS } from './migrations';
import { resumeOrders } from './orders';

export type Db = Database.Database;

export interface OpenOptions {
	/** Only looks. The file must exist; one of an older version is brought up to date first, where it may be written. */
	readonly readonly?: boolean;
	/** Makes the file when it is missing; else that is an error. */
	readonly create?: boolean;
	/** How long to wait for another writer, in milliseconds. */
	readonly patience?: number;
}

export type Statement<Row = unknown> = Database.Statement<unknown[], Row>;

/** A statement's text, with the rows that it gives. */
export type Sql<Row> = string & { readonly gives?: Row };
/** Says which rows a statement gives. What stands in the database was checked on its way in. */
export const row = <Row>(text: string) => text as Sql<Row>;

/** The statements of a part of the store by their names. */
export type Prepared<S extends Readonly<Record<string, string>>> = <N extends keyof S>(
	name: N
) => Statement<S[N] extends { readonly gives?: infer Row } ? Row : unknown>;

/** The statements of a part of the store, prepared when they are first run. */
export function prepared<S extends Readonly<Record<string, string>>>(db: Db, sql: S): Prepared<S> {
	const known = new Map<keyof S, Statement>();
	return ((name: keyof S) => {
		let statement = known.get(name);
		if (!statement) known.set(name, (statement = db.prepare<unknown[]>(sql[name]!)));
		return statement;
	}) as Prepared<S>;
}

/** Opens a database file and brings it to the newest version. Throws a `UserError`. */
export function openDatabase(
	file: string,
	{ readonly = false, create = !readonly, patience = 5000 }: OpenOptions = {}
): Db {
	const path = resolve(file);
	if (!create && !existsSync(path)) throw refuse('database-missing', { path });
	if (!create && statSync(path).size === 0) throw refuse('database-empty', { path });
	let db: Db | undefined;
	try {
		if (create) mkdirSync(dirname(path), { recursive: true });
		db = readonly ? openToRead(path, patience) : new Database(path, { timeout: patience });
		db.pragma('foreign_keys = ON');
		const version = db.pragma('user_version', { simple: true }) as number;
		refuseStranger(db, version);
		if (version > MIGRATIONS.length) throw refuse('database-newer', { path, version, known: MIGRATIONS.length });
		if (readonly && version < MIGRATIONS.length) {
			db.close();
			openDatabase(path, { create: false, patience }).close();
			return openDatabase(path, { readonly, patience });
		}
		if (!readonly) {
			if (version < MIGRATIONS.length) migrate(db);
			db.pragma('journal_mode = WAL');
			db.pragma('synchronous = NORMAL');
		}
		return db;
	} catch (error) {
		db?.close();
		throw explain(error, path);
	}
}

/**
 * Reading from a log of writes needs a file beside the database, which cannot be made where nothing may be written: then
 * what is there is read into memory, if all of it is in the one file.
 */
function openToRead(path: string, timeout: number): Db {
	const db = new Database(path, { readonly: true, timeout });
	try {
		db.pragma('schema_version');
		return db;
	} catch (error) {
		db.close();
		const code = (error as { code?: string }).code ?? '';
		const isWhole = (statSync(`${path}-wal`, { throwIfNoEntry: false })?.size ?? 0) === 0;
		if (!/^SQLITE_(CANTOPEN|READONLY)/.test(code) || !isWhole) throw error;
		const bytes = readFileSync(path);
		// Bytes 18 and 19 of the header say whether there is a log: 1 for none (SQLite file format, section 1.3.3).
		bytes[18] = 1;
		bytes[19] = 1;
		return new Database(bytes, { readonly: true });
	}
}

/** A database that another program filled is left alone. */
function refuseStranger(db: Db, version: number) {
	const tables = db
		.prepare<unknown[], { n: number }>(`SELECT count(*) AS n FROM sqlite_schema WHERE type = 'table'`)
		.get()!;
	const ours = db
		.prepare<unknown[], { n: number }>(
			`SELECT count(*) AS n FROM sqlite_schema WHERE type = 'table' AND name = 'content_type'`
		)
		.get()!;
	if (tables.n > 0 && ours.n === 0) throw refuse('database-foreign', { file: db.name });
	if (version > 0 && tables.n === 0) throw refuse('database-foreign', { file: db.name });
}

/** The names of pictures of the library that a text holds, each once. */
export const mediaNamesIn = (text: string): string[] =>
	text.includes(MEDIA_PATH) ? [...new Set([...text.matchAll(MEDIA_NAME)].map(([, name]) => name as string))] : [];
const MEDIA_NAME = new RegExp(`${MEDIA_PATH}([0-9a-z][0-9a-z.-]{0,120}\\.(?:jpg|png|webp))(?![0-9a-z.-])`, 'g');

/** The first schema whose indexes may be away for a while. */
const PAUSABLE = 13;

function migrate(db: Db) {
	db.transaction(() => {
		// Read again inside: another process may have been first.
		const version = db.pragma('user_version', { simple: true }) as number;
		db.function('rename_separator', { deterministic: true }, (text) => renameSeparator(String(text)));
		db.function('media_names', { deterministic: true }, (text) => JSON.stringify(mediaNamesIn(String(text))));
		// Later migrations change indexes that stand there.
		if (version >= PAUSABLE) resumeOrders(db, 'all');
		for (let at = version; at < MIGRATIONS.length; at++) db.exec(MIGRATIONS[at] as string);
		db.pragma(`user_version = ${MIGRATIONS.length}`);
	}).immediate();
}

type DatabaseRefusal = Extract<
	RefusalCode,
	| `database-${'busy' | 'readonly' | 'cannot-be-opened' | 'is-none' | 'corrupt'}`
	| `database-disk-${string}`
	| `database-folder-${string}`
>;
type FileRefusal = Extract<
	RefusalCode,
	| `file-${'closed' | 'not-there' | 'under-file' | 'is-folder' | 'in-the-way'}`
	| `file-disk-${string}`
	| 'files-too-many'
>;

/** What the driver throws, and what the file system throws of the database's own folder. */
const OF_DATABASE = new Map<string, DatabaseRefusal>([
	['SQLITE_BUSY', 'database-busy'],
	['SQLITE_LOCKED', 'database-busy'],
	['SQLITE_READONLY', 'database-readonly'],
	['SQLITE_CANTOPEN', 'database-cannot-be-opened'],
	['SQLITE_NOTADB', 'database-is-none'],
	['SQLITE_CORRUPT', 'database-corrupt'],
	['SQLITE_FULL', 'database-disk-full'],
	['SQLITE_IOERR', 'database-disk-fails'],
	['EACCES', 'database-folder-closed'],
	['EEXIST', 'database-folder-in-the-way'],
	['ENOTDIR', 'database-folder-in-the-way'],
	['EROFS', 'database-disk-readonly']
]);

/** What the file system throws of any other file. */
const OF_FILE = new Map<string, FileRefusal>([
	['EACCES', 'file-closed'],
	['EPERM', 'file-closed'],
	['ENOENT', 'file-not-there'],
	['ENOTDIR', 'file-under-file'],
	['EISDIR', 'file-is-folder'],
	['EEXIST', 'file-in-the-way'],
	['EROFS', 'file-disk-readonly'],
	['ENOSPC', 'file-disk-full'],
	['EMFILE', 'files-too-many']
]);

/** Turns what the driver and the file system throw into a sentence; anything unknown stays as it is. */
export function explain(error: unknown, file: string): unknown {
	if (error instanceof UserError || !(error instanceof Error)) return error;
	const code = 'code' in error ? String(error.code) : '';
	const other = 'path' in error ? String(error.path) : undefined;
	// The database's own folder is made with it.
	if (other !== undefined && !resolve(file).startsWith(resolve(other))) {
		const ofFile = OF_FILE.get(code);
		return ofFile ? refuse(ofFile, { file: other }) : error;
	}
	const known = [...OF_DATABASE].find(([name]) => code === name || code.startsWith(`${name}_`));
	if (known) return refuse(known[1], { file });
	return code === 'ENOSPC' ? refuse('disk-full') : error;
}
