import Database from 'better-sqlite3';
import { mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { UserError } from '../errors';
import { renameSeparator } from '$core';
import { MIGRATIONS } from './migrations';

export type Db = Database.Database;

export interface OpenOptions {
	/** For workers that only look. The file must exist. */
	readonly readonly?: boolean;
	/** How long to wait for another writer, in milliseconds. */
	readonly patience?: number;
}

export type Statement = Database.Statement<unknown[]>;

/** The statements of a part of the store, prepared when they are first run. */
export function prepared<N extends string>(db: Db, sql: Readonly<Record<N, string>>): (name: N) => Statement {
	const known = new Map<N, Statement>();
	return (name) => {
		let statement = known.get(name);
		if (!statement) known.set(name, (statement = db.prepare<unknown[]>(sql[name])));
		return statement;
	};
}

/** Opens a database file, makes it when it is missing, and brings it to the newest version. Throws a `UserError`. */
export function openDatabase(file: string, { readonly = false, patience = 5000 }: OpenOptions = {}): Db {
	const path = resolve(file);
	let db: Db | undefined;
	try {
		if (!readonly) mkdirSync(dirname(path), { recursive: true });
		db = new Database(path, { readonly, timeout: patience });
		db.pragma('foreign_keys = ON');
		const version = db.pragma('user_version', { simple: true }) as number;
		refuseStranger(db, version);
		if (version > MIGRATIONS.length)
			throw new UserError(
				`The database ${path} was written by a newer Kephalon (version ${version}; this one knows up to ${MIGRATIONS.length}). Update Kephalon, or name another file.`
			);
		if (readonly && version < MIGRATIONS.length)
			throw new UserError(
				`The database ${path} was written by an older Kephalon, and is only read here. Bring it up to date with kephalon serve or kephalon backup, then try again.`
			);
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

/** A database that another program filled is left alone. */
function refuseStranger(db: Db, version: number) {
	const tables = db.prepare(`SELECT count(*) AS n FROM sqlite_schema WHERE type = 'table'`).get() as { n: number };
	const ours = db
		.prepare(`SELECT count(*) AS n FROM sqlite_schema WHERE type = 'table' AND name = 'content_type'`)
		.get() as { n: number };
	if (tables.n > 0 && ours.n === 0)
		throw new UserError(`The file ${db.name} is a database of another program. Name another file with --db.`);
	if (version > 0 && tables.n === 0)
		throw new UserError(`The file ${db.name} is a database of another program. Name another file with --db.`);
}

function migrate(db: Db) {
	db.transaction(() => {
		// Read again inside: another process may have been first.
		const version = db.pragma('user_version', { simple: true }) as number;
		db.function('rename_separator', { deterministic: true }, (text) => renameSeparator(String(text)));
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
	EROFS: 'cannot be made: the disk is read-only. Name another file with --db.',
	ENOSPC: 'cannot be made: the disk is full. Free some space and try again.'
};

/** Turns what the driver throws into a sentence; anything unknown stays as it is. */
export function explain(error: unknown, file: string): unknown {
	if (error instanceof UserError || !(error instanceof Error)) return error;
	const code = 'code' in error ? String(error.code) : '';
	const known = Object.keys(SENTENCES).find((name) => code === name || code.startsWith(`${name}_`));
	return known ? new UserError(`The database ${file} ${SENTENCES[known]}`) : error;
}
