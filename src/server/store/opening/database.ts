import Database from 'better-sqlite3';
import { existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { UserError } from '../../errors';
import { MEDIA_PATH, renameSeparator, ownOf } from '$core';
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
	if (!create && !existsSync(path))
		throw new UserError(`There is no database ${path}. Name it with --db, or begin one with kephalon import.`);
	if (!create && statSync(path).size === 0)
		throw new UserError(
			`The file ${path} is empty: it is no database, and was left as it is. Name another with --db, or begin one with kephalon import.`
		);
	let db: Db | undefined;
	try {
		if (create) mkdirSync(dirname(path), { recursive: true });
		db = readonly ? openToRead(path, patience) : new Database(path, { timeout: patience });
		db.pragma('foreign_keys = ON');
		const version = db.pragma('user_version', { simple: true }) as number;
		refuseStranger(db, version);
		if (version > MIGRATIONS.length)
			throw new UserError(
				`The database ${path} was written by a newer Kephalon (version ${version}; this one knows up to ${MIGRATIONS.length}). Update Kephalon, or name another file.`
			);
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
	if (tables.n > 0 && ours.n === 0)
		throw new UserError(`The file ${db.name} is a database of another program. Name another file with --db.`);
	if (version > 0 && tables.n === 0)
		throw new UserError(`The file ${db.name} is a database of another program. Name another file with --db.`);
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

const SENTENCES: Readonly<Record<string, string>> = {
	SQLITE_BUSY: 'is locked by another program. Close that program, or wait until it is done, and try again.',
	SQLITE_LOCKED: 'is locked by another program. Close that program, or wait until it is done, and try again.',
	SQLITE_READONLY: 'is read-only. Make the file and its folder writable, or name another file with --db.',
	SQLITE_CANTOPEN: 'cannot be opened. Check that the path is a file in a folder you may write to.',
	SQLITE_NOTADB: 'is not a database. Name another file with --db; this one was left as it is.',
	SQLITE_CORRUPT: 'is damaged. Restore it from a backup; it was left as it is.',
	SQLITE_FULL: 'could not grow: the disk is full. Nothing was changed. Free some space and try again.',
	SQLITE_IOERR: 'could not be read or written. Check the disk and its free space. Nothing was changed.',
	EACCES: 'cannot be made: the folder is not writable. Name another file with --db.',
	EEXIST: 'cannot be made: a file stands where its folder should be. Name another file with --db.',
	ENOTDIR: 'cannot be made: a file stands where its folder should be. Name another file with --db.',
	EROFS: 'cannot be made: the disk is read-only. Name another file with --db.'
};

/** What the file system throws of any other file. */
const FILE_SENTENCES: Readonly<Record<string, string>> = {
	EACCES: 'may not be read or written by this user. Change its rights, or name another.',
	EPERM: 'may not be read or written by this user. Change its rights, or name another.',
	ENOENT: 'is not there. Check the path.',
	ENOTDIR: 'is not there: a file stands where a folder should be. Check the path.',
	EISDIR: 'is a folder where a file should be. Check the path.',
	EEXIST: 'stands in the way. Take it away, or name another.',
	EROFS: 'lies on a disk that is read-only. Name another.',
	ENOSPC: 'could not be written: the disk is full. Free some space and try again.',
	EMFILE: 'could not be opened: too many files are open. Try again in a moment.'
};

/** Turns what the driver and the file system throw into a sentence; anything unknown stays as it is. */
export function explain(error: unknown, file: string): unknown {
	if (error instanceof UserError || !(error instanceof Error)) return error;
	const code = 'code' in error ? String(error.code) : '';
	const other = 'path' in error ? String(error.path) : undefined;
	// The database's own folder is made with it.
	if (other !== undefined && !resolve(file).startsWith(resolve(other)))
		return Object.hasOwn(FILE_SENTENCES, code) ? new UserError(`${other} ${FILE_SENTENCES[code]}`) : error;
	const known = Object.keys(SENTENCES).find((name) => code === name || code.startsWith(`${name}_`));
	const isBusy = known === 'SQLITE_BUSY' || known === 'SQLITE_LOCKED';
	if (known) return new UserError(`The database ${file} ${ownOf(SENTENCES, known)}`, 1, isBusy ? 503 : 422);
	return code === 'ENOSPC' ? new UserError('The disk is full. Free some space and try again.') : error;
}
